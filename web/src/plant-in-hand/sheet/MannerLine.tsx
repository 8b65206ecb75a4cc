import { Box, Button, MenuItem, TextField, Typography } from "@mui/material";
import { useState } from "react";
import words from "../../api/words";
import { core } from "../../core/coreClient";
import { useAsked } from "../../offline/flora";
import type { Manner } from "../../offline/store";
import { today } from "../../shared/calendar/day";

type Choices = [string, string][];

const contexts = Object.entries(words.context) as [keyof Manner["context"], { label: string; values: object }][];
const sureness: Choices = Object.entries(words.sureness);
const tools: Choices = Object.entries(words.tools);

/** How the next look is made: one line, inherited from the last look, that opens to be changed. */
export function MannerLine({ manner, onChange }: { manner: Manner; onChange: (manner: Manner) => void }) {
  const [open, setOpen] = useState(false);
  const inWords = useAsked(manner, core.manner).answer;
  const field = (label: string, value: string, values: Choices, set: (value: string) => void) => (
    <TextField
      key={label}
      select
      size="small"
      label={label}
      value={value}
      onChange={(event) => set(event.target.value)}
    >
      {values.map(([id, name]) => (
        <MenuItem key={id} value={id}>
          {name}
        </MenuItem>
      ))}
    </TextField>
  );
  // What hangs on the plant lies beneath no crown.
  const isAsked = ([name]: (typeof contexts)[number]) => name !== "crowns" || manner.context.attachment === "beneath";
  return (
    <Box sx={{ borderTop: 1, borderBottom: 1, borderColor: "rule", py: 0.5, mb: 1.5 }}>
      <Box sx={{ display: "flex", alignItems: "center", gap: 1, flexWrap: "wrap" }}>
        <Typography variant="body2" sx={{ flex: 1 }}>
          <strong>Looked at:</strong> {inWords}
        </Typography>
        <Button size="small" onClick={() => setOpen(!open)} aria-expanded={open}>
          {open ? "Close" : "Change"}
        </Button>
      </Box>
      {open && (
        <Box
          sx={{ display: "grid", gap: 1.25, gridTemplateColumns: { xs: "1fr 1fr", md: "1fr 1fr 1fr" }, pt: 1, pb: 1 }}
        >
          {field("How sure", manner.sureness, sureness, (value) =>
            onChange({ ...manner, sureness: value as Manner["sureness"] }),
          )}
          {field("Tool", manner.tool, tools, (value) => onChange({ ...manner, tool: value as Manner["tool"] }))}
          {contexts
            .filter(isAsked)
            .map(([name, { label, values }]) =>
              field(label, String(manner.context[name] ?? "unsaid"), Object.entries(values), (value) =>
                onChange({ ...manner, context: { ...manner.context, [name]: value } }),
              ),
            )}
          {/* What was carried home is gathered on one day and examined on another. */}
          <TextField
            size="small"
            type="date"
            label="Gathered on, if examined later"
            value={manner.context.gathered}
            onChange={(event) => onChange({ ...manner, context: { ...manner.context, gathered: event.target.value } })}
            slotProps={{ htmlInput: { max: today() }, inputLabel: { shrink: true } }}
          />
          <TextField
            size="small"
            label="Bag or sheet number"
            value={manner.context.bag}
            onChange={(event) => onChange({ ...manner, context: { ...manner.context, bag: event.target.value } })}
            slotProps={{ htmlInput: { maxLength: 40 } }}
          />
        </Box>
      )}
    </Box>
  );
}
