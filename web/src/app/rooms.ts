/** A page of a room, as its own bar names it. */
interface RoomPart {
  to: string;
  name: string;
}

export interface Room {
  to: string;
  name: string;
  /** Its sign, drawn in a square of 24. */
  sign: string;
  /** Addresses below these belong to it. */
  below: string[];
  parts: RoomPart[];
}

/** The five rooms, in the order of a day. */
export const rooms: Room[] = [
  {
    to: "/",
    name: "Today",
    sign: "M3 18h18M6 18a6 6 0 0 1 12 0M12 5v3M4.6 9.6l2 1.6M19.4 9.6l-2 1.6",
    below: [],
    parts: [],
  },
  {
    to: "/bench",
    name: "Identify",
    sign: "M12 21v-8M12 13C12 8 5 9 5 3M12 13c0-5 7-4 7-10M3.4 4.6 5 3l1.6 1.6M17.4 4.6 19 3l1.6 1.6",
    below: ["/bench"],
    parts: [],
  },
  {
    to: "/site-visits",
    name: "Field",
    sign: "M6 21V4M6 5h10l-2.4 3L16 11H6M3 21h18",
    below: ["/site-visits", "/surveys", "/map", "/plants", "/populations", "/places", "/visits", "/along"],
    parts: [
      { to: "/site-visits", name: "Visits" },
      { to: "/surveys", name: "Surveys" },
      { to: "/plants", name: "Plants" },
      { to: "/places", name: "Places" },
      { to: "/map", name: "Map" },
      { to: "/visits", name: "Planned visits" },
      { to: "/along", name: "Take along" },
    ],
  },
  {
    to: "/flora",
    name: "Flora",
    sign: "M5 20C4 10 9 4 20 4c0 11-6 16-15 16zM5 20 15 9",
    below: ["/flora", "/keys", "/glossary", "/seasons", "/diagnostic"],
    parts: [
      { to: "/flora", name: "Taxa" },
      { to: "/keys", name: "Keys" },
      { to: "/seasons", name: "Seasons" },
      { to: "/diagnostic", name: "Diagnostic here" },
      { to: "/glossary", name: "Glossary" },
    ],
  },
  {
    to: "/records",
    name: "Records",
    sign: "M5 3h14v18H5zM8.5 8h7M8.5 12h7M8.5 16h4",
    below: ["/records", "/imports", "/deliveries", "/hand", "/people", "/figures", "/devices", "/pair"],
    parts: [
      { to: "/records", name: "All records" },
      { to: "/imports", name: "Bring records" },
      { to: "/deliveries", name: "Passed on" },
      { to: "/figures", name: "Figures" },
      { to: "/people", name: "People" },
      { to: "/devices", name: "Devices" },
      { to: "/hand", name: "Waiting and refused" },
    ],
  },
];

const isBelow = (pathname: string, at: string) => pathname === at || pathname.startsWith(`${at}/`);

/** The room that an address lies in. */
export const roomOf = (pathname: string): Room | undefined =>
  pathname === "/" ? rooms[0] : rooms.find((room) => room.below.some((at) => isBelow(pathname, at)));

/** The part of a room that an address lies in: the longest that fits; a population stands among the plants. */
export const partOf = (room: Room, pathname: string): RoomPart | undefined =>
  room.parts.find((part) => isBelow(pathname, part.to)) ??
  (isBelow(pathname, "/populations") ? room.parts.find((part) => part.to === "/plants") : undefined);
