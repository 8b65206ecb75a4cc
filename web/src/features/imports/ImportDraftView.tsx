import { Box, Button, MenuItem, TextField, Typography } from "@mui/material";
import { useState } from "react";
import { api } from "../../api/client";
import words from "../../api/words";
import { usePlaces } from "../../offline/documents";
import { personOf } from "../../offline/people";
import { usePeople } from "../../offline/queries";
import { dayOrSpan, spoken } from "../../shared/calendar/day";
import { lastRecorder } from "../../shared/form/last";
import { Part } from "../../shared/ui/Page";
import { ImportNames } from "./ImportNames";
import { ImportPlaces } from "./ImportPlaces";
import { ImportProblems } from "./ImportProblems";
import { Row, Rows } from "./Rows";
import { useTaking, usePreview, type Choices, type Draft, type Field, type Preview } from "./useImport";

interface Props {
  draft: Draft;
  onDone: (said: string) => void;
}

const fields = Object.entries(words.importFields) as [Field, string][];

const NONE = "none";
const LONGEST_SAMPLE = 160;

const many = (count: number, one: string, more: string) => `${count.toLocaleString()} ${count === 1 ? one : more}`;

/** A file before it is taken in: what its columns hold, what becomes of its lines, what has to be decided. */
export function ImportDraftView({ draft, onDone }: Props) {
  const places = usePlaces().data ?? [];
  const people = usePeople();
  const [by, setBy] = useState(lastRecorder());
  const [recorder, setRecorder] = useState("");
  const [choices, setChoices] = useState<Choices>({
    fields: draft.columns.map((it) => it.field),
    order: "unsaid",
    date: "",
    placeId: null,
    recorder: null,
    names: [],
    places: [],
    keepsDoubles: false,
  });
  const change = (part: Partial<Choices>) => setChoices((before) => ({ ...before, ...part }));
  const preview = usePreview(draft, choices);
  const taking = useTaking();
  const it = preview.data;
  const count = it ? it.tally.found + it.tally.plants + it.tally.absent - it.alreadyHere : 0;
  const setField = (at: number, field: Field) =>
    change({
      // Each field stands in one column.
      fields: choices.fields.map((one, i) => (i === at ? field : one === field ? "none" : one)),
    });
  const nameRecorder = async (name: string) =>
    change({ recorder: name.trim() ? await personOf(name, people.data) : null });
  const take = async () => {
    if (await taking.take(draft, choices, await personOf(by, people.data)))
      onDone(`${many(count, "record was", "records were")} taken in from “${draft.fileName}”.`);
  };
  const discard = async () => {
    await api.DELETE("/api/v1/imports/{id}", { params: { path: { id: draft.id } } });
    onDone("");
  };
  const isReady = it && it.hinders.length === 0 && count > 0 && by.trim() !== "" && !preview.isPlaceholderData;
  return (
    <>
      <Typography sx={{ mb: 1 }}>
        <strong>{draft.fileName}</strong>, {draft.kind}
      </Typography>
      {draft.takenBefore && (
        <Typography sx={{ color: "signal.open", fontWeight: 700 }}>
          △ This very file was taken in on {spoken(draft.takenBefore.slice(0, 10))}. What stands here isn’t taken twice.
        </Typography>
      )}
      {draft.notes.map((note) => (
        <Typography key={note} sx={{ color: "signal.open" }}>
          △ {note}
        </Typography>
      ))}
      <Part id="becomes" title="What becomes of it">
        {preview.isError && (
          <Typography role="alert" color="error">
            ✕ {preview.error.message}
          </Typography>
        )}
        {!it && !preview.isError && <Typography role="status">Its lines are being read …</Typography>}
        {it && <Tally it={it} />}
        {it?.hinders.map((why) => (
          <Typography key={why} role="alert" sx={{ color: "signal.conflict", fontWeight: 700 }}>
            ✕ {why}
          </Typography>
        ))}
        <Box sx={{ display: "flex", flexWrap: "wrap", gap: 1.5, alignItems: "flex-start", my: 2 }}>
          <TextField
            label="Who takes it in"
            value={by}
            onChange={(event) => setBy(event.target.value)}
            helperText={by.trim() === "" ? "Write your name." : undefined}
            sx={{ width: 220 }}
          />
          {taking.progress ? (
            <>
              <Typography role="status" sx={{ py: 1.5 }}>
                {taking.progress.of > 0
                  ? `${taking.progress.done.toLocaleString()} of ${taking.progress.of.toLocaleString()} lines …`
                  : "Its lines are being read …"}
              </Typography>
              <Button onClick={taking.stop} sx={{ minHeight: 48 }}>
                Stop
              </Button>
            </>
          ) : (
            <>
              <Button variant="contained" disabled={!isReady} onClick={() => void take()} sx={{ minHeight: 48 }}>
                Take {many(count, "record", "records")} in
              </Button>
              <Button onClick={() => void discard()} sx={{ minHeight: 48 }}>
                Leave it
              </Button>
            </>
          )}
        </Box>
        {taking.failure && (
          <Typography role="alert" color="error">
            ✕ {taking.failure}
          </Typography>
        )}
      </Part>
      {it && <ImportProblems preview={it} choices={choices} onChange={change} />}
      {it && (
        <Box sx={{ display: "grid", gridTemplateColumns: { lg: "minmax(0, 7fr) minmax(0, 5fr)" }, columnGap: 4 }}>
          <ImportNames names={it.names} others={it.otherNames} choices={choices} onChange={change} />
          <ImportPlaces places={it.places} known={places} choices={choices} onChange={change} />
        </Box>
      )}
      <Part id="columns" title="What its columns hold">
        <Rows name="Columns">
          {draft.columns.map((column, at) => (
            <Row
              key={at}
              given={
                <>
                  <strong>{column.heading || `column ${at + 1}`}</strong>
                  <Typography component="span" color="text.secondary">
                    {" "}
                    {column.samples.join(" · ").slice(0, LONGEST_SAMPLE)}
                  </Typography>
                </>
              }
            >
              <TextField
                select
                fullWidth
                size="small"
                value={choices.fields[at] ?? "none"}
                onChange={(event) => setField(at, event.target.value as Field)}
                slotProps={{
                  select: {
                    SelectDisplayProps: { "aria-label": `What ${column.heading || `column ${at + 1}`} holds` },
                  },
                }}
              >
                {fields.map(([field, says]) => (
                  <MenuItem key={field} value={field}>
                    {says}
                  </MenuItem>
                ))}
              </TextField>
            </Row>
          ))}
        </Rows>
      </Part>
      <Part id="usual" title="For lines that don’t say it">
        <Box sx={{ display: "grid", gridTemplateColumns: { sm: "repeat(3, 1fr)" }, gap: 2, maxWidth: 880 }}>
          <TextField
            select
            label="Place"
            value={choices.placeId ?? NONE}
            onChange={(event) => change({ placeId: event.target.value === NONE ? null : event.target.value })}
          >
            <MenuItem value={NONE}>none: they are left out</MenuItem>
            {places.map((place) => (
              <MenuItem key={place.id} value={place.id}>
                {place.name}
              </MenuItem>
            ))}
          </TextField>
          <TextField
            label="Day, month or year"
            value={choices.date}
            onChange={(event) => change({ date: event.target.value.trim() })}
            helperText="2021-06-03, June 2021 or 2021"
          />
          <TextField
            label="Who recorded it"
            value={recorder}
            onChange={(event) => setRecorder(event.target.value)}
            onBlur={() => void nameRecorder(recorder)}
          />
        </Box>
      </Part>
    </>
  );
}

