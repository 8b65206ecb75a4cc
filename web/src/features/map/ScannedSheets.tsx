import { Box, Button, Checkbox, FormControlLabel, Link, TextField, Typography } from "@mui/material";
import { useQuery, useQueryClient } from "@tanstack/react-query";
import { useMemo, useRef, useState } from "react";
import { answerOf, api, ProblemError, type Schemas } from "../../api/client";
import { PositionText } from "../../shared/form/PositionText";
import { useProblem } from "../../shared/form/useProblem";
import { QuietButton } from "../../shared/ui/QuietButton";

const LIST = ["map-sheets"];
const SHOWN = "garten.map-sheets";

const shownBefore = () => (localStorage.getItem(SHOWN) ?? "").split(" ").filter(Boolean);

/** Scanned maps, and which of them lie under the drawn one on this device. */
export function useScannedSheets() {
  const all = useQuery({
    queryKey: LIST,
    queryFn: () => answerOf((signal) => api.GET("/api/v1/map/sheets", { signal })),
    retry: false,
  }).data;
  const [shown, setShown] = useState(shownBefore);
  const onMap = useMemo(() => (all ?? []).filter((it) => shown.includes(it.id)), [all, shown]);
  return {
    all: all ?? [],
    shown: onMap,
    show: (id: string, isOn: boolean) => {
      const next = isOn ? [...shown, id] : shown.filter((it) => it !== id);
      localStorage.setItem(SHOWN, next.join(" "));
      setShown(next);
    },
  };
}

/** Lays scanned maps under the drawn one, and brings them. */
export function ScannedSheets({ sheets }: { sheets: ReturnType<typeof useScannedSheets> }) {
  const client = useQueryClient();
  const [isOpen, setOpen] = useState(false);
  const take = async (id: string) => {
    await answerOf((signal) => api.DELETE("/api/v1/map/sheets/{id}", { params: { path: { id } }, signal })).catch(
      () => undefined,
    );
    await client.invalidateQueries({ queryKey: LIST });
  };
  return (
    <Box component="details" sx={{ mt: 1 }}>
      <Box component="summary" sx={{ py: 1, cursor: "pointer" }}>
        Scanned sheets under the map{sheets.shown.length > 0 && `: ${sheets.shown.length} shown`}
      </Box>
      {sheets.all.map((it) => (
        <Box key={it.id} sx={{ display: "flex", flexWrap: "wrap", alignItems: "center" }}>
          <FormControlLabel
            control={
              <Checkbox
                checked={sheets.shown.some((one) => one.id === it.id)}
                onChange={(_, on) => sheets.show(it.id, on)}
              />
            }
            label={it.name}
          />
          <Link href={`/api/v1/map/sheets/${it.id}`} download sx={{ mx: 1 }}>
            the picture
          </Link>
          <QuietButton name={`Take away ${it.name}`} onClick={() => void take(it.id)}>
            Take away
          </QuietButton>
        </Box>
      ))}
      {isOpen ? (
        <BringSheet
          onDone={(id) => {
            setOpen(false);
            if (id) sheets.show(id, true);
            void client.invalidateQueries({ queryKey: LIST });
          }}
        />
      ) : (
        <Button onClick={() => setOpen(true)}>Bring a scanned sheet</Button>
      )}
    </Box>
  );
}

function BringSheet({ onDone }: { onDone: (id?: string) => void }) {
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
