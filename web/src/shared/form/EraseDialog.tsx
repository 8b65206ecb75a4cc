import { Button, Dialog, DialogActions, DialogContent, DialogTitle, TextField, Typography } from "@mui/material";
import { useState } from "react";
import { v7 as uuid } from "uuid";
import { useSend } from "../../offline/mending";
import type { Erasing } from "./Erase";

const WORD = "erase";

/** Asks for the word, and erases. */
export function EraseDialog({ subjectId, what, of, goes, onErased, onClose }: Erasing & { onClose: () => void }) {
  const send = useSend();
  const [typed, setTyped] = useState("");
  const [failure, setFailure] = useState("");
  const erase = async () => {
    const sent = await send({ kind: "erase", id: uuid(), subjectId });
    if (sent.kind === "refused") return setFailure(`${sent.problem.title} ${sent.problem.detail}`);
    onClose();
    onErased?.();
  };
  return (
    <Dialog open onClose={onClose} aria-labelledby="erase-title">
      <DialogTitle id="erase-title">
        Erase {what}
        {of && `: ${of}`}?
      </DialogTitle>
      <DialogContent>
        <Typography sx={{ mb: 1 }}>
          {goes} It can’t be undone. Every device that meets the server forgets it too; copies of the database that were
          made before still hold it: make a new one and throw the old ones away.
        </Typography>
        <TextField
          label={`Type “${WORD}”`}
          autoComplete="off"
          value={typed}
          onChange={(event) => setTyped(event.target.value)}
          error={failure !== ""}
          helperText={failure && `✕ ${failure}`}
        />
      </DialogContent>
      <DialogActions>
        <Button onClick={onClose}>Cancel</Button>
        <Button variant="contained" disabled={typed.trim().toLowerCase() !== WORD} onClick={() => void erase()}>
          Erase it for good
        </Button>
      </DialogActions>
    </Dialog>
  );
}
