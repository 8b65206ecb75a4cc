import L from "leaflet";
import type { Schemas } from "../../api/client";

/** Lays the tiles on a map; answers with what takes them away. */
export function layTiles(map: L.Map, tiles: Schemas["MapTiles"], onMissing: (isMissing: boolean) => void) {
  const layer = L.tileLayer("/api/v1/map/tiles/{z}/{x}/{y}", {
    pane: "tiles",
    maxNativeZoom: tiles.finest,
    maxZoom: map.getMaxZoom(),
  })
    .on("tileerror", () => onMissing(true))
    .on("tileload", () => onMissing(false))
    .addTo(map);
  return () => {
    layer.remove();
  };
}
