import { Box, ButtonBase, Link, Menu, MenuItem, Typography } from "@mui/material";
import { useState } from "react";
import { Link as RouterLink } from "react-router";
import { usePlaces } from "../offline/documents";
import { useLocalWork } from "../offline/queries";
import { brief, today } from "../shared/calendar/day";
import { choosePlace, useHere } from "../shared/place/here";

/** Where one is and since when, and whether changes wait; the place chosen here holds in every room. */
export function ContextLine() {
  const { placeId, since } = useHere();
  const places = usePlaces().data ?? [];
  const { outbox, refused, stuck } = useLocalWork();
  const [anchor, setAnchor] = useState<HTMLElement>();
  const place = places.find((it) => it.id === placeId);
  const waiting = outbox.length + refused.length + stuck.length;
  const choose = (id: string) => {
    choosePlace(id);
    setAnchor(undefined);
  };
  return (
    <Box sx={{ display: "flex", alignItems: "center", minWidth: 0, flex: { xs: 1, sm: "0 1 auto" }, columnGap: 1 }}>
      <ButtonBase
        onClick={(event) => setAnchor(event.currentTarget)}
        aria-haspopup="menu"
        aria-expanded={anchor !== undefined}
        aria-label={place ? `You are at ${place.name}: change the place` : "Choose the place where you are"}
        sx={{ minHeight: 44, px: 1, minWidth: 0, fontSize: "0.9375rem", justifyContent: "flex-start", gap: 0.75 }}
      >
        <Box
          component="svg"
          viewBox="0 0 16 20"
          aria-hidden="true"
          sx={{ flex: "none", width: 14, height: 18, fill: "none", stroke: "currentColor", strokeWidth: 1.7 }}
        >
          <path d="M8 19V9M8 9a4 4 0 1 1 0-8 4 4 0 0 1 0 8zM3 19h10" />
        </Box>
        <Box component="span" sx={{ overflow: "hidden", textOverflow: "ellipsis", whiteSpace: "nowrap" }}>
          {place ? (
            <>
              <strong>{place.name}</strong>
              {since && ` since ${since.day === today() ? since.time : brief(since.day)}`}
            </>
          ) : (
            "Where are you?"
          )}
        </Box>
      </ButtonBase>
      <Menu anchorEl={anchor} open={anchor !== undefined} onClose={() => setAnchor(undefined)}>
        <MenuItem selected={!place} onClick={() => choose("")}>
          nowhere in particular
        </MenuItem>
        {places.map((it) => (
          <MenuItem key={it.id} selected={it.id === placeId} onClick={() => choose(it.id)}>
            {it.name}
            {it.cell && ` (${it.cell})`}
          </MenuItem>
        ))}
        <MenuItem component={RouterLink} to="/places" onClick={() => setAnchor(undefined)}>
          All places …
        </MenuItem>
      </Menu>
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
