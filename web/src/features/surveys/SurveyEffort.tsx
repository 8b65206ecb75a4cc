import { Box, MenuItem, TextField, Typography } from "@mui/material";
import { useMemo, useState } from "react";
import type { Schemas } from "../../api/client";
import { core } from "../../core/coreClient";
import { useAsked } from "../../offline/flora";
import { numberOf } from "../../shared/form/useFields";

type Whole = Schemas["SurveyWhole"];

const [WIDTH, HEIGHT, LEFT, BOTTOM, TOP] = [420, 170, 40, 28, 12];

/** Was it missed, or is it gone: how surely a visit finds a taxon where it is. */
export function MissedOrGone({ whole, taxa }: { whole: Whole; taxa: string[] }) {
  const [taxon, setTaxon] = useState("");
  const chosen = taxon || whole.survey.sought[0] || taxa[0] || "";
  const question = useMemo(() => (chosen ? { survey: whole, taxon: chosen, year: null } : undefined), [whole, chosen]);
  const answer = useAsked(question, core.surveyOccupancy).answer;
  const offered = [...new Set([...whole.survey.sought, ...taxa])];
  return (
    <>
      <TextField
        select
        fullWidth={false}
        label="Taxon"
        value={chosen}
        onChange={(event) => setTaxon(event.target.value)}
        sx={{ minWidth: 260, mb: 1 }}
      >
        {offered.map((it) => (
          <MenuItem key={it} value={it}>
            <i>{it}</i>
          </MenuItem>
        ))}
      </TextField>
      {answer && answer.taxon === chosen && (
        <Typography role="status" sx={{ maxWidth: 720 }}>
          {answer.year}: {answer.says}
        </Typography>
      )}
    </>
  );
}

/** How many plots see a change, and how many visits find a plant: from the survey's own spread, or an assumed one. */
export function HowMuch({ deviation }: { deviation: number | null | undefined }) {
  const own = typeof deviation === "number" && deviation > 0 ? deviation.toFixed(1) : "";
  const [typed, setTyped] = useState({ deviation: own || "2", change: "1", chance: "0.5", wanted: "0.95" });
  const question = useMemo(
    () => ({
      deviation: numberOf(typed.deviation) || 0,
      change: numberOf(typed.change) || 0,
      chance: numberOf(typed.chance) || 0,
      wanted: numberOf(typed.wanted) || 0,
    }),
    [typed],
  );
  const answer = useAsked(question, core.surveyDesign).answer;
  const field = (name: keyof typeof typed, label: string, help?: string) => (
    <TextField
      label={label}
      value={typed[name]}
      onChange={(event) => setTyped((before) => ({ ...before, [name]: event.target.value }))}
      helperText={help}
      slotProps={{ htmlInput: { inputMode: "decimal" } }}
    />
  );
  return (
    <Box sx={{ display: "grid", gridTemplateColumns: { md: "1fr 1fr" }, gap: 4 }}>
      <Box>
        <Box sx={{ display: "grid", gridTemplateColumns: "1fr 1fr", gap: 2, mb: 1 }}>
          {field("change", "Change to be seen, taxa a plot")}
          {field(
            "deviation",
            "Spread of the changes",
            own ? `${own} in this survey’s permanent plots` : "assumed: no plot was recorded in two years yet",
          )}
        </Box>
        <Typography role="status">
          {answer && typeof answer.plots === "number"
            ? `${answer.plots} permanent plots, recorded twice, see it in four of five surveys.`
            : "So small a change can’t be seen by any number of plots that somebody records."}
        </Typography>
        {answer && answer.seen.length > 1 && (
          <Curve
            label="The smallest change that is seen, by the number of plots"
            unit="plots"
            points={answer.seen.flatMap((it) => (typeof it.change === "number" ? [{ x: it.plots, y: it.change }] : []))}
          />
        )}
      </Box>
      <Box>
        <Box sx={{ display: "grid", gridTemplateColumns: "1fr 1fr", gap: 2, mb: 1 }}>
          {field("chance", "One visit finds it with", "0 to 1")}
          {field("wanted", "It is to be found with", "0 to 1")}
        </Box>
        <Typography role="status">
          {answer && typeof answer.visits === "number"
            ? `${answer.visits} ${answer.visits === 1 ? "visit finds" : "visits find"} a plant that is there.`
            : "Give two probabilities above 0 and below 1."}
        </Typography>
        {answer && answer.found.length > 1 && (
          <Curve
            label="How probably a plant that is there is found, by the number of visits"
            unit="visits"
            points={answer.found.map((y, i) => ({ x: i + 1, y }))}
          />
        )}
      </Box>
    </Box>
  );
}

function Curve({ label, unit, points }: { label: string; unit: string; points: { x: number; y: number }[] }) {
  const last = points.at(-1);
  const first = points[0];
  if (!first || !last) return null;
  const most = Math.max(...points.map((it) => it.y));
  const x = (value: number) => LEFT + ((value - first.x) / (last.x - first.x)) * (WIDTH - LEFT - TOP);
  const y = (value: number) => HEIGHT - BOTTOM - (value / most) * (HEIGHT - BOTTOM - TOP);
  return (
    <Box component="figure" sx={{ m: 0, mt: 1 }}>
      <Box
        component="svg"
        viewBox={`0 0 ${WIDTH} ${HEIGHT}`}
        role="img"
        aria-label={`${label}: ${points.map((it) => `${it.x} ${unit} ${it.y.toFixed(2)}`).join(", ")}`}
        sx={{ width: "100%", maxWidth: WIDTH, "& text": { fontSize: 13, fill: "currentColor" } }}
      >
        <path d={`M${LEFT} ${TOP}V${HEIGHT - BOTTOM}H${WIDTH - TOP}`} fill="none" stroke="currentColor" opacity={0.6} />
        <polyline
          points={points.map((it) => `${x(it.x)},${y(it.y)}`).join(" ")}
          fill="none"
          stroke="currentColor"
          strokeWidth={2.5}
        />
        {points.map((it) => (
          <circle key={it.x} cx={x(it.x)} cy={y(it.y)} r={3} fill="currentColor" />
        ))}
        <text x={LEFT - 6} y={y(most) + 4} textAnchor="end">
          {most.toFixed(1)}
        </text>
        <text x={LEFT} y={HEIGHT - 10}>
          {first.x}
        </text>
        <text x={WIDTH - TOP} y={HEIGHT - 10} textAnchor="end">
          {last.x} {unit}
        </text>
      </Box>
      <Typography component="figcaption" variant="body2" color="text.secondary">
        {label}.
      </Typography>
    </Box>
  );
}
