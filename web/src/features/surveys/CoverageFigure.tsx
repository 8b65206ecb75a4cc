import { Box, Typography } from "@mui/material";
import type { Schemas } from "../../api/client";
import { oneFigure } from "../../shared/calendar/day";
import { SurveyTable } from "./SurveyTable";

const [WIDTH, HEIGHT, LEFT, FOOT, RIGHT] = [560, 260, 36, 30, 150];

const percent = (share: number) => `${oneFigure(share * 100)} %`;

/** Taxa by coverage, group by group: what was recorded drawn through, what more would bring dashed. */
export function CoverageFigure({ compared: { common, curves } }: { compared: Schemas["CoverageComparison"] }) {
  const most = Math.max(1, ...curves.flatMap((it) => it.points.map((of) => of.richness)));
  const x = (coverage: number) => LEFT + coverage * (WIDTH - LEFT - RIGHT);
  const y = (richness: number) => HEIGHT - FOOT - (richness / most) * (HEIGHT - FOOT - 12);
  const path = (points: Schemas["CoveragePoint"][]) =>
    points.map((it, i) => `${i === 0 ? "M" : "L"}${x(it.coverage)} ${y(it.richness)}`).join("");
  // Names at the ends of the curves, moved apart where they would lie upon each other.
  const names = [...curves]
    .map((it) => ({ group: it.group, at: y(it.points.at(-1)?.richness ?? 0) }))
    .sort((a, b) => a.at - b.at)
    .reduce<{ group: string; at: number }[]>((placed, it) => {
      const last = placed.at(-1)?.at ?? 0;
      return [...placed, { ...it, at: it.at > last + 14 ? it.at : last + 14 }];
    }, []);
  return (
    <>
      <figure style={{ margin: 0 }}>
        <Box
          component="svg"
          viewBox={`0 0 ${WIDTH} ${HEIGHT}`}
          role="img"
          aria-label={`Taxa by coverage: ${curves.map((it) => `${it.group} ${it.richness} at ${percent(it.coverage)}`).join(", ")}.`}
          sx={{
            width: "100%",
            maxWidth: WIDTH,
            color: "text.primary",
            "& text": { fontSize: 12, fill: "currentColor" },
          }}
        >
          <path d={`M${LEFT} 8V${HEIGHT - FOOT}H${x(1)}`} fill="none" stroke="currentColor" opacity={0.5} />
          <line x1={x(common)} x2={x(common)} y1={8} y2={HEIGHT - FOOT} stroke="currentColor" strokeDasharray="2 3" />
          {curves.map((it) => {
            const seen = it.points.filter((of) => !of.isBeyond);
            return (
              <g key={it.group} fill="none" stroke="currentColor" strokeWidth={1.6}>
                <path d={path(seen)} />
                <path d={path([...seen.slice(-1), ...it.points.filter((of) => of.isBeyond)])} strokeDasharray="5 4" />
                <circle cx={x(it.coverage)} cy={y(it.richness)} r={4} fill="currentColor" />
              </g>
            );
          })}
          {names.map((it) => (
            <text key={it.group} x={x(1) + 8} y={it.at + 4}>
              {it.group}
            </text>
          ))}
          <text x={LEFT} y={HEIGHT - 10}>
            0
          </text>
          <text x={x(1)} y={HEIGHT - 10} textAnchor="end">
            coverage 100 %
          </text>
          <text x={LEFT - 6} y={16} textAnchor="end">
            {oneFigure(most)}
          </text>
        </Box>
        <Typography component="figcaption" variant="body2">
          ● what was recorded; dashed what as many recordings again would bring; dotted the coverage that all reach.
        </Typography>
      </figure>
      <SurveyTable
        label="Taxa at equal coverage"
        columns={["Group", "Recordings", "Taxa", "Coverage", `Taxa at ${percent(common)}`]}
        rows={curves.map((it) => ({
          key: it.group,
          head: it.group,
          cells: [it.samples, it.richness, percent(it.coverage), oneFigure(it.atCommon)],
        }))}
      />
      <Typography variant="body2" sx={{ mt: 1 }}>
        Coverage is the share of all finds to be expected whose taxa were found. Where much is unseen the same number of
        recordings says less, so groups are compared at one coverage (Chao and Jost 2012; Chao and others 2014), by a
        straight line between whole numbers of recordings.
      </Typography>
    </>
  );
}
