import { Box, Button, Link, Typography } from "@mui/material";
import { useQuery } from "@tanstack/react-query";
import { useRef, useState } from "react";
import { Link as RouterLink } from "react-router";
import { v7 as uuid } from "uuid";
import { answerOf, api, type Schemas } from "../../api/client";
import { core } from "../../core/coreClient";
import { send } from "../../offline/outbox";
import { iso, locale, spoken } from "../../shared/calendar/day";
import { Part } from "../../shared/ui/Page";
import { QuietButton } from "../../shared/ui/QuietButton";
import { WaitingNote } from "../../shared/ui/WaitingNote";

interface Props {
  visit: Schemas["SiteVisit"];
  recorder: Schemas["PersonReference"];
}

const timeOf = (moment: string) =>
  new Date(moment).toLocaleTimeString([...locale], { hour: "2-digit", minute: "2-digit" });

const dayOf = (moment: string) => iso(new Date(moment));

/** The tracks of a visit, and those that a file has. */
export function VisitTracks({ visit, recorder }: Props) {
  const pieces = visit.tracks ?? [];
  const ids = pieces.map((it) => it.id);
  const tracks =
    useQuery({
      enabled: pieces.length > 0,
      queryKey: ["tracks-told", ids],
      staleTime: Infinity,
      queryFn: () => core.tracks({ pieces }),
    }).data ?? [];
  const [read, setRead] = useState<{ name: string; file: Schemas["TrackFileRead"] }>();
  const [failure, setFailure] = useState("");
  const input = useRef<HTMLInputElement>(null);
  const bring = async (chosen: File) => {
    setFailure("");
    setRead(undefined);
    const body = new FormData();
    body.append("file", chosen);
    try {
      const file = await answerOf((signal) =>
        api.POST("/api/v1/tracks/files", { body: body as never, bodySerializer: (it) => it, signal }),
      );
      if (file.ways.length > 0) setRead({ name: chosen.name, file });
      else setFailure(file.problem);
    } catch (error) {
      setFailure(error instanceof Error ? error.message : "The file can’t be read just now.");
    }
  };
  const keepFile = async ({ name, file }: { name: string; file: Schemas["TrackFileRead"] }) => {
    const trackId = uuid();
    for (const way of file.ways) {
      const sent = await send({
        kind: "keepTrack",
        id: uuid(),
        trackId,
        siteVisitId: visit.id,
        recorder,
        startedAt: way.startedAt,
        points: way.points,
        source: name.slice(-100),
        file: file.hash,
      });
      if (sent.kind === "refused") return setFailure(`${sent.problem.title} ${sent.problem.detail}`);
    }
    setRead(undefined);
  };
  return (
    <Part id="tracks" title="Tracks">
      {pieces.length === 0 && !read && (
        <Typography variant="body2" color="text.secondary">
          None yet.
        </Typography>
      )}
      <Box component="ul" sx={{ listStyle: "none", p: 0, m: 0 }}>
        {tracks.map((it) => (
          <Box component="li" key={it.id} sx={{ borderTop: "1px dotted", borderColor: "rule", py: 0.5 }}>
            <Typography>
              {it.startedAt && it.endedAt ? `${timeOf(it.startedAt)} to ${timeOf(it.endedAt)}: ` : ""}
              {it.inWords}
            </Typography>
            <Typography variant="body2" color="text.secondary">
              {it.recorder}, {it.source}{" "}
              {pieces
                .filter((piece) => piece.trackId === it.id)
                .slice(-1)
                .map((piece) => (
                  <WaitingNote key={piece.id} id={piece.id} />
                ))}
              {it.file && (
                <Link href={`/api/v1/tracks/files/${it.file}`} download={it.source} sx={{ mx: 1 }}>
                  the file as it was
                </Link>
              )}
              <QuietButton
                name={`Take back the track: ${it.inWords}`}
                onClick={() => void send({ kind: "withdrawTrack", id: uuid(), siteVisitId: visit.id, trackId: it.id })}
              >
                Take back
              </QuietButton>
            </Typography>
          </Box>
        ))}
      </Box>
      {read && (
        <FileRead visit={visit} {...read} onKeep={() => void keepFile(read)} onLeave={() => setRead(undefined)} />
      )}
      {failure && (
        <Typography role="alert" color="error">
          ✕ {failure}
        </Typography>
      )}
      <input
        ref={input}
        type="file"
        hidden
        accept=".gpx,.geojson,.json,.kml"
        aria-label="File with a track"
        onChange={(event) => {
          const chosen = event.target.files?.[0];
          event.target.value = "";
          if (chosen) void bring(chosen);
        }}
      />
      <Box sx={{ display: "flex", flexWrap: "wrap", columnGap: 1, alignItems: "center" }}>
        <Button onClick={() => input.current?.click()}>Bring a track from a file</Button>
        {tracks.length > 0 && (
          <>
            <Link component={RouterLink} to={`/map?place=${visit.place.id}`} sx={{ py: 1.25 }}>
              On the map
            </Link>
            {(["geojson", "gpx", "kml"] as const).map((ending) => (
              <Link key={ending} href={`/api/v1/tracks.${ending}?visit=${visit.id}`} download sx={{ py: 1.25 }}>
                {ending === "geojson" ? "GeoJSON" : ending.toUpperCase()}
              </Link>
            ))}
          </>
        )}
      </Box>
    </Part>
  );
}

