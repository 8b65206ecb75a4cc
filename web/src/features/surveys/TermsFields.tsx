import { Box, Button, MenuItem, TextField, Typography } from "@mui/material";
import type { Schemas } from "../../api/client";
import words from "../../api/words";

type Terms = Schemas["SurveyTerms"];

interface Props {
  terms: Terms;
  onChange: (terms: Terms) => void;
  /** What the server found wrong with it; empty for nothing. */
  wrong: string;
}

export const noTerms: Terms = { rounds: [], rules: "", leastGrade: "tentative", licence: "" };

const rules = [
  ["", "as each recorder chooses"],
  ["confirmed-list", "Confirmed list"],
  ["quick-list", "Quick list"],
] as const;

/** What is agreed of a survey: the rounds of its year, how names are graded, what may be done with the data. */
export function TermsFields({ terms, onChange, wrong }: Props) {
  const set = (part: Partial<Terms>) => onChange({ ...terms, ...part });
  const setRound = (at: number, part: Partial<Schemas["SurveyRound"]>) =>
    set({ rounds: terms.rounds.map((it, i) => (i === at ? { ...it, ...part } : it)) });
  return (
    <Box component="fieldset" sx={{ gridColumn: "1 / -1", border: 0, p: 0, m: 0, display: "grid", gap: 1.5 }}>
      <Typography component="legend" variant="subtitle2" sx={{ mb: 1.5 }}>
        Rounds of a year: in each every place is visited
      </Typography>
      {terms.rounds.map((it, i) => (
        <Box
          key={i}
          role="group"
          aria-label={`Round ${i + 1}`}
          sx={{ display: "grid", gap: 1, gridTemplateColumns: { xs: "1fr 1fr", sm: "2fr 1fr 1fr auto" } }}
        >
          <TextField
            label="Round"
            placeholder="spring"
            value={it.name}
            onChange={(event) => setRound(i, { name: event.target.value })}
            sx={{ gridColumn: { xs: "1 / -1", sm: "auto" } }}
          />
          <TextField
            label="From (MM-DD)"
            placeholder="04-15"
            value={it.from}
            onChange={(event) => setRound(i, { from: event.target.value.trim() })}
          />
          <TextField
            label="To (MM-DD)"
            placeholder="05-31"
            value={it.to}
            onChange={(event) => setRound(i, { to: event.target.value.trim() })}
          />
          <Button
            aria-label={`Take out round ${it.name || i + 1}`}
            onClick={() => set({ rounds: terms.rounds.filter((_, other) => other !== i) })}
          >
            Take out
          </Button>
        </Box>
      ))}
      <Box>
        <Button onClick={() => set({ rounds: [...terms.rounds, { name: "", from: "", to: "" }] })}>Add a round</Button>
        {terms.rounds.length === 0 && (
          <Typography component="span" variant="body2" sx={{ ml: 1 }}>
            None: each place once a year.
          </Typography>
        )}
      </Box>
      <Box sx={{ display: "grid", gap: 2, gridTemplateColumns: { xs: "1fr", sm: "1fr 1fr" } }}>
        <TextField
          select
          label="Names of marked plants are graded by"
          value={terms.rules}
          onChange={(event) => set({ rules: event.target.value })}
          slotProps={{ inputLabel: { shrink: true }, select: { displayEmpty: true } }}
        >
          {rules.map(([value, says]) => (
            <MenuItem key={value} value={value}>
              {says}
            </MenuItem>
          ))}
        </TextField>
        <TextField
          select
          label="They count as unsure below"
          value={terms.leastGrade}
          onChange={(event) => set({ leastGrade: event.target.value as Terms["leastGrade"] })}
        >
          {Object.entries(words.grades).map(([value, says]) => (
            <MenuItem key={value} value={value}>
              {value === "tentative" ? "nothing: every name counts" : says}
            </MenuItem>
          ))}
        </TextField>
      </Box>
      <TextField
        label="What may be done with the data"
        placeholder="a licence, or in words: may be passed on with our names"
        value={terms.licence}
        onChange={(event) => set({ licence: event.target.value })}
      />
      {wrong && (
        <Typography role="alert" variant="body2" color="error">
          ✕ {wrong}
        </Typography>
      )}
    </Box>
  );
}
