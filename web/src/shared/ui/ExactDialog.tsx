import {
  Button,
  Checkbox,
  Dialog,
  DialogActions,
  DialogContent,
  DialogTitle,
  FormControlLabel,
  Typography,
} from "@mui/material";
import { useState } from "react";

/** What such a file tells, and that one keeps it to oneself. */
export function ExactDialog({ href, what, onClose }: { href: string; what: string; onClose: () => void }) {
  const [sure, setSure] = useState(false);
  return (
    <Dialog open onClose={onClose} aria-labelledby="exact-title" maxWidth="sm">
      <DialogTitle id="exact-title">{what} with exact places</DialogTitle>
      <DialogContent>
        <Typography sx={{ mb: 1 }}>
          This file tells where sensitive plants grow, with their labels, notes and trails. It is for your own keeping:
          don’t pass it on, and don’t leave it where others can read it. The usual export gives their grid cell only.
        </Typography>
        <FormControlLabel
          control={<Checkbox checked={sure} onChange={(event) => setSure(event.target.checked)} />}
          label="I keep this file to myself."
        />
      </DialogContent>
      <DialogActions sx={{ px: 3, pb: 2 }}>
        <Button onClick={onClose}>Cancel</Button>
        <Button component="a" href={href} download disabled={!sure} variant="contained" onClick={onClose}>
          Take it away
        </Button>
      </DialogActions>
    </Dialog>
  );
}
