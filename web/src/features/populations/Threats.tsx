import { Box, Button, TextField, Typography } from "@mui/material";
import { useState, type FormEvent } from "react";
import { v7 as uuid } from "uuid";
import type { Schemas } from "../../api/client";
import { spoken, today } from "../../shared/calendar/day";
import { useProblem } from "../../shared/form/useProblem";

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
  const [text, setText] = useState(start?.text ?? "");
  const [actBy, setActBy] = useState(start?.actBy ?? "");
  const { at, elsewhere, miss, setProblem } = useProblem(["text", "actBy"]);
  const submit = async (event: FormEvent) => {
    event.preventDefault();
    if (!text.trim()) return miss("text", closes ? "Say how it was dealt with." : "Say what threatens it.");
    const sent = await send({
      kind: "noteThreat",
      id: uuid(),
      threatId: uuid(),
      populationId: props.population,
      notedOn: start?.notedOn ?? today(),
      text: text.trim(),
      actBy,
      closes,
    });
    if (sent.kind === "refused") setProblem(sent.problem);
    else props.onDone();
  };
  return (
    <Box
      component="form"
      noValidate
      onSubmit={(event) => void submit(event)}
      sx={{ display: "flex", gap: 1.5, flexWrap: "wrap", alignItems: "flex-start", mt: 1 }}
    >
      <TextField
        label={closes ? "How it was dealt with" : "What threatens it"}
        placeholder={closes ? undefined : "ditch clearing, grazing, felling"}
        value={text}
        onChange={(e) => setText(e.target.value)}
        sx={{ flex: "1 1 18rem" }}
        {...at("text")}
      />
      {!closes && (
        <TextField
          type="date"
          label="Act by"
          value={actBy}
          onChange={(e) => setActBy(e.target.value)}
          slotProps={{ inputLabel: { shrink: true } }}
          sx={{ width: 180 }}
          {...at("actBy")}
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
          {elsewhere}
        </Typography>
      )}
    </Box>
  );
}
