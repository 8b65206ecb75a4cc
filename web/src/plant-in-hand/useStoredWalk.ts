import { useCallback, useEffect, useState } from "react";
import { store, type PlantInHand } from "../offline/store";
import { saveWalk } from "./walks";

/** A plant in hand as it is kept on this device at every step; null where it isn't here; and as it was when it was opened. */
export function useStoredWalk(walkId: string) {
  const [walk, setWalk] = useState<PlantInHand | null>();
  const [first, setFirst] = useState<PlantInHand | null>();
  useEffect(() => {
    let current = true;
    void store()
      .then((db) => db.get("walks", walkId))
      .then((found) => {
        if (!current) return;
        setFirst(found ?? null);
        setWalk(found ?? null);
      });
    return () => {
      current = false;
    };
  }, [walkId]);
  const change = useCallback((next: PlantInHand) => {
    setWalk(next);
    void saveWalk(next);
  }, []);
  return { walk, first, setWalk, change };
}
