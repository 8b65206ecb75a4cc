import { Box, ButtonBase, Typography } from "@mui/material";
import { useMemo, useState } from "react";
import type { Schemas } from "../../api/client";
import { core } from "../../core/coreClient";
import { useAsked } from "../../offline/flora";
import { qualityOf } from "../../plates/qualities";
import { QuietButton } from "../../shared/ui/QuietButton";
import type { Character } from "./sheet";

// The faces of what is flat.
const FACES = [
  ["", "all of it"],
  ["above", "above"],
  ["beneath", "beneath"],
] as const;

// The parts that are shown before all of them are asked for.
const FIRST_PARTS = 14;

interface Props {
  organ: Schemas["Organ"];
  vocabulary: Schemas["Vocabulary"];
  onPick: (character: Character) => void;
  label?: string;
}

/** A part of an organ, then what can be said of it. */
export function PartPicker({ organ, vocabulary, onPick, label = "Or choose the part:" }: Props) {
  const [all, setAll] = useState(false);
  const [part, setPart] = useState<Schemas["Part"]>();
  const parts = useMemo(
    () =>
      vocabulary.parts.filter((it) => it.organ === organ && !it.replacedBy && (it.parent || it.owners.length === 0)),
    [vocabulary, organ],
  );
  const owned = useMemo(() => ownedBy(vocabulary, part), [vocabulary, part]);
  const [within, setWithin] = useState<Schemas["Part"]>();
  const path = part && (within ? `${part.id}/${within.id}` : part.id);
  const [region, setRegion] = useState("");
  const question = useMemo(() => (path ? { part: path, region } : undefined), [path, region]);
  const [picked, setPicked] = useState<string>();
  const { answer, of } = useAsked(question, core.partQualities);
  const qualities = of?.part === path && of?.region === region ? (answer ?? []) : [];
  const choose = (next: Schemas["Part"]) => {
    setPart(part?.id === next.id ? undefined : next);
    setWithin(undefined);
    setRegion("");
    setPicked(undefined);
  };
  const nameOf = (character: Character) =>
    vocabulary.qualities.find((it) => it.id === qualityOf(character.id))?.name ?? character.name;
  return (
    <Box sx={{ display: "grid", gap: 1 }}>
      <Typography>{part ? part.definition : label}</Typography>
      <Chips label="Parts">
        {(part ? [part] : all ? parts : parts.slice(0, FIRST_PARTS)).map((it) => (
          <Chip key={it.id} on={part?.id === it.id} title={it.definition} onClick={() => choose(it)}>
            {it.nouns[0]}
          </Chip>
        ))}
        {part && (
          <QuietButton name="Another part" onClick={() => choose(part)}>
            Another part
          </QuietButton>
        )}
        {!part && !all && parts.length > FIRST_PARTS && (
          <QuietButton name={`All ${parts.length} parts`} onClick={() => setAll(true)}>
            {`All ${parts.length} parts`}
          </QuietButton>
        )}
      </Chips>
      {part && (
        <>
          <Typography>What of it?</Typography>
          {part.class === "blade" && !within && (
            <Chips label="Face">
              {FACES.map(([id, text]) => (
                <Chip key={id} on={region === id} title={text} onClick={() => setRegion(id)}>
                  {text}
                </Chip>
              ))}
            </Chips>
          )}
          <Chips label={`What the ${part.nouns[0]} has`}>
            {(picked ? [] : owned).map((it) => (
              <Chip
                key={it.id}
                on={within?.id === it.id}
                title={it.definition}
                onClick={() => setWithin(within?.id === it.id ? undefined : it)}
              >
                its {it.nouns[1] ?? it.nouns[0]}
              </Chip>
            ))}
          </Chips>
          <Chips label="Qualities">
            {qualities
              .filter((it) => !picked || it.id === picked)
              .map((it) => (
                <Chip
                  key={it.id}
                  on={it.id === picked}
                  name={it.name}
                  title={it.definition}
                  onClick={() => {
                    setPicked(it.id);
                    onPick(it);
                  }}
                >
                  {nameOf(it)}
                </Chip>
              ))}
            {picked && (
              <QuietButton name="Another quality" onClick={() => setPicked(undefined)}>
                Another quality
              </QuietButton>
            )}
          </Chips>
        </>
      )}
    </Box>
  );
}

// Parts that many have, such as glands: those that this one can have.
function ownedBy(vocabulary: Schemas["Vocabulary"], part: Schemas["Part"] | undefined): Schemas["Part"][] {
  if (!part) return [];
  const line = new Set([part.id]);
  for (let at = part; at.parent;) {
    const whole = vocabulary.parts.find((it) => it.id === at.parent);
    if (!whole || line.has(whole.id) || whole.class !== part.class) break;
    line.add(whole.id);
    at = whole;
  }
  return vocabulary.parts.filter(
    (it) => !it.replacedBy && it.id !== part.id && it.owners.some((owner) => owner === "any" || line.has(owner)),
  );
}

function Chips({ label, children }: { label: string; children: React.ReactNode }) {
  return (
    <Box role="group" aria-label={label} sx={{ display: "flex", flexWrap: "wrap", gap: 0.75 }}>
      {children}
    </Box>
  );
}

interface ChipProps {
  on: boolean;
  /** What it is called aloud, where that is more than it shows. */
  name?: string;
  title: string;
  onClick: () => void;
  children: React.ReactNode;
}

function Chip({ on, name, title, onClick, children }: ChipProps) {
  return (
    <ButtonBase
      onClick={onClick}
      aria-pressed={on}
      aria-label={name}
      title={title}
      sx={{
        border: on ? 2 : 1,
        borderColor: on ? "primary.main" : "text.secondary",
        bgcolor: on ? "signal.chosenWash" : "background.paper",
        minHeight: 44,
        px: 1.25,
        fontSize: "1rem",
        fontWeight: on ? 700 : 400,
      }}
    >
      {children}
    </ButtonBase>
  );
}
