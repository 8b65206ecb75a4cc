import type { PlantInHand, QueuedCommand, RefusedCommand } from "./store";

// What waits, once more and elsewhere: browsers now and then begin a store anew after they were ended in the middle of something, and what
// was in it is gone. What is kept for the program itself stays then. What was kept in one step stands in an entry of its own, so that each
// change is copied at once however many wait.

const NAME = "garten-copy";
// Of the page's own origin; nothing answers there.
export const FOLDER = "/what-waits/";

/** What would be lost with the store. */
export interface SecondCopy {
  waiting: QueuedCommand[];
  refused: RefusedCommand[];
  walks: PlantInHand[];
}

/** A part of it, of the store that has a mark. */
type Part = { mark: string } & Partial<SecondCopy>;

/** Where it stands; nothing where the browser keeps none. */
export const cache = () => (typeof caches === "undefined" ? undefined : caches.open(NAME));

async function put(address: string, part: Part): Promise<string> {
  await (await cache())?.put(FOLDER + address, new Response(JSON.stringify(part)));
  return FOLDER + address;
}

/** Copies what was put into a store in one step; at least one, with the numbers that they have there. The address of its entry. */
export const copyStep = (mark: string, waiting: QueuedCommand[]) =>
  put(`${mark}/${waiting[0]?.seq ?? 0}-${waiting.at(-1)?.seq ?? 0}`, { mark, waiting });

/** Copies what was refused and what is in hand, in the place of what was copied of that before. */
export const copyRest = (mark: string, rest: Omit<SecondCopy, "waiting">) => put(`${mark}/rest`, { mark, ...rest });

/** All that was copied, in the order in which it was made, what is of the store that had the mark first; nothing where there is none. */
export async function readCopy(mark: string | null): Promise<SecondCopy | undefined> {
  const found = (await (await cache())?.matchAll()) ?? [];
  // One that was being written in the very moment may be torn.
  const read = await Promise.all(found.map((it) => it.json().catch(() => undefined) as Promise<Part | undefined>));
  const parts = read.filter((it) => it !== undefined);
  if (parts.length === 0) return undefined;
  const steps = parts.flatMap((it) => (it.waiting ?? []).map((entry) => ({ entry, isBefore: it.mark === mark })));
  steps.sort((a, b) => Number(b.isBefore) - Number(a.isBefore) || (a.entry.seq ?? 0) - (b.entry.seq ?? 0));
  return {
    waiting: [...new Map(steps.map(({ entry }) => [entry.id, entry])).values()],
    refused: parts.flatMap((it) => it.refused ?? []),
    walks: parts.flatMap((it) => it.walks ?? []),
  };
}
