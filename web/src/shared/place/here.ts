import { useSyncExternalStore } from "react";
import { iso, timeNow } from "../../api/today";
import { PLACE } from "../form/last";
import { now } from "../calendar/day";

const SINCE = "garten.place-since";
const CHANGED = "garten-place";

/** Where one is, as it was chosen or last recorded; it holds in every room until another place is chosen. */
export function choosePlace(placeId: string): void {
  if (placeId === (localStorage.getItem(PLACE) ?? "")) return;
  if (placeId) {
    localStorage.setItem(PLACE, placeId);
    localStorage.setItem(SINCE, `${iso(now())}T${timeNow()}`);
  } else {
    localStorage.removeItem(PLACE);
    localStorage.removeItem(SINCE);
  }
  window.dispatchEvent(new Event(CHANGED));
}

function subscribe(onChange: () => void): () => void {
  window.addEventListener(CHANGED, onChange);
  window.addEventListener("storage", onChange);
  return () => {
    window.removeEventListener(CHANGED, onChange);
    window.removeEventListener("storage", onChange);
  };
}

/** The place that holds, empty where none does; and since when, as a day and a time. */
export function useHere(): { placeId: string; since: { day: string; time: string } | undefined } {
  const placeId = useSyncExternalStore(subscribe, () => localStorage.getItem(PLACE) ?? "");
  const since = useSyncExternalStore(subscribe, () => localStorage.getItem(SINCE) ?? "");
  const [day, time] = since.split("T");
  return { placeId, since: day && time ? { day, time } : undefined };
}
