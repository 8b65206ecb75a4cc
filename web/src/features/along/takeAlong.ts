import { api, pageOf, type Schemas } from "../../api/client";
import { isPinned, today } from "../../api/today";
import { keepPlants, placesServed, plantsServed, populationsServed, todayOf } from "../../offline/documents";
import { keepFigures } from "../../offline/figures";
import { keepFlora } from "../../offline/flora";
import { keepProgram, program } from "../../offline/program";
import {
  firstsServed,
  keysServed,
  keyServed,
  openPlantsServed,
  peopleServed,
  queryClient,
} from "../../offline/queries";
import { keepShelf, shelfInShort } from "../../offline/shelf";
import { keep, kept, keptAnswer } from "../../offline/store";
import { keepVocabulary } from "../../offline/vocabulary";
import { charactersServed, florasServed } from "../../shared/botany/queries";

const NAME = "along";

/** What is to be taken along. */
export interface Wanted {
  places: string[];
  floras: string[];
}

/** What was taken along, and when. */
export interface Along extends Wanted {
  at: number;
  plants: number;
  keys: number;
}

/** How far it is. */
export interface Progress {
  done: number;
  of: number;
  what: string;
}

/** What was taken along last; nothing where it never was. */
export const takenAlong = () => kept<Along>(NAME);

/** Fetches all that is needed where there is no signal. What was taken along before stays until all of it is here. */
export async function takeAlong(wanted: Wanted, onProgress: (progress: Progress) => void): Promise<Along> {
  let plants = 0;
  let keys = 0;
  const fresh = { staleTime: 0 };
  const steps: [what: string, work: () => Promise<unknown>][] = [
    ["the program", keepProgram],
    [
      "places and people",
      () =>
        Promise.all([
          queryClient.fetchQuery({ ...placesServed, ...fresh }),
          queryClient.fetchQuery({ ...peopleServed, ...fresh }),
        ]),
    ],
    [
      "what is still to be seen",
      () =>
        Promise.all([
          queryClient.fetchQuery({ ...openPlantsServed, ...fresh }),
          queryClient.fetchQuery({ ...firstsServed, ...fresh }),
          queryClient.fetchQuery({ ...populationsServed, ...fresh }),
          queryClient.fetchQuery({ ...todayOf(today()), ...fresh }),
        ]),
    ],
    ["parts and qualities", keepVocabulary],
    [
      "keys",
      async () => {
        const all = await queryClient.fetchQuery({ ...keysServed, ...fresh });
        keys = all.length;
        await Promise.all([keepShelf([]), queryClient.fetchQuery({ ...shelfInShort([]), ...fresh })]);
        for (const { hash } of all) await queryClient.fetchQuery(keyServed(hash));
      },
    ],
    ["the list of floras", () => queryClient.fetchQuery({ ...florasServed, ...fresh })],
    ...wanted.floras.flatMap((id): [string, () => Promise<unknown>][] => [
      ["a flora", () => Promise.all([keepFlora(id), queryClient.fetchQuery({ ...charactersServed(id), ...fresh })])],
      ["its drawings", () => keepFigures(id)],
    ]),
    ["the list of plants", () => listOf("")],
    ...wanted.places.flatMap((place): [string, () => Promise<unknown>][] => [
      ["plants of a place", () => listOf(place)],
      [
        "their history",
        async () => {
          for (let after: string | undefined; ;) {
            const page = await wholePlants(place, after);
            await keepPlants(page.items);
            plants += page.items.length;
            if (page.next === undefined) return;
            after = page.next;
          }
        },
      ],
    ]),
  ];
  for (const [done, [what, work]] of steps.entries()) {
    onProgress({ done, of: steps.length, what });
    await work();
  }
  onProgress({ done: steps.length, of: steps.length, what: "" });
  // What was fetched and couldn't be written down isn't taken along.
  const lists = ["places", "people", "open-plants", "firsts", "populations", "keys", "floras", "plants::"];
  const names = [
    ...lists,
    ...wanted.places.map((it) => `plants:${it}:`),
    ...wanted.floras.map((it) => `characters:${it}`),
  ];
  for (const name of names)
    if ((await keptAnswer(name)) === undefined)
      throw new Error("The room on this device is used up, or can’t be written to.");
  const along: Along = { ...wanted, at: Date.now(), plants, keys };
  await keep(NAME, along);
  return along;
}

const wholePlants = (place: string, after: string | undefined) =>
  pageOf<Schemas["PlantDetail"]>((signal) =>
    api.GET("/api/v1/plants/whole", { params: { query: { place, after, size: 100 } }, signal }),
  );

async function listOf(place: string): Promise<void> {
  for (let after: string | undefined; ;) {
    const { next } = await plantsServed(place, after);
    if (next === undefined) return;
    after = next;
  }
}

/** How much is kept on this device, and whether the browser may clear it away by itself. */
export async function storage(): Promise<{ used: number; most: number; isLasting: boolean } | undefined> {
  const manager = navigator.storage as StorageManager | undefined;
  if (!manager?.estimate) return undefined;
  const { usage = 0, quota = 0 } = await manager.estimate();
  return { used: usage, most: quota, isLasting: await manager.persisted() };
}

/** Asks the browser not to clear away what is kept. */
export const askToLast = async (): Promise<boolean> => (await navigator.storage?.persist?.()) ?? false;

/** What still keeps this device from starting without the server; nothing where it can. */
export const missing = (): string | undefined =>
  program.now().isKept
    ? undefined
    : isPinned
      ? "This server is for showing: its day is pinned, and devices don’t keep its program."
      : window.isSecureContext
        ? "The program isn’t kept on this device yet: a private window, or a browser that keeps nothing, can’t start it without the server."
        : "The program can’t be kept on this device: a browser keeps it only where the address begins with https, or on the machine that serves it.";
