import { deviceId } from "../api/device";
import { core } from "../core/coreClient";
import { announce, flush } from "./outbox";
import { copyKept } from "./copying";
import { store, type Command, type QueuedCommand } from "./store";

const FORMAT = "garten-hand-over";
const VERSION = 1;

// A day out is some hundred kilobytes; what is far larger is another file.
const LARGEST_TEXT = 50_000_000;

// As many rounds as make guessing a pass-phrase slow and opening the file a second (OWASP, PBKDF2 with SHA-256).
const ROUNDS = 600_000;
// A file that asks for many times more would only stop the page.
const MOST_ROUNDS = 10 * ROUNDS;
const SALT_BYTES = 16;
const IV_BYTES = 12;

/** Something that waits, with what comes into being by it. */
interface Handed {
  command: Command;
  creates?: string[];
}

/** What waits on a device, as a file. */
interface HandOver {
  format: typeof FORMAT;
  version: number;
  device: string;
  written: string;
  commands: Handed[];
}

/** The same, locked with a pass-phrase: AES-GCM with a key made by PBKDF2; all in base64. */
interface Locked {
  format: typeof FORMAT;
  version: number;
  locked: { salt: string; iv: string; rounds: number; data: string };
}

/** Why a file can't be taken in. */
export class HandOverError extends Error {}

const toBase64 = (bytes: Uint8Array) => btoa(Array.from(bytes, (it) => String.fromCharCode(it)).join(""));
const fromBase64 = (text: string) => Uint8Array.from(atob(text), (it) => it.charCodeAt(0));

async function keyOf(phrase: string, salt: Uint8Array<ArrayBuffer>, iterations: number): Promise<CryptoKey> {
  const typed = await crypto.subtle.importKey("raw", new TextEncoder().encode(phrase), "PBKDF2", false, ["deriveKey"]);
  return crypto.subtle.deriveKey(
    { name: "PBKDF2", hash: "SHA-256", salt, iterations },
    typed,
    { name: "AES-GCM", length: 256 },
    false,
    ["encrypt", "decrypt"],
  );
}

/**
 * All that waits on this device, and what was refused, as the text of a file; with what was sent in the last months where that is wanted too.
 * Locked where a pass-phrase is given.
 */
export async function handOver(phrase: string, isWithSent: boolean): Promise<{ text: string; count: number }> {
  const db = await store();
  const sent = isWithSent ? await db.getAll("sent") : [];
  const waiting = await db.getAll("outbox");
  const refused = (await db.getAll("refused")).filter((it) => !it.discardedAt);
  const plain: HandOver = {
    format: FORMAT,
    version: VERSION,
    device: deviceId(),
    written: new Date().toISOString(),
    commands: [...sent, ...waiting, ...refused].map(({ command, creates }) => ({ command, creates })),
  };
  const count = plain.commands.length;
  if (!phrase) return { text: JSON.stringify(plain, null, 2), count };
  const salt = crypto.getRandomValues(new Uint8Array(SALT_BYTES));
  const iv = crypto.getRandomValues(new Uint8Array(IV_BYTES));
  const data = await crypto.subtle.encrypt(
    { name: "AES-GCM", iv },
    await keyOf(phrase, salt, ROUNDS),
    new TextEncoder().encode(JSON.stringify(plain)),
  );
  const locked: Locked = {
    format: FORMAT,
    version: VERSION,
    locked: { salt: toBase64(salt), iv: toBase64(iv), rounds: ROUNDS, data: toBase64(new Uint8Array(data)) },
  };
  return { text: JSON.stringify(locked, null, 2), count };
}

function parsed(text: string): Partial<HandOver & Locked> {
  if (text.length > LARGEST_TEXT) throw new HandOverError("This file is far too large for what waits on a device.");
  let it: unknown;
  try {
    it = JSON.parse(text);
  } catch {
    throw new HandOverError("This isn’t a file that Garten saved: it is cut off, or another kind of file.");
  }
  const found = it as Partial<HandOver & Locked> | null;
  if (found?.format !== FORMAT) throw new HandOverError("This isn’t a file of what waits on a device.");
  if (found.version !== VERSION)
    throw new HandOverError("A newer version of Garten saved this file. Take it in with that one.");
  return found;
}

async function unlocked({ salt, iv, rounds, data }: Locked["locked"], phrase: string): Promise<string> {
  if (!phrase) throw new HandOverError("This file is locked: give its pass-phrase.");
  if (!(rounds <= MOST_ROUNDS)) throw new HandOverError("This file isn’t locked in a way that Garten locks files.");
  try {
    const key = await keyOf(phrase, fromBase64(salt), rounds);
    return new TextDecoder().decode(
      await crypto.subtle.decrypt({ name: "AES-GCM", iv: fromBase64(iv) }, key, fromBase64(data)),
    );
  } catch {
    throw new HandOverError("This pass-phrase doesn’t open it, or the file was changed.");
  }
}

async function checked(all: unknown): Promise<Handed[]> {
  if (!Array.isArray(all)) throw new HandOverError("Nothing stands in this file that could be taken in.");
  const handed = all as Handed[];
  const [broken] = await core.unreadable({ commands: handed.map((it) => it?.command ?? null) });
  if (broken !== undefined)
    throw new HandOverError(
      `Entry ${broken + 1} of this file can’t be read. Nothing was taken in; a newer version of Garten may know it.`,
    );
  return handed;
}

/**
 * Takes in what another device has saved: it waits here then, and is sent from here. What waits here already, or was refused here, is passed
 * over; what the server has already it takes once.
 */
export async function takeIn(text: string, phrase: string): Promise<{ taken: number; known: number }> {
  let it = parsed(text);
  if (it.locked) it = parsed(await unlocked(it.locked, phrase));
  const handed = await checked(it.commands);
  const db = await store();
  // All of it or nothing.
  const change = db.transaction(["outbox", "refused"], "readwrite", { durability: "strict" });
  const outbox = change.objectStore("outbox");
  const here = new Set([
    ...(await outbox.getAll()).map((q) => q.id),
    ...(await change.objectStore("refused").getAllKeys()),
  ]);
  const fresh: QueuedCommand[] = handed
    .filter((h) => !here.has(h.command.id ?? ""))
    .map(({ command, creates }) => ({ id: command.id, command, creates }));
  for (const it of fresh) it.seq = await outbox.add(it);
  await change.done;
  await copyKept(fresh);
  announce();
  void flush();
  return { taken: fresh.length, known: handed.length - fresh.length };
}
