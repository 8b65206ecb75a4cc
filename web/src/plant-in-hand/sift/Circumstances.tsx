import words from "../../api/words";
import { Autocomplete } from "../../shared/form/Autocomplete";
import { Box, Button, Chip, MenuItem, Typography } from "@mui/material";
import { TextField } from "../../shared/form/TextField";
import { useMemo, useState, type ReactNode } from "react";
import type { Schemas } from "../../api/client";
import type { SiftSettings, PlantInHand } from "../../offline/store";
import { withFlora } from "../WalkStates";
import { AtHandLine, atHandWords, Toggle, type AtHand } from "../key/Outlook";
import { ofYear, today } from "../../shared/calendar/day";
import { counted } from "../../shared/ui/counted";

interface Props {
  walk: PlantInHand;
  settings: SiftSettings;
  places: Schemas["Place"][];
  atHand: AtHand;
  floras: Schemas["FloraSummary"][];
  floraId: string;
  taxa: Schemas["Taxon"][];
  organs: Schemas["Organ"][];
  onAtHand: (next: AtHand) => void;
  onChange: (walk: PlantInHand) => void;
}

/** Where, when and with what the plant is looked at, and how the list is weighed; in a line until it is changed. */
export function Circumstances(props: Props) {
  const { walk, settings, places, atHand, onChange } = props;
  const [open, setOpen] = useState(false);
  const place = places.find((p) => p.id === walk.form.placeId);
  const set = (part: Partial<SiftSettings>) => onChange({ ...walk, sift: { ...settings, ...part } });
  return (
    <Box
      component="section"
      aria-label="How the list is sifted"
      sx={{ borderBottom: 1, borderColor: "rule", mb: 1.5, pb: 0.5 }}
    >
      <Box sx={{ display: "flex", flexWrap: "wrap", alignItems: "center", gap: 1 }}>
        <Typography variant="body2" sx={{ flex: "1 1 20rem" }}>
          <strong>{place?.name ?? "No place"}</strong>, {walk.form.date ? ofYear(walk.form.date) : "no day"} ·{" "}
          {atHandWords(atHand)} ·{" "}
          {settings.prior === "equal" ? "all names equal at first" : "by what is plausible here"}
          {settings.tolerance !== undefined &&
            ` · strict: up to ${settings.tolerance} ${settings.tolerance === 1 ? "conflict" : "conflicts"}`}
          {settings.missing.length > 0 &&
            ` · without ${settings.missing.map((organ) => words.organs[organ].toLowerCase()).join(", ")}`}
        </Typography>
        <Button onClick={() => setOpen(!open)} aria-expanded={open}>
          {open ? "Close" : "Change"}
        </Button>
      </Box>
      <NarrowingChips settings={settings} set={set} />
      {open && <Settings {...props} set={set} />}
    </Box>
  );
}

// One and the same whenever nothing is chosen: another one would empty the field that is typed in.
const NONE: string[] = [];

interface SettingsProps extends Props {
  set: (part: Partial<SiftSettings>) => void;
}

/** Every narrowing in sight, each to be lifted with a tap. */
function NarrowingChips({ settings, set }: Pick<SettingsProps, "settings" | "set">) {
  const { narrowing } = settings;
  const without = (key: "families" | "growthForms" | "genera", value: string) =>
    set({ narrowing: { ...narrowing, [key]: (narrowing[key] ?? []).filter((it) => it !== value) } });
  const chips = [
    ...(narrowing.recordedHere
      ? [
          {
            words: "recorded in this place’s grid cell",
            lift: () => set({ narrowing: { ...narrowing, recordedHere: false } }),
          },
        ]
      : []),
    ...(narrowing.greenNow
      ? [{ words: "green on this day", lift: () => set({ narrowing: { ...narrowing, greenNow: false } }) }]
      : []),
    ...(["families", "genera", "growthForms"] as const).flatMap((key) =>
      (narrowing[key] ?? []).map((value) => ({ words: value, lift: () => without(key, value) })),
    ),
  ];
  if (chips.length === 0) return null;
  return (
    <Box sx={{ display: "flex", flexWrap: "wrap", alignItems: "center", gap: 0.75, py: 0.5 }}>
      <Typography variant="body2">
        <strong>⊂ Narrowed to:</strong>
      </Typography>
      {chips.map((chip) => (
        <Button
          key={chip.words}
          onClick={chip.lift}
          aria-label={`Lift: ${chip.words}`}
          sx={{ bgcolor: "signal.openWash" }}
        >
          {chip.words} ✕
        </Button>
      ))}
    </Box>
  );
}

