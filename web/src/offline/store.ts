import { openDB, type DBSchema, type IDBPDatabase } from "idb";
import type { Problem, Schemas } from "../api/client";
import { readCopy } from "./secondCopy";

export type Command = Schemas["Command"];

/** A command that waits to be sent. */
export interface QueuedCommand {
  seq?: number;
  id: string;
  command: Command;
  /** The walk that it closes when it is taken in. */
  walkId?: string;
  /** What comes into being by it: commands on these wait for it. */
  creates?: string[];
  /** How often the server failed at it, sent by itself while the server was well. */
  failures?: number;
  /** Whether it is sent by itself. */
  alone?: boolean;
  /** Not before this moment. */
  nextTry?: number;
  /** What the server said last. */
  problem?: Problem;
}

/** A command that the server has taken in: kept for a while, should the server be set back to a copy of before. */
export interface SentCommand {
  seq: number;
  id: string;
  command: Command;
  creates?: string[];
  /** When it was taken in. */
  at: number;
}

/** A command that the server refused: kept until a person has mended, sent, taken away or discarded it. */
export interface RefusedCommand {
  id: string;
  command: Command;
  problem: Problem;
  /** When it was refused. */
  at: number;
  walkId?: string;
  creates?: string[];
  /** When it was discarded; that can be undone. */
  discardedAt?: number;
}

/** What is filled in when a determination is kept. */
export interface KeepForm {
  placeId: string;
  date: string;
  recorder: string;
  label: string;
  note: string;
}

/** How a look is made; the next one is made in the same way unless it is said otherwise. */
export interface Manner {
  sureness: Schemas["Sureness"];
  tool: Schemas["Tool"];
  context: Schemas["ObservationContext"];
}

/** How a list is sifted for a plant. */
export interface SiftSettings {
  /** Whether place, day, habitat and elevation weigh in. */
  prior: Schemas["SiftPrior"];
  /** Most conflicts that a taxon may have; left out: all stand, by their probability. */
  tolerance?: number;
  narrowing: Schemas["Narrowing"];
  /** Organs that this plant hasn't now. */
  missing: Schemas["Organ"][];
  /** Characters that can't be told on it. */
  skip: string[];
}

/** How a name is to be confirmed. */
export interface ConfirmSettings {
  /** Id of the taxon; left out: the first in question, or the one that leads. */
  taxon?: string;
  /** Id of the table of grades. */
  rules: string;
  /** Whether this plant was planted; left out: nobody can say. */
  planted?: boolean;
  /** What the recorder says to concerns, by the kind of check. */
  explanations: Partial<Record<Schemas["CheckKind"], string>>;
}

/** A plant in hand that isn't kept yet, or is on its way to the server. */
export interface PlantInHand {
  id: string;
  /** Hash of the key that it is taken through; empty where it is named without one. */
  start: string;
  title: string;
  answers: Schemas["TrailAnswer"][];
  /** The evidence sheet: looks at the plant, with those that are kept on the server already. */
  observations?: Schemas["Observation"][];
  /** Ids of the looks that the server has: they are superseded, never changed. */
  keptIds?: string[];
  /** Statements weighed by hand. */
  hand?: Schemas["HandWeighing"][];
  /** What the next look inherits. */
  manner?: Manner;
  /** The flora that it is sifted by; left out: the one that is shown first. */
  floraId?: string;
  sift?: SiftSettings;
  confirm?: ConfirmSettings;
  /** Taxa that are in question: to be held against each other, or kept as an open set. Left out: those that lead. */
  inQuestion?: string[];
  /** Where the taxa in question lie on either side of a fork: the couplet, and the lead of each. */
  sides?: { couplet: string; leads: Record<string, string> };
  /** Own plants to compare with. */
  comparedPlants?: string[];
  form: KeepForm;
  /** The plant that is determined again, with the looks at it that are known. */
  plant?: {
    id: string;
    label: string;
    placeId: string;
    placeName: string;
    looks: { id: string; date: string }[];
    /** Its last determination that is known here. */
    lastNamed?: string;
  };
  updatedAt: number;
  /** Set while its command waits to be sent. */
  sending?: boolean;
  /** Why it was refused when it was last sent. */
  problem?: Problem;
}

