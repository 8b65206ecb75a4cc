import { Box, useMediaQuery, type Theme } from "@mui/material";
import { memo, useMemo } from "react";
import type { Schemas } from "../api/client";
import { ligule, stem, underground } from "./details";
import { flower } from "./flower";
import { fruit, seed, sorus } from "./fruit";
import { habit } from "./habit";
import { inflorescence } from "./inflorescence";
import { leaf } from "./leaf";
import { Cell } from "./Cell";
import { plateSx } from "./plateSx";
import { type Drawn } from "./pen";
import { stateFigure } from "./StateFigure";
import { traitsOf, type Traits, type Variation } from "./traits";
import { twig } from "./twig";

/** A part of a plate with what it is of. */
export interface NamedPart {
  id: string;
  organs: Schemas["Organ"][];
  part: Drawn;
}

/** The parts of a plate, the most telling ones of its growth form first. */
export const partsOf = (traits: Traits): Drawn[] => namedParts(traits).map((it) => it.part);

/** The same with their names and organs. */
export function namedParts(traits: Traits): NamedPart[] {
  const form = traits.state("growth-form");
  const parts: NamedPart[] = [];
  const add = (when: boolean, id: string, organs: Schemas["Organ"][], make: (traits: Traits) => Drawn) =>
    when && parts.push({ id, organs, part: make(traits) });
  const hasFlower =
    !traits.lacks("flower-colour") &&
    (traits.has("flower-colour") || traits.has("corolla-form") || traits.has("floret-kinds"));
  const hasPetals = !traits.lacks("petal-number") && !traits.lacks("corolla-form");
  const isGrass = form === "grass";
  const isFern = form === "fern";
  add(true, "plant", ["habit", "stem", "bark"], habit);
  add(
    !isGrass &&
      (traits.has("leaf-shape") ||
        traits.has("leaf-length") ||
        traits.has("leaf-division") ||
        traits.has("leaf-margin")),
    "leaf",
    ["leaf"],
    leaf,
  );
  add(traits.has("bud-arrangement"), "twig", ["twig", "bud"], twig);
  add(traits.has("ligule"), "ligule", ["leaf"], ligule);
  add(isFern && traits.has("sorus-shape"), "sori", ["fruit", "leaf"], sorus);
  add(
    !isFern && traits.has("inflorescence-type") && traits.state("inflorescence-type") !== "single",
    "inflorescence",
    ["inflorescence"],
    inflorescence,
  );
  add(
    !isFern && !isGrass && hasFlower && hasPetals && traits.state("inflorescence-type") !== "catkin",
    "flower",
    ["flower"],
    flower,
  );
  add(!isFern && traits.has("fruit-type") && traits.state("fruit-type") !== "spores", "fruit", ["fruit"], fruit);
  add(
    ["hooked", "straight", "bristles"].includes(traits.state("prickles") ?? "") ||
      (form === "herb" && traits.has("stem-hairs")) ||
      (form === "climber" && traits.has("stem-section")),
    "stem",
    ["stem"],
    stem,
  );
  add(traits.has("seed-surface") && traits.state("fruit-type") !== "twin", "seed", ["fruit"], seed);
  add(
    ["bulb", "tuber", "rhizome", "runners"].includes(traits.state("underground-type") ?? ""),
    "underground",
    ["underground"],
    underground,
  );
  // Of a fern the frond is what is looked at.
  if (isFern && parts[1]) [parts[0], parts[1]] = [parts[1], parts[0] ?? parts[1]];
  return parts.slice(0, MOST_PARTS);
}

const MOST_PARTS = 7;
// A phone has room for two parts beside the plant, a page for three; letters keep their size.
const wide = { width: 640, habit: 200, columns: 3, cell: { width: 146, height: 176 }, least: 250 };
const narrow = { width: 372, habit: 150, columns: 2, cell: { width: 111, height: 140 }, least: 200 };
const MOST_LETTERS = 14;

// What no part of the plate shows is annotated: a small figure with a word, organ by organ.
const annotated: { id: string; organ: string; word: string; silent?: string[] }[] = [
  { id: "life-span", organ: "habit", word: "" },
  { id: "leaf-arrangement", organ: "leaf", word: "leaves" },
  { id: "leaf-persistence", organ: "leaf", word: "" },
  { id: "leaf-smell", organ: "leaf", word: "smell:", silent: ["none"] },
  { id: "leaf-substance", organ: "leaf", word: "leaf", silent: ["thin"] },
  { id: "leaf-size-trend", organ: "leaf", word: "leaf size" },
  { id: "twig-sap", organ: "twig", word: "sap" },
  { id: "bark-texture", organ: "bark", word: "bark" },
  { id: "bark-colour", organ: "bark", word: "bark" },
  { id: "suckers", organ: "underground", word: "" },
  { id: "sexuality", organ: "flower", word: "" },
  { id: "catkin-time", organ: "inflorescence", word: "catkins" },
  { id: "stamen-place", organ: "flower", word: "stamens", silent: ["inside"] },
  { id: "calyx-form", organ: "flower", word: "calyx" },
  { id: "fruit-colour", organ: "fruit", word: "fruit" },
  { id: "fruit-condition", organ: "fruit", word: "fruit", silent: ["formed"] },
  { id: "underground-type", organ: "underground", word: "" },
  { id: "stem-interior", organ: "stem", word: "stem" },
  { id: "stem-section", organ: "stem", word: "stem" },
  { id: "climbing-organ", organ: "stem", word: "", silent: ["none"] },
  { id: "habitat-kind", organ: "site", word: "" },
  { id: "ground-wetness", organ: "site", word: "ground" },
  { id: "soil-reaction", organ: "site", word: "soil" },
];

