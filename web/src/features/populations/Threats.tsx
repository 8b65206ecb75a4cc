import { Box, Button, TextField, Typography } from "@mui/material";
import { useState } from "react";
import { v7 as uuid } from "uuid";
import type { Schemas } from "../../api/client";
import { spoken, today } from "../../shared/calendar/day";
import { useFields } from "../../shared/form/useFields";
import { QuietButton } from "../../shared/ui/QuietButton";
import { useMending, useSend } from "../../offline/mending";
import type { RefusedCommand } from "../../offline/store";

import { Callout } from "../../shared/botany/Cautions";

import { useDays } from "../../shared/calendar/questions";

export function ThreatLine({ threat, population }: { threat: Schemas["Threat"]; population: string }) {
  const [closing, setClosing] = useState(false);
  const far = useDays(threat.actBy ? [{ id: threat.id, date: threat.actBy }] : []).get(threat.id);
  return (
    <Callout tone="caution">
      <Typography variant="body2">
        <strong>△ {threat.text}</strong>
        {threat.actBy && (
          <Box component="span" sx={{ fontWeight: far?.isSoon ? 700 : 400 }}>
            {" "}
            Act by {spoken(threat.actBy)}
            {far &&
              (far.ahead < 0 ? ": that day has passed." : far.ahead === 0 ? ": today." : `: ${far.ahead} days left.`)}
          </Box>
        )}{" "}
        <QuietButton name={`Dealt with: ${threat.text}`} onClick={() => setClosing(!closing)} expanded={closing}>
          Dealt with
        </QuietButton>
      </Typography>
      {closing && (
        <ThreatFields population={population} closes={threat.id} mend={null} onDone={() => setClosing(false)} />
      )}
    </Callout>
  );
}

interface ThreatProps {
  population: string;
  closes?: string;
  onDone: () => void;
}

export function ThreatForm(props: ThreatProps) {
  const mend = useMending("noteThreat");
  return mend === undefined ? null : <ThreatFields {...props} mend={mend} />;
}

function ThreatFields(
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