interface GartenStore extends DBSchema {
  outbox: { key: number; value: QueuedCommand };
  refused: { key: string; value: RefusedCommand };
  sent: { key: number; value: SentCommand; indexes: { at: number } };
  walks: { key: string; value: PlantInHand };
  kept: { key: string; value: unknown };
  answers: { key: string; value: KeptAnswer; indexes: { at: number } };
}

/** An answer of the server as it was kept. */
interface KeptAnswer {
  name: string;
  form: number;
  at: number;
  value: unknown;
}

const NAME = "garten";
const VERSION = 4;

// The form of answers that pages understand: one that was kept in another form is as good as none. Count on when an answer gets a part that
// pages can’t do without.
const FORM = 1;

// More answers than this aren't kept: those that were fetched longest ago go first. Plants that are taken along are one each.
const MOST_ANSWERS = 20_000;
const COUNTED_EVERY = 1_000;
let uncounted = COUNTED_EVERY;

let opened: Promise<IDBPDatabase<GartenStore>> | undefined;
let failure: string | undefined;
const watchers = new Set<() => void>();

export function store(): Promise<IDBPDatabase<GartenStore>> {
  opened ??= openDB<GartenStore>(NAME, VERSION, {
    // Each step adds to what is there; nothing is ever cleared.
    upgrade(db, before) {
      if (before < 1) {
        db.createObjectStore("outbox", { keyPath: "seq", autoIncrement: true });
        db.createObjectStore("walks", { keyPath: "id" });
        db.createObjectStore("kept");
      }
      if (before < 2) db.createObjectStore("refused", { keyPath: "id" });
      if (before < 3) db.createObjectStore("answers", { keyPath: "name" }).createIndex("at", "at");
      if (before < 4) db.createObjectStore("sent", { keyPath: "seq" }).createIndex("at", "at");
    },
    blocked: () => fail("Garten is open in another tab in an older form. Close that tab; this page goes on by itself."),
    blocking: (_now, _wanted, event) => {
      // A newer form of the program is opened in another tab: this one lets go, and opens again when it is asked.
      (event.target as IDBDatabase).close();
      opened = undefined;
    },
    terminated: () => {
      opened = undefined;
    },
  }).then(
    async (db) => {
      fail(undefined);
      await noticeCleared(db).catch(() => undefined);
      return db;
    },
    (error: unknown) => {
      opened = undefined;
      fail(
        `What is kept on this device can’t be opened (${error instanceof Error ? error.message : String(error)}). Nothing was cleared; take it away as a file before anything else is tried.`,
      );
      throw error;
    },
  );
  return opened;
}

/** The mark of this store, in the store and outside it: where only the one outside is left, the browser has cleared the store. */
export const MARK = "garten-store";
/** Where it is noted outside the store how much waits in it. */
export const WAITING = "garten-waiting";
const CLEARED = "cleared";

/** What the browser has cleared away by itself. */
export interface Cleared {
  /** How many changes waited in it to be sent. */
  waiting: number;
  /** How many of them wait again, out of the second copy; left out by earlier versions of the program. */
  back?: number;
}

let mark: string | undefined;

/** What tells this store from any other one; not known before it is opened. */
export const storeMark = () => mark;

async function noticeCleared(db: IDBPDatabase<GartenStore>): Promise<void> {
  const outside = localStorage.getItem(MARK);
  const inside = (await db.get("kept", MARK)) as string | undefined;
  if (inside) {
    mark = inside;
    return;
  }
  const own = crypto.randomUUID();
  const copy = await readCopy(outside).catch(() => undefined);
  const change = db.transaction(["outbox", "refused", "walks", "kept"], "readwrite", { durability: "strict" });
  if (outside || copy) {
    const waiting = copy?.waiting ?? [];
    // In the order in which they were made. What was sent meanwhile the server knows by its id.
    for (const it of waiting) {
      delete it.seq;
      await change.objectStore("outbox").add(it);
    }
    for (const it of copy?.refused ?? []) await change.objectStore("refused").put(it);
    for (const it of copy?.walks ?? []) await change.objectStore("walks").put(it);
    const noted = Number(localStorage.getItem(WAITING) ?? 0);
    const told: Cleared = { waiting: Math.max(noted, waiting.length), back: waiting.length };
    await change.objectStore("kept").put(told, CLEARED);
  }
  await change.objectStore("kept").put(own, MARK);
  await change.done;
  mark = own;
  // What was copied of the store before stands until this one has a copy of its own.
  if (!copy) localStorage.setItem(MARK, own);
}

