import { Box } from "@mui/material";
import { lazy, Suspense, type ComponentProps } from "react";
import type { Figure as FigureOf } from "./Figure";
import type { Plate as PlateOf } from "./Plate";
import type { StateFigure as StateFigureOf } from "./StateFigure";

// The drawings are a tenth of the program: a page stands before they are there, with their room kept.

const LateStateFigure = lazy(() => import("./StateFigure").then((it) => ({ default: it.StateFigure })));
const LatePlate = lazy(() => import("./Plate").then((it) => ({ default: it.Plate })));
const LateFigure = lazy(() => import("./Figure").then((it) => ({ default: it.Figure })));

const STATE_SIZE = 64;

/** A state on a plain plant. */
export function StateFigure(props: ComponentProps<typeof StateFigureOf>) {
  const size = props.size ?? STATE_SIZE;
  return (
    <Suspense
      fallback={<Box component="span" sx={{ display: "inline-block", flex: "none", width: size, height: size }} />}
    >
      <LateStateFigure {...props} />
    </Suspense>
  );
}

/** A taxon drawn from its description. */
export function Plate(props: ComponentProps<typeof PlateOf>) {
  return (
    <Suspense fallback={<Box sx={{ width: "100%", aspectRatio: props.small ? "3 / 1.1" : "640 / 430" }} />}>
      <LatePlate {...props} />
    </Suspense>
  );
}

/** One part of a taxon, small. */
export function Figure(props: ComponentProps<typeof FigureOf>) {
  return (
    <Suspense fallback={<Box sx={{ width: props.size, height: props.size }} />}>
      <LateFigure {...props} />
    </Suspense>
  );
}
