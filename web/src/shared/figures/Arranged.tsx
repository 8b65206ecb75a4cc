import { Box, MenuItem, Typography } from "@mui/material";
import { TextField } from "../form/TextField";
import type { Schemas } from "../../api/client";
import { oneFigure } from "../calendar/day";

type Arrangement = Schemas["Arrangement"];
type Distance = Arrangement["distance"];

const distances: { distance: Distance; says: string }[] = [
  { distance: "brayCurtis", says: "amounts (Bray–Curtis)" },
  { distance: "sorensen", says: "which taxa stand there (Sørensen)" },
  { distance: "jaccard", says: "which taxa stand there (Jaccard)" },
];

const MOST_NAMED = 30;
const [WIDTH, HEIGHT, EDGE] = [460, 340, 28];
const drawing = {
  width: "100%",
  maxWidth: WIDTH,
  color: "text.primary",
  "& text": { fontSize: 12, fill: "currentColor" },
} as const;

interface Props {
  arrangement: Arrangement;
  onDistance: (distance: Distance) => void;
  /** Of each sample the group that it is drawn under; nothing where there are none. */
  groups?: string[];
}

/** The plots in a plane, and joined step by step. */
export function Arranged({ arrangement, onDistance, groups = [] }: Props) {
  return (
    <>
      <TextField
        select
        label="Told apart by"
        value={arrangement.distance}
        onChange={(event) => onDistance(event.target.value as Distance)}
        fullWidth={false}
        sx={{ width: "min(100%, 24rem)", mb: 1.5 }}
      >
        {distances.map((it) => (
          <MenuItem key={it.distance} value={it.distance}>
            {it.says}
          </MenuItem>
        ))}
      </TextField>
      <Box sx={{ display: "grid", gridTemplateColumns: { md: "1fr 1fr" }, columnGap: 4, rowGap: 2 }}>
        <Plane arrangement={arrangement} groups={groups} />
        <Tree arrangement={arrangement} />
      </Box>
    </>
  );
}

// Both axes in one measure: what is near in the drawing is near.
export function Plane({
  arrangement: { samples, ordination },
  groups,
}: {
  arrangement: Arrangement;
  groups: string[];
}) {
  const { axes, points, negative } = ordination;
  const named = [...new Set(groups.filter(Boolean))];
  if (axes.length === 0) return <Typography>All plots are alike: they lie at one point.</Typography>;
  const at = (sample: number, axis: number) => points[sample]?.[axis] ?? 0;
  const all = (axis: number) => points.map((_, sample) => at(sample, axis));
  const span = (axis: number) => Math.max(...all(axis)) - Math.min(...all(axis));
  const scale = Math.min((WIDTH - 2 * EDGE) / (span(0) || 1), (HEIGHT - 2 * EDGE) / (span(1) || 1));
  const x = (sample: number) => WIDTH / 2 + (at(sample, 0) - (Math.max(...all(0)) + Math.min(...all(0))) / 2) * scale;
  const y = (sample: number) => HEIGHT / 2 - (at(sample, 1) - (Math.max(...all(1)) + Math.min(...all(1))) / 2) * scale;
  const isNamed = samples.length <= MOST_NAMED;
  return (
    <figure style={{ margin: 0 }}>
      <Box
        component="svg"
        viewBox={`0 0 ${WIDTH} ${HEIGHT}`}
        role="img"
        aria-label={`${samples.length} plots in a plane: the nearer, the more alike.`}
        sx={drawing}
      >
        <rect width={WIDTH} height={HEIGHT} fill="none" stroke="currentColor" opacity={0.35} />
        {samples.map((name, i) => (
          <g key={name}>
            <Mark shape={Math.max(0, named.indexOf(groups[i] ?? ""))} x={x(i)} y={y(i)} />
            {isNamed && (
              <text x={x(i) + (x(i) > WIDTH / 2 ? -8 : 8)} y={y(i) + 4} textAnchor={x(i) > WIDTH / 2 ? "end" : "start"}>
                {i + 1}
              </text>
            )}
          </g>
        ))}
      </Box>
      {named.length > 1 && (
        <Box component="ul" sx={{ listStyle: "none", p: 0, m: 0, display: "flex", flexWrap: "wrap", columnGap: 2 }}>
          {named.map((it, i) => (
            <Box component="li" key={it} sx={{ display: "flex", gap: 0.75, alignItems: "center", fontSize: 14 }}>
              <svg width={14} height={14} aria-hidden="true">
                <Mark shape={i} x={7} y={7} />
              </svg>
              {it}
            </Box>
          ))}
        </Box>
      )}
      <Typography component="figcaption" variant="body2">
        Across: {oneFigure((axes[0]?.share ?? 0) * 100)} % of the differences; up:{" "}
        {oneFigure((axes[1]?.share ?? 0) * 100)} %.
        {negative > 0 && ` No drawing holds all of them: ${oneFigure(negative * 100)} % are at odds with any space.`}
      </Typography>
    </figure>
  );
}

