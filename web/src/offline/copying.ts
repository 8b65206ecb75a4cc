import { inTurn } from "./inTurn";
import { copyStep } from "./secondCopy";
import { storeMark, type QueuedCommand } from "./store";

// Keeps the second copy of what waits as it is in the store: what comes is copied before it is said to be kept, what went leaves it later.

/** Copies what was put into the store in one step. It is kept there at any rate: without room for it twice it stands in the store alone. */
export async function copyKept(waiting: QueuedCommand[]): Promise<void> {
  const mark = storeMark();
  if (mark && waiting.length > 0) await copyStep(mark, waiting).catch(() => undefined);
}

// Where much waits it takes a while to go through the copy: so many times longer the page’s thread is left alone.
const RESTS = 5;
let noting: Promise<void> | undefined;
let isToBeNoted = false;

// Comes behind the first page.
const tidy = async (isAnew: boolean) => (await import("./tidyCopy")).tidyCopy(isAnew);

/** Brings the copy up to what waits in the store, and notes outside the store how much that is. */
export function noteWaiting(): Promise<void> {
  isToBeNoted = true;
  noting ??= noteAll().finally(() => (noting = undefined));
  return noting;
}

async function noteAll(): Promise<void> {
  while (isToBeNoted) {
    isToBeNoted = false;
    const began = performance.now();
    await inTurn("garten-copy", () => tidy(false));
    if (isToBeNoted) await new Promise((resolve) => setTimeout(resolve, RESTS * (performance.now() - began)));
  }
}

/** Makes the copy anew: something of what waits isn’t to stand anywhere any more. */
export const copyAnew = (): Promise<void> => inTurn("garten-copy", () => tidy(true));
