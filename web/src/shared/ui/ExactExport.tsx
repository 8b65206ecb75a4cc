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
import { QuietButton } from "./QuietButton";

/** An export with the exact places of sensitive taxa: a deliberate act of its own. */
export function ExactExport({ href, what }: { href: string; what: string }) {
  const [open, setOpen] = useState(false);
  const [sure, setSure] = useState(false);
  return (
    <>
      <QuietButton name={`${what} with exact places`} onClick={() => setOpen(true)}>
        With exact places …
      </QuietButton>
      <Dialog open={open} onClose={() => setOpen(false)} aria-labelledby="exact-title" maxWidth="sm">
        <DialogTitle id="exact-title">{what} with exact places</DialogTitle>
        <DialogContent>
          <Typography sx={{ mb: 1 }}>
            This file tells where sensitive plants grow, with their labels, notes and trails. It is for your own
            keeping: don’t pass it on, and don’t leave it where others can read it. The usual export gives their grid
            cell only.
          </Typography>
          <FormControlLabel
            control={<Checkbox checked={sure} onChange={(event) => setSure(event.target.checked)} />}
            label="I keep this file to myself."
          />
        </DialogContent>
        <DialogActions sx={{ px: 3, pb: 2 }}>
          <Button onClick={() => setOpen(false)}>Cancel</Button>
          <Button
            component="a"
            href={href}
            download
            disabled={!sure}
            variant="contained"
            onClick={() => setOpen(false)}
          >
            Take it away
          </Button>
        </DialogActions>
      </Dialog>
    </>
  );
}
