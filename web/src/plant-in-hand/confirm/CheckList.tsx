import { Box, Button, Typography } from "@mui/material";
import { TextField } from "../../shared/form/TextField";
import { useState } from "react";
import type { Schemas } from "../../api/client";
import words from "../../api/words";
import { QuietButton } from "../../shared/ui/QuietButton";

const marks: Record<Schemas["CheckVerdict"], { glyph: string; color: string }> = {
  pass: { glyph: "●", color: "signal.support" },
  concern: { glyph: "▲", color: "signal.caution" },
  fail: { glyph: "✕", color: "signal.conflict" },
  open: { glyph: "○", color: "signal.open" },
};

// What stands in the way comes first.
const order = Object.keys(words.verdicts);

interface Props {
  checks: Schemas["ConfirmCheck"][];
  onExplain: (kind: Schemas["CheckKind"], text: string) => void;
}

/** The checks: how each came out, why, and what would change it. */
export function CheckList({ checks, onExplain }: Props) {
  const sorted = [...checks].sort((a, b) => order.indexOf(a.verdict) - order.indexOf(b.verdict));
  return (
    <Box component="ul" aria-label="Checks" sx={{ listStyle: "none", p: 0, m: 0 }}>
      {sorted.map((check) => (
        <Check key={check.kind} check={check} onExplain={(text) => onExplain(check.kind, text)} />
      ))}
    </Box>
  );
}

function Check({ check, onExplain }: { check: Schemas["ConfirmCheck"]; onExplain: (text: string) => void }) {
  const [text, setText] = useState<string>();
  const { glyph, color } = marks[check.verdict];
  const word = words.verdicts[check.verdict];
  const wants = check.verdict === "concern" || check.verdict === "fail";
  return (
    <Box
      component="li"
      sx={{
        display: "grid",
        gridTemplateColumns: "6.2rem minmax(0, 1fr)",
        columnGap: 1,
        py: 0.5,
        borderTop: "1px dotted",
        borderColor: "rule",
      }}
    >
      <Typography component="span" variant="body2" sx={{ color, fontWeight: 700 }}>
        <span aria-hidden="true">{glyph} </span>
        {word}
      </Typography>
      <Typography component="div" variant="body2">
        <strong>{words.checks[check.kind]}.</strong> {check.reason}
        {check.change && (
          <Box component="span" sx={{ color: "text.secondary" }}>
            {" "}
            → {check.change}
          </Box>
        )}
        {check.explained && text === undefined && (
          <Box>
            Explained: “{check.explained}”{" "}
            <QuietButton
              name={`Change what is said to ${words.checks[check.kind]}`}
              onClick={() => setText(check.explained)}
            >
              Change
            </QuietButton>
          </Box>
        )}
        {wants && !check.explained && text === undefined && (
          <Box sx={{ ml: -1 }}>
            <QuietButton name={`Explain: ${words.checks[check.kind]}`} onClick={() => setText("")}>
              Explain
            </QuietButton>
          </Box>
        )}
        {text !== undefined && (
          <Box
            component="form"
            onSubmit={(event) => {
              event.preventDefault();
              onExplain(text.trim());
              setText(undefined);
            }}
            sx={{ display: "flex", flexWrap: "wrap", gap: 1, my: 0.5 }}
          >
            <TextField
              autoFocus
              size="small"
              label={`Why it is so here: ${words.checks[check.kind]}`}
              value={text}
              onChange={(event) => setText(event.target.value)}
              slotProps={{ htmlInput: { maxLength: 2000 } }}
              sx={{ flex: "1 1 16rem" }}
            />
            <Button type="submit">Say so</Button>
            <Button onClick={() => setText(undefined)}>Leave it</Button>
          </Box>
        )}
      </Typography>
    </Box>
  );
}
