import { Box, Button, TextField, Typography } from "@mui/material";
import { v7 as uuid } from "uuid";
import type { Schemas } from "../../api/client";
import { today } from "../../shared/calendar/day";
import { useFields } from "../../shared/form/useFields";
import { useMending, useSend } from "../../offline/mending";
import type { RefusedCommand } from "../../offline/store";

interface ThreatProps {
  population: string;
  closes?: string;
  onDone: () => void;
}

export function ThreatForm(props: ThreatProps) {
  const mend = useMending("noteThreat");
  return mend === undefined ? null : <ThreatFields {...props} mend={mend} />;
}

export function ThreatFields(
  props: ThreatProps & { mend: (RefusedCommand & { command: Schemas["CommandNoteThreatCommand"] }) | null },
) {
  const start = props.mend?.command;
  const closes = props.closes ?? start?.closes ?? null;
  const send = useSend(props.mend?.id);
  const { field, refuse, submit, elsewhere } = useFields({ text: start?.text ?? "", actBy: start?.actBy ?? "" });
  const keep = submit(async (typed) => {
    const sent = await send({
      kind: "noteThreat",
      id: uuid(),
      threatId: uuid(),
      populationId: props.population,
      notedOn: start?.notedOn ?? today(),
      text: typed.text.trim(),
      actBy: typed.actBy,
      closes,
    });
    if (sent.kind === "refused") refuse(sent.problem);
    else props.onDone();
  });
  return (
    <Box
      component="form"
      noValidate
      onSubmit={(event) => void keep(event)}
      sx={{ display: "flex", gap: 1.5, flexWrap: "wrap", alignItems: "flex-start", mt: 1 }}
    >
      <TextField
        label={closes ? "How it was dealt with" : "What threatens it"}
        placeholder={closes ? undefined : "ditch clearing, grazing, felling"}
        sx={{ flex: "1 1 18rem" }}
        {...field("text", { required: closes ? "Say how it was dealt with." : "Say what threatens it." })}
      />
      {!closes && (
        <TextField
          type="date"
          label="Act by"
          slotProps={{ inputLabel: { shrink: true } }}
          sx={{ width: 180 }}
          {...field("actBy")}
        />
      )}
      <Button type="submit" variant="contained" sx={{ minHeight: 52 }}>
        {closes ? "Keep it" : "Keep the threat"}
      </Button>
      <Button onClick={props.onDone} sx={{ minHeight: 52 }}>
        Cancel
      </Button>
      {elsewhere && (
        <Typography role="alert" color="error">
          ✕ {elsewhere}
        </Typography>
      )}
    </Box>
  );
}
