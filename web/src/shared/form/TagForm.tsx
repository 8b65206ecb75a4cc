import { lastRecorder } from "./last";
import { Box, Button, TextField, Typography } from "@mui/material";
import { useState } from "react";
import { v7 as uuid } from "uuid";
import type { Schemas } from "../../api/client";
import { today } from "../calendar/day";
import { isNumber, numberOf, useFields } from "./useFields";
import { useSend } from "../../offline/mending";
import { personOf } from "../../offline/people";
import { usePeople } from "../../offline/queries";
import { listen } from "../place/receiver";
import { PositionText } from "./PositionText";
import type { Command } from "../../offline/store";

interface Props {
  plantId: string;
  placeId: string;
  label: string;
  site: Schemas["PlantSite"] | null;
  finding: Schemas["Finding"];
  populationId: string | null;
  taggedOn: string;
  version: number | null;
  /** The refused command that it is opened with. */
  mends?: string;
  /** What the tag says now, where somebody else has changed it meanwhile: shown beside what was typed here, field by field. */
  now?: { label: string; taggedOn: string | null; site: Schemas["PlantSite"] | null; finding: Schemas["Finding"] };
  onDone: () => void;
}

/** A tag as its form holds it. */
const typedOf = (it: NonNullable<Props["now"]>) => ({
  label: it.label,
  taggedOn: it.taggedOn ?? "",
  latitude: it.site ? String(it.site.latitude) : "",
  longitude: it.site ? String(it.site.longitude) : "",
  uncertainty: it.site ? String(it.site.uncertaintyMetres) : "",
  landmark: it.finding.landmark,
  bearing: it.finding.bearingDegrees?.toString() ?? "",
  distance: it.finding.distanceMetres?.toString() ?? "",
  note: it.finding.note,
});

const names: Record<keyof ReturnType<typeof typedOf>, string> = {
  label: "Tag",
  taggedOn: "Tagged on",
  latitude: "Latitude",
  longitude: "Longitude",
  uncertainty: "± metres",
  landmark: "Landmark",
  bearing: "Bearing from it, °",
  distance: "Distance, m",
  note: "How to find it",
};

/** Two versions of a tag side by side: for each field in which they differ, a person takes one. */
function SideBySide(props: {
  typed: Record<string, string>;
  now: ReturnType<typeof typedOf>;
  onTake: (field: string, value: string) => void;
}) {
  const { typed, now, onTake } = props;
  const unlike = (Object.keys(names) as (keyof typeof names)[]).filter((it) => (typed[it] ?? "") !== now[it]);
  const cell = { textAlign: "left", py: 0.5, pr: 2, verticalAlign: "baseline" } as const;
  return (
    <Box sx={{ border: 1, borderColor: "rule", p: 1.5, mb: 2 }}>
      <Typography sx={{ fontWeight: 600 }}>
        {unlike.length > 0 ? "△ Changed by somebody else meanwhile" : "✓ As it stands on the server now"}
      </Typography>
      {unlike.length > 0 && (
        <Box component="table" sx={{ borderCollapse: "collapse", mt: 0.5 }}>
          <thead>
            <tr>
              <Box component="th" sx={cell} />
              <Box component="th" sx={cell}>
                Yours
              </Box>
              <Box component="th" sx={cell}>
                There now
              </Box>
              <th />
            </tr>
          </thead>
          <tbody>
            {unlike.map((it) => (
              <tr key={it}>
                <Box component="th" scope="row" sx={{ ...cell, fontWeight: 400 }}>
                  {names[it]}
                </Box>
                <Box component="td" sx={cell}>
                  {typed[it] || "nothing"}
                </Box>
                <Box component="td" sx={cell}>
                  {now[it] || "nothing"}
                </Box>
                <td>
                  <Button size="small" aria-label={`Take there now: ${names[it]}`} onClick={() => onTake(it, now[it])}>
                    Take this
                  </Button>
                </td>
              </tr>
            ))}
          </tbody>
        </Box>
      )}
    </Box>
  );
}

// Of a position all three are given or none; what is wrong with any stands at the first.
function siteOf(of: { latitude: string; longitude: string; uncertainty: string }) {
  const all = [numberOf(of.latitude), numberOf(of.longitude), numberOf(of.uncertainty)];
  const given = all.filter((it) => it !== undefined);
  if (given.length === 0) return { site: null };
  if (given.length < all.length) return { problem: "Give latitude, longitude and uncertainty, or none of them." };
  if (given.some((it) => Number.isNaN(it))) return { problem: "A position has decimal degrees and metres." };
  const [latitude = 0, longitude = 0, uncertaintyMetres = 0] = given;
  return { site: { latitude, longitude, uncertaintyMetres } };
}

