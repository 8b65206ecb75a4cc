import { api, ask, type Problem, type Schemas } from "../api/client";
import { store, type Command, type QueuedCommand } from "./store";

/** What became of a command. */
export type Sent =
  { kind: "applied"; result: Schemas["CommandResult"] } | { kind: "refused"; problem: Problem } | { kind: "waiting" };

// Between two tries while the server is away.
const RETRY_MS = 3_000;
const BATCH = 100;

const listeners = new Set<(taken: boolean) => void>();
const settled = new Map<string, (sent: Sent) => void>();
let flushing = false;
let timer: ReturnType<typeof setTimeout> | undefined;

/** Calls back whenever the outbox or a walk has changed, and says whether the server has taken something in. */
export function onOutboxChange(listener: (taken: boolean) => void): () => void {
  listeners.add(listener);
  return () => listeners.delete(listener);
}

export function announce(taken = false): void {
  for (const listener of listeners) listener(taken);
}

/**
 * Puts a command into the outbox and tries to send it. Ends with its result, or with "waiting" when the server is away:
 * then it is sent by itself as soon as it can be, also after the page was closed and opened again.
 */
export async function send(command: Command, walkId?: string): Promise<Sent> {
  await (await store()).add("outbox", { id: command.id, command, walkId });
  const result = new Promise<Sent>((resolve) => settled.set(command.id, resolve));
  announce();
  void flush();
  return result;
}

export async function queued(): Promise<QueuedCommand[]> {
  return (await store()).getAll("outbox");
}

/** Sends what waits, in its order. */
export async function flush(): Promise<void> {
  if (flushing) return;
  flushing = true;
  clearTimeout(timer);
  try {
    for (let batch = await next(); batch.length > 0; batch = await next()) {
      const outcome = await ask((signal) =>
        api.POST("/api/v1/commands", { body: { commands: batch.map((q) => q.command) }, signal }),
      );
      if (outcome.kind === "away") {
        for (const { id } of batch) settle(id, { kind: "waiting" });
        timer = setTimeout(() => void flush(), RETRY_MS);
        return;
      }
      if (outcome.kind === "problem") {
        // The problem of a batch of one is that command's own; of a larger one, each is sent by itself to find whose it is.
        const first = batch[0];
        if (first && batch.length === 1) await close(first, { kind: "refused", problem: outcome.problem });
        else alone = true;
        continue;
      }
      for (const result of outcome.value.results) {
        const entry = batch.find((q) => q.id === result.id);
        if (!entry) continue;
        const problem = result.problem;
        await close(entry, problem ? { kind: "refused", problem } : { kind: "applied", result });
      }
    }
    alone = false;
  } finally {
    flushing = false;
  }
}

let alone = false;

async function next(): Promise<QueuedCommand[]> {
  return (await store()).getAll("outbox", undefined, alone ? 1 : BATCH);
}

// A walk ends when its command is taken in; refused, it is open again with the reason, and nothing typed is lost.
async function close(entry: QueuedCommand, sent: Sent): Promise<void> {
  const db = await store();
  const change = db.transaction(["outbox", "walks"], "readwrite");
  if (entry.seq !== undefined) await change.objectStore("outbox").delete(entry.seq);
  if (entry.walkId) {
    const walk = await change.objectStore("walks").get(entry.walkId);
    if (walk && sent.kind === "applied") await change.objectStore("walks").delete(entry.walkId);
    else if (walk && sent.kind === "refused") {
      await change.objectStore("walks").put({ ...walk, sending: false, problem: sent.problem });
    }
  }
  await change.done;
  settle(entry.id, sent);
  announce(sent.kind === "applied");
}

function settle(id: string, sent: Sent): void {
  settled.get(id)?.(sent);
  settled.delete(id);
}
