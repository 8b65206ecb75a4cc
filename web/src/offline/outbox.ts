import { api, ask, type Problem, type Schemas } from "../api/client";
import { inTurn } from "./inTurn";
import { copyKept, noteWaiting } from "./copying";
import { store, type Command, type QueuedCommand, type RefusedCommand } from "./store";

/** What became of a command. */
export type Sent =
  | { kind: "applied"; result: Schemas["CommandResult"] }
  | { kind: "refused"; problem: Problem; id: string }
  | { kind: "waiting" };

export interface SendOptions {
  /** The walk that it closes when it is taken in. */
  walkId?: string;
  /** What comes into being by it. */
  creates?: string[];
  /** The refused command that it takes the place of. */
  mends?: string;
}

// While much is sent pages are told after so long that the server has taken something in, then after twice as long each time, up to the
// longest, and at the end: each time they ask for all they show, with what still waits put into it, and what is sent waits beside that.
const TELL_MS = 2_000;
const TELL_LONGEST_MS = 16_000;
let toldAt = 0;

// Between two tries while the server is away.
const RETRY_MS = 3_000;
const BATCH = 100;
// So often the server may fail at a command, sent by itself while it is well, before a person is asked; then it is tried hourly.
export const MOST_FAILURES = 5;
const HOUR_MS = 3_600_000;
const DAY_MS = 24 * HOUR_MS;
// So long a server that was set back to a copy gets again, by itself, what it had; older ones a person takes away as a file.
const SENT_AGAIN_DAYS = 90;
const SENT_KEPT_DAYS = 400;

const listeners = new Set<(taken: boolean) => void>();
const settled = new Map<string, (sent: Sent) => void>();
let flushing = false;
let again = false;
let timer: ReturnType<typeof setTimeout> | undefined;

// What one tab does the others see: the tab that has the turn sends for all of them.
type Told = { kind: "changed"; taken: boolean } | { kind: "settled"; id: string; sent: Sent };
const tabs = typeof BroadcastChannel === "undefined" ? undefined : new BroadcastChannel("garten-outbox");
tabs?.addEventListener("message", (event: MessageEvent<Told>) => {
  if (event.data.kind === "settled") return settleHere(event.data.id, event.data.sent);
  tell(event.data.taken);
  // The tab that put something there may be closed before it has sent it.
  if (!event.data.taken) void flush();
  noteWaiting().catch(() => undefined);
});

// What was left undone when the page was closed.
noteWaiting().catch(() => undefined);

/** Calls back whenever the outbox, what was refused or a walk has changed, and says whether the server has taken something in. */
export function onOutboxChange(listener: (taken: boolean) => void): () => void {
  listeners.add(listener);
  return () => listeners.delete(listener);
}

function tell(taken: boolean): void {
  for (const listener of listeners) listener(taken);
}

export function announce(taken = false): void {
  if (taken) toldAt = Date.now();
  noteWaiting().catch(() => undefined);
  tell(taken);
  tabs?.postMessage({ kind: "changed", taken } satisfies Told);
}

/**
 * Puts a command into the outbox and tries to send it. Ends with its result, or with "waiting" when the server is away:
 * then it is sent by itself as soon as it can be, also after the page was closed and opened again.
 */
export async function send(command: Command, { walkId, creates, mends }: SendOptions = {}): Promise<Sent> {
  const [sent] = await put([{ id: command.id, command, walkId, creates }], mends);
  return sent ?? { kind: "waiting" };
}

/** The same of many that belong together: all are kept or none, in their order. */
export const sendTogether = (commands: Command[]): Promise<Sent[]> =>
  put(commands.map((command) => ({ id: command.id, command })));

async function put(entries: QueuedCommand[], mends?: string): Promise<Sent[]> {
  const db = await store();
  // Whoever sends may do so from the moment at which they stand in the store.
  const results = entries.map((it) => new Promise<Sent>((resolve) => settled.set(it.id, resolve)));
  try {
    // On the disk, and copied, before it is said to be kept.
    const change = db.transaction(["outbox", "refused"], "readwrite", { durability: "strict" });
    for (const it of entries) it.seq = await change.objectStore("outbox").add(it);
    if (mends) await change.objectStore("refused").delete(mends);
    await change.done;
  } catch (error) {
    for (const { id } of entries) settled.delete(id);
    throw error;
  }
  await copyKept(entries);
  announce();
  void flush();
  return Promise.all(results);
}

