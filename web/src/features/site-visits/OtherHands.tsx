import { Box } from "@mui/material";
import { TextField } from "../../shared/form/TextField";
import type { Hands } from "./useVisitCommands";

/** Of a list out of a notebook: who named and who typed it, for all lines from here on. */
export function OtherHands({ value, onChange }: { value: Hands; onChange: (hands: Hands) => void }) {
  return (
    <Box component="details" sx={{ my: 1 }}>
      <Box component="summary" sx={{ py: 1.25, cursor: "pointer" }}>
        Named or typed by somebody else
      </Box>
      <Box sx={{ display: "grid", gap: 1.5, gridTemplateColumns: { xs: "1fr", sm: "1fr 1fr" }, pt: 1 }}>
        <TextField
          label="Who named them"
          helperText="Where it wasn’t who found them; for all lines from here on."
          value={value.determiner}
          onChange={(event) => onChange({ ...value, determiner: event.target.value })}
        />
        <TextField
          label="Who types them"
          value={value.typist}
          onChange={(event) => onChange({ ...value, typist: event.target.value })}
        />
      </Box>
    </Box>
  );
}
