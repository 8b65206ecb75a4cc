import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
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
