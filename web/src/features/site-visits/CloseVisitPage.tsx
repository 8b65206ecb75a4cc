import { Box, Button, Checkbox, FormControlLabel, IconButton, Typography } from "@mui/material";
import { TextField } from "../../shared/form/TextField";
import type { FormEvent } from "react";
import { useNavigate, useParams } from "react-router";
import { v7 as uuid } from "uuid";
import type { Schemas } from "../../api/client";
import { timeNow, today } from "../../api/today";
import words from "../../api/words";
import { useGrounds } from "../../offline/grounds";
import { useMending, useSend } from "../../offline/mending";
import { useSiteVisit } from "../../offline/siteVisits";
import { TaxonLabel } from "../../shared/botany/TaxonLabel";
import { Choice } from "../../shared/form/Choice";
import { unsettledOf } from "../../shared/form/useEntered";
import { useTyped } from "../../shared/form/useTyped";
import { useProblem } from "../../shared/form/useProblem";
import { endTrack, useRunningTrack } from "../../shared/place/tracking";
import { Page, Part } from "../../shared/ui/Page";
import { useListAdvice } from "./useListAdvice";
import { listOf } from "./useVisitCommands";

type Closing = Schemas["VisitClosing"];
type Visit = Schemas["SiteVisit"];

/** What is said at the end of a visit: when it was, how far the list goes, what was looked for in vain, what is still unsure. */
export function CloseVisitPage() {
  const { visitId = "" } = useParams();
  const { data: visit, isError } = useSiteVisit(visitId);
  const mend = useMending("closeSiteVisit");
  // What was typed and not sent yet outlives the page.
  const [draft, setDraft, clearDraft] = useTyped<Draft | null>(`closing:${visitId}`, () => null);
  return (
    <Page title={visit ? `The end of the visit to ${visit.place.name}` : "The end of a visit"}>
      {isError && <Typography role="alert">There is no such visit on this device or server.</Typography>}
      {visit && mend !== undefined && draft !== undefined && (
        <ClosingForm
          key={visit.id}
          visit={visit}
          draft={draft ?? draftOf(mend?.command.closing ?? visit.closing, visit)}
          mends={mend?.id}
          onChange={setDraft}
          onSent={clearDraft}
        />
      )}
    </Page>
  );
}

interface Sought {
  taxon: string;
  area: string;
  minutes: string;
  observers: string;
  note: string;
}

const EMPTY: Sought = { taxon: "", area: "", minutes: "", observers: "1", note: "" };

const completenesses = Object.entries(words.completenesses) as [Closing["completeness"], string][];

/** What is typed, before it is sent. */
interface Draft {
  endedAt: string;
  completeness: Closing["completeness"];
  group: string;
  level: string;
  sought: Sought[];
  ticks: string[];
  note: string;
}

const draftOf = (said: Closing | null | undefined, visit: Visit): Draft => ({
  endedAt: said?.endedAt ?? (visit.date === today() ? timeNow() : ""),
  completeness: said?.completeness ?? "unsaid",
  group: said?.group ?? words.listedGroups[0] ?? "",
  level: said?.level ?? words.listedLevels[0] ?? "",
  sought:
    said?.sought.map((it) => ({
      ...it,
      minutes: String(it.minutes),
      observers: String(it.observers),
      note: it.note ?? "",
    })) ?? [],
  ticks: said?.ticks ?? [],
  note: said?.note ?? "",
});

interface FormProps {
  visit: Visit;
  draft: Draft;
  mends?: string;
  onChange: (draft: Draft) => void;
  onSent: () => void;
}

