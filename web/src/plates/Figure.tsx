import { Box } from "@mui/material";
import { memo, useMemo } from "react";
import type { Schemas } from "../api/client";
import { Cell } from "./Cell";
import { namedParts } from "./Plate";
import { plateSx } from "./plateSx";
import { traitsOf } from "./traits";

interface Props {
  name: string;
  description: Schemas["CharacterDescription"][];
  organ: Schemas["Organ"];
  /** Its side, in pixels. */
  size: number;
}

const SIDE = 100;

// A flower that isn't drawn alone stands in its inflorescence; what a taxon hasn't is drawn as the whole of it.
const instead: Partial<Record<Schemas["Organ"], Schemas["Organ"][]>> = {
  flower: ["inflorescence"],
  inflorescence: ["flower"],
  bud: ["twig"],
  twig: ["bud"],
};

/** One part of a taxon, small, as lists show it. */
export const Figure = memo(function Figure({ name, description, organ, size }: Props) {
  const part = useMemo(() => {
    const parts = namedParts(traitsOf(description));
    const wanted = [organ, ...(instead[organ] ?? [])];
    return (
      wanted.map((it) => parts.find((p) => p.organs.includes(it))).find((it) => it !== undefined) ??
      parts[1] ??
      parts[0]
    );
  }, [description, organ]);
  if (!part) return null;
  return (
    <Box
      component="svg"
      viewBox={`0 0 ${SIDE} ${SIDE}`}
      role="img"
      aria-label={`${part.part.words} of ${name}`}
      sx={{ ...plateSx, display: "block", width: size, height: size, bgcolor: "background.paper" }}
    >
      <Cell part={part.part} x={0} y={0} width={SIDE} height={SIDE} label={false} />
    </Box>
  );
});
