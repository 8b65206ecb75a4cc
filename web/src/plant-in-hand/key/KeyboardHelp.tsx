import { Button, Dialog, DialogActions, DialogContent, DialogTitle, Typography } from "@mui/material";

const keys = [
  ["1 2 3 …", "choose that lead"],
  ["0", "can’t tell: every lead stays open"],
  ["f", "the answer that comes is only fairly sure"],
  ["Backspace", "take the last answer back"],
  ["Escape", "from the evidence back to the key"],
  ["Tab, Enter", "go to any couplet of the trail and open it again"],
  ["?", "this list"],
];

/** What each key on the keyboard does while a key is followed. */
export function KeyboardHelp({ onClose }: { onClose: () => void }) {
  return (
    <Dialog open onClose={onClose} aria-labelledby="keys-title">
      <DialogTitle id="keys-title">On the keyboard</DialogTitle>
      <DialogContent>
        {keys.map(([key, what]) => (
          <Typography key={key}>
            <strong>{key}</strong> {what}
          </Typography>
        ))}
      </DialogContent>
      <DialogActions>
        <Button onClick={onClose}>Close</Button>
      </DialogActions>
    </Dialog>
  );
}
