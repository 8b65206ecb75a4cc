import { Box } from "@mui/material";
import type { Schemas } from "../../api/client";
import { dayOfYear, DAYS, monthStarts, pieces } from "./day";

/** When something can be seen: the year as a band, its months ticked, today a line. */
export function YearBand({ windows, today }: { windows: Schemas["DayWindow"][]; today: string }) {
  const parts = pieces(windows).map((w) => [w.from - 1, w.to] as const);
  return (
    <Box
      component="svg"
      viewBox={`0 0 ${DAYS} 22`}
      preserveAspectRatio="none"
      aria-hidden="true"
      sx={{ width: "100%", maxWidth: 260, height: 18, display: "block" }}
    >
      <Box
        component="rect"
        x={0.5}
        y={5}
        width={DAYS - 1}
        height={12}
        sx={{ fill: "transparent", stroke: "currentColor", strokeOpacity: 0.5, vectorEffect: "non-scaling-stroke" }}
      />
      {parts.map(([from, to]) => (
        <Box
          component="rect"
          key={from}
          x={from}
          y={5}
          width={to - from}
          height={12}
          sx={{ fill: (theme) => theme.palette.signal.support, opacity: 0.75 }}
        />
      ))}
      {monthStarts.slice(1).map((at) => (
        <line
          key={at}
          x1={at}
          x2={at}
          y1={13}
          y2={17}
          stroke="currentColor"
          strokeOpacity={0.6}
          vectorEffect="non-scaling-stroke"
        />
      ))}
      <Box
        component="line"
        x1={dayOfYear(today)}
        x2={dayOfYear(today)}
        y1={0}
        y2={22}
        sx={{ stroke: (theme) => theme.palette.signal.conflict, strokeWidth: 2, vectorEffect: "non-scaling-stroke" }}
      />
    </Box>
  );
}
