import { cache, copyRest, copyStep, FOLDER } from "./secondCopy";
import { MARK, store, storeMark, WAITING } from "./store";

/** An entry of the copy; with the numbers of what is in it, the first and the last, where it is a step of the store with the mark. */
interface CopiedStep {
  address: string;
  span: [first: number, last: number] | undefined;
}

/** All entries but what was refused in the store that has a mark. */
async function copiedSteps(mark: string): Promise<CopiedStep[]> {
  const steps: CopiedStep[] = [];
  for (const { url } of (await (await cache())?.keys()) ?? []) {
    const address = new URL(url).pathname;
    if (address === `${FOLDER}${mark}/rest`) continue;
    const [, first, last] = (address.startsWith(FOLDER + mark) && /\/(\d+)-(\d+)$/.exec(address)) || [];
    steps.push({ address, span: first && last ? [Number(first), Number(last)] : undefined });
  }
  return steps;
}

/** Takes entries out of the copy. */
async function dropSteps(steps: CopiedStep[]): Promise<void> {
  const kept = await cache();
  await Promise.all(steps.map(({ address }) => kept?.delete(address)));
}

let restNoted = "";

/** Brings the copy up to what waits in the store, or makes it anew. */
export async function tidyCopy(isAnew: boolean): Promise<void> {
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
