import { Box } from "@mui/material";
import { useMemo } from "react";
import type { Schemas } from "../api/client";
import { ligule, stem, underground } from "./details";
import { flower } from "./flower";
import { fruit, seed, sorus } from "./fruit";
import { habit } from "./habit";
import { inflorescence } from "./inflorescence";
import { leaf } from "./leaf";
import { barOf, type Drawn } from "./pen";
import { traitsOf, type Traits, type Variation } from "./traits";
import { twig } from "./twig";

/** The parts of a plate, the most telling ones of its growth form first. */
export function partsOf(traits: Traits): Drawn[] {
  const form = traits.state("growth-form");
  const parts: Drawn[] = [];
  const add = (when: boolean, make: (traits: Traits) => Drawn) => when && parts.push(make(traits));
  const hasFlower =
    !traits.lacks("flower-colour") &&
    (traits.has("flower-colour") || traits.has("corolla-form") || traits.has("floret-kinds"));
  const hasPetals = !traits.lacks("petal-number") && !traits.lacks("corolla-form");
  const isGrass = form === "grass";
  const isFern = form === "fern";
  add(true, habit);
  add(
    !isGrass &&
      (traits.has("leaf-shape") ||
        traits.has("leaf-length") ||
        traits.has("leaf-division") ||
        traits.has("leaf-margin")),
    leaf,
  );
  add(traits.has("bud-arrangement"), twig);
  add(traits.has("ligule"), ligule);
  add(isFern && traits.has("sorus-shape"), sorus);
  add(!isFern && traits.has("inflorescence-type") && traits.state("inflorescence-type") !== "single", inflorescence);
  add(!isFern && !isGrass && hasFlower && hasPetals && traits.state("inflorescence-type") !== "catkin", flower);
  add(!isFern && traits.has("fruit-type") && traits.state("fruit-type") !== "spores", fruit);
  add(
    ["hooked", "straight", "bristles"].includes(traits.state("prickles") ?? "") ||
      (form === "herb" && traits.has("stem-hairs")) ||
      (form === "climber" && traits.has("stem-section")),
    stem,
  );
  add(traits.has("seed-surface") && traits.state("fruit-type") !== "twin", seed);
  add(["bulb", "tuber", "rhizome", "runners"].includes(traits.state("underground-type") ?? ""), underground);
  // Of a fern the frond is what is looked at.
  if (isFern && parts[1]) [parts[0], parts[1]] = [parts[1], parts[0] ?? parts[1]];
  return parts.slice(0, MOST_PARTS);
}

const MOST_PARTS = 7;
const WIDTH = 640;
const HABIT = 200;
const CELL = { width: 146, height: 176 };
const LABEL = 20;

/** What can't be drawn is written small: smell, sap, sexes, feel. */
function notesOf(traits: Traits): string[] {
  const notes: string[] = [];
  const smell = traits.state("leaf-smell");
  if (smell && smell !== "none") notes.push(`✽ smells ${smell === "foul" ? "unpleasant" : `of ${smell}`}`);
  if (traits.state("twig-sap") === "milky") notes.push("◖ milky sap");
  if (traits.state("sexuality") === "dioecious") notes.push("♀ ♂ on separate plants");
  if (traits.state("leaf-substance") === "fleshy") notes.push("◍ fleshy leaves");
  if (traits.state("leaf-persistence") === "evergreen") notes.push("❄ evergreen");
  return notes;
}

/** Puts a part into a cell, as large as it fits, with its bar. */
export function Cell({
  part,
  x,
  y,
  width,
  height,
  label,
}: {
  part: Drawn;
  x: number;
  y: number;
  width: number;
  height: number;
  label?: boolean;
}) {
  const room = height - (label === false ? 0 : LABEL);
  const pad = 8;
  const [left, top, w, h] = part.box;
  const scale = Math.min((width - pad * 2) / w, (room - pad * 2) / h);
  const [offsetX, offsetY] = [x + (width - w * scale) / 2 - left * scale, y + (room - h * scale) / 2 - top * scale];
  const bar = barOf((width / scale) * 0.9);
  const barWidth = bar.length * scale;
  return (
    <g>
      {part.clipped ? (
        <svg x={x + pad} y={y + pad} width={width - pad * 2} height={room - pad * 2} viewBox={part.box.join(" ")}>
          {part.node}
        </svg>
      ) : (
        <g transform={`translate(${offsetX} ${offsetY}) scale(${scale})`}>{part.node}</g>
      )}
      {part.toScale && label !== false && (
        <g transform={`translate(${x + width / 2 - barWidth / 2 - 14} ${y + height - 12})`}>
          <path d={`M0 -3v6M0 0H${barWidth}M${barWidth} -3v6`} stroke="currentColor" strokeWidth={1.1} fill="none" />
          <text x={barWidth + 5} y={4} fontSize={11} fill="currentColor" fontFamily="inherit">
            {bar.words}
          </text>
        </g>
      )}
    </g>
  );
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

const groundSx = {
  "--plate-ground": (theme: { palette: { background: { paper: string } } }) => theme.palette.background.paper,
};

/** A taxon drawn from its own description, every part to scale with its bar. */
export function Plate({ name, description, variation = "typical", small = false, only }: Props) {
  const traits = useMemo(() => traitsOf(description, variation), [description, variation]);
  const parts = useMemo(() => (only ? only.map((make) => make(traits)) : partsOf(traits)), [traits, only]);
  const notes = small ? [] : notesOf(traits);
  const words = `${name}, drawn from its description${variation === "typical" ? "" : ` (${variation === "shade" ? "shade leaf" : variation})`}: ${parts.map((p) => p.words).join(", ")}.`;
  if (small) {
    const shown = parts.slice(0, 3);
    return (
      <Box
        component="svg"
        viewBox={`0 0 ${shown.length * 100} 110`}
        role="img"
        aria-label={words}
        sx={{ ...groundSx, display: "block", width: "100%", height: "auto", color: "text.primary" }}
      >
        {shown.map((part, i) => (
          <Cell key={i} part={part} x={i * 100} y={0} width={100} height={110} label={false} />
        ))}
      </Box>
    );
  }
  const [first, ...others] = parts;
  const columns = 3;
  const rows = Math.max(1, Math.ceil(others.length / columns));
  const height = Math.max(250, rows * CELL.height) + (notes.length > 0 ? 24 : 4);
  return (
    <Box
      component="svg"
      viewBox={`0 0 ${WIDTH} ${height}`}
      role="img"
      aria-label={`${words} ${notes.map((n) => n.slice(2)).join(", ")}`}
      sx={{
        ...groundSx,
        display: "block",
        width: "100%",
        height: "auto",
        color: "text.primary",
        bgcolor: "background.paper",
      }}
    >
      {first && <Cell part={first} x={0} y={0} width={HABIT} height={Math.max(250, rows * CELL.height)} />}
      {others.map((part, i) => (
        <Cell
          key={i}
          part={part}
          x={HABIT + (i % columns) * CELL.width}
          y={Math.floor(i / columns) * CELL.height + (rows === 1 ? (250 - CELL.height) / 2 : 0)}
          width={CELL.width}
          height={CELL.height}
        />
      ))}
      {notes.length > 0 && (
        <text x={12} y={height - 8} fontSize={12} fill="currentColor" fontFamily="inherit">
          {notes.join("     ")}
        </text>
      )}
    </Box>
  );
}
