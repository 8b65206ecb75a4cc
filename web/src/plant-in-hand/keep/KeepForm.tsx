import { Autocomplete } from "../../shared/form/Autocomplete";
import { Box, Button, MenuItem, TextField, Typography } from "@mui/material";
import { useId, useRef, useState, type FormEvent } from "react";
import { NIL, v7 as uuid } from "uuid";
import type { Problem, Schemas } from "../../api/client";
import { offered, usePlaces } from "../../offline/documents";
import { usePeople } from "../../offline/queries";
import { send } from "../../offline/outbox";
import { personOf } from "../../offline/people";
import { store, type KeepForm as Form, type PlantInHand } from "../../offline/store";
import { NamesLabel } from "../../shared/botany/TaxonLabel";
import { PlaceDialog } from "./PlaceDialog";
import { today } from "../../shared/calendar/day";
import { remember } from "../walks";

interface Props {
  walk: PlantInHand;
  /** The names that stand: one, or an open set. */
  names: string[];
  /** What to say of them. */
  said: string;
  /** The key and the answers on the way, those of the sheet too; left out where it was named without a key. */
  trail?: { startKey: string; answers: Schemas["TrailAnswer"][] };
  /** How the name was confirmed; left out where it wasn't. */
  confirming?: Schemas["Confirming"];
  backTo: string;
  onChange: (form: Form) => void;
  onBack: () => void;
  onKept: (plantId: string) => void;
  onWaiting: () => void;
  onRefused: (problem: Problem) => void;
}

/** More names than this are said in small letters below the title: on a phone they filled the screen. */
const NAMES_IN_TITLE = 2;

