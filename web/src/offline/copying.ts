import { inTurn } from "./inTurn";
import { copiedSteps, copyRest, copyStep, dropSteps, type CopiedStep } from "./secondCopy";
import { MARK, store, storeMark, WAITING, type QueuedCommand } from "./store";

// Keeps the second copy of what waits as it is in the store: what comes is copied before it is said to be kept, what went leaves it behind that.

/** Copies what was put into the store in one step. It is kept in the store at any rate: where there is no room for it twice, it stands there alone. */
export async function copyKept(waiting: QueuedCommand[]): Promise<void> {
  const mark = storeMark();
  if (mark && waiting.length > 0) await copyStep(mark, waiting).catch(() => undefined);
}

// Where much waits it takes a while to go through the copy: so many times longer the page’s thread is left alone.
const RESTS = 5;
let noting: Promise<void> | undefined;
let isToBeNoted = false;
let restNoted = "";

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

async function tidy(isAnew: boolean): Promise<void> {
  // What stands in the copy is looked up first: whatever is put there meanwhile waits in the store already.
  const db = await store();
  const mark = storeMark();
  if (!mark) return;
  const steps = await copiedSteps(mark);
  const read = db.transaction(["outbox", "refused", "walks"]);
  const [numbers, refused, walks] = await Promise.all([
    read.objectStore("outbox").getAllKeys(),
    read.objectStore("refused").getAll(),
    read.objectStore("walks").getAll(),
  ]);
  localStorage.setItem(WAITING, String(numbers.length));
  const rest = JSON.stringify([refused, walks]);
  if (isAnew || rest !== restNoted) await copyRest(mark, { refused, walks });
  restNoted = rest;
  const waits = new Set(numbers);
  const isCopied = new Set<number>();
  const over = isAnew ? steps : steps.filter(({ span }) => !noteSpan(span, waits, isCopied));
  const missing = await Promise.all(numbers.filter((it) => !isCopied.has(it)).map((it) => db.get("outbox", it)));
  const entries = missing.filter((it) => it !== undefined);
  const added = entries.length > 0 ? await copyStep(mark, entries) : undefined;
  // From here on this copy counts, and none of a store before.
  localStorage.setItem(MARK, mark);
  await dropSteps(over.filter((it) => it.address !== added));
}

// Whether something of a step still waits; what does is noted.
function noteSpan(span: CopiedStep["span"], waits: Set<number>, isCopied: Set<number>): boolean {
  const [first, last] = span ?? [0, -1];
  let isWaiting = false;
  for (let it = first; it <= last; it++) {
    if (!waits.has(it)) continue;
    isCopied.add(it);
    isWaiting = true;
  }
  return isWaiting;
}
