import type { Palette } from "@mui/material";
import L from "leaflet";
import type { Schemas } from "../../api/client";

type MapPoint = Schemas["MapPoint"];

// Marks that would stand closer than this many pixels are joined to one with their number, where there are more than so many.
const CELL = 40;
const MOST_APART = 6;

// More columns of cells than the whole world has at the finest scale.
const COLUMNS = 2 ** 23;

// What lies a little outside is drawn already when the map is moved there.
const MARGIN = 0.2;

/** Leaflet takes markup; a name is text. */
export function textOf(text: string): HTMLElement {
  const it = document.createElement("span");
  it.textContent = text;
  return it;
}

/**
 * Shows what was recorded: apart where there is room, else joined with its number. The cells of a scale stay where they are while the map is
 * moved, so that a move draws nothing anew but what comes into sight.
 */
export function showRecords(on: L.Map, points: MapPoint[], palette: Palette): () => void {
  // Where they are in a world one tile wide: at another scale twice, four times … as far.
  const worlds = points.map((it) => on.project([it.latitude, it.longitude], 0));
  const group = L.layerGroup().addTo(on);
  let cells = new Map<number, MapPoint[]>();
  let shown = new Map<number, L.Layer[]>();
  let scaleOf = NaN;
  const join = (zoom: number) => {
    const scale = 2 ** zoom / CELL;
    cells = new Map();
    for (let i = 0; i < points.length; i++) {
      const [it, world] = [points[i], worlds[i]];
      if (!it || !world) continue;
      const key = Math.floor(world.x * scale) + COLUMNS * Math.floor(world.y * scale);
      const there = cells.get(key);
      if (there) there.push(it);
      else cells.set(key, [it]);
    }
  };
  const mark = (there: MapPoint[]): L.Layer[] => {
    const [first] = there;
    if (first && there.length > MOST_APART && on.getZoom() < on.getMaxZoom()) {
      const where: L.LatLngTuple = [first.latitude, first.longitude];
      return [
        L.marker(where, {
          keyboard: false,
          icon: L.divIcon({ className: "map-count", html: String(there.length), iconSize: [30, 24] }),
        }).on("click", () => on.setView(where, on.getZoom() + 2)),
      ];
    }
    return there.map((it) =>
      L.circleMarker([it.latitude, it.longitude], {
        radius: it.kind === "line" ? 4 : 5.5,
        color: palette.text.primary,
        weight: 1.4,
        fillColor: it.kind === "plant" ? palette.primary.main : palette.background.paper,
        fillOpacity: 1,
      }).bindTooltip(() => textOf([it.called, it.date].filter(Boolean).join(", "))),
    );
  };
  const show = () => {
    const zoom = on.getZoom();
    if (zoom !== scaleOf) {
      scaleOf = zoom;
      group.clearLayers();
      shown = new Map();
      join(zoom);
    }
    const { min, max } = on.getPixelBounds();
    if (!min || !max) return;
    const [wide, high] = [(max.x - min.x) * MARGIN, (max.y - min.y) * MARGIN];
    const inSight = new Map<number, L.Layer[]>();
    for (let y = Math.floor((min.y - high) / CELL); y <= (max.y + high) / CELL; y++)
      for (let x = Math.floor((min.x - wide) / CELL); x <= (max.x + wide) / CELL; x++) {
        const key = x + COLUMNS * y;
        const there = cells.get(key);
        if (!there) continue;
        const known = shown.get(key);
        const layers = known ?? mark(there);
        if (!known) for (const it of layers) group.addLayer(it);
        inSight.set(key, layers);
      }
    for (const [key, layers] of shown) if (!inSight.has(key)) for (const it of layers) group.removeLayer(it);
    shown = inSight;
  };
  show();
  on.on("moveend", show);
  return () => {
    on.off("moveend", show);
    group.remove();
  };
}
