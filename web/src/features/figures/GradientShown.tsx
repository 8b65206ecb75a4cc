import { Box, Table, TableBody, TableCell, TableHead, TableRow, Typography } from "@mui/material";
import type { Schemas } from "../../api/client";
import { Part } from "../../shared/ui/Page";
import { useIsPhone } from "../../shared/ui/useIsPhone";

type Gradient = Schemas["HybridGradient"];

const THEIR_ORDER = { first: "the first", second: "the second" };

interface Props {
  gradient: Gradient;
  /** What is said besides. */
  notes?: string[];
  /** What the parents are called. */
  parents?: { first: string; second: string };
}

/** Plants between two parents: their line, what has to be minded, and what parts the parents. */
export function GradientShown({ gradient, notes = [], parents = THEIR_ORDER }: Props) {
  return (
    <>
      <Part id="line" title="The line">
        <Line gradient={gradient} parents={parents} />
      </Part>
      <Part id="mind" title="To be minded">
        {[...gradient.notes, ...notes].map((note) => (
          <Typography key={note} sx={{ maxWidth: 720 }}>
            {note}
          </Typography>
        ))}
      </Part>
      {gradient.characters.length > 0 && (
        <Part id="characters" title="What parts the parents">
          <Box sx={{ overflowX: "auto" }} tabIndex={0} role="region" aria-label="What parts the parents, as a table">
            <Table size="small" aria-label="Characters" sx={{ maxWidth: 720 }}>
              <TableHead>
                <TableRow>
                  <TableCell>Character</TableCell>
                  <TableCell align="right">First parent</TableCell>
                  <TableCell align="right">Second parent</TableCell>
                  <TableCell align="right">Deviations apart</TableCell>
                  <TableCell>Counts</TableCell>
                </TableRow>
              </TableHead>
              <TableBody>
                {gradient.characters.map((it) => (
                  <TableRow key={it.name}>
                    <TableCell component="th" scope="row">
                      {it.name}
                    </TableCell>
                    <TableCell align="right">{it.first.toPrecision(3)}</TableCell>
                    <TableCell align="right">{it.second.toPrecision(3)}</TableCell>
                    <TableCell align="right">{it.apart.toFixed(1)}</TableCell>
                    <TableCell>{it.counts ? "yes" : "no: too near"}</TableCell>
                  </TableRow>
                ))}
              </TableBody>
            </Table>
          </Box>
        </Part>
      )}
    </>
  );
}

// Drawn as wide as it is shown, about: letters stay legible on a phone.
const WIDE = { width: 720, left: 150 };
const NARROW = { width: 360, left: 84 };
const [ROW, TOP] = [22, 30];

// Half of what stands above a line, at its longest.
const HALF_HEAD = 62;
const groups = { first: "first parent", second: "second parent", stand: "stand" } as const;

function Line({ gradient, parents }: { gradient: Gradient; parents: typeof THEIR_ORDER }) {
  const { width, left } = useIsPhone() ? NARROW : WIDE;
  const points = gradient.points.filter((it) => it.index !== null);
  if (points.length === 0) return <Typography>No plant can be placed yet.</Typography>;
  const low = Math.min(-0.3, ...points.map((it) => it.low));
  const high = Math.max(1.3, ...points.map((it) => it.high));
  const x = (index: number) => left + ((index - low) / (high - low)) * (width - left - 12);
  const height = TOP + points.length * ROW + 8;
  return (
    <Box
      component="svg"
      viewBox={`0 0 ${width} ${height}`}
      role="img"
      aria-label={points
        .map((it) => `${it.label}, ${groups[it.group]}: ${it.index?.toFixed(2)}, ${it.call}`)
        .join("; ")}
      sx={{ width: "100%", maxWidth: width, height: "auto", color: "text.primary" }}
    >
      {[0, 1].map((at) => (
        <g key={at}>
          <path
            d={`M${x(at)} ${TOP - 8}V${height - 4}`}
            stroke="currentColor"
            strokeOpacity={0.5}
            strokeDasharray="3 3"
          />
          <text x={Math.min(x(at), width - HALF_HEAD)} y={14} fontSize={13} textAnchor="middle" fill="currentColor">
            {`as ${at === 0 ? parents.first : parents.second}`}
          </text>
        </g>
      ))}
      {points.map((it, i) => {
        const y = TOP + i * ROW + ROW / 2;
        const at = x(it.index ?? 0);
        return (
          <g key={it.label + String(i)}>
            <text
              x={left - 10}
              y={y + 4}
              fontSize={13}
              textAnchor="end"
              fill="currentColor"
              fontWeight={it.group === "stand" ? 700 : 400}
            >
              {it.label}
            </text>
            <path d={`M${x(it.low)} ${y}H${x(it.high)}`} stroke="currentColor" strokeWidth={1.5} />
            {it.group === "stand" ? (
              <circle cx={at} cy={y} r={6} fill="currentColor" />
            ) : it.group === "first" ? (
              <path d={`M${at - 5} ${y - 5}h10v10h-10z`} fill="none" stroke="currentColor" strokeWidth={2} />
            ) : (
              <path d={`M${at} ${y - 6}l6 11h-12z`} fill="none" stroke="currentColor" strokeWidth={2} />
            )}
          </g>
        );
      })}
    </Box>
  );
}
