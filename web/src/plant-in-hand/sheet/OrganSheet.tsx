import words from "../../api/words";
import { Box, Button, Typography } from "@mui/material";
import { startTransition, useCallback, useEffect, useMemo, useRef, useState } from "react";
import type { Schemas } from "../../api/client";

import type { PlantInHand } from "../../offline/store";

import { CalibrateDialog } from "./CalibrateDialog";
import { MannerLine } from "./MannerLine";

import { useLookWords } from "./lookWords";
import { holding, newLook, plainManner, withLook, type Character, type Observation } from "./sheet";
import { CharacterRow } from "./CharacterRow";
import { SomethingElse, type NewLook } from "./SomethingElse";
import { useComposed } from "../../offline/vocabulary";

interface Props {
  organ: Schemas["Organ"];
  walk: PlantInHand;
  characters: Character[];
  lines: Schemas["SheetLine"][];
  /** Characters that the couplet on the table speaks of. */
  asked: Set<string>;
  /** Characters that can be seen on the day. */
  seenNow: (character: Character) => boolean;
  focus?: string;
  /** What asks for it, in words. */
  askedBy?: string;
  /** What the way back is called. */
  backTo: string;
  onChange: (walk: PlantInHand) => void;
  onBack: () => void;
}

const ROWS_AT_ONCE = 2;

const NONE_KEPT: string[] = [];

const NO_LOOKS: Observation[] = [];

/** The evidence sheet of one organ: a tap on a state records it. */
export function OrganSheet({
  organ,
  walk,
  characters,
  lines,
  asked,
  seenNow,
  focus,
  askedBy,
  backTo,
  onChange,
  onBack,
}: Props) {
  const [calibrating, setCalibrating] = useState(false);
  // Escape leads back wherever the sheet stands; in a dialog or a list it closes that.
  useEffect(() => {
    const onKey = (event: KeyboardEvent) => {
      if (event.key !== "Escape" || event.defaultPrevented) return;
      if (event.target instanceof HTMLElement && event.target.closest("[role=dialog], [role=listbox]")) return;
      event.preventDefault();
      onBack();
    };
    window.addEventListener("keydown", onKey);
    return () => window.removeEventListener("keydown", onKey);
  });
  const manner = walk.manner ?? plainManner;
  // What was looked at besides what the flora asks for: characters made of part and quality. What was picked stands first.
  const [picked, setPicked] = useState<Character[]>([]);
  const ordered = [...characters].sort((a, b) => rank(b) - rank(a));
  function rank(character: Character) {
    return (
      (picked.some((it) => it.id === character.id) ? 8 : 0) +
      (character.id === focus ? 4 : 0) +
      (asked.has(character.id) ? 2 : 0) +
      (seenNow(character) ? 1 : 0)
    );
  }
  // A few rows at a time, so that a tap never waits for those further down.
  const [drawn, setDrawn] = useState(ROWS_AT_ONCE);
  useEffect(() => {
    if (drawn >= characters.length) return;
    const next = setTimeout(() => startTransition(() => setDrawn((n) => n + ROWS_AT_ONCE)));
    return () => clearTimeout(next);
  }, [drawn, characters.length]);
  // Rows are drawn anew only where something of theirs has changed: what they need of the plant is asked for when it is tapped.
  const latest = useRef({ walk, onChange, characters });
  useEffect(() => {
    latest.current = { walk, onChange, characters };
  });
  const onSet = useCallback((character: string, part: Partial<Observation> | undefined, before?: Observation) => {
    const { walk: now, onChange: change } = latest.current;
    change(withLook(now, part && newLook(now, character, part), before));
  }, []);
  const onRecord = useCallback((looks: NewLook[]) => {
    const { walk: before, onChange: change, characters: listed } = latest.current;
    change(
      looks.reduce((now, { character, part, age }) => {
        const look = newLook(now, asListed(listed, character, part.states).id, part);
        return withLook(now, age && age !== "unsaid" ? { ...look, context: { ...look.context, age } } : look);
      }, before),
    );
  }, []);
  const held = holding(walk.observations ?? NO_LOOKS);
  const composed = useComposed(held.map((o) => o.character));
  const others = [...picked, ...composed].filter(
    (c, i, all) =>
      c.organ === organ && !characters.some((own) => own.id === c.id) && all.findIndex((it) => it.id === c.id) === i,
  );
  const named = new Set(characters.map((it) => it.name));
  const shown = useMemo(() => [...characters, ...composed, ...picked], [characters, composed, picked]);
  const said = useLookWords(walk.observations ?? NO_LOOKS, shown);
  const kept = walk.keptIds ?? NONE_KEPT;
  const row = (character: Character) => (
    <CharacterRow
      key={character.id}
      character={character}
      looks={held.filter((o) => o.character === character.id)}
      kept={kept}
      said={said}
      date={walk.form.date}
      manner={manner}
      line={lines.filter((l) => l.character === character.id)}
      asked={asked.has(character.id) ? (askedBy ?? "asked for by the couplet") : undefined}
      seenNow={seenNow(character)}
      onSet={onSet}
    />
  );
  return (
    <Box component="section" aria-labelledby="organ">
      <Box sx={{ display: "flex", alignItems: "center", gap: 1.5, flexWrap: "wrap", mb: 1 }}>
        <Typography variant="h1" component="h2" id="organ" sx={{ flex: 1 }}>
          {words.organs[organ]}
        </Typography>
        {characters.some((c) => c.kind === "length") && (
          <Button onClick={() => setCalibrating(true)}>Coin, card, thumb …</Button>
        )}
        <Button variant="contained" onClick={onBack} aria-keyshortcuts="Escape">
          {backTo}
        </Button>
      </Box>
      <MannerLine manner={manner} onChange={(next) => onChange({ ...walk, manner: next })} />
      <SomethingElse
        organ={organ}
        onPick={(character) => {
          const own = asListed(characters, character);
          setPicked((before) => [own, ...before.filter((c) => c.id !== own.id)]);
        }}
        onRecord={onRecord}
      />
      {others.map((it) => row(named.has(it.name) ? { ...it, name: `${it.name}, besides the list` } : it))}
      {ordered.slice(0, drawn).map(row)}
      {calibrating && <CalibrateDialog onClose={() => setCalibrating(false)} />}
    </Box>
  );
}

/** The character of the flora's own list that is called the same, where it has the states; else the character itself. */
function asListed(listed: Character[], character: Character, states: string[] = []): Character {
  const own = listed.find((it) => it.name === character.name && it.kind === character.kind);
  return own && states.every((state) => own.states.some((it) => it.id === state)) ? own : character;
}
