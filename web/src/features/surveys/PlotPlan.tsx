import { Box, Link, Typography } from "@mui/material";
import { useMemo } from "react";
import { Link as RouterLink } from "react-router";
import type { Schemas } from "../../api/client";
import words from "../../api/words";
import { useGrounds } from "../../offline/grounds";

type Whole = Schemas["SurveyWhole"];
type At = Schemas["GroundPoint"];

const SIZE = 400;
const EDGE = 16;
const MOST_LISTED = 60;

/** The plots as they lie in their places, and as a list. */
export function PlotPlan({
  whole,
  isDrawn,
}: {
  whole: Whole;
  /** Whether the drawing stands alone. */ isDrawn?: boolean;
}) {
  const recorded = new Set(whole.records.map((it) => it.plotId));
  const shown = whole.plots.slice(0, MOST_LISTED);
  return (
    <>
      {whole.survey.places.map((place) => (
        <Plan key={place.id} whole={whole} place={place} recorded={recorded} />
      ))}
      {isDrawn || (
        <Box component="ul" sx={{ listStyle: "none", p: 0, m: 0, columns: { xs: 2, sm: 3 }, columnGap: 2 }}>
          {shown.map((it) => (
            <Box
              component="li"
              key={it.id}
              sx={{ breakInside: "avoid", minHeight: 44, display: "flex", alignItems: "center" }}
            >
              <Link component={RouterLink} to={`/surveys/${whole.survey.id}/plots/${it.id}`} sx={{ py: 1 }}>
                {recorded.has(it.id) ? "●" : "○"} {it.label}
                {it.isPermanent && " ⚑"}
              </Link>
            </Box>
          ))}
        </Box>
      )}
      {!isDrawn && whole.plots.length > MOST_LISTED && (
        <Typography variant="body2">
          {MOST_LISTED} of {whole.plots.length}; what is due stands beside.
        </Typography>
      )}
      {isDrawn || (
        <Typography variant="body2" color="text.secondary">
          ● recorded, ○ not yet, ⚑ permanent. {placings(whole)}
        </Typography>
      )}
    </>
  );
}

const placings = ({ plots }: Whole) =>
  Object.entries(words.plotPlacings)
    .map(([placing, says]) => ({ says, of: plots.filter((it) => it.placing === placing) }))
    .filter(({ of }) => of.length > 0)
    .map(({ says, of }) => {
      const seeds = [...new Set(of.flatMap((it) => (typeof it.seed === "number" ? [it.seed] : [])))];
      return `${says}: ${of.length}${seeds.length > 0 ? ` (seed ${seeds.join(", ")})` : ""}.`;
    })
    .join(" ");

interface PlanProps {
  whole: Whole;
  place: Schemas["Place"];
  recorded: Set<string>;
}

function Plan({ whole, place, recorded }: PlanProps) {
  const grounds = useGrounds().data;
  const outline = grounds?.find((it) => it.placeId === place.id)?.ground.outline;
  const plots = useMemo(
    () => whole.plots.flatMap((it) => (it.placeId === place.id && it.site ? [{ ...it, site: it.site }] : [])),
    [whole.plots, place.id],
  );
  const corners: At[] = [...(outline ?? []), ...plots.map((it) => it.site)];
  if (plots.length === 0) return null;
  const latitudes = corners.map((it) => it.latitude);
  const longitudes = corners.map((it) => it.longitude);
  const [south, north] = [Math.min(...latitudes), Math.max(...latitudes)];
  const [west, east] = [Math.min(...longitudes), Math.max(...longitudes)];
  const narrowing = Math.cos(((south + north) * Math.PI) / 360);
  const scale = (SIZE - 2 * EDGE) / Math.max((east - west) * narrowing, north - south, Number.EPSILON);
  const x = (it: At) => EDGE + (it.longitude - west) * narrowing * scale;
  const y = (it: At) => EDGE + (north - it.latitude) * scale;
  const height = 2 * EDGE + (north - south) * scale;
  const width = 2 * EDGE + (east - west) * narrowing * scale;
  return (
    <Box component="figure" sx={{ m: 0, mb: 1 }}>
      <svg
        viewBox={`0 0 ${Math.round(width)} ${Math.round(height)}`}
        role="img"
        aria-label={`${plots.length} plots as they lie at ${place.name}; north is up`}
        style={{ width: "100%", maxHeight: 320 }}
      >
        {outline && outline.length > 0 && (
          <polygon
            points={outline.map((it) => `${x(it)},${y(it)}`).join(" ")}
            fill="none"
            stroke="currentColor"
            strokeWidth={1.5}
          />
        )}
        {plots.map((it) => (
          <g key={it.id} transform={`translate(${x(it.site)} ${y(it.site)})`}>
            <title>{it.label}</title>
            {it.isPermanent ? (
              <rect
                x={-5}
                y={-5}
                width={10}
                height={10}
                fill={recorded.has(it.id) ? "currentColor" : "none"}
                stroke="currentColor"
                strokeWidth={2}
              />
            ) : (
              <circle
                r={4}
                fill={recorded.has(it.id) ? "currentColor" : "none"}
                stroke="currentColor"
                strokeWidth={1.5}
              />
            )}
          </g>
        ))}
      </svg>
      <Typography component="figcaption" variant="body2" color="text.secondary">
        {place.name}, north is up; squares are permanent.
      </Typography>
    </Box>
  );
}
