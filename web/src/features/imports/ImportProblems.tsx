import { Box, Button, FormControlLabel, Checkbox, Typography } from "@mui/material";
import { useState } from "react";
import { Part } from "../../shared/ui/Page";
import type { Choices, Preview } from "./useImport";

interface Props {
  preview: Preview;
  choices: Choices;
  onChange: (part: Partial<Choices>) => void;
}

const FEW = 3;

/** What is wrong with which line, kind by kind, and what can be decided of it. */
export function ImportProblems({ preview, choices, onChange }: Props) {
  const hasTwoWays = preview.counts.some((it) => it.code === "date.two-ways") || choices.order !== "unsaid";
  const hasDoubles = preview.tally.doubles + preview.alreadyHere > 0 || choices.keepsDoubles;
  if (preview.counts.length === 0 && !hasDoubles && !hasTwoWays) return null;
  return (
    <Part id="wrong" title="What to look at">
      {hasTwoWays && (
        <Box sx={{ display: "flex", gap: 1, alignItems: "center", flexWrap: "wrap", mb: 1 }}>
          <Typography>In dates of numbers</Typography>
          {(
            [
              ["dayFirst", "the day comes first"],
              ["monthFirst", "the month comes first"],
            ] as const
          ).map(([order, says]) => (
            <Button
              key={order}
              variant={choices.order === order ? "contained" : "outlined"}
              aria-pressed={choices.order === order}
              onClick={() => onChange({ order: choices.order === order ? "unsaid" : order })}
            >
              {says}
            </Button>
          ))}
        </Box>
      )}
      {hasDoubles && (
        <FormControlLabel
          control={
            <Checkbox
              checked={choices.keepsDoubles}
              onChange={(event) => onChange({ keepsDoubles: event.target.checked })}
            />
          }
          label="Take in also what another line, or a list of that place and day, says already"
        />
      )}
      <Box component="ul" sx={{ listStyle: "none", p: 0, m: 0 }}>
        {preview.counts.map((it) => (
          <Kind key={it.code + it.fate} it={it} preview={preview} />
        ))}
      </Box>
    </Part>
  );
}

function Kind({ it, preview }: { it: Preview["counts"][number]; preview: Preview }) {
  const [isOpen, setOpen] = useState(false);
  const of = preview.problems.filter((one) => one.code === it.code && one.fate === it.fate);
  const shown = isOpen ? of : of.slice(0, FEW);
  return (
    <Box component="li" sx={{ py: 1, borderTop: "1px dotted", borderColor: "rule" }}>
      <Typography sx={{ fontWeight: 700, color: it.fate === "leftOut" ? "signal.conflict" : "signal.open" }}>
        {it.fate === "leftOut" ? "✕" : "△"} {it.lines.toLocaleString()} {it.lines === 1 ? "line is" : "lines are"}{" "}
        {it.fate === "leftOut" ? "left out" : "taken in without this"}
      </Typography>
      {shown.map((one) => (
        <Typography key={one.line} variant="body2">
          Line {one.line}
          {one.column && `, ${one.column}`}: {one.message}
        </Typography>
      ))}
      {of.length > FEW && (
        <Button size="small" onClick={() => setOpen(!isOpen)}>
          {isOpen ? "Fewer" : `Show ${of.length === it.lines ? "all" : "the first"} ${of.length}`}
        </Button>
      )}
    </Box>
  );
}
