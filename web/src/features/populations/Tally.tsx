import { lastRecorder } from "../../shared/form/last";
import { Box, Button, ButtonBase, TextField, Typography } from "@mui/material";
import { useState, type FormEvent } from "react";
import { v7 as uuid } from "uuid";
import type { Schemas } from "../../api/client";
import words from "../../api/words";
import { today } from "../../shared/calendar/day";
import { useProblem } from "../../shared/form/useProblem";
import { useMending, useSend } from "../../offline/mending";
import { personOf } from "../../offline/people";
import { usePeople } from "../../offline/queries";
import type { RefusedCommand } from "../../offline/store";
import { Choice } from "../../shared/form/Choice";
import { useTyped } from "../../shared/form/useTyped";

const units = Object.entries(words.countUnits) as [Schemas["CountUnit"], string][];

interface Draft {
  unit: Schemas["CountUnit"];
  number: number;
  note: string;
}

/** Counts with one thumb: the large field adds one, and the count is kept at every tap. */
export function Tally({ population, onDone }: { population: Schemas["PopulationDetail"]; onDone: () => void }) {
  const mend = useMending("countPopulation");
  return mend === undefined ? null : <TallyForm population={population} mend={mend} onDone={onDone} />;
}

function TallyForm(props: {
  population: Schemas["PopulationDetail"];
  mend: (RefusedCommand & { command: Schemas["CommandCountPopulationCommand"] }) | null;
  onDone: () => void;
}) {
  const { population, mend, onDone } = props;
  const people = usePeople();
  const send = useSend(mend?.id);
  const [draft, setDraft, clear] = useTyped<Draft>(mend ? `mend:${mend.id}` : `tally:${population.id}`, () => ({
    unit: mend?.command.unit ?? population.counts.at(-1)?.unit ?? "individuals",
    number: mend?.command.number ?? 0,
    note: mend?.command.note ?? "",
  }));
  const [typed, setTyped] = useState<string>();
  const [date, setDate] = useState(mend?.command.date ?? today());
  const [check, setCheck] = useState({
    known: mend?.command.known ? String(mend.command.known) : "",
    found: mend?.command.found ? String(mend.command.found) : "",
  });
  const [recorder, setRecorder] = useState(mend?.command.recorder.name ?? lastRecorder());
  const {
    at,
    elsewhere,
    miss,
    clear: clearProblem,
    setProblem,
  } = useProblem(["number", "date", "recorder", "note", "found"]);
  if (!draft) return null;
  const add = (n: number) => {
    setTyped(undefined);
    clearProblem();
    setDraft({ ...draft, number: Math.max(0, draft.number + n) });
  };
  const submit = async (event: FormEvent) => {
    event.preventDefault();
    const number = typed === undefined ? draft.number : Number(typed);
    if (!Number.isInteger(number) || number < 0) return miss("number", "A count is a whole number of 0 or more.");
    const [known, found] = [Number(check.known), Number(check.found)];
    if (!Number.isInteger(known) || !Number.isInteger(found) || known < 0 || found < 0 || found > known)
      return miss("found", "Of the plants known before, at most as many can be found again.");
    if (!recorder.trim()) return miss("recorder", "Write who counted.");
    const sent = await send({
      kind: "countPopulation",
      id: uuid(),
      countId: uuid(),
      populationId: population.id,
      date,
      recorder: await personOf(recorder, people.data),
      unit: draft.unit,
      number,
      note: draft.note.trim(),
      supersedes: mend?.command.supersedes ?? null,
      known,
      found,
    });
    if (sent.kind === "refused") return setProblem(sent.problem);
    clear();
    onDone();
  };
  return (
    <Box component="form" noValidate onSubmit={(event) => void submit(event)} sx={{ maxWidth: 720 }}>
      <Choice
        label="Count"
        choices={units}
        value={draft.unit}
        onChoose={(unit) => unit && setDraft({ ...draft, unit })}
      />
      <Box sx={{ display: "grid", gridTemplateColumns: "auto 1fr auto", gap: 1, my: 1.5 }}>
        <Button onClick={() => add(-1)} aria-label="One less" sx={{ minWidth: 72, minHeight: 120, fontSize: "1.5rem" }}>
          −1
        </Button>
        <ButtonBase
          onClick={() => add(1)}
          aria-label={`One more: ${draft.number} so far`}
          sx={{
            border: 2,
            borderColor: "primary.main",
            bgcolor: "signal.chosenWash",
            minHeight: 120,
            fontSize: "3.2rem",
            fontWeight: 700,
            fontVariantNumeric: "tabular-nums",
          }}
        >
          {draft.number}
        </ButtonBase>
        <Button onClick={() => add(10)} aria-label="Ten more" sx={{ minWidth: 72, minHeight: 120, fontSize: "1.5rem" }}>
          +10
        </Button>
      </Box>
      <Typography variant="body2" role="status" aria-live="polite" sx={{ mb: 1.5 }}>
        {draft.number} {words.countUnits[draft.unit]}. Tap the number for each one; 0 says that it was looked for and
        not found.
      </Typography>
      <Box sx={{ display: "grid", gap: 2, gridTemplateColumns: { xs: "1fr 1fr", sm: "8rem 11rem 1fr" } }}>
        <TextField
          label="Or type it"
          value={typed ?? String(draft.number)}
          onChange={(e) => {
            clearProblem();
            setTyped(e.target.value);
            const number = Number(e.target.value);
            if (e.target.value.trim() && Number.isInteger(number) && number >= 0) setDraft({ ...draft, number });
          }}
          slotProps={{ htmlInput: { inputMode: "numeric" } }}
          {...at("number")}
        />
        <TextField
          required
          type="date"
          label="Counted on"
          value={date}
          onChange={(e) => setDate(e.target.value)}
          slotProps={{ htmlInput: { max: today() }, inputLabel: { shrink: true } }}
          {...at("date")}
        />
        <TextField
          required
          label="Recorder"
          value={recorder}
          onChange={(e) => setRecorder(e.target.value)}
          {...at("recorder")}
        />
        <TextField
          label="Note"
          value={draft.note}
          onChange={(e) => setDraft({ ...draft, note: e.target.value })}
          sx={{ gridColumn: "1 / -1" }}
          {...at("note")}
        />
      </Box>
      <Box
        component="fieldset"
        sx={{
          border: 0,
          p: 0,
          m: 0,
          mt: 2,
          display: "grid",
          gap: 2,
          gridTemplateColumns: { xs: "1fr 1fr", sm: "11rem 11rem" },
        }}
      >
        <Typography component="legend" variant="body2" sx={{ mb: 1, maxWidth: 720 }}>
          Checked blind? Somebody noted the place of some plants beforehand without saying so: how many, and how many of
          them this count found. It says how many are overlooked.
        </Typography>
        <TextField
          label="Known beforehand"
          value={check.known}
          onChange={(e) => {
            clearProblem();
            setCheck({ ...check, known: e.target.value });
          }}
          slotProps={{ htmlInput: { inputMode: "numeric" } }}
        />
        <TextField
          label="Found of them"
          value={check.found}
          onChange={(e) => {
            clearProblem();
            setCheck({ ...check, found: e.target.value });
          }}
          slotProps={{ htmlInput: { inputMode: "numeric" } }}
          {...at("found")}
        />
      </Box>
      <Box component="ul" sx={{ pl: 2.5, my: 1.5, maxWidth: 720 }}>
        {words.countCare.map((text) => (
          <Typography component="li" variant="body2" key={text}>
            {text}
          </Typography>
        ))}
      </Box>
      {elsewhere && (
        <Typography role="alert" color="error">
          {elsewhere}
        </Typography>
      )}
      <Box sx={{ display: "flex", gap: 1.5, mt: 1.5 }}>
        <Button type="submit" variant="contained" sx={{ minHeight: 52 }}>
          Keep the count
        </Button>
        <Button onClick={onDone}>Stop for now</Button>
      </Box>
    </Box>
  );
}
