import words from "../../api/words";

import { Box, Link, Typography } from "@mui/material";
import { useState } from "react";
import { Link as RouterLink } from "react-router";
import type { Schemas } from "../../api/client";
import { months, windowsInWords } from "../../shared/calendar/day";
import { QuietButton } from "../../shared/ui/QuietButton";

import { TaxonYear } from "../../shared/calendar/TaxonYear";

export const rowStyle = {
  display: "grid",
  gridTemplateColumns: { xs: "1fr", sm: "minmax(0, 17rem) minmax(0, 1fr)" },
  columnGap: 2,
  alignItems: "center",
  py: 0.5,
  borderTop: "1px dotted",
  borderColor: "rule",
} as const;

export function Months() {
  return (
    <Box aria-hidden="true" sx={{ ...rowStyle, borderTop: 0, py: 0 }}>
      <Box sx={{ display: { xs: "none", sm: "block" } }} />
      <Box sx={{ display: "grid", gridTemplateColumns: "repeat(12, minmax(0, 1fr))" }}>
        {months("short").map((m) => (
          <Typography key={m} variant="caption" sx={{ textAlign: "center" }}>
            {m}
          </Typography>
        ))}
      </Box>
    </Box>
  );
}

export function Row(props: {
  row: Schemas["NamedSeasonRow"];
  day: string;
  floraId: string;
  isOpen: boolean;
  taxa: Schemas["Taxon"][];
}) {
  const { row, day, floraId, taxa } = props;
  const [opened, setOpened] = useState(props.isOpen);
  const { year } = row;
  return (
    <Box component="li" sx={rowStyle}>
      <Box>
        <QuietButton
          name={`${opened ? "Less" : "More"} about ${row.name}`}
          expanded={opened}
          onClick={() => setOpened(!opened)}
        >
          {row.name}
        </QuietButton>
        <Typography variant="caption" component="div" sx={{ pl: 1 }}>
          {year.nameableNow ? (
            <Box component="span" sx={{ color: "signal.support", fontWeight: 700 }}>
              ● can be named
            </Box>
          ) : (
            <Box component="span" sx={{ color: "signal.absent" }}>
              ◌ {year.notNameableFrom.length > 0 ? "never by looks alone" : "not to be named then"}
            </Box>
          )}
          {year.conspicuousNow && (
            <Box component="span" sx={{ color: "signal.open", fontWeight: 700 }}>
              {" "}
              ▭ {year.conspicuousBy}
            </Box>
          )}
        </Typography>
      </Box>
      <TaxonYear nameable={year.nameable} conspicuous={year.conspicuous} day={day} name={row.name} />
      {opened && (
        <Box sx={{ gridColumn: "1 / -1", pl: 1, pb: 1 }}>
          {year.phases.map((phase) => (
            <Typography key={phase.phase} variant="body2">
              {phase.now ? (
                <Box component="span" sx={{ color: "signal.support", fontWeight: 700 }}>
                  ●{" "}
                </Box>
              ) : (
                "○ "
              )}
              {words.phases[phase.phase]}: {windowsInWords(phase.windows)}
              {phase.shiftInWords && ` (${phase.shiftInWords} than the flora says)`}
            </Typography>
          ))}
          {year.warning && (
            <Typography variant="body2" role="note" sx={{ color: "signal.caution", fontWeight: 600 }}>
              △ {year.warning}
            </Typography>
          )}
          <Typography variant="body2">
            {year.organsNow.length > 0
              ? `On that day there is to look at: ${year.organsNow.map((o) => words.organs[o].toLowerCase()).join(", ")}.`
              : "On that day nothing of it can be looked at."}{" "}
            {year.notNameableFrom.length > 0 &&
              `No look tells it from ${year.notNameableFrom.map((id) => taxa.find((t) => t.id === id)?.name ?? id).join(", ")}. `}
            <Link component={RouterLink} to={`/flora/${floraId}/taxa/${row.taxon}`}>
              What it is like
            </Link>
          </Typography>
        </Box>
      )}
    </Box>
  );
}
