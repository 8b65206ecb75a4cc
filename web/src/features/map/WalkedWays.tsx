import { Box, Button, Typography } from "@mui/material";
import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import type { Schemas } from "../../api/client";
import { core } from "../../core/coreClient";
import { tracksServed } from "../../offline/grounds";
import { day } from "../../shared/calendar/day";

interface Props {
  place: string;
  onTake: (outline: Schemas["GroundPoint"][]) => void;
}

// Whoever went round a place to have its boundary did so lately.
const MOST_OFFERED = 5;

/** Takes the boundary from the way that somebody went on a visit. */
export function WalkedWays({ place, onTake }: Props) {
  const tracks = useQuery(tracksServed(place)).data ?? [];
  const [said, setSaid] = useState("");
  if (tracks.length === 0) return null;
  const take = async ({ segments }: Schemas["Track"]) => {
    const ways = segments.map((way) => way.map(({ latitude, longitude }) => ({ latitude, longitude })));
    const walked = await core.walkedBoundary({ ways });
    setSaid(walked.inWords);
    if (walked.outline.length > 0) onTake(walked.outline);
  };
  return (
    <Box component="details" sx={{ mb: 1 }}>
      <Box component="summary" sx={{ py: 1, cursor: "pointer" }}>
        Take it from a way that somebody walked
      </Box>
      {tracks.slice(0, MOST_OFFERED).map(({ date, track }) => (
        <Button key={track.id} onClick={() => void take(track)} sx={{ display: "block", textAlign: "left", mb: 0.5 }}>
          {[day(date), track.recorder, track.inWords].filter(Boolean).join(", ")}
        </Button>
      ))}
      <Typography role="status">{said}</Typography>
    </Box>
  );
}
