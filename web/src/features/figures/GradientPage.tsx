import {
  Box,
  Button,
  Link,
  Table,
  TableBody,
  TableCell,
  TableHead,
  TableRow,
  TextField,
  Typography,
} from "@mui/material";
import { useState } from "react";
import { Link as RouterLink } from "react-router";
import type { Schemas } from "../../api/client";
import { core } from "../../core/coreClient";
import { useAsked } from "../../offline/flora";
import { Page, Part } from "../../shared/ui/Page";
import { PARENTS } from "./example";

type Gradient = Schemas["HybridGradient"];

/** Plants of a stand between two parents that were measured at the same place. */
export function GradientPage() {
  const [text, setText] = useState("");
  const isEmpty = text.trim() === "";
  const asked = useAsked(isEmpty ? undefined : { text }, core.gradient);
  const answer = isEmpty ? undefined : asked.answer;
  const gradient = answer?.gradient;
  return (
    <Page title="Between two parents">
      <Typography sx={{ maxWidth: 720, mb: 2 }}>
        Measure plants of both parents here, and those in question in the same characters. Each plant is a point on the
        line from the one to the other, with how far that can be trusted. Other figures of plots and lists are{" "}
        <Link component={RouterLink} to="/figures">
          on their page
        </Link>
        .
      </Typography>
      <TextField
        label="Table: plant, group (first, second or stand), measures"
        multiline
        minRows={5}
        maxRows={10}
        fullWidth
        value={text}
        onChange={(event) => setText(event.target.value)}
        error={(answer?.problems.length ?? 0) > 0}
        slotProps={{
          htmlInput: { spellCheck: false, wrap: "off", style: { fontFamily: "monospace", fontSize: "0.875rem" } },
        }}
      />
      {isEmpty && (
        <Button sx={{ mt: 1 }} onClick={() => setText(PARENTS)}>
          Put an example in
        </Button>
      )}
      {answer && answer.problems.length > 0 && (
        <Box role="alert" sx={{ mt: 1 }}>
          {answer.problems.slice(0, 8).map((it) => (
            <Typography key={`${it.line} ${it.column}`} color="error">
              ✕ Line {it.line}, cell {it.column}: {it.message}
            </Typography>
          ))}
        </Box>
      )}
      {gradient && (
        <>
          <Part id="line" title="The line">
            <Line gradient={gradient} />
          </Part>
          <Part id="mind" title="To be minded">
            {gradient.notes.map((note) => (
              <Typography key={note} sx={{ maxWidth: 720 }}>
                {note}
              </Typography>
            ))}
          </Part>
          {gradient.characters.length > 0 && (
            <Part id="characters" title="What parts the parents">
              <Box
                sx={{ overflowX: "auto" }}
                tabIndex={0}
                role="region"
                aria-label="What parts the parents, as a table"
              >
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
      )}
    </Page>
  );
}

const [WIDTH, LEFT, ROW, TOP] = [720, 150, 22, 30];
const groups = { first: "first parent", second: "second parent", stand: "stand" } as const;

function Line({ gradient }: { gradient: Gradient }) {
  const points = gradient.points.filter((it) => it.index !== null);
  if (points.length === 0) return <Typography>No plant can be placed yet.</Typography>;
  const low = Math.min(-0.3, ...points.map((it) => it.low));
  const high = Math.max(1.3, ...points.map((it) => it.high));
  const x = (index: number) => LEFT + ((index - low) / (high - low)) * (WIDTH - LEFT - 12);
  const height = TOP + points.length * ROW + 8;
  return (
    <Box
      component="svg"
      viewBox={`0 0 ${WIDTH} ${height}`}
      role="img"
      aria-label={points
        .map((it) => `${it.label}, ${groups[it.group]}: ${it.index?.toFixed(2)}, ${it.call}`)
        .join("; ")}
      sx={{ width: "100%", maxWidth: WIDTH, height: "auto", color: "text.primary" }}
    >
      {[0, 1].map((at) => (
        <g key={at}>
          <path
            d={`M${x(at)} ${TOP - 8}V${height - 4}`}
            stroke="currentColor"
            strokeOpacity={0.5}
            strokeDasharray="3 3"
          />
          <text x={x(at)} y={14} fontSize={13} textAnchor="middle" fill="currentColor">
            {at === 0 ? "as the first" : "as the second"}
          </text>
        </g>
      ))}
      {points.map((it, i) => {
        const y = TOP + i * ROW + ROW / 2;
        const at = x(it.index ?? 0);
        return (
          <g key={it.label + String(i)}>
            <text
              x={LEFT - 10}
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
