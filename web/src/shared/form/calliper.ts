import { useQuery } from "@tanstack/react-query";
import { answerOf, api } from "../../api/client";
import { chosenDevice } from "../place/chosenDevice";
import { standInsServed } from "../place/receiver";

/** A calliper that types into whatever field one is in needs nothing of this; a simulated one is chosen by how it works. */
export type Calliper = "keyboard" | `simulated:${string}`;

const chosenCalliper = chosenDevice<Calliper>("calliper");

export const chooseCalliper = chosenCalliper.choose;

/** The calliper that is used. */
export function useCalliper(): Calliper {
  const chosen = chosenCalliper.useChosen();
  return chosenCalliper.used(chosen, useQuery(standInsServed).data ?? [], "keyboard");
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
