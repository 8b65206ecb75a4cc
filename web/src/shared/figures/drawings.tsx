import { Box, Typography } from "@mui/material";
import type { Schemas } from "../../api/client";
import { oneFigure } from "../calendar/day";

const [WIDTH, HEIGHT] = [460, 240];
const [LEFT, BOTTOM, TOP, RIGHT] = [44, 34, 12, 12];

type Point = Schemas["AccumulationPoint"];

/** The curve of accumulation with its deviation, over the number of plots. */
export function AccumulationCurve({
  points,
  unit = "plot",
}: {
  points: Point[];
  /** What a sample is. */ unit?: string;
}) {
  const last = points[points.length - 1];
  if (!last || points.length < 2)
    return <Typography>Of a single {unit} nothing can be said of more: its curve has one point.</Typography>;
  const most = Math.max(...points.map((it) => it.richness + it.sd), 1);
  const x = (samples: number) => LEFT + ((samples - 1) / (points.length - 1)) * (WIDTH - LEFT - RIGHT);
  const y = (taxa: number) => HEIGHT - BOTTOM - (taxa / most) * (HEIGHT - BOTTOM - TOP);
  const line = points.map((it) => `${x(it.samples)},${y(it.richness)}`).join(" ");
  const band = [
    ...points.map((it) => `${x(it.samples)},${y(it.richness + it.sd)}`),
    ...[...points].reverse().map((it) => `${x(it.samples)},${y(Math.max(0, it.richness - it.sd))}`),
  ].join(" ");
  const half = points[Math.floor((points.length - 1) / 2)];
  const gained = last.richness - (points[points.length - 2]?.richness ?? 0);
  return (
    <>
      <Box
        component="svg"
        viewBox={`0 0 ${WIDTH} ${HEIGHT}`}
        role="img"
        aria-label={`Taxa found over the number of ${unit}s: ${half ? `${oneFigure(half.richness)} in ${half.samples}, ` : ""}${oneFigure(last.richness)} in ${last.samples}.`}
        sx={{ width: "100%", maxWidth: WIDTH, color: "text.primary", "& text": { fontSize: 13, fill: "currentColor" } }}
      >
        <polygon points={band} fill="currentColor" opacity={0.14} />
        <polyline points={line} fill="none" stroke="currentColor" strokeWidth={2.5} />
        {points.length <= 40 &&
          points.map((it) => (
            <circle key={it.samples} cx={x(it.samples)} cy={y(it.richness)} r={3} fill="currentColor" />
          ))}
        <path
          d={`M${LEFT} ${TOP}V${HEIGHT - BOTTOM}H${WIDTH - RIGHT}`}
          fill="none"
          stroke="currentColor"
          opacity={0.6}
        />
        <text x={LEFT - 6} y={y(last.richness) + 4} textAnchor="end">
          {oneFigure(last.richness)}
        </text>
        <text x={LEFT - 6} y={HEIGHT - BOTTOM + 4} textAnchor="end">
          0
        </text>
        <text x={LEFT} y={HEIGHT - 14} textAnchor="middle">
          1
        </text>
        <text x={WIDTH - RIGHT} y={HEIGHT - 14} textAnchor="end">
          {points.length} {unit}s
        </text>
      </Box>
      <Typography variant="body2">
        The last {unit} brought {oneFigure(gained)} taxa in the mean of all orders. The band is one standard deviation
        over the orders of these very {unit}s.
      </Typography>
    </>
  );
}

/** What was found, and what each estimator says there is, with its standard error. */
export function Estimates({ pooled }: { pooled: Schemas["PooledFigures"] }) {
  const rows = [
    { name: "Chao1", value: pooled.chao1, error: pooled.chao1SE },
    { name: "ACE", value: pooled.ace, error: pooled.aceSE },
    { name: "Chao2", value: pooled.chao2, error: pooled.chao2SE },
    { name: "Jackknife 1", value: pooled.jackknife1, error: pooled.jackknife1SE },
    { name: "Jackknife 2", value: pooled.jackknife2, error: null },
    { name: "Bootstrap", value: pooled.bootstrap, error: pooled.bootstrapSE },
  ];
  const most = Math.max(pooled.richness, ...rows.map((it) => (it.value ?? 0) + (it.error ?? 0)), 1);
  const at = (taxa: number) => `${(Math.max(0, taxa) / most) * 100}%`;
  return (
    <>
      <Typography sx={{ mb: 1 }}>
        <strong>{pooled.richness} taxa were found</strong>
        {pooled.individuals !== null && `, ${pooled.individuals} individuals`}
        {pooled.coverage !== null && `; the taxa found hold ${oneFigure(pooled.coverage * 100)} % of all individuals`}.
      </Typography>
      <Box role="list" aria-label="Estimates">
        {rows.map(({ name, value, error }) => (
          <Box
            role="listitem"
            key={name}
            sx={{ display: "grid", gridTemplateColumns: "6.5rem 1fr 8.5rem", alignItems: "center", minHeight: 34 }}
          >
            <span>{name}</span>
            <Box aria-hidden sx={{ position: "relative", height: 20, borderLeft: 1, borderColor: "rule", mr: 1.5 }}>
              <Box
                sx={{ position: "absolute", left: at(pooled.richness), top: 0, bottom: 0, borderLeft: "2px dashed" }}
              />
              {value !== null && (
                <>
                  <Box
                    sx={{
                      position: "absolute",
                      left: at(value - (error ?? 0)),
                      width: at((error ?? 0) * 2),
                      top: 8,
                      height: 4,
                      bgcolor: "text.primary",
                      opacity: 0.4,
                    }}
                  />
                  <Box
                    sx={{
                      position: "absolute",
                      left: at(value),
                      top: 4,
                      width: 12,
                      height: 12,
                      ml: "-6px",
                      borderRadius: "50%",
                      bgcolor: "text.primary",
                    }}
                  />
                </>
              )}
            </Box>
            <span>
              {value === null ? "not defined" : oneFigure(value)}
              {value !== null && error !== null && ` ± ${oneFigure(error)}`}
            </span>
          </Box>
        ))}
      </Box>
      <Typography variant="body2" sx={{ mt: 1 }}>
        Dashed: what was found. ± is one standard error. At their best they are lower bounds: they know nothing of taxa
        that nobody looked for.
      </Typography>
    </>
  );
}
