import { useEffect, useRef, useState } from "react";
import type { Schemas } from "../../api/client";
import { core } from "../../core/coreClient";
import { useGrounds } from "../../offline/grounds";
import { listen } from "../../shared/place/receiver";

// A position that is older says where one was.
const FRESH_MS = 60_000;

interface Position {
  site: Schemas["PlantSite"];
  at: number;
}

/**
 * Where one stands, as the receiver says and a person would believe it. A page has no position while the screen is off: what is listed then
 * has none either.
 */
export function usePosition(place: Schemas["Place"], isWanted: boolean) {
  const [fix, setFix] = useState<Position>();
  const [doubt, setDoubt] = useState("");
  const before = useRef<Schemas["PositionFix"]>(undefined);
  const outline = useGrounds().data?.find((it) => it.placeId === place.id)?.ground.outline;
  useEffect(() => {
    if (!isWanted) return;
    let isCurrent = true;
    const take = async (now: Schemas["PositionFix"]) => {
      const says = await core.position({
        fix: now,
        place: { latitude: place.latitude, longitude: place.longitude },
        placeMetres: place.uncertaintyMetres,
        outline: outline ?? [],
        before: before.current ?? null,
      });
      before.current = now;
      if (!isCurrent) return;
      setDoubt(says);
      const round = (degrees: number) => Number(degrees.toFixed(6));
      const metres = Math.max(1, Math.round(now.accuracyMetres));
      setFix(
        says
          ? undefined
          : {
              site: { latitude: round(now.latitude), longitude: round(now.longitude), uncertaintyMetres: metres },
              at: Date.now(),
            },
      );
    };
    const stop = listen(place.id, (heard) => {
      if (heard.fix) return void take(heard.fix);
      if (!isCurrent) return;
      setFix(undefined);
      setDoubt(heard.trouble);
    });
    return () => {
      isCurrent = false;
      stop();
    };
  }, [isWanted, place, outline]);
  return {
    doubt: isWanted ? doubt : "",
    metres: isWanted ? fix?.site.uncertaintyMetres : undefined,
    /** The position to be noted now; nothing where there is none that can be believed. */
    siteNow: () => (isWanted && fix && Date.now() - fix.at < FRESH_MS ? fix.site : null),
  };
}
