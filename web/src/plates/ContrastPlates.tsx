import { Box } from "@mui/material";
import { useMemo } from "react";
import type { Schemas } from "../api/client";
import { Cell, scaleInCell } from "./Cell";
import type { Drawn } from "./pen";
import { namedParts, type NamedPart } from "./Plate";
import { plateSx } from "./plateSx";
import { traitsOf } from "./traits";

const CELL = { width: 170, height: 128 };

/** A part of several taxa, drawn to one scale where it has one. */
export interface ComparedPart {
  id: string;
  organs: Schemas["Organ"][];
  parts: (Drawn | undefined)[];
  scale?: number;
  /** Whether it has a scale at all. */
  hasScale: boolean;
  /** Whether what separates the taxa is a matter of this part. */
  differs: boolean;
}

// What is drawn, as text; what React adds while developing aside.
const drawnAs = (part: Drawn | undefined) =>
  JSON.stringify(part?.node ?? null, (key, value: unknown) =>
    key.startsWith("_") ? undefined : typeof value === "function" ? value.name : value,
  );

// One a fifth as large as another would be a dot: then each has its own scale, with its bar.
const SMALLEST = 0.2;

/** The parts of the plates of several taxa, those first that the most telling rows are about, and last those in which they are alike. */
export function useComparedParts(
  descriptions: Schemas["CharacterDescription"][][],
  separating: Schemas["Organ"][],
): ComparedPart[] {
  return useMemo(() => {
    const plates = descriptions.map((description) => namedParts(traitsOf(description)));
    const order: NamedPart[] = [];
    for (const plate of plates) for (const it of plate) if (!order.some((o) => o.id === it.id)) order.push(it);
    const compared = order.map(({ id, organs }): ComparedPart => {
      const parts = plates.map((plate) => plate.find((it) => it.id === id)?.part);
      const drawn = parts.filter((part) => part !== undefined);
      const scales = drawn.map((part) => scaleInCell(part, CELL.width, CELL.height));
      const scale = Math.min(...scales);
      const isToScale =
        drawn.length > 1 &&
        drawn.every((part) => part.toScale && !part.clipped) &&
        scale >= SMALLEST * Math.max(...scales);
      return {
        id,
        organs,
        parts,
        scale: isToScale ? scale : undefined,
        hasScale: drawn.some((part) => part.toScale),
        differs:
          drawn.length < parts.length ||
          (separating.some((organ) => organs.includes(organ)) && new Set(parts.map(drawnAs)).size > 1),
      };
    });
    const rank = (it: ComparedPart) => {
      const at = separating.findIndex((organ) => it.organs.includes(organ));
      return (it.differs ? 0 : 2 * separating.length + 2) + (at < 0 ? separating.length : at);
    };
    return compared.sort((a, b) => rank(a) - rank(b));
  }, [descriptions, separating]);
}

/** One taxon's part: in ink where the taxa differ in it, faint where they are alike. */
export function ComparedCell({ part, scale, differs }: { part: Drawn | undefined; scale?: number; differs: boolean }) {
  return (
    <Box
      component="svg"
      viewBox={`0 0 ${CELL.width} ${CELL.height}`}
      role="img"
      aria-label={part ? part.words : "hasn’t it"}
      sx={{
        ...plateSx,
        display: "block",
        width: "100%",
        maxWidth: 240,
        mx: "auto",
        height: "auto",
        opacity: differs ? 1 : 0.38,
      }}
    >
      {part ? (
        <Cell part={part} x={0} y={0} width={CELL.width} height={CELL.height} scale={scale} />
      ) : (
        <text
          x={CELL.width / 2}
          y={CELL.height / 2}
          fontSize={13}
          textAnchor="middle"
          fill="currentColor"
          fontFamily="inherit"
        >
          hasn’t it
        </text>
      )}
    </Box>
  );
}