interface ReadProps {
  visit: Schemas["SiteVisit"];
  name: string;
  file: Schemas["TrackFileRead"];
  onKeep: () => void;
  onLeave: () => void;
}

/** What a file has, before any of it is kept. */
function FileRead({ visit, name, file, onKeep, onLeave }: ReadProps) {
  const pieces = file.ways.map((way, i) => ({
    ...way,
    id: String(i),
    trackId: name,
    recorder: "",
    source: "",
    file: "",
  }));
  const track = useQuery({
    queryKey: ["track-file", file.hash],
    staleTime: Infinity,
    queryFn: async () => {
      // Ids that the core takes.
      const id = uuid();
      return (await core.tracks({ pieces: pieces.map((it) => ({ ...it, id: uuid(), trackId: id })) }))[0];
    },
  }).data;
  const first = track?.segments[0]?.[0];
  const away = useQuery({
    enabled: first !== undefined,
    queryKey: ["track-away", file.hash, visit.place.id],
    queryFn: () =>
      core.position({
        fix: { latitude: first?.latitude ?? 0, longitude: first?.longitude ?? 0, accuracyMetres: 1, seconds: 0 },
        place: { latitude: visit.place.latitude, longitude: visit.place.longitude },
        placeMetres: visit.place.uncertaintyMetres,
        outline: [],
        before: null,
      }),
  }).data;
  const day = track?.startedAt ? dayOf(track.startedAt) : "";
  return (
    <Box role="group" aria-label={`What ${name} has`} sx={{ my: 1 }}>
      <Typography>
        <strong>{name}</strong>:{" "}
        {track &&
          [
            track.startedAt && `${spoken(day)}, ${timeOf(track.startedAt)} to ${timeOf(track.endedAt)}`,
            track.inWords,
            `${file.pointsInFile} positions`,
          ]
            .filter(Boolean)
            .join(" · ")}
      </Typography>
      {[
        day && day !== visit.date && `The file is of ${spoken(day)}, and the visit of ${spoken(visit.date)}.`,
        away,
        file.problem,
      ]
        .filter((it) => typeof it === "string" && it !== "")
        .map((it) => (
          <Typography key={String(it)} variant="body2" sx={{ color: "signal.open" }}>
            △ {it}
          </Typography>
        ))}
      <Button variant="contained" onClick={onKeep} sx={{ mr: 1 }}>
        Keep this track
      </Button>
      <Button onClick={onLeave}>Leave it</Button>
    </Box>
  );
}
