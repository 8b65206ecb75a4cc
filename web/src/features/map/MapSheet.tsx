import { Box, useTheme } from "@mui/material";
import L from "leaflet";
import "leaflet/dist/leaflet.css";
import { useEffect, useRef } from "react";
import type { Schemas } from "../../api/client";
import type { BaseMap } from "../../offline/grounds";
import { laidSheet } from "./laidSheet";
import { showRecords, textOf } from "./recordMarks";
import { SHEET_HEIGHT } from "./sheetHeight";
import { layTiles } from "./layTiles";

type Point = Schemas["GroundPoint"];

interface Props {
  base: BaseMap | undefined;
  places: Schemas["Place"][];
  grounds: Map<string, Schemas["GroundDescription"]>;
  points: Schemas["MapPoint"][];
  tracks: Schemas["PlacedTrack"][];
  squares: Schemas["SquareSeen"][];
  sheets: Schemas["ScannedSheet"][];
  /** Tiles that lie on the base; nothing where none do. */
  tiles: Schemas["MapTiles"] | undefined;
  onTilesMissing: (isMissing: boolean) => void;
  chosen: string;
  onChoose: (placeId: string) => void;
  /** The outline that is being drawn; nothing while none is. */
  drawn: Point[] | undefined;
  onDraw: (outline: Point[]) => void;
}

// More names than this hide the map.
const MOST_NAMED = 80;

const at = (it: Point): L.LatLngTuple => [it.latitude, it.longitude];