export async function queued(): Promise<QueuedCommand[]> {
  return (await store()).getAll("outbox");
}

/** What waits, and when the server took something in last; 0 where it never did. Of one moment: what goes from the one comes to the other. */
export async function queuedAndSent(): Promise<{ entries: QueuedCommand[]; lastSent: number }> {
  const read = (await store()).transaction(["outbox", "sent"]);
  const [entries, last] = await Promise.all([
    read.objectStore("outbox").getAll(),
    read.objectStore("sent").index("at").openKeyCursor(null, "prev"),
  ]);
  return { entries, lastSent: last?.key ?? 0 };
}

/** What the server has taken in since a moment, in its order. */
export async function sentSince(at: number): Promise<Command[]> {
  const all = await (await store()).getAllFromIndex("sent", "at", IDBKeyRange.lowerBound(at));
  return all.sort((a, b) => a.seq - b.seq).map((it) => it.command);
}

/** Puts what was sent in the last months back among what waits: the server was set back, and knows what it still has by its id. How many, and
 * how many older ones are left. */
export async function sendForgotten(): Promise<{ again: number; older: number }> {
  const db = await store();
  const change = db.transaction(["outbox", "sent"], "readwrite");
  const from = Date.now() - SENT_AGAIN_DAYS * DAY_MS;
  const all = await change.objectStore("sent").getAll();
  const recent = all.filter((it) => it.at >= from);
  const again: QueuedCommand[] = recent.map(({ id, command, creates }) => ({ id, command, creates }));
  for (const it of again) it.seq = await change.objectStore("outbox").add(it);
  for (const { seq } of recent) await change.objectStore("sent").delete(seq);
  await change.done;
  await copyKept(again);
  announce();
  void flush();
  return { again: recent.length, older: all.length - recent.length };
}

/** What was sent and is kept still, oldest first. */
export const sentCommands = async () => (await store()).getAll("sent");

/** What was refused and isn't discarded, oldest first. */
export async function refusedCommands(): Promise<RefusedCommand[]> {
  const all = await (await store()).getAll("refused");
  return all.filter((it) => !it.discardedAt).sort((a, b) => a.at - b.at);
}

/** Discards a refused command, or takes it up again. */
export async function discardRefused(id: string, discarded: boolean): Promise<void> {
  const db = await store();
  const it = await db.get("refused", id);
  if (it) await db.put("refused", { ...it, discardedAt: discarded ? Date.now() : undefined });
  announce();
}

/** Sends a refused command again as it is: what stood in its way may be gone. */
export async function sendAgain(it: RefusedCommand, command: Command): Promise<Sent> {
  return send(command, { walkId: it.walkId, creates: it.creates, mends: it.id });
}

/** Tries a command again now that the server failed at so far. */
export async function tryNow(seq: number): Promise<void> {
  const db = await store();
  const it = await db.get("outbox", seq);
  if (it) await db.put("outbox", { ...it, nextTry: undefined });
  void flush();
}

/** Sends what waits, in its order; one tab at a time. */
export async function flush(): Promise<void> {
  if (flushing) {
    again = true;
    return;
  }
  flushing = true;
  clearTimeout(timer);
  try {
    do {
      again = false;
      await inTurn("garten-outbox", sendAll);
    } while (again);
  } finally {
    flushing = false;
  }
}

const later = (ms: number) => {
  clearTimeout(timer);
  timer = setTimeout(() => void flush(), ms);
};

/** Waits while some tab is sending. */
export const whenSent = (): Promise<void> => inTurn("garten-outbox", () => Promise.resolve());

