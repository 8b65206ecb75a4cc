import { Link, Typography } from "@mui/material";
import { Link as RouterLink } from "react-router";
import { useRunningTrack, useTrackNoted } from "../shared/place/tracking";

/** That a track runs, wherever one is meanwhile. */
export function TrackLine() {
  useTrackNoted();
  const { running, trouble } = useRunningTrack();
  if (!running) return null;
  return (
    <Link component={RouterLink} to={`/site-visits/${running.visitId}`} sx={{ flex: "none", py: 1.25 }}>
      <Typography component="span" variant="body2" sx={{ fontWeight: 700 }}>
        {running.isHeld ? "◌ track resting" : trouble ? "△ track: no position" : "● track"}
      </Typography>
    </Link>
  );
}
