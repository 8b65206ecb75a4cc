import { Box, Button, TextField, Typography } from "@mui/material";
import { useState, type FormEvent } from "react";
import { v7 as uuid } from "uuid";
import type { Schemas } from "../../api/client";
import { useSend } from "../../offline/mending";
import type { RefusedCommand } from "../../offline/store";

interface Props {
  mend: RefusedCommand;
  start: Schemas["CommandTeachTermCommand"];
  onDone: () => void;
}

/** A word taught for a state, to be mended. */
export function TermForm({ mend, start, onDone }: Props) {
  const [term, setTerm] = useState(start.term);
  const [problem, setProblem] = useState("");
  const send = useSend(mend.id);
  const submit = async (event: FormEvent) => {
    event.preventDefault();
    const sent = await send({ ...start, id: uuid(), term: term.trim() });
    if (sent.kind === "refused") setProblem(`${sent.problem.title} ${sent.problem.detail}`);
    else onDone();
  };
  return (
    <Box component="form" noValidate onSubmit={(event) => void submit(event)} sx={{ display: "flex", gap: 1.5, mt: 1 }}>
      <TextField
        label={`Word for ${start.state}`}
        value={term}
        onChange={(event) => setTerm(event.target.value)}
        error={Boolean(problem)}
        helperText={problem && `✕ ${problem}`}
      />
      <Button type="submit" variant="contained" sx={{ minHeight: 52 }}>
        Teach it
      </Button>
      {!problem && <Typography variant="body2">{start.character}</Typography>}
    </Box>
  );
}