async function sendAll(): Promise<void> {
  let hasTaken = false;
  let tellAfter = TELL_MS;
  toldAt = Date.now();
  for (;;) {
    const batch = await next();
    // While more is on its way pages aren't told each time that the server has something new: they would ask for all of it again.
    if (hasTaken && (batch.length === 0 || Date.now() - toldAt > tellAfter)) {
      hasTaken = false;
      tellAfter = Math.min(2 * tellAfter, TELL_LONGEST_MS);
      announce(true);
    }
    if (batch.length === 0) break;
    const outcome = await ask((signal) =>
      api.POST("/api/v1/commands", {
        body: { commands: batch.map((q) => q.command) },
        signal,
      }),
    );
    if (outcome.kind === "away" || (outcome.kind === "problem" && mayPass(outcome.problem.status))) {
      for (const { id } of batch) settle(id, { kind: "waiting" });
      if (hasTaken) announce(true);
      return later(RETRY_MS);
    }
    const first = batch[0];
    if (outcome.kind === "problem" && first) {
      // The problem of a batch of one is that command's own; of a larger one, each is sent by itself to find whose it is.
      if (batch.length > 1) for (const it of batch) await change(it, { alone: true });
      else if (outcome.problem.status >= 500) await failed(first, outcome.problem);
      else await refuse(first, outcome.problem);
      announce();
      continue;
    }
    if (outcome.kind !== "answer") continue;
    // What came into being by one that wasn't carried out is missing to those behind it: they weren't at fault, and wait for it.
    const missing = new Set<string>();
    const applied: Applied[] = [];
    const others: (() => Promise<void> | void)[] = [];
    for (const result of outcome.value.results) {
      const entry = batch.find((q) => q.id === result.id);
      if (!entry) continue;
      const { problem, status } = result;
      const hangs = touched(entry.command).some((id) => missing.has(id));
      if (problem) for (const id of entry.creates ?? []) missing.add(id);
      if (!problem) applied.push({ entry, result });
      else if (hangs) others.push(() => settle(entry.id, { kind: "waiting" }));
      else if (status !== "failed") others.push(() => refuse(entry, problem));
      else if (batch.length > 1) others.push(() => change(entry, { alone: true, problem }));
      else others.push(() => failed(entry, problem));
    }
    await taken(applied);
    hasTaken ||= applied.length > 0;
    for (const work of others) await work();
    // Told of all of a batch at once: each time pages work out anew what they show.
    if (others.length > 0) announce();
  }
  const waiting = (await queued()).flatMap((q) => q.nextTry ?? []);
  if (waiting.length > 0) later(Math.max(RETRY_MS, Math.min(...waiting) - Date.now()));
}

// Too slow, too early, too many: nothing is wrong with the command.
const mayPass = (status: number) => status === 408 || status === 425 || status === 429 || status > 500;

// What goes next: those that don't wait for another one, in their order; what is to be sent by itself, by itself.
async function next(): Promise<QueuedCommand[]> {
  const db = await store();
  const all = await db.getAll("outbox");
  const now = Date.now();
  // What comes into being by a command that was refused, or fails, isn't there yet: what is done to it waits too.
  const missing = new Set((await db.getAll("refused")).filter((r) => !r.discardedAt).flatMap((r) => r.creates ?? []));
  // One that was mended stands behind what hangs on it: whatever is still to be made holds up those that don't make it themselves.
  const coming = new Map<string, number>();
  for (const id of all.flatMap((it) => it.creates ?? [])) coming.set(id, (coming.get(id) ?? 0) + 1);
  const ready: QueuedCommand[] = [];
  for (const it of all) {
    const own = new Set(it.creates ?? []);
    const isHeld =
      touched(it.command).some((id) => missing.has(id) || (coming.has(id) && !own.has(id))) || (it.nextTry ?? 0) > now;
    if (isHeld) {
      for (const id of own) missing.add(id);
      settle(it.id, { kind: "waiting" });
      continue;
    }
    if (it.alone && ready.length > 0) break;
    ready.push(it);
    // What stands before in the same batch is made by then.
    for (const id of own) {
      const left = (coming.get(id) ?? 1) - 1;
      if (left > 0) coming.set(id, left);
      else coming.delete(id);
    }
    if (it.alone || ready.length >= BATCH) break;
  }
  return ready;
}