/** The map: the base in ink and wash, places with their boundaries, what was recorded. */
export function MapSheet(props: Props) {
  const { base, places, grounds, points, tracks, squares, sheets, tiles, chosen, onChoose, drawn, onDraw } = props;
  const { palette } = useTheme();
  const box = useRef<HTMLDivElement>(null);
  const map = useRef<L.Map>(undefined);
  const { onTilesMissing } = props;
  const draw = useRef({ drawn, onDraw, onChoose });
  useEffect(() => {
    draw.current = { drawn, onDraw, onChoose };
  });

  useEffect(() => {
    if (!box.current) return;
    const made = L.map(box.current, {
      preferCanvas: true,
      attributionControl: false,
      zoomSnap: 0.5,
      minZoom: 8,
      maxZoom: 19,
      zoomAnimation: !window.matchMedia("(prefers-reduced-motion: reduce)").matches,
    }).setView([0, 0], 12);
    // Below everything else, in a canvas of its own.
    made.createPane("base").style.zIndex = "250";
    made.createPane("tiles").style.zIndex = "255";
    made.createPane("sheets").style.zIndex = "260";
    made.createPane("squares").style.zIndex = "300";
    L.control.scale({ imperial: false }).addTo(made);
    made.on("click", (event: L.LeafletMouseEvent) => {
      const now = draw.current;
      if (now.drawn)
        now.onDraw([
          ...now.drawn,
          { latitude: Number(event.latlng.lat.toFixed(6)), longitude: Number(event.latlng.lng.toFixed(6)) },
        ]);
    });
    map.current = made;
    return () => {
      made.remove();
    };
  }, []);

  // The base in the inks of the look.
  useEffect(() => {
    const on = map.current;
    if (!on || !base) return;
    const { ground, rule, signal, text, background } = palette;
    const inks: Record<string, L.PathOptions> = {
      land: { fillColor: background.paper, fillOpacity: 1, color: text.primary, weight: 1.4 },
      relief: { color: rule, weight: 1, fill: false },
      stream: { color: signal.absent, weight: 1.2, fill: false },
      water: { color: signal.absent, weight: 1, fillColor: ground, fillOpacity: 1 },
      wood: { stroke: false, fillColor: signal.chosenWash, fillOpacity: 0.85 },
      sand: { stroke: false, fillColor: signal.openWash, fillOpacity: 0.85 },
      path: { color: text.secondary, weight: 1, dashArray: "5 4", fill: false },
    };
    const renderer = L.canvas({ pane: "base" });
    // The sea's wash: three broad strokes along the coast.
    const coast = base.features.filter((it) => it.properties?.kind === "land");
    const wash = [26, 16, 8].map((weight) =>
      L.geoJSON({ type: "FeatureCollection", features: coast } as never, {
        pane: "base",
        style: { renderer, pane: "base", color: signal.absent, weight, opacity: 0.06, fill: false } as L.PathOptions,
      }).addTo(on),
    );
    const drawing = L.geoJSON(base as never, {
      pane: "base",
      interactive: false,
      filter: (feature) => feature.properties?.kind !== "name",
      style: (feature) => ({ renderer, interactive: false, ...(inks[feature?.properties?.kind] ?? inks.path) }),
      pointToLayer: (_, where) =>
        L.circleMarker(where, { renderer, radius: 2, color: text.secondary, interactive: false }),
    }).addTo(on);
    for (const { properties, geometry } of base.features) {
      const place = geometry as { coordinates: [number, number] };
      if (properties?.kind !== "name" || !properties.name) continue;
      L.marker([place.coordinates[1], place.coordinates[0]], {
        interactive: false,
        keyboard: false,
        icon: L.divIcon({ className: "map-name", html: "", iconSize: [0, 0] }),
      })
        .bindTooltip(textOf(properties.name), { permanent: true, direction: "center", className: "map-name" })
        .addTo(drawing);
    }
    return () => {
      drawing.remove();
      for (const it of wash) it.remove();
      renderer.remove();
    };
  }, [base, palette]);

  useEffect(() => {
    if (map.current && tiles) return layTiles(map.current, tiles, onTilesMissing);
  }, [tiles, onTilesMissing]);

  // Scanned sheets lie on the base and under everything that was recorded.
  useEffect(() => {
    const on = map.current;
    if (!on || sheets.length === 0) return;
    const group = L.layerGroup(sheets.map((it) => laidSheet(it, "sheets"))).addTo(on);
    return () => {
      group.remove();
    };
  }, [sheets]);

  // Places, and where to look at first.
  const isPlaced = useRef("");
  useEffect(() => {
    const on = map.current;
    if (!on || places.length === 0) return;
    const group = L.featureGroup();
    for (const place of places) {
      const outline = grounds.get(place.id)?.outline ?? [];
      const isChosen = place.id === chosen;
      const style: L.PathOptions = {
        color: palette.primary.main,
        weight: isChosen ? 3 : 1.6,
        fillColor: palette.signal.chosenWash,
        fillOpacity: isChosen ? 0.5 : 0.15,
        dashArray: outline.length > 0 ? undefined : "3 4",
      };
      const shape =
        outline.length > 0
          ? L.polygon(outline.map(at), style)
          : L.circle(at(place), { ...style, radius: place.uncertaintyMetres });
      if (!isChosen)
        shape.bindTooltip(textOf(place.name), { permanent: true, direction: "top", className: "map-place" });
      shape
        .on("click", (event) => {
          if (draw.current.drawn) return;
          L.DomEvent.stopPropagation(event);
          draw.current.onChoose(place.id);
        })
        .addTo(group);
      for (const part of isChosen ? (grounds.get(place.id)?.parts ?? []) : [])
        if (part.outline.length > 0)
          L.polygon(part.outline.map(at), { color: palette.text.secondary, weight: 1, dashArray: "2 3", fill: false })
            .bindTooltip(textOf(part.name), { permanent: true, direction: "center", className: "map-name" })
            .addTo(group);
    }
    const marked = chosen ? grounds.get(chosen) : undefined;
    for (const [sign, marks] of [
      ["△", marked?.hazards ?? []],
      ["⌂", marked?.entrances ?? []],
    ] as const)
      for (const mark of marks)
        if (mark.at)
          L.marker(at(mark.at), {
            keyboard: false,
            icon: L.divIcon({ className: sign === "△" ? "map-hazard" : "map-way", html: sign, iconSize: [18, 18] }),
          })
            .bindTooltip(textOf(mark.name))
            .addTo(group);
    group.addTo(on);
    const seen = `${chosen}:${places.length}:${grounds.size}`;
    if (isPlaced.current !== seen) {
      isPlaced.current = seen;
      const target = places.find((it) => it.id === chosen);
      const outline = target ? (grounds.get(target.id)?.outline ?? []) : [];
      const bounds = !target
        ? group.getBounds().pad(0.15)
        : outline.length > 0
          ? L.latLngBounds(outline.map(at)).pad(0.4)
          : L.latLng(at(target)).toBounds(target.uncertaintyMetres * 4);
      on.fitBounds(bounds, { animate: false });
    }
    return () => {
      group.remove();
    };
  }, [places, grounds, chosen, palette]);

  // What was recorded: apart where there is room, else joined with their number.
  useEffect(() => {
    const on = map.current;
    if (!on) return;
    return showRecords(on, points, palette);
  }, [points, palette, places.length]);

  // Squares: filled where something was recorded, dashed where somebody went through, thin where nobody was.
  useEffect(() => {
    const on = map.current;
    if (!on || squares.length === 0) return;
    const group = L.layerGroup();
    const isNamed = squares.length <= MOST_NAMED;
    const renderer = L.canvas({ pane: "squares" });
    for (const { square, records, taxa, lastRecorded, lastWalked } of squares) {
      const style: L.PathOptions =
        records > 0
          ? { color: palette.primary.main, weight: 1.2, fillColor: palette.signal.chosenWash, fillOpacity: 0.7 }
          : lastWalked
            ? { color: palette.signal.support, weight: 1.4, dashArray: "4 3", fillOpacity: 0 }
            : { color: palette.text.secondary, weight: 0.6, fillOpacity: 0 };
      L.polygon(square.outline.map(at), { ...style, renderer, pane: "squares", bubblingMouseEvents: true })
        .bindTooltip(textOf(isNamed ? square.name : describe(square.name, records, taxa, lastRecorded, lastWalked)), {
          permanent: isNamed,
          direction: "center",
          className: isNamed ? "map-name" : undefined,
        })
        .addTo(group);
    }
    group.addTo(on);
    return () => {
      group.remove();
      renderer.remove();
    };
  }, [squares, palette]);

  // Tracks: what lies between two ways nobody knows, so that no line joins them.
  useEffect(() => {
    const on = map.current;
    if (!on || tracks.length === 0) return;
    const group = L.layerGroup();
    // The newest stands out.
    for (const [i, { date, track }] of [...tracks.entries()].reverse()) {
      const ink = i === 0 ? { weight: 2.4, opacity: 0.95 } : { weight: 1.1, opacity: 0.35 };
      const says = textOf([track.recorder, date].join(", "));
      for (const way of track.segments)
        L.polyline(way.map(at), { color: palette.signal.support, ...ink })
          .bindTooltip(says, { sticky: true })
          .addTo(group);
      for (const gap of i === 0 ? track.gaps : [])
        for (const end of [gap.from, gap.to])
          L.circleMarker(at(end), {
            radius: 3.5,
            color: palette.signal.support,
            weight: 1.6,
            fillColor: palette.background.paper,
            fillOpacity: 1,
          })
            .bindTooltip(textOf("No position from here to the next ring"))
            .addTo(group);
    }
    group.addTo(on);
    return () => {
      group.remove();
    };
  }, [tracks, palette]);

  // The outline under the hand.
  useEffect(() => {
    const on = map.current;
    if (!on || !drawn) return;
    const group = L.layerGroup().addTo(on);
    L.polygon(drawn.map(at), { color: palette.signal.conflict, weight: 2.5, fillOpacity: 0.08 }).addTo(group);
    for (const corner of drawn)
      L.circleMarker(at(corner), { radius: 4, color: palette.signal.conflict, fillOpacity: 1 }).addTo(group);
    return () => {
      group.remove();
    };
  }, [drawn, palette]);

  return (
    <Box
      sx={{
        height: SHEET_HEIGHT,
        position: "relative",
        border: 1,
        borderColor: "rule",
        bgcolor: "ground",
        fontFamily: "inherit",
        zIndex: 0,
        "& .leaflet-grab": { cursor: drawn ? "crosshair" : undefined },
        "& .leaflet-tooltip.map-name, & .leaflet-tooltip.map-place": {
          background: "none",
          border: "none",
          boxShadow: "none",
          color: "text.primary",
          fontStyle: "italic",
          fontSize: "0.8rem",
          p: 0,
          "&::before": { display: "none" },
        },
        "& .leaflet-tooltip.map-place": { fontStyle: "normal", fontWeight: 700, fontSize: "0.9rem" },
        "& .map-hazard": { color: "signal.caution", fontWeight: 700, fontSize: "1rem" },
        "& .map-way": { color: "text.primary", fontSize: "1.1rem" },
        "& .map-count": {
          bgcolor: "background.paper",
          border: "1px solid",
          borderColor: "text.primary",
          borderRadius: "12px",
          textAlign: "center",
          fontWeight: 700,
          color: "text.primary",
          lineHeight: "22px",
        },
        "& .leaflet-bar a": {
          bgcolor: "background.paper",
          color: "text.primary",
          borderColor: "rule",
          borderRadius: 0,
        },
        "& .leaflet-control-scale-line": {
          bgcolor: "transparent",
          color: "text.primary",
          borderColor: "text.primary",
          textShadow: "none",
        },
        "& .leaflet-container": { height: "100%", bgcolor: "ground", fontFamily: "inherit" },
      }}
    >
      {/* Its classes are Leaflet’s. */}
      <div
        ref={box}
        role="application"
        aria-label="Map. Arrow keys move it, plus and minus change its scale. What it shows stands in the list beside it."
      />
    </Box>
  );
}

const describe = (
  name: string,
  records: number,
  taxa: number,
  recorded: string | null | undefined,
  walked: string | null | undefined,
) =>
  [
    name,
    records > 0 ? `${records} records of ${taxa} taxa, last ${recorded ?? ""}` : "nothing recorded",
    walked ? `walked through ${walked}` : "",
  ]
    .filter(Boolean)
    .join(", ");
