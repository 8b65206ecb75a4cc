import { Box, Typography } from "@mui/material";
import type { Schemas } from "../../api/client";
import { brief } from "../../shared/calendar/day";
import { TaxonLabel } from "../../shared/botany/TaxonLabel";

// So many names are written into a week; how many more there are is counted.
const MOST_NAMES = 3;

/** The weeks to come as a strip: what can be answered from then on above the line, what can't any more below it. */
export function WeekStrip({ weeks }: { weeks: Schemas["WeekAhead"][] }) {
  if (weeks.every((week) => week.opens.length + week.closes.length === 0)) return null;
  return (
    <Box
      component="ol"
      aria-label="The weeks to come"
      tabIndex={0}
      sx={{
        listStyle: "none",
        p: 0,
        m: 0,
        mb: 2.5,
        display: "grid",
        gridAutoFlow: "column",
        gridAutoColumns: { xs: "136px", md: "minmax(0, 1fr)" },
        overflowX: { xs: "auto", md: "visible" },
        border: 1,
        borderColor: "rule",
        bgcolor: "background.paper",
      }}
    >
      {weeks.map((week, i) => (
        <Box
          component="li"
          key={week.from}
          sx={{
            // A phone has no room for weeks in which nothing changes.
            display: { xs: i > 0 && week.opens.length + week.closes.length === 0 ? "none" : "grid", md: "grid" },
            gridTemplateRows: "subgrid",
            gridRow: "span 3",
            minWidth: 0,
            borderLeft: i === 0 ? 0 : 1,
            borderColor: "rule",
          }}
        >
          <Names glyph="▴" words="opens" color="signal.support" names={week.opens} />
          <Typography
            variant="caption"
            component="p"
            sx={{
              px: 1,
              borderTop: 2,
              borderBottom: 2,
              borderColor: "text.primary",
              fontWeight: i === 0 ? 700 : 400,
              bgcolor: i === 0 ? "signal.chosenWash" : undefined,
            }}
          >
            {i === 0 ? "this week" : `from ${brief(week.from)}`}
          </Typography>
          <Names glyph="▾" words="closes" color="signal.conflict" names={week.closes} />
        </Box>
      ))}
    </Box>
  );
}

function Names(props: { glyph: string; words: string; color: string; names: string[] }) {
  const { glyph, words, color, names } = props;
  return (
    <Box sx={{ px: 1, py: 0.5, minHeight: 40, alignSelf: words === "opens" ? "end" : "start", minWidth: 0 }}>
      {names.slice(0, MOST_NAMES).map((name) => (
        <Typography key={name} variant="caption" component="p" sx={{ lineHeight: 1.35, overflowWrap: "anywhere" }}>
          <Box component="span" sx={{ color, fontWeight: 700 }} title={words}>
            {glyph}
          </Box>{" "}
          <TaxonLabel name={name} />
        </Typography>
      ))}
      {names.length > MOST_NAMES && (
        <Typography variant="caption" component="p" sx={{ color, fontWeight: 700 }}>
          {glyph} {names.length - MOST_NAMES} more {words.replace(/s$/, "")}
        </Typography>
      )}
    </Box>
  );
}
