import type { QueuedCommand, RefusedCommand } from "./store";

// What waits, once more and elsewhere: browsers now and then begin a store anew after they were ended in the middle of something, and what was in
// it is gone. What is kept for the program itself stays then.

const NAME = "garten-copy";
// Of the page's own origin; nothing answers there.
const ADDRESS = "/what-waits.json";

/** What would be lost with the store. */
export interface SecondCopy {
  waiting: QueuedCommand[];
  refused: RefusedCommand[];
}

const cache = () => (typeof caches === "undefined" ? undefined : caches.open(NAME));

/** The copy that was made last; nothing where there is none. */
export async function readCopy(): Promise<SecondCopy | undefined> {
  const found = await (await cache())?.match(ADDRESS);
  return (await found?.json()) as SecondCopy | undefined;
}

/** Puts it in the place of the one before. */
export async function writeCopy(copy: SecondCopy): Promise<void> {
  await (await cache())?.put(ADDRESS, new Response(JSON.stringify(copy)));
}
