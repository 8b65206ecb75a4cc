import { Box, Link, Typography } from "@mui/material";
import { Link as RouterLink } from "react-router";
import { offered, usePlaces } from "../offline/documents";
import { useLocalWork } from "../offline/queries";
import { brief, today } from "../shared/calendar/day";
import { choosePlace, useHere } from "../shared/place/here";
import { useIsTracking } from "../shared/place/trackMark";
import { later } from "../shared/ui/later";
import { plainSelect } from "./plainSelect";

const TrackLine = later(async () => (await import("./TrackLine")).TrackLine, true);

/** Where one is and since when, and whether changes wait; the place chosen here holds in every room. */
export function ContextLine() {
  const { placeId, since } = useHere();
  const isTracking = useIsTracking();
  const places = usePlaces().data ?? [];
  const { outbox, refused, stuck } = useLocalWork();
  const place = places.find((it) => it.id === placeId);
  const waiting = outbox.length + refused.length + stuck.length;
  return (
    <Box sx={{ display: "flex", alignItems: "center", minWidth: 0, flex: { xs: 1, sm: "0 1 auto" }, columnGap: 0.5 }}>
      <Box
        component="svg"
        viewBox="0 0 16 20"
        aria-hidden="true"
        sx={{ flex: "none", width: 14, height: 18, fill: "none", stroke: "currentColor", strokeWidth: 1.7 }}
      >
        <path d="M8 19V9M8 9a4 4 0 1 1 0-8 4 4 0 0 1 0 8zM3 19h10" />
      </Box>
      <Box
        component="select"
        aria-label="Place where you are"
        value={place ? placeId : ""}
        onChange={(event) => choosePlace(event.currentTarget.value)}
        sx={{ ...plainSelect, minWidth: 0, fontWeight: place ? 700 : 400 }}
      >
        <option value="">{place ? "nowhere in particular" : "Where are you?"}</option>
        {offered(places, placeId).map((it) => (
          <option key={it.id} value={it.id}>
            {it.name}
          </option>
        ))}
      </Box>
      {place && since && (
        <Typography component="span" variant="body2" color="text.secondary" sx={{ flex: "none" }}>
          since {since.day === today() ? since.time : brief(since.day)}
        </Typography>
      )}
      {isTracking && <TrackLine />}
      {waiting > 0 && (
        <Link component={RouterLink} to="/hand" sx={{ flex: "none", py: 1.25 }}>
          <Typography component="span" variant="body2" sx={{ fontWeight: 700 }}>
            {refused.length + stuck.length > 0 ? "✕" : "◌"} {waiting} waiting
          </Typography>
        </Link>
      )}
    </Box>
  );
}
