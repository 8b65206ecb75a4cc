import { Box, Button, Checkbox, FormControlLabel, MenuItem, TextField, Typography } from "@mui/material";
import { useState } from "react";
import { v7 as uuid } from "uuid";
import type { Schemas } from "../../api/client";
import { today } from "../../api/today";
import { core } from "../../core/coreClient";
import { useSend } from "../../offline/mending";
import { personOf } from "../../offline/people";
import { usePeople } from "../../offline/queries";
import type { Command } from "../../offline/store";
import { TaxonLabel } from "../../shared/botany/TaxonLabel";
import { useBenchFlora } from "../../shared/botany/useBenchFlora";
import { day } from "../../shared/calendar/day";
import { unsettledOf } from "../../shared/form/useEntered";
import { lastRecorder } from "../../shared/form/last";
import { beginVisit } from "../../shared/place/beginVisit";
import { numberOf } from "../../shared/form/useFields";
import { useTyped } from "../../shared/form/useTyped";
import { amountOf } from "./amount";
import { PlotEntry } from "./PlotEntry";

type Save = Extract<Command, { kind?: "recordPlot" }>;
type Find = Schemas["PlotFind"];

interface Props {
  whole: Schemas["SurveyWhole"];
  plot: Schemas["Plot"];
  protocol: Schemas["SurveyProtocol"];
  /** The recordings of the plot that hold. */
  records: Schemas["PlotRecord"][];
  /** The recording that is corrected; nothing for a new one. */
  correcting?: Schemas["PlotRecord"];
  refused?: { id: string; command: Save };
  onDone: () => void;
}

interface TypedLayer {
  percent: string;
  heightCm: string;
}

interface Typed {
  finds: Find[];
  layers: Record<string, TypedLayer>;
  bareGround: string;
  litter: string;
  minutes: string;
  departure: string;
  note: string;
}

const asText = (value: number | null | undefined) => (typeof value === "number" ? String(value) : "");

const noLayer: TypedLayer = { percent: "", heightCm: "" };

const typedOf = (it: Save | Schemas["PlotRecord"] | undefined): Typed => ({
  finds: it?.finds ?? [],
  layers: Object.fromEntries(
    (it?.layers ?? []).map((of) => [of.name, { percent: asText(of.percent), heightCm: asText(of.heightCm) }]),
  ),
  bareGround: asText(it?.bareGround),
  litter: asText(it?.litter),
  minutes: asText(it?.minutes),
  departure: it?.departure ?? "",
  note: it?.note ?? "",
});

