import { Box } from "@mui/material";
import type { Schemas } from "../../api/client";
import { dayOfYear, DAYS, monthStarts, pieces, windowsInWords } from "./day";

interface Props {
  /** When it can be named: the lower, solid band. */
  nameable: Schemas["DayWindow"][];
  /** When it catches the eye: the upper, open band. */
  conspicuous: Schemas["DayWindow"][];
  day: string;
  name: string;
}

/** The year of a taxon in two bands: above, when it catches the eye; below, when what it shows names it. */
export function TaxonYear({ nameable, conspicuous, day, name }: Props) {
  return (
    <Box
      component="svg"
      viewBox={`0 0 ${DAYS} 34`}
      preserveAspectRatio="none"
      role="img"
      aria-label={`${name}: conspicuous ${windowsInWords(conspicuous)}; can be named ${windowsInWords(nameable)}.`}
      sx={{ width: "100%", height: 34, display: "block", color: "text.primary" }}
    >
      {monthStarts.map((at) => (
        <path key={at} d={`M${at} 1V33`} stroke="currentColor" strokeOpacity={0.18} vectorEffect="non-scaling-stroke" />
      ))}
      {pieces(conspicuous).map((w) => (
        <Box
          component="rect"
          key={`c${w.from}`}
          x={w.from - 1}
          y={4}
          width={w.to - w.from + 1}
          height={10}
          sx={{
            fill: (t) => t.palette.signal.openWash,
            stroke: (t) => t.palette.signal.open,
            vectorEffect: "non-scaling-stroke",
          }}
        />
      ))}
      {pieces(nameable).map((w) => (
        <Box
          component="rect"
          key={`n${w.from}`}
          x={w.from - 1}
          y={19}
          width={w.to - w.from + 1}
          height={10}
          sx={{ fill: (t) => t.palette.signal.support }}
        />
      ))}
      <Box
        component="path"
        d={`M${dayOfYear(day)} 0V34`}
        sx={{ stroke: (t) => t.palette.signal.conflict, strokeWidth: 2, vectorEffect: "non-scaling-stroke" }}
      />
    </Box>
  );
}
