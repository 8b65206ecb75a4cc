import { Box, Button, Checkbox, FormControlLabel, FormGroup, FormLabel, TextField, Typography } from "@mui/material";
import { useState } from "react";
import { v7 as uuid } from "uuid";
import type { Schemas } from "../../api/client";
import { today } from "../../api/today";
import { usePlaces } from "../../offline/documents";
import { useSend } from "../../offline/mending";
import { personOf } from "../../offline/people";
import { usePeople } from "../../offline/queries";
import type { Command } from "../../offline/store";
import { lastPlace, lastRecorder, RECORDER } from "../../shared/form/last";
import { useFields } from "../../shared/form/useFields";
import { ProtocolFields, protocolOf, typedOf } from "./ProtocolFields";
import { noTerms, TermsFields } from "./TermsFields";

type Save = Extract<Command, { kind?: "saveSurvey" }>;

interface Props {
  /** The survey that is changed; nothing to begin one. */
  survey?: Schemas["Survey"];
  /** What was typed before and refused. */
  refused?: { id: string; command: Save };
  onDone: (id: string) => void;
  onCancel: () => void;
}

const namesIn = (text: string) => [
  ...new Set(
    text
      .split(",")
      .map((name) => name.trim())
      .filter(Boolean),
  ),
];

/** Question, places, days and taxa of a survey, and how its plots are recorded. */
export function SurveyForm({ survey, refused, onDone, onCancel }: Props) {
  const places = usePlaces().data ?? [];
  const people = usePeople();
  const send = useSend(refused?.id);
  const typed = refused?.command;
  const before = typed?.protocol ?? survey?.protocols.at(-1)?.protocol;
  const { values, field, set, refuse, elsewhere, submit } = useFields(
    {
      name: typed?.name ?? survey?.name ?? "",
      question: typed?.question ?? survey?.question ?? "",
      from: typed?.from ?? survey?.from ?? today(),
      to: typed?.to ?? survey?.to ?? "",
      leader: typed?.leader.name ?? survey?.leader.name ?? lastRecorder(),
      team: (typed?.team ?? survey?.team ?? []).map((it) => it.name).join(", "),
      sought: (typed?.sought ?? survey?.sought ?? []).join(", "),
      ...typedOf(before),
    },
    {
      "protocol.pins": "pins",
      "protocol.seasonFrom": "seasonFrom",
      "protocol.nestSizes": "nestSizes",
      protocol: "squareMetres",
    },
  );
  const [chosen, setChosen] = useState<string[]>(
    typed?.placeIds ?? survey?.places.map((it) => it.id) ?? (lastPlace() ? [lastPlace()] : []),
  );
  const [terms, setTerms] = useState(typed?.terms ?? survey?.terms ?? noTerms);
  const [wrongTerms, setWrongTerms] = useState("");
  const [hasPlots, setHasPlots] = useState(before !== undefined);
  const [isTried, setTried] = useState(false);
  const keep = async (it: typeof values) => {
    if (chosen.length === 0) return;
    const id = typed?.surveyId ?? survey?.id ?? uuid();
    const sent = await send(
      {
        kind: "saveSurvey",
        id: uuid(),
        surveyId: id,
        name: it.name.trim(),
        question: it.question.trim(),
        from: it.from,
        to: it.to,
        leader: await personOf(it.leader.trim(), people.data),
        placeIds: chosen,
        team: await Promise.all(namesIn(it.team).map((name) => personOf(name, people.data))),
        terms,
        sought: namesIn(it.sought),
        protocol: hasPlots ? protocolOf(it) : null,
        version: survey?.version ?? typed?.version ?? null,
      },
      { creates: survey ? undefined : [id] },
    );
    setWrongTerms("");
    if (sent.kind === "refused") {
      const { field: at, title, detail } = sent.problem;
      return ["rounds", "rules", "licence"].includes(at) ? setWrongTerms(`${title} ${detail}`) : refuse(sent.problem);
    }
    localStorage.setItem(RECORDER, it.leader.trim());
    onDone(id);
  };
  return (
    <Box
      component="form"
      noValidate
      onSubmit={(event) => {
        setTried(true);
        void submit(keep)(event);
      }}
      sx={{
        display: "grid",
        gap: 2,
        gridTemplateColumns: { xs: "1fr 1fr", sm: "repeat(4, 1fr)" },
        maxWidth: 880,
        mb: 2,
      }}
    >
      <TextField
        label="Name"
        {...field("name", { required: "Give the survey a name." })}
        sx={{ gridColumn: "1 / -1" }}
      />
      <TextField label="What it is to find out" multiline {...field("question")} sx={{ gridColumn: "1 / -1" }} />
      <TextField
        type="date"
        label="First day"
        {...field("from", { required: "Say from when." })}
        slotProps={{ inputLabel: { shrink: true } }}
      />
      <TextField
        type="date"
        label="Last day"
        {...field("to", { required: "Say until when." })}
        slotProps={{ inputLabel: { shrink: true } }}
      />
      <TextField
        label="Who answers for it"
        {...field("leader", { required: "Write who answers for it." })}
        sx={{ gridColumn: { xs: "1 / -1", sm: "span 2" } }}
      />
      <TextField label="Who works at it besides, with commas" {...field("team")} sx={{ gridColumn: "1 / -1" }} />
      <Box component="fieldset" sx={{ gridColumn: "1 / -1", border: 0, p: 0, m: 0 }}>
        <FormLabel component="legend" error={isTried && chosen.length === 0}>
          Places
        </FormLabel>
        <FormGroup row>
          {places
            .filter((it) => !it.isAtRest || chosen.includes(it.id))
            .map((it) => (
              <FormControlLabel
                key={it.id}
                label={it.name}
                control={
                  <Checkbox
                    checked={chosen.includes(it.id)}
                    onChange={(_, isOn) =>
                      setChosen((all) => (isOn ? [...all, it.id] : all.filter((other) => other !== it.id)))
                    }
                  />
                }
              />
            ))}
        </FormGroup>
        {isTried && chosen.length === 0 && (
          <Typography role="alert" variant="body2" color="error">
            ✕ Choose one place at least.
          </Typography>
        )}
      </Box>
      <TextField
        label="Taxa that are sought above all, with commas"
        {...field("sought")}
        sx={{ gridColumn: "1 / -1" }}
      />
      <TermsFields terms={terms} onChange={setTerms} wrong={wrongTerms} />
      <FormControlLabel
        label="Plots are recorded"
        sx={{ gridColumn: "1 / -1" }}
        control={
          <Checkbox
            checked={hasPlots}
            disabled={survey !== undefined && survey.protocols.length > 0}
            onChange={(_, isOn) => setHasPlots(isOn)}
          />
        }
      />
      {hasPlots && <ProtocolFields values={values} field={field} set={set} isChange={before !== undefined} />}
      {elsewhere && (
        <Typography role="alert" color="error" sx={{ gridColumn: "1 / -1" }}>
          ✕ {elsewhere}
        </Typography>
      )}
      <Box sx={{ display: "flex", gap: 1.5, gridColumn: "1 / -1" }}>
        <Button type="submit" variant="contained" sx={{ minHeight: 48 }}>
          Keep the survey
        </Button>
        <Button onClick={onCancel}>Leave it</Button>
      </Box>
    </Box>
  );
}
