import { Box, Link, Typography } from "@mui/material";
import { memo } from "react";
import { Link as RouterLink } from "react-router";
import type { Schemas } from "../../api/client";
import words from "../../api/words";
import { LineFigure } from "../../shared/botany/LineFigure";
import { NamesLabel } from "../../shared/botany/TaxonLabel";
import { spoken, today } from "../../shared/calendar/day";
import { WaitingNote } from "../../shared/ui/WaitingNote";

interface Props {
  plant: Schemas["TaggedPlant"];
  figure: Schemas["TaxonFigure"] | undefined;
  isLongAgo: boolean;
  /** The first year of the list. */
  firstYear: number;
}

/** A plant in a list of very many: what it is, when it was seen last, and its years. */
export const PlantLine = memo(function PlantLine({ plant: p, figure, isLongAgo, firstYear }: Props) {
  return (
    <Box
      component="li"
      data-kept-back={p.isSensitive ? "" : undefined}
      sx={{ display: "flex", gap: 1.25, py: 0.75, borderTop: "1px dotted", borderColor: "rule" }}
    >
      <LineFigure figure={figure} />
      <Box sx={{ minWidth: 0, flex: 1 }}>
        <Link component={RouterLink} to={`/plants/${p.id}`}>
          {p.names.length > 0 ? <NamesLabel names={p.names} /> : "without a name yet"}
          {p.label && `, ${p.label}`}
        </Link>
        <WaitingNote id={p.id} />
        <Typography variant="body2" color="text.secondary">
          {lastWords(p, isLongAgo)}
        </Typography>
      </Box>
      <YearDots years={p.years ?? []} first={firstYear} />
    </Box>
  );
});

function lastWords(p: Schemas["TaggedPlant"], isLongAgo: boolean): string {
  const parts = [
    p.lastSeen ? `last seen on ${spoken(p.lastSeen)}` : "never seen since it was tagged",
    p.state && p.state !== "alive" && words.plantStates[p.state],
    p.state !== "dead" && isLongAgo && "half a year ago or more",
  ];
  return parts.filter(Boolean).join(" · ");
}

// What a line has room for.
const MOST_YEARS = 8;
const DOT = 10;
const STEP = 14;

/** The years since the first of the list as dots: full where the plant was seen or named. */
function YearDots({ years, first }: { years: number[]; first: number }) {
  const last = Number(today().slice(0, 4));
  const all = Array.from({ length: Math.max(0, last - first + 1) }, (_, i) => first + i).slice(-MOST_YEARS);
  const width = all.length * STEP - (STEP - DOT);
  return (
    <Box
      component="svg"
      role="img"
      aria-label={years.length > 0 ? `Seen in ${years.join(", ")}` : "Not seen yet"}
      viewBox={`0 0 ${width} ${DOT}`}
      sx={{
        alignSelf: "center",
        flex: "none",
        width,
        height: DOT,
        color: "text.secondary",
        "& .seen": { color: "signal.support", fill: "currentColor" },
      }}
    >
      {all.map((year, i) => (
        <circle
          key={year}
          className={years.includes(year) ? "seen" : undefined}
          cx={i * STEP + DOT / 2}
          cy={DOT / 2}
          r={DOT / 2 - 1}
          fill="none"
          stroke="currentColor"
          strokeWidth={1.5}
        >
          <title>{year}</title>
        </circle>
      ))}
    </Box>
  );
}
