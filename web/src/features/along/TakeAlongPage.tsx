import { Box, Button, Checkbox, FormControlLabel, LinearProgress, Link, Typography } from "@mui/material";
import { useQuery, useQueryClient } from "@tanstack/react-query";
import { useState, useSyncExternalStore } from "react";
import { Link as RouterLink } from "react-router";
import { offered, usePlaces } from "../../offline/documents";
import { program } from "../../offline/program";
import { useConnection } from "../../offline/queries";
import { useFloras } from "../../shared/botany/queries";
import { oneFigure, spoken } from "../../shared/calendar/day";
import { Page, Part } from "../../shared/ui/Page";
import { isoDay } from "../../shared/ui/takeAway";
import { catchUp, keepFloras } from "./catchUp";
import { askToLast, missing, storage, takeAlong, takenAlong, type Progress } from "./takeAlong";

const NOTHING: string[] = [];
const MEGABYTE = 1_000_000;

/** What goes along where there is no signal: places with their plants, floras and keys; and what is still missing. */
export function TakeAlongPage() {
  const client = useQueryClient();
  const places = usePlaces().data ?? [];
  const floras = (useFloras().data ?? []).filter((it) => it.version > 0);
  const connection = useConnection();
  const taken = useQuery({ queryKey: ["along"], queryFn: async () => (await takenAlong()) ?? null }).data;
  const room = useQuery({ queryKey: ["along", "storage"], queryFn: async () => (await storage()) ?? null }).data;
  const { isKept } = useSyncExternalStore(program.subscribe, program.now);
  const [chosen, choose] = useState<{ places?: string[]; floras?: string[] }>({});
  const [progress, setProgress] = useState<Progress>();
  const [failure, setFailure] = useState<string>();
  // Without a choice all places, and the flora that is shown first.
  const wantedPlaces = chosen.places ?? taken?.places ?? offered(places, "").map((it) => it.id);
  const wantedFloras = chosen.floras ?? taken?.floras ?? floras.filter((it) => it.isDefault).map((it) => it.id);
  const gone = { places: new Set(taken?.places ?? NOTHING), floras: new Set(taken?.floras ?? NOTHING) };
  const start = async () => {
    setFailure(undefined);
    try {
      await askToLast();
      // Where nothing more is wanted than is here, only what changed is fetched.
      const isHere = wantedPlaces.every((it) => gone.places.has(it)) && wantedFloras.every((it) => gone.floras.has(it));
      if (taken && isHere) {
        setProgress({ done: 1, of: 2, what: "what has changed" });
        const [isCaughtUp] = await Promise.all([catchUp(), keepFloras(taken)]);
        if (isCaughtUp) return;
      }
      await takeAlong({ places: wantedPlaces, floras: wantedFloras }, setProgress);
    } catch (error) {
      setFailure(error instanceof Error ? error.message : String(error));
    } finally {
      setProgress(undefined);
      void client.invalidateQueries({ queryKey: ["along"] });
    }
  };
  const lacks = [
    !isKept && missing(),
    taken === null && "Nothing was taken along yet.",
    ...places
      .filter((it) => taken && wantedPlaces.includes(it.id) && !gone.places.has(it.id))
      .map((it) => `${it.name} isn’t on this device yet.`),
    ...floras
      .filter((it) => taken && wantedFloras.includes(it.id) && !gone.floras.has(it.id))
      .map((it) => `The flora of ${it.name} isn’t on this device yet.`),
  ].filter((it): it is string => typeof it === "string");
  const isReady = taken !== undefined && lacks.length === 0;
  return (
    <Page title="Take along">
      <Typography sx={{ maxWidth: 720, mb: 2 }}>
        Where plants grow there is often no signal. What goes along is on this device: Garten starts without the server,
        and what you record is sent by itself when you are back.
      </Typography>
      <Box
        sx={{
          display: "grid",
          columnGap: 4,
          gridTemplateColumns: { xs: "minmax(0, 1fr)", md: "minmax(0, 1fr) minmax(0, 1fr)" },
          alignItems: "start",
        }}
      >
        <Box>
          <Part id="along-places" title="Places, with their plants">
            {places.length === 0 && <Typography>There is no place yet.</Typography>}
            {places.map((it) => (
              <Chosen
                key={it.id}
                name={it.name}
                isOn={wantedPlaces.includes(it.id)}
                isHere={gone.places.has(it.id)}
                onToggle={() => choose({ ...chosen, places: toggled(wantedPlaces, it.id) })}
              />
            ))}
          </Part>
          <Part id="along-floras" title="Floras">
            {floras.length === 0 && <Typography>There is no flora yet. Keys can be followed without one.</Typography>}
            {floras.map((it) => (
              <Chosen
                key={it.id}
                name={it.name}
                isOn={wantedFloras.includes(it.id)}
                isHere={gone.floras.has(it.id)}
                onToggle={() => choose({ ...chosen, floras: toggled(wantedFloras, it.id) })}
              />
            ))}
            <Typography variant="body2" color="text.secondary" sx={{ mt: 1 }}>
              All keys and the glossary always go along: they are small.
            </Typography>
          </Part>
        </Box>
        <Box>
          <Part id="along-ready" title={isReady ? "✓ Ready to leave" : "Not ready to leave yet"}>
            {taken && (
              <Typography>
                Taken along on {spoken(isoDay(taken.at))}: {taken.plants === 1 ? "1 plant" : `${taken.plants} plants`}{" "}
                with their history, {taken.keys === 1 ? "1 key" : `${taken.keys} keys`},{" "}
                {taken.floras.length === 1 ? "1 flora" : `${taken.floras.length} floras`}.
              </Typography>
            )}
            {lacks.map((it) => (
              <Typography key={it}>◌ {it}</Typography>
            ))}
            {connection !== "ready" && (
              <Typography role="status">The server doesn’t answer: nothing can be fetched just now.</Typography>
            )}
            <Button
              variant="contained"
              sx={{ mt: 1.5 }}
              disabled={progress !== undefined || connection !== "ready"}
              onClick={() => void start()}
            >
              {taken ? "Fetch what is new" : "Take it along"}
            </Button>
            {progress && (
              <Box role="status" sx={{ mt: 1.5 }}>
                <Typography variant="body2">Fetching {progress.what} …</Typography>
                <LinearProgress
                  variant="determinate"
                  aria-label="How far it is"
                  value={(progress.done / progress.of) * 100}
                  sx={{ height: 8, mt: 0.5 }}
                />
              </Box>
            )}
            {failure && (
              <Typography role="alert" sx={{ mt: 1 }}>
                ✕ Not all of it could be fetched: {failure} What was here before still is.
              </Typography>
            )}
          </Part>
          <Part id="along-room" title="Room on this device">
            <Typography sx={{ mb: 1 }}>
              A phone reaches this server once it is{" "}
              <Link component={RouterLink} to="/devices">
                paired with it
              </Link>
              .
            </Typography>
            {room ? (
              <>
                <Typography>
                  {oneFigure(room.used / MEGABYTE)} MB are used, of {oneFigure(room.most / MEGABYTE)} MB that the
                  browser gives.
                </Typography>
                <Typography>
                  {room.isLasting
                    ? "✓ The browser keeps it until you clear it yourself."
                    : "△ The browser may clear it by itself when the device runs full. Installing Garten, or coming here often, makes it keep it."}
                </Typography>
              </>
            ) : (
              <Typography>The browser doesn’t tell how much room there is.</Typography>
            )}
          </Part>
        </Box>
      </Box>
    </Page>
  );
}

const toggled = (all: string[], id: string) => (all.includes(id) ? all.filter((it) => it !== id) : [...all, id]);

function Chosen(props: { name: string; isOn: boolean; isHere: boolean; onToggle: () => void }) {
  const { name, isOn, isHere, onToggle } = props;
  return (
    <Box sx={{ borderBottom: "1px dotted", borderColor: "rule" }}>
      <FormControlLabel
        control={<Checkbox checked={isOn} onChange={onToggle} />}
        label={
          <>
            {name}
            {isHere && (
              <Typography component="span" variant="body2" color="text.secondary" sx={{ ml: 1.5 }}>
                on this device
              </Typography>
            )}
          </>
        }
        sx={{ minHeight: 48, width: "100%" }}
      />
    </Box>
  );
}