/** Records a plot at the speed of reading aloud: a name and how much of it, Enter, the next one. What is typed outlives the page. */
export function PlotRecorder({ whole, plot, protocol, records, correcting, refused, onDone }: Props) {
  const { host, flora } = useBenchFlora(undefined);
  const people = usePeople();
  const send = useSend(refused?.id);
  const name = `plot:${plot.id}:${correcting?.id ?? refused?.id ?? ""}`;
  const [typed, setTyped, forget] = useTyped<Typed>(name, () => typedOf(correcting ?? refused?.command));
  const [layer, setLayer] = useState(protocol.layers.at(-1) ?? "");
  const visits = whole.visits.filter((it) => it.place.id === plot.placeId).sort((a, b) => (a.date < b.date ? 1 : -1));
  const open = visits.find((it) => it.date === today() && !it.closing);
  const [visitId, setVisitId] = useState(correcting?.siteVisitId ?? refused?.command.siteVisitId ?? open?.id ?? "");
  const [recorder, setRecorder] = useState(correcting?.recorder ?? lastRecorder());
  const [isSecond, setSecond] = useState(Boolean(correcting?.repeats ?? refused?.command.repeats));
  const [wrong, setWrong] = useState("");
  if (!typed) return null;
  const change = (part: Partial<Typed>) => setTyped((now) => ({ ...(now ?? typed), ...part }));
  const first = records.find((it) => it.siteVisitId === visitId && !it.repeats);
  const add = (find: Find) => {
    setWrong("");
    // What was looked up comes when other things were typed already.
    setTyped((now) => {
      const before = now ?? typed;
      const others = before.finds.filter((it) => it.taxon !== find.taxon || it.layer !== find.layer);
      return { ...before, finds: [find, ...others] };
    });
  };
  const begin = async () => {
    if (!recorder.trim()) return setWrong("Write who records it.");
    const begun = await beginVisit({
      placeId: plot.placeId,
      recorder: recorder.trim(),
      people: people.data,
      purpose: "plots",
    });
    if (begun.failure !== undefined) return setWrong(begun.failure);
    setWrong("");
    setVisitId(begun.id);
  };
  const keep = async () => {
    if (!visitId) return setWrong("Say on which visit it is recorded.");
    if (!recorder.trim()) return setWrong("Write who records it.");
    const [left] = await unsettledOf(name);
    if (left) return setWrong(`“${left}” isn’t settled yet: say what it is, or take it out.`);
    const command: Save = {
      kind: "recordPlot",
      id: uuid(),
      recordId: uuid(),
      plotId: plot.id,
      siteVisitId: visitId,
      recorder: await personOf(recorder.trim(), people.data),
      finds: typed.finds,
      layers: Object.entries(layersOf(typed))
        .filter(([, it]) => it.percent.trim() || it.heightCm.trim())
        .map(([name, it]) => ({
          name,
          percent: numberOf(it.percent) ?? null,
          heightCm: numberOf(it.heightCm) ?? null,
        })),
      bareGround: numberOf(typed.bareGround) ?? null,
      litter: numberOf(typed.litter) ?? null,
      minutes: numberOf(typed.minutes) ?? null,
      departure: typed.departure.trim(),
      note: typed.note.trim(),
      repeats: correcting ? correcting.repeats : isSecond ? (first?.id ?? null) : null,
      supersedes: correcting?.id ?? null,
    };
    const [problem] = await core.checkPlot({ protocol, record: command });
    if (problem) return setWrong(problem.message);
    const sent = await send(command);
    if (sent.kind === "refused") return setWrong(`${sent.problem.title} ${sent.problem.detail}`);
    setTyped(typedOf(undefined));
    forget();
    onDone();
  };
  const small = (name: "bareGround" | "litter" | "minutes", label: string) => (
    <TextField
      label={label}
      value={typed[name]}
      onChange={(event) => change({ [name]: event.target.value })}
      slotProps={{ htmlInput: { inputMode: "decimal" } }}
    />
  );
  return (
    <>
      <Box sx={{ display: "grid", gap: 2, gridTemplateColumns: { xs: "1fr", sm: "2fr 1fr" }, maxWidth: 720, mb: 1 }}>
        <TextField
          select
          label="On which visit"
          value={visits.some((it) => it.id === visitId) ? visitId : ""}
          disabled={correcting !== undefined}
          onChange={(event) => setVisitId(event.target.value)}
        >
          {visits.map((it) => (
            <MenuItem key={it.id} value={it.id}>
              {day(it.date)}
              {it.startedAt && `, ${it.startedAt}`} · {it.people.map((person) => person.name).join(", ")}
            </MenuItem>
          ))}
        </TextField>
        <TextField label="Who records" value={recorder} onChange={(event) => setRecorder(event.target.value)} />
      </Box>
      {!open && !correcting && (
        <Box sx={{ display: "flex", flexWrap: "wrap", gap: 1, alignItems: "center", mb: 1 }}>
          <Typography variant="body2">No visit is open here today.</Typography>
          <Button onClick={() => void begin()} sx={{ minHeight: 44 }}>
            Begin one now
          </Button>
        </Box>
      )}
      {first && !correcting && (
        <FormControlLabel
          label={`Recorded by ${first.recorder} on this visit already: this one is independent, made without looking at the first`}
          control={<Checkbox checked={isSecond} onChange={(_, isOn) => setSecond(isOn)} />}
        />
      )}
      {protocol.layers.length > 1 && (
        <Box role="group" aria-label="Layer" sx={{ display: "flex", flexWrap: "wrap", gap: 1, mt: 1, mb: 2 }}>
          {protocol.layers.map((it) => (
            <Button
              key={it}
              variant={it === layer ? "contained" : "outlined"}
              aria-pressed={it === layer}
              onClick={() => setLayer(it)}
              sx={{ minHeight: 44 }}
            >
              {it}
            </Button>
          ))}
        </Box>
      )}
      {flora && (
        <PlotEntry
          list={name}
          floraId={flora.id}
          host={host}
          scale={protocol.scale}
          layer={layer}
          nests={protocol.nestSizes?.length ?? 0}
          onFind={add}
        />
      )}
      {wrong && (
        <Typography role="alert" color="error" sx={{ my: 1 }}>
          ✕ {wrong}
        </Typography>
      )}
      <Box component="ol" aria-label="In the plot" sx={{ listStyle: "none", p: 0, my: 1, maxWidth: 720 }}>
        {typed.finds.map((it) => (
          <Box
            component="li"
            key={`${it.taxon} ${it.layer}`}
            sx={{
              display: "flex",
              gap: 1.5,
              alignItems: "center",
              minHeight: 44,
              borderTop: "1px dotted",
              borderColor: "rule",
            }}
          >
            <Box sx={{ flex: 1 }}>
              <TaxonLabel name={it.taxon} />
              {it.layer && ` · ${it.layer}`}
            </Box>
            <strong>{amountOf(it)}</strong>
            <Button
              aria-label={`Take out ${it.taxon}`}
              onClick={() => change({ finds: typed.finds.filter((other) => other !== it) })}
            >
              Take out
            </Button>
          </Box>
        ))}
      </Box>
      <LayerFields
        names={[...new Set([...protocol.layers, ...Object.keys(layersOf(typed))])]}
        values={layersOf(typed)}
        onChange={(name, part) =>
          change({ layers: { ...layersOf(typed), [name]: { ...(layersOf(typed)[name] ?? noLayer), ...part } } })
        }
      />
      <Box sx={{ display: "grid", gap: 2, gridTemplateColumns: { xs: "1fr 1fr 1fr", sm: "repeat(3, 10rem)" }, mb: 2 }}>
        {small("bareGround", "Bare ground, %")}
        {small("litter", "Litter, %")}
        {small("minutes", "Minutes")}
      </Box>
      <Box sx={{ display: "grid", gap: 2, maxWidth: 720, mb: 2 }}>
        <TextField
          label="In what it departs from the protocol"
          value={typed.departure}
          onChange={(event) => change({ departure: event.target.value })}
        />
        <TextField
          label="Note"
          multiline
          value={typed.note}
          onChange={(event) => change({ note: event.target.value })}
        />
      </Box>
      <Box sx={{ display: "flex", gap: 1.5, mb: 2 }}>
        <Button
          variant={typed.finds.length === 0 ? "outlined" : "contained"}
          onClick={() => void keep()}
          sx={{ minHeight: 48 }}
        >
          {typed.finds.length === 0
            ? "Keep it: nothing grows there"
            : `Keep it: ${typed.finds.length} ${typed.finds.length === 1 ? "line" : "lines"}`}
        </Button>
        {correcting && <Button onClick={onDone}>Leave it</Button>}
      </Box>
    </>
  );
}

// What was typed before there were layers has none.
const layersOf = (it: Typed): Record<string, TypedLayer> => (it as Partial<Typed>).layers ?? {};

/** Cover and height of the layers as a whole. */
function LayerFields({
  names,
  values,
  onChange,
}: {
  names: string[];
  values: Record<string, TypedLayer>;
  onChange: (name: string, part: Partial<TypedLayer>) => void;
}) {
  if (names.length === 0) return null;
  return (
    <Box
      role="group"
      aria-label="The layers as a whole"
      sx={{ display: "grid", gap: 1.5, gridTemplateColumns: { xs: "1fr 1fr", sm: "repeat(4, 10rem)" }, mb: 2 }}
    >
      {names.flatMap((name) =>
        (["percent", "heightCm"] as const).map((of) => (
          <TextField
            key={`${name} ${of}`}
            label={`${name}: ${of === "percent" ? "cover, %" : "height, cm"}`}
            value={values[name]?.[of] ?? ""}
            onChange={(event) => onChange(name, { [of]: event.target.value })}
            slotProps={{ htmlInput: { inputMode: "decimal" } }}
          />
        )),
      )}
    </Box>
  );
}