function ClosingForm({ visit, draft, mends, onChange, onSent }: FormProps) {
  const navigate = useNavigate();
  const send = useSend(mends);
  const { running: track } = useRunningTrack();
  const { answer, advice } = useListAdvice(visit);
  const { endedAt, completeness, group, level, sought, ticks, note } = draft;
  const set = (part: Partial<Draft>) => onChange({ ...draft, ...part });
  const setSought = (make: (all: Sought[]) => Sought[]) => set({ sought: make(sought) });
  const { at, elsewhere, miss, setProblem } = useProblem(["endedAt", "sought", "note"]);
  const unnamed = visit.records.filter((it) => it.lines[0]?.name === "");
  const doubted = visit.records.flatMap((record) =>
    record.lines.flatMap((line) =>
      (advice.get(line.id)?.doubts ?? []).map((doubt) => ({ name: record.called, key: line.id + doubt.kind, doubt })),
    ),
  );
  const invasive = visit.records.filter((record) => record.lines.some((line) => advice.get(line.id)?.isToBeTold));
  const tell = useGrounds().data?.find((it) => it.placeId === visit.place.id)?.ground.tell;
  const offered = (answer?.seenBefore ?? []).filter((it) => !sought.some((s) => s.taxon === it.name));
  const change = (i: number, part: Partial<Sought>) =>
    setSought((all) => all.map((it, k) => (k === i ? { ...it, ...part } : it)));
  const submit = async (event: FormEvent) => {
    event.preventDefault();
    const rows = sought.filter((it) => it.taxon.trim());
    const bad = rows.find((it) => !(Number(it.minutes) > 0) || !(Number(it.observers) > 0));
    if (bad) return miss("sought", `Say for how many minutes ${bad.taxon} was sought, and by how many.`);
    const [left] = await unsettledOf(listOf(visit.id));
    if (left) return miss("list", `“${left}” was entered and isn’t settled yet: say on the list what it is.`);
    if (track?.visitId === visit.id) await endTrack();
    const sent = await send({
      kind: "closeSiteVisit",
      id: uuid(),
      siteVisitId: visit.id,
      closing: {
        endedAt,
        completeness,
        group: group.trim(),
        level: level.trim(),
        sought: rows.map((it) => ({
          taxon: it.taxon.trim(),
          area: it.area.trim(),
          minutes: Math.floor(Number(it.minutes)),
          observers: Math.floor(Number(it.observers)),
          note: it.note.trim(),
        })),
        ticks,
        note: note.trim(),
      },
    });
    if (sent.kind === "refused")
      return setProblem({
        ...sent.problem,
        field: sent.problem.code.startsWith("visit.sought") ? "sought" : sent.problem.field,
      });
    onSent();
    void navigate(`/site-visits/${visit.id}`);
  };
  const wrong = at("sought");
  return (
    <Box component="form" noValidate onSubmit={(event) => void submit(event)} sx={{ maxWidth: 880 }}>
      <Part id="when" title="When, and how far the list goes">
        <Box sx={{ display: "grid", gap: 2 }}>
          <TextField
            type="time"
            label="Ended at"
            value={endedAt}
            onChange={(event) => set({ endedAt: event.target.value })}
            slotProps={{ inputLabel: { shrink: true } }}
            sx={{ width: 180 }}
            {...at("endedAt")}
          />
          <Box>
            <Typography sx={{ mb: 0.5 }}>Is every taxon on the list that was noticed and could be named?</Typography>
            <Choice
              label="Complete"
              choices={completenesses}
              value={completeness}
              onChoose={(it) => it && set({ completeness: it })}
            />
          </Box>
          <Box sx={{ display: "grid", gap: 2, gridTemplateColumns: { xs: "1fr", sm: "1fr 1fr" } }}>
            <Offered
              label="Of which group"
              value={group}
              offered={words.listedGroups}
              onChange={(it) => set({ group: it })}
            />
            <Offered
              label="How fine"
              value={level}
              offered={words.listedLevels}
              onChange={(it) => set({ level: it })}
            />
          </Box>
        </Box>
      </Part>
      <Part id="sought" title="Looked for in vain">
        <Typography variant="body2" color="text.secondary" sx={{ mb: 1 }}>
          Only what was searched for, with its time, counts as not found. What merely isn’t on the list doesn’t.
        </Typography>
        {sought.map((it, i) => (
          <Box
            key={i}
            sx={{
              display: "grid",
              gap: 1,
              mb: 1.5,
              gridTemplateColumns: { xs: "1fr 1fr", sm: "2fr 2fr 6rem 6rem auto" },
            }}
          >
            <TextField
              label="What"
              value={it.taxon}
              onChange={(event) => change(i, { taxon: event.target.value })}
              sx={{ gridColumn: { xs: "1 / -1", sm: "auto" } }}
            />
            <TextField
              label="Where"
              value={it.area}
              onChange={(event) => change(i, { area: event.target.value })}
              sx={{ gridColumn: { xs: "1 / -1", sm: "auto" } }}
            />
            <TextField
              required
              label="Minutes"
              value={it.minutes}
              onChange={(event) => change(i, { minutes: event.target.value })}
              slotProps={{ htmlInput: { inputMode: "numeric" } }}
            />
            <TextField
              required
              label="People"
              value={it.observers}
              onChange={(event) => change(i, { observers: event.target.value })}
              slotProps={{ htmlInput: { inputMode: "numeric" } }}
            />
            <IconButton
              aria-label={`Take ${it.taxon || "this line"} out`}
              onClick={() => setSought((all) => all.filter((_, k) => k !== i))}
            >
              ✕
            </IconButton>
          </Box>
        ))}
        {wrong.helperText && (
          <Typography role="alert" color="error">
            {wrong.helperText}
          </Typography>
        )}
        <Box sx={{ display: "flex", flexWrap: "wrap", gap: 1 }}>
          <Button onClick={() => setSought((all) => [...all, { ...EMPTY, observers: String(visit.people.length) }])}>
            Add what was sought
          </Button>
        </Box>
        {offered.length > 0 && (
          <Box sx={{ mt: 1.5 }}>
            <Typography sx={{ mb: 0.5 }}>Seen here before and not on this list. Were they looked for?</Typography>
            <Box sx={{ display: "flex", flexWrap: "wrap", gap: 0.75 }}>
              {offered.map((it) => (
                <Button
                  key={it.name}
                  onClick={() =>
                    setSought((all) => [...all, { ...EMPTY, taxon: it.name, observers: String(visit.people.length) }])
                  }
                >
                  + {it.name}
                  {it.canBeTold === false && " (shows nothing now)"}
                </Button>
              ))}
            </Box>
          </Box>
        )}
        {sought.map((it) => {
          const known = answer?.seenBefore.find((s) => s.name === it.taxon);
          return known?.canBeTold === false ? (
            <Typography key={it.taxon} variant="body2" sx={{ color: "signal.open", mt: 0.5 }}>
              △ By the flora {it.taxon} shows nothing of itself on this day: that it wasn’t found says little.
            </Typography>
          ) : null;
        })}
      </Part>
      {invasive.length > 0 && (
        <Part id="tell" title="Invasive, and new here">
          <Typography>
            △{" "}
            {invasive.map((it, i) => (
              <span key={it.called}>
                {i > 0 && ", "}
                <TaxonLabel name={it.called} />
              </span>
            ))}
            : tell{" "}
            {tell ? (
              <strong>{tell}</strong>
            ) : (
              "whoever is named for invasive plants where you are (who that is here can be written down on the map, with the place’s leave)"
            )}
            . Garten tells nobody by itself.
          </Typography>
          <Typography variant="body2">
            Leave it standing unless the law and the owner allow otherwise; fragments travel sealed, only where that is
            lawful. Clean boots and gear before the next place, and go to the cleanest water first.
          </Typography>
        </Part>
      )}
      {doubted.length > 0 && (
        <Part id="doubts" title="Is this right?">
          <Typography variant="body2" color="text.secondary" sx={{ mb: 1 }}>
            What is right stays as it is. What was a slip is corrected or taken back on the list; why a strange find is
            right goes into its note there.
          </Typography>
          <Box component="ul" sx={{ m: 0, pl: 2.5 }}>
            {doubted.map(({ name, key, doubt }) => (
              <li key={key}>
                <TaxonLabel name={name} />: {doubt.says}
              </li>
            ))}
          </Box>
        </Part>
      )}
      {unnamed.length > 0 && (
        <Part id="unnamed" title="Without a name yet">
          <Typography>
            {unnamed.map((it) => it.called).join(", ")}: each is a marked plant with a sheet of its own. Once it is
            named, its line bears the name too.
          </Typography>
        </Part>
      )}
      <Part id="minded" title="Before you leave">
        {words.mindedAtEnd.map((it) => (
          <FormControlLabel
            key={it}
            sx={{ display: "flex" }}
            control={
              <Checkbox
                checked={ticks.includes(it)}
                onChange={(_, on) => set({ ticks: on ? [...ticks, it] : ticks.filter((t) => t !== it) })}
              />
            }
            label={it}
          />
        ))}
        <TextField
          fullWidth
          multiline
          label="Note"
          value={note}
          onChange={(event) => set({ note: event.target.value })}
          sx={{ mt: 1 }}
          {...at("note")}
        />
      </Part>
      {elsewhere && (
        <Typography role="alert" color="error">
          {elsewhere}
        </Typography>
      )}
      <Box sx={{ display: "flex", gap: 1.5 }}>
        <Button type="submit" variant="contained" sx={{ minHeight: 52 }}>
          End the visit
        </Button>
        <Button onClick={() => void navigate(`/site-visits/${visit.id}`)}>Back to the list</Button>
      </Box>
    </Box>
  );
}

interface OfferedProps {
  label: string;
  value: string;
  offered: string[];
  onChange: (value: string) => void;
}

/** A text field that offers some usual answers. */
function Offered({ label, value, offered, onChange }: OfferedProps) {
  const id = `offered-${label.replaceAll(" ", "-").toLowerCase()}`;
  return (
    <>
      <TextField
        label={label}
        value={value}
        onChange={(event) => onChange(event.target.value)}
        slotProps={{ htmlInput: { list: id } }}
      />
      <datalist id={id}>
        {offered.map((it) => (
          <option key={it} value={it} />
        ))}
      </datalist>
    </>
  );
}