/** Place, day, recorder and note of a determination; trail and sheet go with it. */
export function KeepForm(props: Props) {
  const { walk, names, said, trail, confirming, backTo, onChange, onBack, onKept, onWaiting, onRefused } = props;
  const places = usePlaces();
  const people = usePeople();
  const [adding, setAdding] = useState(false);
  const [errors, setErrors] = useState<Partial<Record<keyof Form, string>>>({});
  const [busy, setBusy] = useState(false);
  // The select's handle focuses what is seen of it, not the hidden field that carries its name.
  const placeField = useRef<HTMLInputElement>(null);
  const dateField = useRef<HTMLInputElement>(null);
  const recorderField = useRef<HTMLInputElement>(null);
  const heading = useId();
  const form = walk.form;
  const set = (part: Partial<Form>) => {
    setErrors({});
    onChange({ ...form, ...part });
  };
  const refused = fieldOf(walk.problem);

  const submit = async (event: FormEvent) => {
    event.preventDefault();
    const found: Partial<Record<keyof Form, string>> = {};
    if (!form.placeId) found.placeId = "Choose the place, or add it.";
    if (!form.recorder.trim()) found.recorder = "Write who determined it.";
    const date = dateField.current?.validity;
    if (date?.badInput) found.date = "There is no such date.";
    else if (!form.date) found.date = "Give the day on which the plant was seen.";
    else if (date?.rangeOverflow) found.date = "This date is in the future. Give the day on which the plant was seen.";
    setErrors(found);
    if (Object.keys(found).length > 0) {
      const fields = { placeId: placeField, date: dateField, recorder: recorderField };
      const first = (["placeId", "date", "recorder"] as const).find((name) => found[name]);
      if (first) fields[first].current?.focus();
      return;
    }
    setBusy(true);
    remember(form);
    const plantId = walk.plant?.id ?? uuid();
    await (await store()).put("walks", { ...walk, sending: true, problem: undefined });
    const sent = await send(
      {
        kind: "recordDetermination",
        id: uuid(),
        determinationId: uuid(),
        // Another name for what was seen on a day belongs to the same look at the plant.
        occurrenceId: walk.plant?.looks.find((look) => look.date === form.date)?.id ?? uuid(),
        plantId,
        plantLabel: form.label.trim(),
        placeId: form.placeId,
        eventDate: form.date,
        recorder: await personOf(form.recorder, people.data),
        startKey: trail?.startKey ?? "",
        answers: trail?.answers ?? [],
        names,
        note: form.note.trim(),
        observations: (walk.observations ?? []).filter((o) => !walk.keptIds?.includes(o.id)),
        hand: walk.hand ?? [],
        confirming: confirming ?? null,
        knownLast: walk.plant?.lastNamed ?? NIL,
      },
      { walkId: walk.id, creates: walk.plant ? [] : [plantId] },
    );
    setBusy(false);
    if (sent.kind === "applied") onKept(plantId);
    else if (sent.kind === "waiting") onWaiting();
    else onRefused(sent.problem);
  };

  return (
    <Box component="form" noValidate onSubmit={(event) => void submit(event)} aria-labelledby={heading}>
      <Typography variant="h1" component="h2" id={heading}>
        Keep it as {names.length > NAMES_IN_TITLE ? `one of ${names.length} taxa` : <NamesLabel names={names} />}
      </Typography>
      {names.length > NAMES_IN_TITLE && (
        <Typography variant="body2">
          <NamesLabel names={names} />
        </Typography>
      )}
      <Typography variant="body2" color="text.secondary" sx={{ mb: 2 }}>
        {said}
        {walk.plant && " The plant’s earlier determinations stay."}
      </Typography>
      {walk.problem && !refused && (
        <Typography role="alert" color="error" sx={{ mb: 2 }}>
          ✕ {walk.problem.title} {walk.problem.detail}
        </Typography>
      )}
      <Box sx={{ display: "grid", gap: 2, gridTemplateColumns: { xs: "1fr", sm: "1fr 1fr" } }}>
        <Box sx={{ display: "flex", gap: 1, alignItems: "start" }}>
          <TextField
            select
            required
            label="Place"
            name="placeId"
            inputRef={placeField}
            value={places.data?.some((p) => p.id === form.placeId) ? form.placeId : ""}
            onChange={(event) => set({ placeId: event.target.value })}
            disabled={Boolean(walk.plant)}
            {...help(errors.placeId, refused?.placeId, places.data?.find((p) => p.id === form.placeId)?.locality)}
          >
            {offered(places.data ?? [], form.placeId).map((place) => (
              <MenuItem key={place.id} value={place.id}>
                {place.name}
              </MenuItem>
            ))}
          </TextField>
          {!walk.plant && (
            <Button onClick={() => setAdding(true)} sx={{ minHeight: 56, whiteSpace: "nowrap" }}>
              Add a place
            </Button>
          )}
        </Box>
        <TextField
          required
          type="date"
          label="Seen on"
          name="date"
          value={form.date}
          onChange={(event) => set({ date: event.target.value })}
          inputRef={dateField}
          slotProps={{ htmlInput: { max: today() }, inputLabel: { shrink: true } }}
          {...help(errors.date, refused?.date)}
        />
        <Autocomplete
          freeSolo
          options={(people.data ?? []).map((person) => person.name)}
          inputValue={form.recorder}
          onInputChange={(_, recorder) => {
            if (recorder !== form.recorder) set({ recorder });
          }}
          renderInput={(params) => (
            <TextField
              {...params}
              required
              name="recorder"
              inputRef={recorderField}
              label="Recorder"
              {...help(errors.recorder, refused?.recorder)}
            />
          )}
        />
        <TextField
          label="Which plant"
          name="label"
          value={form.label}
          onChange={(event) => set({ label: event.target.value })}
          disabled={Boolean(walk.plant)}
          {...help(undefined, refused?.label, "So that you find it again: “by the second footbridge”.")}
        />
        <TextField
          label="Note"
          name="note"
          multiline
          minRows={2}
          value={form.note}
          onChange={(event) => set({ note: event.target.value })}
          sx={{ gridColumn: { sm: "1 / -1" } }}
          {...help(undefined, refused?.note)}
        />
      </Box>
      <Box sx={{ display: "flex", flexWrap: "wrap", gap: 1.5, mt: 2 }}>
        <Button type="submit" variant="contained" disabled={busy} sx={{ minWidth: 160 }}>
          {busy ? "Keeping …" : "Keep the record"}
        </Button>
        <Button onClick={onBack}>{backTo}</Button>
      </Box>
      {adding && (
        <PlaceDialog
          onClose={(placeId) => {
            setAdding(false);
            if (placeId) set({ placeId });
          }}
        />
      )}
    </Box>
  );
}

function help(error?: string, refused?: string, plain?: string) {
  const text = error ?? refused;
  return { error: Boolean(text), helperText: text ? `✕ ${text}` : plain };
}

/** The field of the form that a problem concerns, with its words; undefined where it concerns the record as a whole. */
function fieldOf(problem: Problem | undefined): Partial<Record<keyof Form, string>> | undefined {
  const fields: Record<string, keyof Form> = {
    placeId: "placeId",
    eventDate: "date",
    recorder: "recorder",
    plantLabel: "label",
    note: "note",
  };
  const field = problem && fields[problem.field];
  return field ? { [field]: `${problem.title} ${problem.detail}` } : undefined;
}
