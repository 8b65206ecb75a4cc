import { Box, Typography } from "@mui/material";

import type { Schemas } from "../../api/client";
import words from "../../api/words";
import { spoken } from "../../shared/calendar/day";

const WIDTH = 420;

const HEIGHT = 150;

const lines = [
  { color: "signal.support", dash: "" },
  { color: "signal.open", dash: "6 3" },
  { color: "signal.conflict", dash: "2 3" },
  { color: "signal.caution", dash: "9 3 2 3" },
  { color: "text.secondary", dash: "1 4" },
];

// Counts over the years, a line for each unit, from 0.
export function CountPlot({ it }: { it: Schemas["PopulationDetail"] }) {
  const units = [...new Set(it.counts.map((c) => c.unit))];
  const superseded = new Set(it.counts.map((c) => c.supersedes).filter(Boolean));
  const counts = it.counts.filter((c) => !superseded.has(c.id));
  const years = [...new Set(counts.map((c) => Number(c.date.slice(0, 4))))].sort();
  const most = Math.max(1, ...counts.map((c) => c.number));
  const [first, last] = [years[0] ?? 0, years.at(-1) ?? 0];
  const at = (date: string) => Number(date.slice(0, 4)) + (Number(date.slice(5, 7)) - 0.5) / 12;
  const x = (date: string) => 40 + ((at(date) - first) / Math.max(1, last + 1 - first)) * (WIDTH - 60);
  const y = (n: number) => HEIGHT - 24 - (n / most) * (HEIGHT - 44);
  const changes = it.summary.changes;
  return (
    <Box sx={{ display: "flex", flexWrap: "wrap", gap: 3, alignItems: "flex-start" }}>
      <Box
        component="svg"
        viewBox={`0 0 ${WIDTH} ${HEIGHT}`}
        role="img"
        aria-label={`Counts: ${counts.map((c) => `${spoken(c.date)} ${c.number} ${words.countUnits[c.unit]}`).join("; ")}.`}
        sx={{ width: "100%", maxWidth: WIDTH, height: "auto", color: "text.primary", flex: "1 1 300px" }}
      >
        <path d={`M36 12V${HEIGHT - 24}H${WIDTH - 8}`} fill="none" stroke="currentColor" strokeOpacity={0.6} />
        <text x={32} y={y(most) + 4} fontSize={12} textAnchor="end" fill="currentColor">
          {most}
        </text>
        <text x={32} y={y(0) + 4} fontSize={12} textAnchor="end" fill="currentColor">
          0
        </text>
        {years.map((year) => (
          <text key={year} x={x(`${year}-06-15`)} y={HEIGHT - 6} fontSize={12} textAnchor="middle" fill="currentColor">
            {year}
          </text>
        ))}
        {units.map((unit, u) => {
          const own = counts.filter((c) => c.unit === unit);
          return (
            <Box component="g" key={unit} sx={{ color: lines[u % lines.length]?.color }}>
              <path
                d={own.map((c, i) => `${i === 0 ? "M" : "L"}${x(c.date)} ${y(c.number)}`).join("")}
                fill="none"
                stroke="currentColor"
                strokeWidth={2}
                strokeDasharray={lines[u % lines.length]?.dash}
              />
              {own.map((c) => (
                <g key={c.id}>
                  <circle cx={x(c.date)} cy={y(c.number)} r={4.5} fill="currentColor" />
                  <text x={x(c.date) + 8} y={y(c.number) - 6} fontSize={12} fill="currentColor" fontWeight={600}>
                    {c.number}
                  </text>
                </g>
              ))}
            </Box>
          );
        })}
      </Box>
      <Box sx={{ flex: "1 1 260px" }}>
        {[...counts].reverse().map((c) => (
          <Typography key={c.id} variant="body2">
            {spoken(c.date)}: <strong>{c.number}</strong> {words.countUnits[c.unit]}, {c.recorder}
            {c.known > 0 && `; checked blind, ${c.found} of ${c.known} found again`}
            {c.note && `. ${c.note}`}
          </Typography>
        ))}
        {it.summary.years
          .filter((year) => year.ofRosettes)
          .map((year) => (
            <Typography key={year.year} variant="body2" sx={{ mt: 0.5, fontWeight: 600 }}>
              {year.year}: {year.ofRosettes?.inWords}
            </Typography>
          ))}
        {changes.map((c) => (
          <Typography key={`${c.unit}${c.toYear}`} variant="body2" sx={{ mt: 0.5, fontWeight: 600 }}>
            {!c.isTold ? "≈" : c.to > c.from ? "▲" : "▼"} {words.countUnits[c.unit]} {c.fromYear} to {c.toYear}:{" "}
            {c.from} → {c.to}
            {c.perYearInWords && `, ${c.perYearInWords}`}
          </Typography>
        ))}
      </Box>
    </Box>
  );
}
