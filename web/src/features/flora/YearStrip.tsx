import { Box } from "@mui/material";
import type { Schemas } from "../../api/client";

type Phase = Schemas["Phenophase"];

const rows: { phases: Phase[]; name: string; color: string; organ: string }[] = [
  {
    phases: ["restingBud", "bareTwig"],
    name: "bud",
    color: "text.secondary",
    organ: "M0 5q-3 -5 0 -10q3 5 0 10M0 5v2",
  },
  { phases: ["fullLeaf", "shootsUp"], name: "leaf", color: "signal.support", organ: "M0 6v-2q-6 -3 -3 -10q7 2 3 10" },
  {
    phases: ["flower"],
    name: "flower",
    color: "signal.open",
    organ: "M0 0q-3 -3 0 -6q3 3 0 6q4 -1 5 3q-4 1 -5 -3q1 4 -3 5q-2 -3 3 -5M0 0q-4 -3 -6 0q2 3 6 0",
  },
  {
    phases: ["youngFruit", "ripeFruit", "fruitPersisting"],
    name: "fruit",
    color: "signal.conflict",
    organ: "M0 -6v3M-4 1a4 4 0 1 0 8 0a4 4 0 1 0 -8 0",
  },
];

const MONTHS = ["J", "F", "M", "A", "M", "J", "J", "A", "S", "O", "N", "D"];
const LONG = [
  "January",
  "February",
  "March",
  "April",
  "May",
  "June",
  "July",
  "August",
  "September",
  "October",
  "November",
  "December",
];
const STEP = 13;
const LEFT = 74;
const ROW = 24;

/** The half-month of a day, 1 to 24. */
export function halfMonth(date: Date): number {
  return date.getMonth() * 2 + (date.getDate() <= 15 ? 1 : 2);
}

const holds = (span: Schemas["PhaseSpan"], half: number) =>
  span.from <= span.to ? half >= span.from && half <= span.to : half >= span.from || half <= span.to;

/** Half-months in words: "late April". */
const inWords = (half: number) => `${half % 2 ? "early" : "late"} ${LONG[Math.floor((half - 1) / 2)]}`;

/** The year of a taxon: 24 half-months, a row for each organ, today marked. */
export function YearStrip({ phenology, today }: { phenology: Schemas["PhaseSpan"][]; today: Date }) {
  const shown = rows.filter((row) => phenology.some((span) => row.phases.includes(span.phase)));
  const now = halfMonth(today);
  if (shown.length === 0) return null;
  const words = shown
    .map((row) => {
      const spans = phenology.filter((span) => row.phases.includes(span.phase));
      return `${row.name} ${spans.map((span) => `${inWords(span.from)} to ${inWords(span.to)}`).join(", ")}`;
    })
    .join("; ");
  const height = 18 + shown.length * ROW + 6;
  return (
    <Box
      component="svg"
      viewBox={`0 0 ${LEFT + 24 * STEP + 6} ${height}`}
      role="img"
      aria-label={`The year: ${words}.`}
      sx={{ display: "block", width: "100%", maxWidth: 460, height: "auto", color: "text.primary" }}
    >
      {MONTHS.map((month, m) => (
        <g key={m}>
          <text x={LEFT + m * 2 * STEP + STEP} y={12} fontSize={11} textAnchor="middle" fill="currentColor">
            {month}
          </text>
          <path d={`M${LEFT + m * 2 * STEP} 16V${height - 4}`} stroke="currentColor" strokeOpacity={0.25} />
        </g>
      ))}
      <Box
        component="rect"
        x={LEFT + (now - 1) * STEP}
        y={16}
        width={STEP}
        height={height - 20}
        sx={{ fill: (theme) => theme.palette.signal.openWash }}
      />
      <path d={`M${LEFT + (now - 1) * STEP + STEP / 2 - 4} ${height - 1}l4 -5l4 5Z`} fill="currentColor" />
      {shown.map((row, r) => {
        const y = 18 + r * ROW + ROW / 2;
        return (
          <Box component="g" key={row.name} sx={{ color: row.color }}>
            <g transform={`translate(12 ${y}) scale(1.1)`}>
              <path d={row.organ} fill="none" stroke="currentColor" strokeWidth={1.4} strokeLinejoin="round" />
            </g>
            <text x={26} y={y + 4} fontSize={12} fill="currentColor" fontWeight={600}>
              {row.name}
            </text>
            {Array.from({ length: 24 }, (_, i) => i + 1).map((half) =>
              phenology.some((span) => row.phases.includes(span.phase) && holds(span, half)) ? (
                <rect key={half} x={LEFT + (half - 1) * STEP} y={y - 6} width={STEP} height={12} fill="currentColor" />
              ) : null,
            )}
          </Box>
        );
      })}
    </Box>
  );
}
