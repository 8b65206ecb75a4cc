import { Box, Button, Checkbox, FormControlLabel, TextField, Typography } from "@mui/material";
import { useRef, useState } from "react";
import { answerOf, api, ProblemError, type Schemas } from "../../api/client";
import { PositionText } from "../../shared/form/PositionText";
import { useProblem } from "../../shared/form/useProblem";

/** A scanned sheet: its picture, its name, and where its corners lie. */
export function BringSheet({ onDone }: { onDone: (id?: string) => void }) {
  const file = useRef<HTMLInputElement>(null);
  const [picture, setPicture] = useState<File>();
  const [name, setName] = useState("");
  const [low, setLow] = useState<Schemas["PlantSite"]>();
  const [high, setHigh] = useState<Schemas["PlantSite"]>();
  const [isTurned, setTurned] = useState(false);
  const [corner, setCorner] = useState<Schemas["PlantSite"]>();
  const { at, elsewhere, miss, setProblem, clear } = useProblem(["name", "file", "south", "topLeft"]);
  const bring = async () => {
    clear();
    if (!picture) return miss("file", "Choose the picture.");
    if (!name.trim()) return miss("name", "Give the sheet a name.");
    if (!low || !high) return miss("south", "Say where both corners lie.");
    if (isTurned && !corner) return miss("topLeft", "Say where the third corner lies.");
    const body = new FormData();
    body.append("file", picture);
    for (const [field, value] of Object.entries({
      name: name.trim(),
      south: low.latitude,
      west: low.longitude,
      north: high.latitude,
      east: high.longitude,
      ...(isTurned && corner ? { topLeftLatitude: corner.latitude, topLeftLongitude: corner.longitude } : {}),
    }))
      body.append(field, String(value));
    try {
      const sheet = await answerOf((signal) =>
        api.POST("/api/v1/map/sheets", { body: body as never, bodySerializer: (it) => it, signal }),
      );
      onDone(sheet.id);
    } catch (error) {
      if (error instanceof ProblemError) setProblem(error.problem);
      else miss("file", "The picture can’t be sent just now.");
    }
  };
  const wrong = elsewhere ?? at("south").helperText ?? at("topLeft").helperText;
  return (
    <Box role="group" aria-label="A scanned sheet" sx={{ display: "grid", gap: 1.5, maxWidth: 480, my: 1 }}>
      <Typography variant="body2">
        A scan as PNG or JPEG of up to 30 MB. Two corners say where it lies, three where north isn’t at its top. Bring
        only what you may copy.
      </Typography>
      <input
        ref={file}
        type="file"
        hidden
        accept=".png,.jpg,.jpeg"
        aria-label="Picture of the sheet"
        onChange={(event) => setPicture(event.target.files?.[0])}
      />
      <Box>
        <Button onClick={() => file.current?.click()}>Choose the picture</Button> {picture?.name}
        {at("file").helperText && (
          <Typography role="alert" color="error" variant="body2">
            {at("file").helperText}
          </Typography>
        )}
      </Box>
      <TextField
        required
        label="Its name"
        value={name}
        onChange={(event) => setName(event.target.value)}
        {...at("name")}
      />
      <PositionText label="Its bottom left corner" onTake={setLow} />
      <PositionText label="Its top right corner" onTake={setHigh} />
      <FormControlLabel
        control={<Checkbox checked={isTurned} onChange={(_, on) => setTurned(on)} />}
        label="North isn’t at its top"
      />
      {isTurned && <PositionText label="Its top left corner" onTake={setCorner} />}
      {wrong && (
        <Typography role="alert" color="error">
          {wrong}
        </Typography>
      )}
      <Box sx={{ display: "flex", gap: 1.5 }}>
        <Button variant="contained" onClick={() => void bring()} sx={{ minHeight: 48 }}>
          Lay it under the map
        </Button>
        <Button onClick={() => onDone()}>Leave it</Button>
      </Box>
    </Box>
  );
}
