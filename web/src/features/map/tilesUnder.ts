import { useQuery } from "@tanstack/react-query";
import L from "leaflet";
import { useState } from "react";
import type { Schemas } from "../../api/client";
import { tilesServed } from "../../offline/grounds";

const SHOWN = "garten.map-tiles";

/** Tiles that may lie under the drawn map, and whether they do on this device. */
export function useTilesUnder() {
  const told = useQuery(tilesServed).data?.tiles ?? undefined;
  const [isOn, setOn] = useState(() => localStorage.getItem(SHOWN) === "yes");
  const [isMissing, setMissing] = useState(false);
  return {
    told,
    shown: isOn ? told : undefined,
    isMissing: isOn && isMissing,
    onMissing: setMissing,
    show: (on: boolean) => {
      localStorage.setItem(SHOWN, on ? "yes" : "no");
      setMissing(false);
      setOn(on);
    },
  };
}

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
