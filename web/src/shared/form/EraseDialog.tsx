import { Button, Dialog, DialogActions, DialogContent, DialogTitle, TextField, Typography } from "@mui/material";
import { useState } from "react";
import { v7 as uuid } from "uuid";
import { useSend } from "../../offline/mending";
import { QuietButton } from "../ui/QuietButton";

const WORD = "erase";

interface Props {
  subjectId: string;
  /** What it is, as it stands on the button: this plant, this name. */
  what: string;
  /** Whose, where several stand below each other. */
  of?: string;
  /** What goes with it, in a sentence. */
  goes: string;
  onErased?: () => void;
}

/** Erases something on request, for good, once the word has been typed. */
export function Erase({ subjectId, what, of, goes, onErased }: Props) {
  const send = useSend();
  const [open, setOpen] = useState(false);
  const [typed, setTyped] = useState("");
  const [failure, setFailure] = useState("");
  const erase = async () => {
    const sent = await send({ kind: "erase", id: uuid(), subjectId });
    if (sent.kind === "refused") return setFailure(`${sent.problem.title} ${sent.problem.detail}`);
    setOpen(false);
    onErased?.();
  };
  return (
    <>
      <QuietButton name={`Erase ${what} on request …${of ? `: ${of}` : ""}`} onClick={() => setOpen(true)}>
        {`Erase ${what} on request …`}
      </QuietButton>
      <Dialog open={open} onClose={() => setOpen(false)} aria-labelledby="erase-title">
        <DialogTitle id="erase-title">
          Erase {what}
          {of && `: ${of}`}?
        </DialogTitle>
        <DialogContent>
          <Typography sx={{ mb: 1 }}>
            {goes} It can’t be undone. Every device that meets the server forgets it too; copies of the database that
            were made before still hold it: make a new one and throw the old ones away.
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
          <Button onClick={() => setOpen(false)}>Cancel</Button>
          <Button variant="contained" disabled={typed.trim().toLowerCase() !== WORD} onClick={() => void erase()}>
            Erase it for good
          </Button>
        </DialogActions>
      </Dialog>
    </>
  );
}
