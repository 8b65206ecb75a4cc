import { Box, Button, Typography } from "@mui/material";
import { useEffect, useState } from "react";
import type { Schemas } from "../../api/client";
import { core } from "../../core/coreClient";
import { beginTrack, pieceOf, stopTrack, useRunningTrack } from "../../shared/place/tracking";

interface Props {
  visit: Schemas["SiteVisit"];
  recorder: Schemas["PersonReference"];
  position: { doubt: string; metres: number | undefined };
}

/** Whether a track of this visit runs here. */
export function useOwnTrack(visitId: string) {
  const { running, unsent, trouble } = useRunningTrack();
  const isOwn = running?.visitId === visitId;
  return { running: isOwn ? running : undefined, unsent: isOwn ? unsent : undefined, trouble: isOwn ? trouble : "" };
}

/** Begins and ends the track of a visit. While it runs each line is noted with where one stands. */
export function TrackControl({ visit, recorder, position }: Props) {
  const { running, unsent, trouble } = useOwnTrack(visit.id);
  const [inWords, setInWords] = useState("");
  const begin = () => void beginTrack({ visitId: visit.id, placeId: visit.place.id, recorder, day: visit.date });
  const pieces = (visit.tracks ?? []).filter((it) => it.trackId === running?.trackId);
  const all = running && unsent ? [...pieces, pieceOf(running, unsent)] : pieces;
  const points = all.reduce((sum, it) => sum + it.points.length, 0);
  useEffect(() => {
    if (points === 0) return;
    let isCurrent = true;
    void core.tracks({ pieces: all }).then(([track]) => isCurrent && setInWords(track?.inWords ?? ""));
    return () => {
      isCurrent = false;
    };
    // Another position: another length.
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, [points]);
  const why = trouble || position.doubt;
  return (
    <Box sx={{ flex: "1 1 14rem" }}>
      <Button aria-pressed={running !== undefined} onClick={() => (running ? void stopTrack() : begin())}>
        {running ? (running.isHeld ? "◌ Track resting" : "● Track running") : "Record my track"}
      </Button>
      <Typography variant="body2" role="status">
        {!running
          ? "Where you go and where you stand at each line; only while this page is open and the screen is on."
          : running.isHeld
            ? "The track rests while you pause."
            : [
                why
                  ? `△ ${why} Lines are noted without a position.`
                  : typeof position.metres === "number"
                    ? `position ± ${position.metres} m`
                    : "Waiting for a position.",
                points > 1 && `so far ${inWords}`,
              ]
                .filter(Boolean)
                .join("; ")}
      </Typography>
    </Box>
  );
}