/** What the browser has cleared away since somebody last saw to it; nothing where it hasn’t. */
export const whatWasCleared = () => kept<Cleared>(CLEARED);

/** Somebody has seen it. */
export const clearedIsSeen = () => keep(CLEARED, undefined);

function fail(words: string | undefined): void {
  failure = words;
  for (const watcher of watchers) watcher();
}

/** Why the store of this device can’t be opened; undefined while it can. */
export const storeFailure = {
  subscribe: (watcher: () => void) => {
    watchers.add(watcher);
    return () => watchers.delete(watcher);
  },
  now: () => failure,
};

/** All that is kept on this device, whatever form it is in, as a file’s text: for the case that it can’t be opened any more. */
export async function rescue(): Promise<string> {
  // Without a version: as it stands.
  const db = await openDB(NAME);
  const all: Record<string, unknown> = { version: db.version };
  for (const name of db.objectStoreNames) all[name] = await db.getAll(name);
  db.close();
  return JSON.stringify(all, null, 2);
}

/** A value kept on this device under a name; undefined where there is none. */
export async function kept<T>(name: string): Promise<T | undefined> {
  return (await (await store()).get("kept", name)) as T | undefined;
}

export async function keep(name: string, value: unknown): Promise<void> {
  await (await store()).put("kept", value, name);
}

let changes = 0;

/** Counts on whenever what is kept of the server's answers changes in this page: what was made of them before is made anew. */
export const answersChanged = () => changes;

/** Something of what is kept was changed without `keepAnswers`. */
export const noteAnswersChanged = () => void changes++;

/** What the server answered last under a name, and when it was asked; undefined where it isn't known, or only in a form that is no longer
 * understood. */
export async function keptAnswer<T>(name: string): Promise<{ value: T; at: number } | undefined> {
  const it = await (await store()).get("answers", name);
  return it?.form === FORM ? { value: it.value as T, at: it.at } : undefined;
}

/** The same of many, in their order. */
export async function keptAnswersOf<T>(names: string[]): Promise<(T | undefined)[]> {
  const answers = (await store()).transaction("answers").store;
  const found = await Promise.all(names.map((name) => answers.get(name)));
  return found.map((it) => (it?.form === FORM ? (it.value as T) : undefined));
}

/** What the server answered last under all names that begin so. */
export async function keptAnswers<T>(prefix: string): Promise<T[]> {
  const range = IDBKeyRange.bound(prefix, `${prefix}\uffff`);
  const found = await (await store()).getAll("answers", range);
  return found.filter((it) => it.form === FORM).map((it) => it.value as T);
}

/** Keeps answers of the server for when it is out of reach, all or none; with the moment at which they were asked for. */
export async function keepAnswers(all: [name: string, value: unknown][], at = Date.now()): Promise<void> {
  const db = await store();
  const change = db.transaction("answers", "readwrite");
  const answers = change.objectStore("answers");
  await Promise.all(all.map(([name, value]) => answers.put({ name, form: FORM, at, value })));
  // Counting goes through all of them: once for every thousand that are kept.
  uncounted += all.length;
  const isToBeCounted = uncounted >= COUNTED_EVERY;
  if (isToBeCounted) uncounted = 0;
  let surplus = isToBeCounted ? (await answers.count()) - MOST_ANSWERS : 0;
  for (let old = surplus > 0 ? await answers.index("at").openCursor() : null; old && surplus > 0; surplus--) {
    await old.delete();
    old = await old.continue();
  }
  await change.done;
  noteAnswersChanged();
}