// The things that a command is about.
function touched(command: Command): string[] {
  switch (command.kind) {
    case "tagPlant":
      return [command.plantId, command.placeId, ...(command.populationId ? [command.populationId] : [])];
    case "visitPlant":
      return [command.plantId];
    case "recordDetermination":
      return [command.plantId, command.placeId, command.startKey, ...command.answers.map((it) => it.keyVersion)];
    case "savePopulation":
      return [command.placeId];
    case "mergePlace":
      return [command.placeId, ...(command.intoId ? [command.intoId] : [])];
    case "saveSiteVisit":
      return [command.placeId, command.siteVisitId];
    case "listTaxon":
      return [command.siteVisitId, ...(command.plantId ? [command.plantId] : [])];
    case "withdrawLine":
    case "closeSiteVisit":
    case "keepTrack":
    case "withdrawTrack":
      return [command.siteVisitId];
    case "savePlot":
      return [command.surveyId, command.placeId];
    case "recordPlot":
      return [command.plotId, command.siteVisitId];
    case "writeSurveyText":
    case "keepReport":
      return [command.surveyId];
    case "countPopulation":
    case "noteThreat":
      return [command.populationId];
    case "takeIn":
    case "takeBack":
      return [command.importId];
    default:
      return [];
  }
}

async function change(entry: QueuedCommand, part: Partial<QueuedCommand>): Promise<void> {
  await (await store()).put("outbox", { ...entry, ...part });
}

// The server failed at it, sent by itself: counted where the server is well otherwise, and tried again.
async function failed(entry: QueuedCommand, problem: Problem): Promise<void> {
  const health = await ask((signal) => api.GET("/api/v1/health", { signal }));
  const failures = (entry.failures ?? 0) + (health.kind === "answer" ? 1 : 0);
  const wait = failures >= MOST_FAILURES ? HOUR_MS : RETRY_MS * 2 ** Math.max(0, failures - 1);
  await change(entry, { alone: true, failures, problem, nextTry: Date.now() + wait });
  settle(entry.id, { kind: "waiting" });
}

interface Applied {
  entry: QueuedCommand;
  result: Schemas["CommandResult"];
}

// What was taken in leaves the outbox, all in one step; a walk ends when its command is taken in.
async function taken(all: Applied[]): Promise<void> {
  if (all.length === 0) return;
  const db = await store();
  const tx = db.transaction(["outbox", "walks", "refused", "sent"], "readwrite");
  const at = Date.now();
  const closed = new Set(all.flatMap(({ entry }) => entry.walkId ?? []));
  for (const { entry } of all) {
    const { id, command, creates, seq } = entry;
    if (seq === undefined) continue;
    void tx.objectStore("outbox").delete(seq);
    void tx.objectStore("sent").put({ seq, id, command, creates, at });
  }
  for (const walkId of closed) void tx.objectStore("walks").delete(walkId);
  // What was refused of this plant before has been mended.
  if (closed.size > 0)
    for (const it of await tx.objectStore("refused").getAll())
      if (it.walkId && closed.has(it.walkId)) void tx.objectStore("refused").delete(it.id);
  // What is older than anybody would restore goes.
  const old = IDBKeyRange.upperBound(at - SENT_KEPT_DAYS * DAY_MS);
  for (let it = await tx.objectStore("sent").index("at").openCursor(old); it; it = await it.continue())
    await it.delete();
  await tx.done;
  for (const { entry, result } of all) settle(entry.id, { kind: "applied", result });
}

// Refused, it stays on the device with the reason; a walk is open again, and nothing typed is lost.
async function refuse(entry: QueuedCommand, problem: Problem): Promise<void> {
  const db = await store();
  const tx = db.transaction(["outbox", "walks", "refused"], "readwrite");
  if (entry.seq !== undefined) await tx.objectStore("outbox").delete(entry.seq);
  const { id, command, walkId, creates } = entry;
  await tx.objectStore("refused").put({ id, command, problem, at: Date.now(), walkId, creates });
  if (walkId) {
    const walk = await tx.objectStore("walks").get(walkId);
    if (walk) await tx.objectStore("walks").put({ ...walk, sending: false, problem });
    // Of one plant in hand the newest refusal counts.
    for (const it of await tx.objectStore("refused").getAll())
      if (it.walkId === walkId && it.id !== id) await tx.objectStore("refused").delete(it.id);
  }
  await tx.done;
  settle(id, { kind: "refused", problem, id });
}

function settle(id: string, sent: Sent): void {
  settleHere(id, sent);
  tabs?.postMessage({ kind: "settled", id, sent } satisfies Told);
}

function settleHere(id: string, sent: Sent): void {
  settled.get(id)?.(sent);
  settled.delete(id);
}