function Tally({ it }: { it: Preview }) {
  const { tally } = it;
  const parts = [
    tally.found > 0 && many(tally.found, "line of a list", "lines of lists"),
    tally.plants > 0 && many(tally.plants, "look at a plant", "looks at plants"),
    tally.absent > 0 && `${tally.absent.toLocaleString()} looked for in vain`,
    tally.empty > 0 && many(tally.empty, "visit without a find", "visits without a find"),
  ].filter(Boolean);
  const rest = [
    it.alreadyHere > 0 && `${many(it.alreadyHere, "stands", "stand")} here already`,
    tally.doubles > 0 && `${many(tally.doubles, "says", "say")} what another line says`,
    tally.chosenOut > 0 && `${many(tally.chosenOut, "waits", "wait")} for a decision on the name, or you left them out`,
    tally.leftOut > 0 && `${many(tally.leftOut, "isn’t", "aren’t")} taken in, with reasons below`,
  ].filter(Boolean);
  return (
    <>
      <Typography sx={{ fontSize: "1.15rem" }}>
        <strong>{many(tally.read, "line", "lines")}</strong> become{tally.read === 1 ? "s" : ""}{" "}
        {parts.length > 0 ? parts.join(", ") : "nothing yet"}
        {it.visits > 0 && `, on ${many(it.visits, "visit", "visits")}`}
        {it.from && it.to && `, ${dayOrSpan(it.from, it.to === it.from ? null : it.to)}`}.
      </Typography>
      {rest.length > 0 && <Typography>Of them {rest.join("; ")}.</Typography>}
      {it.orderIs && <Typography color="text.secondary">{it.orderIs}</Typography>}
    </>
  );
}
