import { Box, Button, IconButton, MenuItem, TextField, Typography } from "@mui/material";
import { useQuery } from "@tanstack/react-query";
import { useEffect, useRef, useState, type FormEvent } from "react";
import { v7 as uuid } from "uuid";
import { answerOf, api, type Schemas } from "../../api/client";
import words from "../../api/words";
import { core } from "../../core/coreClient";
import { useSend } from "../../offline/mending";
import { Part } from "../../shared/ui/Page";
import { useProblem } from "../../shared/form/useProblem";
import { area } from "./GroundPanel";
import { WalkedWays } from "./WalkedWays";

type Point = Schemas["GroundPoint"];
type Ground = Schemas["GroundDescription"];

interface Props {
  place: Schemas["Place"];
  ground: Schemas["PlaceGround"] | undefined;
  /** What was typed before and refused: the form begins with it. */
  refused?: { id: string; ground: Ground };
  /** The outline on the map, which a tap there adds a corner to. */
  drawn: Point[] | undefined;
  onDraw: (outline: Point[] | undefined) => void;
  onDone: () => void;
}

const NOTHING: Ground = { outline: [], parts: [], entrances: [], hazards: [], leave: null };
const NEW_PART = { habitat: "", substrate: "", moisture: "", light: "", aspect: "", slopeDegrees: null, outline: [] };
const written = (outline: Point[]) => outline.map((it) => `${it.latitude}, ${it.longitude}`).join("\n");
const lines = (marks: Schemas["GroundMark"][]) => marks.map((it) => it.name).join("\n");

// A name that stood there keeps where it stands.
const marksOf = (text: string, before: Schemas["GroundMark"][]) =>
  text
    .split("\n")
    .map((name) => name.trim())
    .filter(Boolean)
    .map((name) => ({ name, at: before.find((it) => it.name === name)?.at ?? null }));

function pointsOf(text: string): Point[] | undefined {
  const read = text
    .split("\n")
    .filter((line) => line.trim())
    .map((line) =>
      line
        .trim()
        .split(/[\s,;]+/)
        .map(Number),
    );
  return read.every((it) => it.length === 2 && it.every((value) => Number.isFinite(value)))
    ? read.map(([latitude = 0, longitude = 0]) => ({ latitude, longitude }))
    : undefined;
}

