import { lastRecorder } from "./last";
import { Box, Button, TextField, Typography } from "@mui/material";
import { useState, type FormEvent } from "react";
import { v7 as uuid } from "uuid";
import type { Schemas } from "../../api/client";
import { today } from "../calendar/day";
import { useProblem } from "./useProblem";
import { useSend } from "../../offline/mending";
import { personOf } from "../../offline/people";
import { usePeople } from "../../offline/queries";
import type { Command } from "../../offline/store";

const RADIUS = 46;

/** How to find a plant again, drawn from bearing and distance: the landmark in the middle, north up. */
export function FindingSketch({ plant }: { plant: Schemas["PlantDetail"] }) {
  const { finding, site, findingInWords: words } = plant;
  const { landmark, bearingDegrees, distanceMetres } = finding;
  const isDrawn = landmark && typeof bearingDegrees === "number" && typeof distanceMetres === "number";
  const angle = ((bearingDegrees ?? 0) * Math.PI) / 180;
  const [x, y] = [Math.sin(angle) * RADIUS, -Math.cos(angle) * RADIUS];
  return (
    <Box sx={{ display: "flex", gap: 2, flexWrap: "wrap", alignItems: "center" }}>
      {isDrawn && (
        <Box
          component="svg"
          viewBox="-75 -66 150 132"
          role="img"
          aria-label={`The plant stands ${words}.`}
          sx={{ width: 190, height: 167, flex: "none", color: "text.primary" }}
        >
          <circle r={RADIUS} fill="none" stroke="currentColor" strokeOpacity={0.35} strokeDasharray="2 4" />
          <path d="M62 -44v-16m-5 7l5 -8l5 8" fill="none" stroke="currentColor" strokeWidth={1.5} />
          <text x={62} y={-32} fontSize={11} textAnchor="middle" fill="currentColor">
            N
          </text>
          <path d={`M0 0L${x} ${y}`} stroke="currentColor" strokeDasharray="5 3" />
          <path d="M-6 6h12l-2 -13h-8Z" fill="currentColor" />
          <Box component="g" transform={`translate(${x} ${y})`} sx={{ color: "signal.support" }}>
            <path
              d="M0 8V-4M0 2q-8 0 -9 -8q9 0 9 8q0 -8 9 -8q-1 8 -9 8"
              fill="none"
              stroke="currentColor"
              strokeWidth={2}
            />
          </Box>
          <text x={x * 1.3} y={y * 1.3 + 4} fontSize={11} textAnchor="middle" fill="currentColor">
            {distanceMetres} m
          </text>
        </Box>
      )}
      <Box>
        <Typography>{words ? `${words}.` : "Nothing is said of how to find it again."}</Typography>
        <Typography variant="body2" color="text.secondary">
          {site
            ? `${site.latitude}, ${site.longitude} ± ${site.uncertaintyMetres} m (WGS 84)`
            : "No position of its own was taken; that of the place counts."}
        </Typography>
      </Box>
    </Box>
  );
}

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
  onDone: () => void;
}

const decimal = (text: string) => (text.trim() === "" ? undefined : Number(text.trim().replace(",", ".")));

