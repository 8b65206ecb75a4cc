import { Box, Button, TextField, Typography } from "@mui/material";
import { v7 as uuid } from "uuid";
import type { Schemas } from "../../api/client";
import { useSend } from "../../offline/mending";
import { useFields } from "../../shared/form/useFields";
import type { RefusedCommand } from "../../offline/store";

interface Props {
  mend: RefusedCommand;
  start: Schemas["CommandTeachTermCommand"];
  onDone: () => void;
}

/** A word taught for a state, to be mended. */
export function TermForm({ mend, start, onDone }: Props) {
  const { field, refuse, submit, elsewhere } = useFields({ term: start.term });
  const send = useSend(mend.id);
  const teach = submit(async ({ term }) => {
    const sent = await send({ ...start, id: uuid(), term: term.trim() });
    if (sent.kind === "refused") refuse(sent.problem);
    else onDone();
  });
  return (
    <Box component="form" noValidate onSubmit={(event) => void teach(event)} sx={{ display: "flex", gap: 1.5, mt: 1 }}>
      <TextField label={`Word for ${start.state}`} {...field("term", { required: "Write the word." })} />
      <Button type="submit" variant="contained" sx={{ minHeight: 52 }}>
        Teach it
      </Button>
      {elsewhere ? (
        <Typography role="alert" color="error">
          ✕ {elsewhere}
        </Typography>
      ) : (
        <Typography variant="body2">{start.character}</Typography>
      )}
    </Box>
  );
}
