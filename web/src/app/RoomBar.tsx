import { Box } from "@mui/material";
import { Link as RouterLink, useLocation } from "react-router";
import { partOf, roomOf, rooms, type Room } from "./rooms";
import { useIsTyping } from "./useIsTyping";

/** Room that the bar at the bottom of a phone takes. */
export const BAR_HEIGHT = 58;

const Sign = ({ d }: { d: string }) => (
  <Box
    component="svg"
    viewBox="0 0 24 24"
    aria-hidden="true"
    sx={{ width: 24, height: 24, fill: "none", stroke: "currentColor", strokeWidth: 1.8, strokeLinecap: "round" }}
  >
    <path d={d} />
  </Box>
);

const plainLink = { color: "text.primary", textDecoration: "none" } as const;

const current = (room: Room, pathname: string) => (roomOf(pathname) === room ? "page" : undefined);

/** The rooms in a line, above a page. */
export function RoomLine() {
  const { pathname } = useLocation();
  return (
    <Box component="nav" aria-label="Rooms" sx={{ display: { xs: "none", sm: "flex" }, columnGap: { sm: 0, md: 1 } }}>
      {rooms.map((room) => (
        <Box
          key={room.to}
          component={RouterLink}
          to={room.to}
          aria-current={current(room, pathname)}
          sx={{
            ...plainLink,
            px: { sm: 1, md: 1.5 },
            minHeight: 44,
            display: "flex",
            alignItems: "center",
            borderBottom: "3px solid transparent",
            "&:hover": { borderColor: "rule" },
            "&[aria-current]": { borderColor: "primary.main", fontWeight: 700 },
          }}
        >
          {room.name}
        </Box>
      ))}
    </Box>
  );
}

/** The rooms at the bottom of a phone, where a thumb is; they leave while something is typed. */
export function RoomFoot() {
  const { pathname } = useLocation();
  const isTyping = useIsTyping();
  if (isTyping) return null;
  return (
    <Box
      component="nav"
      aria-label="Rooms"
      sx={{
        "@media print": { display: "none" },
        display: { xs: "grid", sm: "none" },
        gridTemplateColumns: `repeat(${rooms.length}, minmax(0, 1fr))`,
        position: "fixed",
        bottom: 0,
        left: 0,
        right: 0,
        zIndex: "appBar",
        height: `calc(${BAR_HEIGHT}px + env(safe-area-inset-bottom))`,
        pb: "env(safe-area-inset-bottom)",
        bgcolor: "background.paper",
        borderTop: 1,
        borderColor: "text.primary",
      }}
    >
      {rooms.map((room) => (
        <Box
          key={room.to}
          component={RouterLink}
          to={room.to}
          aria-current={current(room, pathname)}
          sx={{
            ...plainLink,
            // With large letters a name still fits its fifth of the screen.
            fontSize: "min(0.8125rem, 3.8vw)",
            lineHeight: 1.1,
            display: "grid",
            placeContent: "center",
            justifyItems: "center",
            rowGap: 0.25,
            overflow: "hidden",
            borderTop: "4px solid transparent",
            "&[aria-current]": { borderColor: "primary.main", fontWeight: 700, bgcolor: "signal.chosenWash" },
          }}
        >
          <Sign d={room.sign} />
          {room.name}
        </Box>
      ))}
    </Box>
  );
}

/** The pages of the room that one is in. */
export function PartLine() {
  const { pathname } = useLocation();
  const room = roomOf(pathname);
  if (!room || room.parts.length === 0) return null;
  const here = partOf(room, pathname);
  return (
    <Box
      component="nav"
      aria-label={`In ${room.name}`}
      sx={{
        "@media print": { display: "none" },
        display: "flex",
        overflowX: "auto",
        columnGap: { xs: 0.5, md: 1 },
        px: { xs: 1, md: 2 },
        borderBottom: 1,
        borderColor: "rule",
        scrollbarWidth: "none",
      }}
    >
      {room.parts.map((part) => (
        <Box
          key={part.to}
          component={RouterLink}
          to={part.to}
          aria-current={part === here ? "page" : undefined}
          sx={{
            flex: "none",
            color: "text.secondary",
            textDecoration: "none",
            px: 1,
            minHeight: 44,
            display: "flex",
            alignItems: "center",
            fontSize: "0.9375rem",
            "&:hover": { textDecoration: "underline", textUnderlineOffset: 4 },
            "&[aria-current]": { color: "text.primary", fontWeight: 700, boxShadow: "inset 0 -2px 0 currentColor" },
          }}
        >
          {part.name}
        </Box>
      ))}
    </Box>
  );
}
