import { Box } from "@mui/material";
import type { Schemas } from "../../api/client";
import { dated, dayOfYear, DAYS, monthStarts, pieces, spoken } from "./day";

// Any year without 29 February: only day and month are read of it.
const FIRST = new Date(2001, 0, 1, 12);

/** A stretch of the year in words: "12 May to 3 July". */
export function windowInWords(w: Schemas["DayWindow"]): string {
  const day = (n: number) => {
    const date = new Date(FIRST);
    date.setDate(n);
    return spoken(
      `2001-${String(date.getMonth() + 1).padStart(2, "0")}-${String(date.getDate()).padStart(2, "0")}`,
    ).replace(" 2001", "");
  };
  return w.from === 1 && w.to === DAYS ? "all year" : `${day(w.from)} to ${day(w.to)}`;
}

export const windowsInWords = (windows: Schemas["DayWindow"][]) =>
  windows.length === 0 ? "never" : windows.map(windowInWords).join(", ");

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
      aria-label={`${name}: catches the eye ${windowsInWords(conspicuous)}; can be named ${windowsInWords(nameable)}.`}
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
        d={`M${dayOfYear(dated(day))} 0V34`}
        sx={{ stroke: (t) => t.palette.signal.conflict, strokeWidth: 2, vectorEffect: "non-scaling-stroke" }}
      />
    </Box>
  );
}