function Settings({
  walk,
  settings,
  places,
  atHand,
  floras,
  floraId,
  taxa,
  organs,
  onAtHand,
  onChange,
  set,
}: SettingsProps) {
  const { narrowing } = settings;
  const options = useMemo(() => {
    const of = (pick: (taxon: Schemas["Taxon"]) => string | undefined) =>
      [...new Set(taxa.map(pick).filter((it): it is string => Boolean(it)))].sort();
    return {
      families: of((t) => t.family),
      genera: of((t) => t.name.split(" ")[0]),
      growthForms: of((t) => t.facts?.growthForm),
    };
  }, [taxa]);
  const lists = [
    ["families", "Families"],
    ["genera", "Genera"],
    ["growthForms", "Growth forms"],
  ] as const;
  const setForm = (part: Partial<PlantInHand["form"]>) => onChange({ ...walk, form: { ...walk.form, ...part } });
  return (
    <Box sx={{ display: "grid", gap: 2, py: 1.5 }}>
      <Box sx={{ display: "grid", gap: 1.5, gridTemplateColumns: { xs: "1fr", sm: "1fr 1fr" } }}>
        <TextField
          select
          label="Place"
          value={places.some((p) => p.id === walk.form.placeId) ? walk.form.placeId : ""}
          disabled={Boolean(walk.plant)}
          onChange={(event) => setForm({ placeId: event.target.value })}
        >
          <MenuItem value="">No place</MenuItem>
          {places.map((place) => (
            <MenuItem key={place.id} value={place.id}>
              {place.name}
              {place.cell && ` (${place.cell})`}
            </MenuItem>
          ))}
        </TextField>
        <TextField
          type="date"
          label="Seen on"
          value={walk.form.date}
          onChange={(event) => setForm({ date: event.target.value })}
          slotProps={{ htmlInput: { max: today() }, inputLabel: { shrink: true } }}
        />
        {floras.length > 1 && (
          <TextField
            select
            label="Flora"
            value={floraId}
            onChange={(event) => onChange(withFlora(walk, event.target.value))}
          >
            {floras.map((flora) => (
              <MenuItem key={flora.id} value={flora.id}>
                {flora.name}, {counted(flora.taxa, "taxon", "taxa")}
              </MenuItem>
            ))}
          </TextField>
        )}
      </Box>
      <AtHandLine atHand={atHand} onChange={onAtHand} />
      <Choice label="At first">
        <Toggle on={settings.prior === "equal"} onClick={() => set({ prior: "equal" })}>
          all names equal
        </Toggle>
        <Toggle on={settings.prior === "plausible"} onClick={() => set({ prior: "plausible" })}>
          by place, day, habitat and elevation
        </Toggle>
      </Choice>
      <Choice label="Standing">
        <Toggle on={settings.tolerance === undefined} onClick={() => set({ tolerance: undefined })}>
          weighed: all stand, by probability
        </Toggle>
        {[0, 1, 2].map((most) => (
          <Toggle key={most} on={settings.tolerance === most} onClick={() => set({ tolerance: most })}>
            {most === 0 ? "strict: no conflict" : `strict: up to ${most}`}
          </Toggle>
        ))}
      </Choice>
      <Choice label="This plant has no">
        {organs.map((organ) => (
          <Toggle
            key={organ}
            on={settings.missing.includes(organ)}
            onClick={() =>
              set({
                missing: settings.missing.includes(organ)
                  ? settings.missing.filter((it) => it !== organ)
                  : [...settings.missing, organ],
              })
            }
          >
            {words.organs[organ].toLowerCase()}
          </Toggle>
        ))}
      </Choice>
      <Box sx={{ display: "grid", gap: 1.5, gridTemplateColumns: { xs: "1fr", md: "1fr 1fr 1fr" } }}>
        {lists.map(([key, label]) => (
          <Autocomplete
            key={key}
            multiple
            options={options[key]}
            value={narrowing[key] ?? NONE}
            onChange={(_, value) => set({ narrowing: { ...narrowing, [key]: value } })}
            renderValue={(value, getItemProps) =>
              value.map((it, index) => {
                const { key: itemKey, ...itemProps } = getItemProps({ index });
                return <Chip key={itemKey} label={it} {...itemProps} />;
              })
            }
            renderInput={(params) => <TextField {...params} label={`Only these ${label.toLowerCase()}`} />}
          />
        ))}
      </Box>
      <Box>
        <Toggle
          on={narrowing.recordedHere}
          onClick={() => set({ narrowing: { ...narrowing, recordedHere: !narrowing.recordedHere } })}
        >
          only what is recorded in this place’s grid cell
        </Toggle>
        <Toggle
          on={narrowing.greenNow ?? false}
          onClick={() => set({ narrowing: { ...narrowing, greenNow: !narrowing.greenNow } })}
        >
          only what is green on this day
        </Toggle>
      </Box>
      {settings.skip.length > 0 && (
        <Box>
          <Button onClick={() => set({ skip: [] })}>
            Ask again for what couldn’t be told ({settings.skip.length})
          </Button>
        </Box>
      )}
    </Box>
  );
}

function Choice({ label, children }: { label: string; children: ReactNode }) {
  return (
    <Box role="group" aria-label={label} sx={{ display: "flex", flexWrap: "wrap", alignItems: "center", gap: 0.75 }}>
      <Typography variant="body2" sx={{ minWidth: 130 }}>
        {label}
      </Typography>
      {children}
    </Box>
  );
}
