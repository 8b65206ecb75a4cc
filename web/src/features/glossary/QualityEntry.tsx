import { Box, Typography } from "@mui/material";
import { useEffect, useRef } from "react";
import type { Schemas } from "../../api/client";
import { qualityOf } from "../../plates/qualities";
import { StateFigure } from "../../plates/drawn";
import { HowToLook } from "../../shared/botany/CharacterEntry";

type State = Schemas["QualityState"];

interface Props {
  character: Schemas["Character"];
  /** The state that was looked for. */
  marked?: string;
  vocabulary: Schemas["Vocabulary"];
  /** Whether it is one of many, and isn't gone to. */
  isListed?: boolean;
}

/** A quality of a part: how it is looked at, and its states drawn on that part, kinds below what they are kinds of. */
export function QualityEntry({ character, marked, vocabulary, isListed }: Props) {
  const top = useRef<HTMLDivElement>(null);
  useEffect(() => {
    if (isListed) return;
    top.current?.scrollIntoView({ block: "nearest" });
    top.current?.focus({ preventScroll: true });
  }, [character.id, isListed]);
  const quality = vocabulary.qualities.find((it) => it.id === qualityOf(character.id));
  const states = quality?.states.filter((it) => !it.replacedBy) ?? [];
  return (
    <Box
      component="section"
      aria-label={character.name}
      ref={top}
      tabIndex={-1}
      sx={{ borderTop: 2, borderColor: "rule", mt: 2, pt: 1.5, outline: "none" }}
    >
      <Typography variant="h2">{character.name}</Typography>
      <HowToLook character={character} />
      <Typography variant="body2" color="text.secondary">
        In tables: <code>{character.id}</code>
      </Typography>
      <Kinds of="" states={states} character={character} marked={marked} />
    </Box>
  );
}

function Kinds({
  of,
  states,
  character,
  marked,
}: {
  of: string;
  states: State[];
  character: Schemas["Character"];
  marked?: string;
}) {
  const own = states.filter((it) => it.broader === of);
  if (own.length === 0) return null;
  const isTop = of === "";
  return (
    <Box
      component="ul"
      sx={{
        listStyle: "none",
        p: 0,
        pl: isTop ? 0 : 3,
        m: 0,
        borderLeft: isTop ? 0 : 2,
        borderColor: "rule",
        display: "grid",
        gridTemplateColumns: isTop ? { xs: "1fr", lg: "1fr 1fr" } : "1fr",
        columnGap: 3,
      }}
    >
      {own.map((state) => (
        <Box component="li" key={state.id} sx={{ py: 0.75 }}>
          <OneState state={state} states={states} character={character} isMarked={state.id === marked} />
          <Kinds of={state.id} states={states} character={character} marked={marked} />
        </Box>
      ))}
    </Box>
  );
}

function OneState({
  state,
  states,
  character,
  isMarked,
}: {
  state: State;
  states: State[];
  character: Schemas["Character"];
  isMarked: boolean;
}) {
  const others = state.terms.filter((term) => term.toLowerCase() !== state.name.toLowerCase());
  const near = states.find((it) => it.id === state.near);
  return (
    <Box
      sx={{ display: "flex", gap: 1.5, alignItems: "flex-start", bgcolor: isMarked ? "signal.chosenWash" : undefined }}
    >
      <StateFigure character={character} state={state.id} size={72} />
      <Box sx={{ minWidth: 0 }}>
        <Typography sx={{ fontWeight: 600 }}>{state.name}</Typography>
        <Typography variant="body2">{state.definition}</Typography>
        {others.length > 0 && (
          <Typography variant="body2" color="text.secondary">
            also: {others.join(", ")}
          </Typography>
        )}
        {near && (
          <Typography variant="body2" sx={{ display: "flex", alignItems: "center", gap: 0.75 }}>
            <StateFigure character={character} state={near.id} size={32} />
            <span>
              easily confused with <strong>{near.name}</strong>: {near.definition}
            </span>
          </Typography>
        )}
      </Box>
    </Box>
  );
}