/** Tag of a plant, where it stands, and how to find it again. */
export function TagForm(props: Props) {
  const people = usePeople();
  const send = useSend(props.mends);
  const { values, field, set, refuse, submit, elsewhere } = useFields(
    { ...typedOf(props), recorder: lastRecorder() },
    {
      site: "latitude",
      "finding.landmark": "landmark",
      "finding.bearingDegrees": "bearing",
      "finding.distanceMetres": "distance",
      "finding.note": "note",
    },
  );
  const [located, setLocated] = useState("");
  const locate = () => {
    setLocated("Taking the position …");
    const stop = listen(props.placeId, ({ fix, trouble }) => {
      if (fix)
        set({
          latitude: fix.latitude.toFixed(5),
          longitude: fix.longitude.toFixed(5),
          uncertainty: String(Math.max(1, Math.round(fix.accuracyMetres))),
        });
      setLocated(fix ? "" : `${trouble} Type it in, or try again.`);
      stop();
    });
  };
  const keep = submit(async (typed) => {
    const command: Command = {
      kind: "tagPlant",
      id: uuid(),
      plantId: props.plantId,
      placeId: props.placeId,
      label: typed.label.trim(),
      taggedOn: typed.taggedOn,
      recorder: await personOf(typed.recorder, people.data),
      site: siteOf(typed).site ?? null,
      finding: {
        landmark: typed.landmark.trim(),
        bearingDegrees: numberOf(typed.bearing) ?? null,
        distanceMetres: numberOf(typed.distance) ?? null,
        note: typed.note.trim(),
      },
      populationId: props.populationId,
      version: props.version,
    };
    const sent = await send(command, { creates: props.version === null ? [props.plantId] : [] });
    if (sent.kind === "refused") refuse(sent.problem);
    else props.onDone();
  });
  return (
    <Box component="form" noValidate onSubmit={(event) => void keep(event)} aria-label={names.label}>
      {elsewhere && (
        <Typography role="alert" color="error" sx={{ mb: 1 }}>
          ✕ {elsewhere}
        </Typography>
      )}
      {props.now && <SideBySide typed={values} now={typedOf(props.now)} onTake={(at, value) => set({ [at]: value })} />}
      <Box sx={{ display: "grid", gap: 2, gridTemplateColumns: { xs: "1fr", sm: "1fr 1fr 1fr" } }}>
        <TextField label="Tag" {...field("label", { required: "Write what the tag says." })} />
        <TextField
          type="date"
          label={names.taggedOn}
          slotProps={{ htmlInput: { max: today() }, inputLabel: { shrink: true } }}
          {...field("taggedOn", { required: "Give the day on which it was tagged." })}
        />
        <TextField label="Tagged by" {...field("recorder", { required: "Write who tagged it." })} />
        <PositionText
          label="Where it stands, as it is written"
          onTake={(it) =>
            it &&
            set({
              latitude: String(it.latitude),
              longitude: String(it.longitude),
              uncertainty: String(it.uncertaintyMetres),
            })
          }
        />
        <TextField
          label={names.latitude}
          slotProps={{ htmlInput: { inputMode: "decimal" } }}
          {...field("latitude", { check: (_, all) => siteOf(all).problem })}
        />
        <TextField
          label={names.longitude}
          slotProps={{ htmlInput: { inputMode: "decimal" } }}
          {...field("longitude")}
        />
        <TextField
          label={names.uncertainty}
          slotProps={{ htmlInput: { inputMode: "decimal" } }}
          {...field("uncertainty")}
        />
        <TextField label={names.landmark} {...field("landmark")} />
        <TextField
          label={names.bearing}
          slotProps={{ htmlInput: { inputMode: "numeric" } }}
          {...field("bearing", { check: isNumber("A bearing has degrees from 0 to 359.") })}
        />
        <TextField
          label={names.distance}
          slotProps={{ htmlInput: { inputMode: "decimal" } }}
          {...field("distance", { check: isNumber("A distance has metres.") })}
        />
        <TextField label={names.note} sx={{ gridColumn: { sm: "1 / -1" } }} {...field("note")} />
      </Box>
      <Box sx={{ display: "flex", gap: 1.5, mt: 2, flexWrap: "wrap", alignItems: "center" }}>
        <Button type="submit" variant="contained">
          Keep the tag
        </Button>
        <Button onClick={locate}>Take my position</Button>
        <Button onClick={props.onDone}>Cancel</Button>
        {located && (
          <Typography variant="body2" role="status">
            {located}
          </Typography>
        )}
      </Box>
    </Box>
  );
}
