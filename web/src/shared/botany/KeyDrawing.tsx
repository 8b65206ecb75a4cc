import { Box } from "@mui/material";
import { memo } from "react";
import type { Schemas } from "../../api/client";

interface Props {
  title: string;
  nodes: Schemas["KeyNode"][];
  /** Labels of the couplets that can't be answered today. */
  blocked?: string[];
  size?: { width: number; height: number };
}

const SIZE = { width: 132, height: 58 };
const EDGE = 5;

/** A key as it branches: couplets from the top down, taxa as dots, other keys as open squares, what the season blocks crossed. */
export const KeyDrawing = memo(function KeyDrawing({ title, nodes, blocked = [], size = SIZE }: Props) {
  const deepest = Math.max(1, ...nodes.map((it) => it.depth));
  const x = (it: Schemas["KeyNode"]) => EDGE + it.at * (size.width - 2 * EDGE);
  const y = (it: Schemas["KeyNode"]) => EDGE + (it.depth / deepest) * (size.height - 2 * EDGE);
  const couplets = nodes.filter((it) => it.kind === "couplet");
  const isBlocked = (it: Schemas["KeyNode"]) => it.kind === "couplet" && blocked.includes(it.label);
  const words = `The shape of ${title}: ${couplets.length} couplets${
    nodes.some((it) => it.kind === "key") ? ", with hand-overs" : ""
  }${blocked.length > 0 ? `; ${couplets.filter(isBlocked).length} can’t be answered now` : ""}`;
  return (
    <Box
      component="svg"
      viewBox={`0 0 ${size.width} ${size.height}`}
      role="img"
      aria-label={words}
      sx={{ flex: "none", width: size.width, height: size.height, display: "block", overflow: "visible" }}
    >
      <g fill="none" stroke="currentColor" strokeWidth={1.1} strokeOpacity={0.75}>
        {nodes.map((it, i) => {
          const from = nodes[it.from];
          return from && <path key={i} d={`M${x(from)} ${y(from)}L${x(it)} ${y(it)}`} />;
        })}
      </g>
      {nodes.map((it, i) =>
        isBlocked(it) ? (
          <Box
            component="path"
            key={i}
            d={`M${x(it) - 4} ${y(it) - 4}l8 8m0 -8l-8 8`}
            sx={{ stroke: (theme) => theme.palette.signal.conflict, strokeWidth: 2.2 }}
          />
        ) : it.kind === "taxon" ? (
          <circle key={i} cx={x(it)} cy={y(it)} r={2} fill="currentColor" />
        ) : it.kind === "key" ? (
          <Box
            component="rect"
            key={i}
            x={x(it) - 3}
            y={y(it) - 3}
            width={6}
            height={6}
            sx={{ fill: (theme) => theme.palette.background.default, stroke: "currentColor", strokeWidth: 1.3 }}
          />
        ) : null,
      )}
    </Box>
  );
});
