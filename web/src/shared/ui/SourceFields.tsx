import { Box, FormControlLabel, MenuItem, Switch, Typography } from "@mui/material";
import { TextField } from "../form/TextField";
import words from "../../api/words";
import type { Source } from "./source";

interface Props {
  source: Source;
  onChange: (source: Source) => void;
}

/** Where a pasted text is from, what may be done with it, and who sees it. */
export function SourceFields({ source, onChange }: Props) {
  const set = (part: Partial<Source>) => onChange({ ...source, ...part });
  return (
    <Box component="fieldset" sx={{ border: 1, borderColor: "rule", m: 0, p: 1.5, display: "grid", gap: 1.5 }}>
      <Typography component="legend" variant="h3" sx={{ px: 0.5 }}>
        Where it is from
      </Typography>
      <Box sx={{ display: "grid", gap: 1.5, gridTemplateColumns: { xs: "1fr", sm: "3fr 1fr" } }}>
        <TextField
          label="Book, paper or person"
          value={source.book}
          onChange={(event) => set({ book: event.target.value })}
          slotProps={{ htmlInput: { maxLength: 200 } }}
        />
        <TextField
          label="Page"
          value={source.page}
          onChange={(event) => set({ page: event.target.value })}
          slotProps={{ htmlInput: { maxLength: 60 } }}
        />
      </Box>
      <TextField
        select
        label="What may be done with it"
        value={source.licence}
        onChange={(event) => set({ licence: event.target.value as Source["licence"] })}
        helperText="It is handed on as a file only where this allows it."
      >
        {Object.entries(words.licences).map(([id, name]) => (
          <MenuItem key={id} value={id}>
            {name}
          </MenuItem>
        ))}
      </TextField>
      <FormControlLabel
        control={<Switch checked={source.onlyHere} onChange={(_, on) => set({ onlyHere: on })} />}
        label="Only this device sees it"
      />
    </Box>
  );
}