const MOST_NOTES = 12;
const NOTE = { width: 74, height: 74 };

interface Note {
  words: string;
  part: Drawn;
}

// Ids of states as words where they don't say it themselves.
const wordOf: Record<string, string> = {
  "no-suckers": "no suckers",
  foul: "unpleasant",
  slack: "dune slack",
  marsh: "salt marsh",
  dioecious: "two sexes apart",
  bisexual: "both sexes",
  monoecious: "sexes apart on one plant",
};

/** What can't be drawn to scale: smell, sap, sexes, ground. */
function notesOf(traits: Traits, parts: Drawn[]): Note[] {
  const notes: Note[] = [];
  const shows = (words: string) => parts.some((part) => part.words.startsWith(words));
  // What a part of the plate shows already is left out.
  const shown = new Set([
    ...(shows("piece of stem") ? ["stem-interior", "stem-section"] : []),
    ...(shows("underground") ? ["underground-type"] : []),
    ...(shows("fruit") && !["plumed", "grain"].includes(traits.state("fruit-type") ?? "") ? ["fruit-colour"] : []),
  ]);
  for (const it of annotated.filter((a) => !shown.has(a.id))) {
    const state = traits.state(it.id);
    if (!state || it.silent?.includes(state)) continue;
    const part = stateFigure(it, state);
    if (part) notes.push({ part, words: `${it.word} ${wordOf[state] ?? state.replace(/-/g, " ")}`.trim() });
  }
  return notes.slice(0, MOST_NOTES);
}

interface Props {
  name: string;
  description: Schemas["CharacterDescription"][];
  variation?: Variation;
  /** Only the likeliest parts, small: for lists. */
  small?: boolean;
  /** Parts to draw, where not all are wanted. */
  only?: ((traits: Traits) => Drawn)[];
}

/** A taxon drawn from its own description, every part to scale with its bar. */
export const Plate = memo(PlatePlain);

// Parts of a small plate.
const MOST_SMALL = 3;

function PlatePlain({ name, description, variation = "typical", small = false, only }: Props) {
  const traits = useMemo(() => traitsOf(description, variation), [description, variation]);
  const parts = useMemo(() => (only ? only.map((make) => make(traits)) : partsOf(traits)), [traits, only]);
  const isNarrow = useMediaQuery((theme: Theme) => theme.breakpoints.down("sm"));
  const { width, habit: habitWidth, columns, cell, least } = isNarrow ? narrow : wide;
  // The same for every variation: worked out and drawn once.
  const notes = useMemo(() => {
    const typical = traitsOf(description);
    return small || only ? [] : notesOf(typical, partsOf(typical));
  }, [small, only, description]);
  const perRow = Math.floor(width / NOTE.width);
  const strip = useMemo(
    () =>
      notes.map((note, i) => {
        const [x, y] = [(i % perRow) * NOTE.width, Math.floor(i / perRow) * NOTE.height];
        return (
          <g key={note.words + i}>
            <Cell
              part={note.part}
              x={x + 6}
              y={y + 2}
              width={NOTE.width - 12}
              height={NOTE.height - 24}
              label={false}
            />
            <text
              x={x + NOTE.width / 2}
              y={y + NOTE.height - 10}
              fontSize={9.5}
              textAnchor="middle"
              fill="currentColor"
              fontFamily="inherit"
            >
              {note.words.length > MOST_LETTERS ? `${note.words.slice(0, MOST_LETTERS - 1)}…` : note.words}
            </text>
          </g>
        );
      }),
    [notes, perRow],
  );
  const words = `${name}, drawn from its description${variation === "typical" ? "" : ` (${variation === "shade" ? "shade leaf" : variation})`}: ${parts.map((p) => p.words).join(", ")}.`;
  if (small) {
    const shown = parts.slice(0, MOST_SMALL);
    return (
      <Box
        component="svg"
        // As wide with one part as with three: lines of a list are of one height, before they are drawn and after.
        viewBox={`0 0 ${MOST_SMALL * 100} 110`}
        role="img"
        aria-label={words}
        sx={{ ...plateSx, display: "block", width: "100%", height: "auto" }}
      >
        {shown.map((part, i) => (
          <Cell key={i} part={part} x={i * 100} y={0} width={100} height={110} label={false} />
        ))}
      </Box>
    );
  }
  const [first, ...others] = parts;
  const rows = Math.max(1, Math.ceil(others.length / columns));
  const drawn = Math.max(least, rows * cell.height);
  const height = drawn + Math.ceil(notes.length / perRow) * NOTE.height + 4;
  return (
    <Box
      component="svg"
      viewBox={`0 0 ${width} ${height}`}
      role="img"
      aria-label={notes.length > 0 ? `${words} Noted beside: ${notes.map((n) => n.words).join(", ")}.` : words}
      sx={{
        ...plateSx,
        display: "block",
        width: "100%",
        height: "auto",
        bgcolor: "background.paper",
      }}
    >
      {first && <Cell part={first} x={0} y={0} width={habitWidth} height={drawn} />}
      {others.map((part, i) => (
        <Cell
          key={i}
          part={part}
          x={habitWidth + (i % columns) * cell.width}
          y={Math.floor(i / columns) * cell.height + (rows === 1 ? (least - cell.height) / 2 : 0)}
          width={cell.width}
          height={cell.height}
        />
      ))}
      {notes.length > 0 && <path d={`M12 ${drawn}H${width - 12}`} stroke="currentColor" strokeOpacity={0.3} />}
      <g transform={`translate(0 ${drawn})`}>{strip}</g>
    </Box>
  );
}
