import { useQuery } from "@tanstack/react-query";
import { useSyncExternalStore } from "react";
import { answerOf, api } from "../../api/client";
import { standInsServed } from "../place/receiver";

const CALLIPER = "garten.calliper";
const CHANGED = "garten-calliper";

/** A calliper that types into whatever field one is in needs nothing of this; a simulated one is chosen by how it works. */
export type Calliper = "keyboard" | `simulated:${string}`;

export function chooseCalliper(calliper: Calliper): void {
  localStorage.setItem(CALLIPER, calliper);
  window.dispatchEvent(new Event(CHANGED));
}

const subscribe = (onChange: () => void) => {
  window.addEventListener(CHANGED, onChange);
  window.addEventListener("storage", onChange);
  return () => {
    window.removeEventListener(CHANGED, onChange);
    window.removeEventListener("storage", onChange);
  };
};

/** The calliper that is used: where there are stand-ins and nobody has chosen otherwise, the first of these. */
export function useCalliper(): Calliper {
  const chosen = useSyncExternalStore(subscribe, () => localStorage.getItem(CALLIPER) as Calliper | null);
  const moods = useQuery(standInsServed).data ?? [];
  if (chosen && (!chosen.startsWith("simulated") || moods.length > 0)) return chosen;
  return moods[0] ? `simulated:${moods[0]}` : "keyboard";
}

/** How the simulated calliper works; nothing where a real one types. */
export const moodOfCalliper = (calliper: Calliper) =>
  calliper === "keyboard" ? undefined : calliper.slice("simulated:".length);

// Whoever holds a leaf between the jaws doesn’t wait longer.
const PATIENCE_MS = 8_000;

/** The keys that the simulated calliper presses for something of about this size; none where it stays silent. */
export const keysOfCalliper = (aboutMillimetres: number, mood: string): Promise<string> =>
  answerOf<string>(() =>
    api.GET("/api/v1/stand-ins/calliper", {
      params: { query: { about: aboutMillimetres, mood } },
      parseAs: "text",
      signal: AbortSignal.timeout(PATIENCE_MS),
    }),
  ).catch(() => "");
