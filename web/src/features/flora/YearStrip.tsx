import { Box } from "@mui/material";
import type { Schemas } from "../../api/client";
import words from "../../api/words";
import { dayOfYear, DAYS, months, monthStarts, pieces } from "../../shared/calendar/day";

const rows: { row: keyof typeof words.yearRows; color: string; organ: string }[] = [
  { row: "bud", color: "text.secondary", organ: "M0 5q-3 -5 0 -10q3 5 0 10M0 5v2" },
  { row: "leaf", color: "signal.support", organ: "M0 6v-2q-6 -3 -3 -10q7 2 3 10" },
  {
    row: "flower",
    color: "signal.open",
    organ: "M0 0q-3 -3 0 -6q3 3 0 6q4 -1 5 3q-4 1 -5 -3q1 4 -3 5q-2 -3 3 -5M0 0q-4 -3 -6 0q2 3 6 0",
  },
  { row: "fruit", color: "signal.conflict", organ: "M0 -6v3M-4 1a4 4 0 1 0 8 0a4 4 0 1 0 -8 0" },
];

const YEAR = 312;
const LEFT = 74;
const ROW = 24;

/** The year of a taxon: a row for each organ, today marked. */
export function YearStrip({ year, today }: { year: Schemas["YearSpan"][]; today: string }) {
  const shown = rows.flatMap((row) => {
    const phases: string[] = words.yearRows[row.row];
    const spans = year.filter((span) => phases.includes(span.phase));
    return spans.length > 0 ? [{ ...row, spans }] : [];
  });
  if (shown.length === 0) return null;
  const said = shown.map((row) => `${row.row} ${row.spans.map((span) => span.inWords).join(", ")}`).join("; ");
  const height = 18 + shown.length * ROW + 6;
  const x = (day: number) => LEFT + ((day - 1) / DAYS) * YEAR;
  const letters = months("narrow");
  return (
    <Box
      component="svg"
      viewBox={`0 0 ${LEFT + YEAR + 6} ${height}`}
      role="img"
      aria-label={`The year: ${said}.`}
      sx={{ display: "block", width: "100%", maxWidth: 460, height: "auto", color: "text.primary" }}
    >
      {letters.map((month, m) => (
        <g key={m}>
          <text x={x((monthStarts[m] ?? 0) + 16)} y={12} fontSize={11} textAnchor="middle" fill="currentColor">
            {month}
          </text>
          <path d={`M${x((monthStarts[m] ?? 0) + 1)} 16V${height - 4}`} stroke="currentColor" strokeOpacity={0.25} />
        </g>
      ))}
      <Box
        component="path"
        d={`M${x(dayOfYear(today))} 16V${height - 6}`}
        sx={{ stroke: (theme) => theme.palette.signal.open, strokeWidth: 6, strokeOpacity: 0.45 }}
      />
      <path d={`M${x(dayOfYear(today)) - 4} ${height - 1}l4 -5l4 5Z`} fill="currentColor" />
      {shown.map((row, r) => {
        const y = 18 + r * ROW + ROW / 2;
        return (
          <Box component="g" key={row.row} sx={{ color: row.color }}>
            <g transform={`translate(12 ${y}) scale(1.1)`}>
              <path d={row.organ} fill="none" stroke="currentColor" strokeWidth={1.4} strokeLinejoin="round" />
            </g>
            <text x={26} y={y + 4} fontSize={12} fill="currentColor" fontWeight={600}>
              {row.row}
            </text>
            {pieces(row.spans.map((span) => span.window)).map((w) => (
              <rect
                key={w.from}
                x={x(w.from)}
                y={y - 6}
                width={x(w.to + 1) - x(w.from)}
                height={12}
                fill="currentColor"
              />
            ))}
          </Box>
        );
      })}
    </Box>
  );
}