/** Boundary, parts, ways in, hazards and leave of a place; the boundary is drawn on the map, typed, or brought as a file. */
export function GroundForm({ place, ground, refused, drawn, onDraw, onDone }: Props) {
  const start = refused?.ground ?? ground?.ground ?? NOTHING;
  const send = useSend(refused?.id);
  const [parts, setParts] = useState(start.parts);
  const [entrances, setEntrances] = useState(lines(start.entrances));
  const [hazards, setHazards] = useState(lines(start.hazards));
  const [leave, setLeave] = useState(start.leave ?? { from: "", until: "", allows: "unsaid" as const, passingOn: "" });
  const [tell, setTell] = useState(start.tell ?? "");
  const [typed, setTyped] = useState<string>();
  const [shapes, setShapes] = useState<Schemas["ShapesRead"]>();
  const file = useRef<HTMLInputElement>(null);
  const { at, elsewhere, miss, setProblem, clear } = useProblem([
    "outline",
    "parts",
    "entrances",
    "hazards",
    "leave",
    "tell",
  ]);
  const begin = useRef(() => onDraw(start.outline));
  useEffect(() => begin.current(), []);
  const outline = drawn ?? [];
  const told = useQuery({
    enabled: outline.length > 0,
    queryKey: ["outline", outline, place.id],
    staleTime: Infinity,
    queryFn: () => core.outline({ outline, place: { latitude: place.latitude, longitude: place.longitude } }),
  }).data;
  const bring = async (chosen: File) => {
    clear();
    const body = new FormData();
    body.append("file", chosen);
    try {
      setShapes(
        await answerOf((signal) =>
          api.POST("/api/v1/map/shapes", { body: body as never, bodySerializer: (it) => it, signal }),
        ),
      );
    } catch (error) {
      miss("outline", error instanceof Error ? error.message : "The file can’t be read just now.");
    }
  };
  const submit = async (event: FormEvent) => {
    event.preventDefault();
    const points = typed === undefined ? outline : pointsOf(typed);
    if (!points) return miss("outline", "Write a corner a line: latitude, longitude.");
    const isLeave = leave.from.trim() || leave.until || leave.allows !== "unsaid" || leave.passingOn.trim();
    const sent = await send({
      kind: "describePlace",
      id: uuid(),
      placeId: place.id,
      ground: {
        outline: points,
        parts: parts.filter((it) => it.name.trim()),
        entrances: marksOf(entrances, start.entrances),
        hazards: marksOf(hazards, start.hazards),
        leave: isLeave ? leave : null,
        tell: tell.trim() || null,
      },
      version: ground?.version ?? null,
    });
    if (sent.kind === "refused") return setProblem(sent.problem);
    onDone();
  };
  const setPart = (i: number, part: Partial<Schemas["GroundPart"]>) =>
    setParts((all) => all.map((it, k) => (k === i ? { ...it, ...part } : it)));
  return (
    <Box component="form" noValidate onSubmit={(event) => void submit(event)}>
      <Part id="outline" title="Boundary">
        <Typography variant="body2">
          Tap its corners on the map one after the other, type them, or bring a file or a way that was walked.
        </Typography>
        <Typography role="status" sx={{ my: 0.5 }}>
          {outline.length} corners{told && told.squareMetres > 0 ? `, ${area(told.squareMetres)}` : ""}.{" "}
          {outline.length > 2 && told?.wrong && (
            <Box component="span" sx={{ color: "signal.conflict" }}>
              ✕ {told.wrong}
            </Box>
          )}
        </Typography>
        <Box sx={{ display: "flex", flexWrap: "wrap", gap: 1, mb: 1 }}>
          <Button disabled={outline.length === 0} onClick={() => onDraw(outline.slice(0, -1))}>
            Last corner back
          </Button>
          <Button disabled={outline.length === 0} onClick={() => onDraw([])}>
            Draw anew
          </Button>
          <Button onClick={() => file.current?.click()}>Bring GeoJSON, GPX or KML</Button>
          <input
            ref={file}
            type="file"
            hidden
            accept=".geojson,.json,.gpx,.kml"
            onChange={(event) => event.target.files?.[0] && void bring(event.target.files[0])}
          />
        </Box>
        {shapes && (
          <Box role="status" sx={{ mb: 1 }}>
            {shapes.problem && <Typography>△ {shapes.problem}</Typography>}
            {shapes.shapes
              .filter((it) => it.kind !== "point" && it.points.length > 2)
              .map((it, i) => (
                <Button key={i} onClick={() => onDraw(it.points)}>
                  {it.name || `${it.kind} ${i + 1}`}, {it.points.length} corners
                  {it.corners > it.points.length && ` (thinned from ${it.corners})`}
                </Button>
              ))}
          </Box>
        )}
        <WalkedWays
          place={place.id}
          onTake={(outline) => {
            setTyped(undefined);
            onDraw(outline);
          }}
        />
        <TextField
          fullWidth
          multiline
          maxRows={8}
          label="Corners: latitude, longitude"
          value={typed ?? written(outline)}
          onChange={(event) => {
            setTyped(event.target.value);
            const read = pointsOf(event.target.value);
            if (read) onDraw(read);
          }}
          onBlur={() => typed !== undefined && pointsOf(typed) && setTyped(undefined)}
          {...at("outline")}
        />
      </Part>
      <Part id="parts" title="Parts">
        {parts.map((part, i) => (
          <Box key={i} sx={{ display: "grid", gap: 1, gridTemplateColumns: "1fr 1fr auto", mb: 1.5 }}>
            <TextField label="Name" value={part.name} onChange={(event) => setPart(i, { name: event.target.value })} />
            <TextField
              label="Habitat"
              value={part.habitat}
              onChange={(event) => setPart(i, { habitat: event.target.value })}
            />
            <IconButton
              aria-label={`Take ${part.name || "this part"} out`}
              onClick={() => setParts((all) => all.filter((_, k) => k !== i))}
            >
              ✕
            </IconButton>
            <TextField
              label="Substrate"
              value={part.substrate}
              onChange={(event) => setPart(i, { substrate: event.target.value })}
            />
            <TextField
              label="Moisture"
              value={part.moisture}
              onChange={(event) => setPart(i, { moisture: event.target.value })}
            />
          </Box>
        ))}
        {at("parts").helperText && (
          <Typography role="alert" color="error">
            {at("parts").helperText}
          </Typography>
        )}
        <Button onClick={() => setParts((all) => [...all, { name: "", ...NEW_PART }])}>Add a part</Button>
      </Part>
      <Part id="marks" title="Ways in, hazards, leave">
        <Box sx={{ display: "grid", gap: 1.5 }}>
          <TextField
            multiline
            label="Ways in, one a line"
            value={entrances}
            onChange={(event) => setEntrances(event.target.value)}
            {...at("entrances")}
          />
          <TextField
            multiline
            label="Hazards, one a line"
            value={hazards}
            onChange={(event) => setHazards(event.target.value)}
            {...at("hazards")}
          />
          <TextField
            label="Leave from whom"
            value={leave.from}
            onChange={(event) => setLeave({ ...leave, from: event.target.value })}
            {...at("leave")}
          />
          <Box sx={{ display: "grid", gap: 1.5, gridTemplateColumns: "1fr 1fr" }}>
            <TextField
              select
              label="What it allows"
              value={leave.allows}
              onChange={(event) => setLeave({ ...leave, allows: event.target.value as Schemas["Allowed"] })}
            >
              {Object.entries(words.allowed).map(([id, name]) => (
                <MenuItem key={id} value={id}>
                  {name}
                </MenuItem>
              ))}
            </TextField>
            <TextField
              type="date"
              label="Until"
              value={leave.until}
              onChange={(event) => setLeave({ ...leave, until: event.target.value })}
              slotProps={{ inputLabel: { shrink: true } }}
            />
          </Box>
          <TextField
            multiline
            label="May records be passed on, to whom, how precisely?"
            value={leave.passingOn}
            onChange={(event) => setLeave({ ...leave, passingOn: event.target.value })}
          />
          <TextField
            label="Whom to tell of an invasive plant that is new here"
            value={tell}
            onChange={(event) => setTell(event.target.value)}
            {...at("tell")}
          />
        </Box>
      </Part>
      {elsewhere && (
        <Typography role="alert" color="error">
          {elsewhere}
        </Typography>
      )}
      <Box sx={{ display: "flex", gap: 1.5 }}>
        <Button type="submit" variant="contained" sx={{ minHeight: 48 }}>
          Keep it
        </Button>
        <Button onClick={onDone}>Leave it as it was</Button>
      </Box>
    </Box>
  );
}