/** Tag of a plant, where it stands, and how to find it again. */
export function TagForm(props: Props) {
  const people = usePeople();
  const send = useSend(props.mends);
  const [label, setLabel] = useState(props.label);
  const [taggedOn, setTaggedOn] = useState(props.taggedOn);
  const [recorder, setRecorder] = useState(lastRecorder());
  const [site, setSite] = useState({
    latitude: props.site ? String(props.site.latitude) : "",
    longitude: props.site ? String(props.site.longitude) : "",
    uncertainty: props.site ? String(props.site.uncertaintyMetres) : "",
  });
  const [finding, setFinding] = useState({
    landmark: props.finding.landmark,
    bearing: props.finding.bearingDegrees?.toString() ?? "",
    distance: props.finding.distanceMetres?.toString() ?? "",
    note: props.finding.note,
  });
  const { at, elsewhere, miss, setProblem } = useProblem([
    "label",
    "recorder",
    "taggedOn",
    "site",
    "finding.landmark",
    "finding.bearingDegrees",
    "finding.distanceMetres",
    "finding.note",
  ]);
  const [located, setLocated] = useState("");
  const locate = () => {
    setLocated("Taking the position …");
    navigator.geolocation.getCurrentPosition(
      ({ coords }) => {
        setSite({
          latitude: coords.latitude.toFixed(5),
          longitude: coords.longitude.toFixed(5),
          uncertainty: String(Math.max(1, Math.round(coords.accuracy))),
        });
        setLocated("");
      },
      () => setLocated("This device gives no position; type it in."),
      { enableHighAccuracy: true, timeout: 20_000 },
    );
  };
  const submit = async (event: FormEvent) => {
    event.preventDefault();
    const [latitude, longitude, uncertainty] = [
      decimal(site.latitude),
      decimal(site.longitude),
      decimal(site.uncertainty),
    ];
    const given = [latitude, longitude, uncertainty].filter((it) => it !== undefined);
    if (!label.trim()) return miss("label", "Write what the tag says.");
    if (!recorder.trim()) return miss("recorder", "Write who tagged it.");
    if (given.length > 0 && given.length < 3)
      return miss("site", "Give latitude, longitude and uncertainty, or none of them.");
    if (given.some((it) => Number.isNaN(it))) return miss("site", "A position has decimal degrees and metres.");
    const [bearing, distance] = [decimal(finding.bearing), decimal(finding.distance)];
    if (Number.isNaN(bearing)) return miss("finding.bearingDegrees", "A bearing has degrees from 0 to 359.");
    if (Number.isNaN(distance)) return miss("finding.distanceMetres", "A distance has metres.");
    const command: Command = {
      kind: "tagPlant",
      id: uuid(),
      plantId: props.plantId,
      placeId: props.placeId,
      label: label.trim(),
      taggedOn,
      recorder: await personOf(recorder, people.data),
      site:
        latitude === undefined || longitude === undefined || uncertainty === undefined
          ? null
          : { latitude, longitude, uncertaintyMetres: uncertainty },
      finding: {
        landmark: finding.landmark.trim(),
        bearingDegrees: bearing ?? null,
        distanceMetres: distance ?? null,
        note: finding.note.trim(),
      },
      populationId: props.populationId,
      version: props.version,
    };
    const sent = await send(command, { creates: props.version === null ? [props.plantId] : [] });
    if (sent.kind === "refused") setProblem(sent.problem);
    else props.onDone();
  };
  return (
    <Box component="form" noValidate onSubmit={(event) => void submit(event)} aria-label="Tag">
      {elsewhere && (
        <Typography role="alert" color="error" sx={{ mb: 1 }}>
          {elsewhere}
        </Typography>
      )}
      <Box sx={{ display: "grid", gap: 2, gridTemplateColumns: { xs: "1fr", sm: "1fr 1fr 1fr" } }}>
        <TextField required label="Tag" value={label} onChange={(e) => setLabel(e.target.value)} {...at("label")} />
        <TextField
          required
          type="date"
          label="Tagged on"
          value={taggedOn}
          onChange={(e) => setTaggedOn(e.target.value)}
          slotProps={{ htmlInput: { max: today() }, inputLabel: { shrink: true } }}
          {...at("taggedOn")}
        />
        <TextField
          required
          label="Tagged by"
          value={recorder}
          onChange={(e) => setRecorder(e.target.value)}
          {...at("recorder")}
        />
        <TextField
          label="Latitude"
          value={site.latitude}
          onChange={(e) => setSite({ ...site, latitude: e.target.value })}
          slotProps={{ htmlInput: { inputMode: "decimal" } }}
          {...at("site")}
        />
        <TextField
          label="Longitude"
          value={site.longitude}
          onChange={(e) => setSite({ ...site, longitude: e.target.value })}
          slotProps={{ htmlInput: { inputMode: "decimal" } }}
        />
        <TextField
          label="± metres"
          value={site.uncertainty}
          onChange={(e) => setSite({ ...site, uncertainty: e.target.value })}
          slotProps={{ htmlInput: { inputMode: "decimal" } }}
        />
        <TextField
          label="Landmark"
          value={finding.landmark}
          onChange={(e) => setFinding({ ...finding, landmark: e.target.value })}
          {...at("finding.landmark")}
        />
        <TextField
          label="Bearing from it, °"
          value={finding.bearing}
          onChange={(e) => setFinding({ ...finding, bearing: e.target.value })}
          slotProps={{ htmlInput: { inputMode: "numeric" } }}
          {...at("finding.bearingDegrees")}
        />
        <TextField
          label="Distance, m"
          value={finding.distance}
          onChange={(e) => setFinding({ ...finding, distance: e.target.value })}
          slotProps={{ htmlInput: { inputMode: "decimal" } }}
          {...at("finding.distanceMetres")}
        />
        <TextField
          label="How to find it"
          value={finding.note}
          onChange={(e) => setFinding({ ...finding, note: e.target.value })}
          sx={{ gridColumn: { sm: "1 / -1" } }}
          {...at("finding.note")}
        />
      </Box>
      <Box sx={{ display: "flex", gap: 1.5, mt: 2, flexWrap: "wrap", alignItems: "center" }}>
        <Button type="submit" variant="contained">
          Keep the tag
        </Button>
        {"geolocation" in navigator && <Button onClick={locate}>Take my position</Button>}
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