// Groups are told apart by form, not by colour alone; beyond these they begin again.
const marks = [
  (x: number, y: number) => <circle cx={x} cy={y} r={4.5} fill="currentColor" />,
  (x: number, y: number) => <circle cx={x} cy={y} r={4.5} fill="none" stroke="currentColor" strokeWidth={1.6} />,
  (x: number, y: number) => <rect x={x - 4} y={y - 4} width={8} height={8} fill="currentColor" />,
  (x: number, y: number) => (
    <rect x={x - 4} y={y - 4} width={8} height={8} fill="none" stroke="currentColor" strokeWidth={1.6} />
  ),
  (x: number, y: number) => <path d={`M${x} ${y - 5.5}l5 9h-10z`} fill="currentColor" />,
  (x: number, y: number) => (
    <path d={`M${x} ${y - 5.5}l5 9h-10z`} fill="none" stroke="currentColor" strokeWidth={1.6} />
  ),
  (x: number, y: number) => <path d={`M${x - 4} ${y - 4}l8 8m-8 0l8 -8`} stroke="currentColor" strokeWidth={2} />,
  (x: number, y: number) => <path d={`M${x - 5} ${y}h10m-5 -5v10`} stroke="currentColor" strokeWidth={2} />,
] as const;

function Mark({ shape, x, y }: { shape: number; x: number; y: number }) {
  const draw = marks[shape % marks.length];
  return draw ? draw(x, y) : null;
}

const ROW = 20;
const NAMES = 150;

// Each sample a row, in an order in which no branches cross; joined where their clusters are as far apart.
function Tree({ arrangement: { samples, clustering } }: { arrangement: Arrangement }) {
  const { merges, order } = clustering;
  const highest = merges[merges.length - 1]?.height ?? 0;
  const x = (height: number) => NAMES + (highest > 0 ? height / highest : 0) * (WIDTH - NAMES - 12);
  const rows = new Map<number, { y: number; height: number }>(
    order.map((sample, row) => [sample, { y: row * ROW + ROW / 2, height: 0 }]),
  );
  const lines: string[] = [];
  merges.forEach((it, i) => {
    const [one, other] = [rows.get(it.one), rows.get(it.other)];
    if (!one || !other) return;
    lines.push(`M${x(one.height)} ${one.y}H${x(it.height)}V${other.y}H${x(other.height)}`);
    rows.set(samples.length + i, { y: (one.y + other.y) / 2, height: it.height });
  });
  const height = samples.length * ROW + 24;
  return (
    <figure style={{ margin: 0 }}>
      <Box
        component="svg"
        viewBox={`0 0 ${WIDTH} ${height}`}
        role="img"
        aria-label={`${samples.length} plots joined step by step, the most alike first.`}
        sx={drawing}
      >
        <path d={lines.join("")} fill="none" stroke="currentColor" strokeWidth={1.5} />
        {order.map((sample, row) => (
          <text key={sample} x={NAMES - 6} y={row * ROW + ROW / 2 + 4} textAnchor="end">
            {sample + 1} {samples[sample]}
          </text>
        ))}
        <text x={NAMES} y={height - 6} textAnchor="middle">
          0
        </text>
        <text x={WIDTH - 12} y={height - 6} textAnchor="end">
          {highest.toFixed(2)}
        </text>
      </Box>
      <Typography component="figcaption" variant="body2">
        Joined at the mean distance of their plots, from the left: the sooner, the more alike.
      </Typography>
    </figure>
  );
}
