import type { FetchQueryOptions } from "@tanstack/react-query";
import { answerOf, api, pageOf, type Schemas } from "../../api/client";
import { isPinned, today } from "../../api/today";
import { keepPlants, placesServed, plantsServed, populationsServed, todayOf } from "../../offline/documents";
import { keepFigures } from "../../offline/figures";
import { keepFlora } from "../../offline/flora";
import { baseServed, groundsServed, pointsServed } from "../../offline/grounds";
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
import { surveyServed, surveysServed } from "../../offline/surveys";
import { foundServed, keepSiteVisits, siteVisitsServed, wholeSiteVisits } from "../../offline/siteVisits";
import { sideBySide } from "../../offline/sideBySide";
import { keep, kept, keptAnswer } from "../../offline/store";
import { keepVocabulary } from "../../offline/vocabulary";
import { charactersServed, florasServed } from "../../shared/botany/queries";

const NAME = "along";

/** As many plants as the server gives as a whole at a time. */
export const MOST_WHOLE = 100;

// While one is written down the next one is on its way.
const STEPS_AT_ONCE = 2;

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
  /** Up to which change it is as the server had it, and in which life of the database; left out by earlier versions of the program. */
  epoch?: string;
  last?: number;
}

/** How far it is. */
export interface Progress {
  done: number;
  of: number;
  what: string;
}

/** What was taken along last; nothing where it never was. */
export const takenAlong = () => kept<Along>(NAME);

/** Notes what was. */
export const keepAlong = (along: Along) => keep(NAME, along);

/** Fetches all that is needed where there is no signal. What was taken along before stays until all of it is here. */
export async function takeAlong(wanted: Wanted, onProgress: (progress: Progress) => void): Promise<Along> {
  let plants = 0;
  let keys = 0;
  // What changes while it is fetched is fetched again: the number is that of before.
  const { epoch, last } = await answerOf((signal) => api.GET("/api/v1/changes", { signal }));
  const steps: [what: string, work: () => Promise<unknown>][] = [
    ["the program", keepProgram],
    ["places and people", () => Promise.all([freshly(placesServed), freshly(peopleServed)])],
    ["the map", keepMap],
    ["what is still to be seen", keepToday],
    ["parts and qualities", keepVocabulary],
    ["keys", async () => (keys = await keepKeys())],
    ["the list of floras", () => freshly(florasServed)],
    ...wanted.floras.flatMap((id): [string, () => Promise<unknown>][] => [
      ["a flora", () => keepFloraWhole(id)],
      ["its drawings", () => keepFigures(id)],
    ]),
    ["the list of plants", () => keepList("")],
    ["the plants of each place", () => sideBySide(wanted.places, keepList)],
    ["the visits to each place", () => keepVisitLists(wanted.places)],
    ["surveys", keepSurveys],
    ["their lists", () => sideBySide(wanted.places, keepVisitsOf)],
    ...wanted.places.map((place): [string, () => Promise<unknown>] => [
      "their history",
      async () => {
        for (let after: string | undefined; ;) {
          const page = await wholePlants({ place, after });
          await keepPlants(page.items);
          plants += page.items.length;
          if (page.next === undefined) return;
          after = page.next;
        }
      },
    ]),
  ];
  let done = 0;
  await sideBySide(
    steps,
    async ([what, work]) => {
      onProgress({ done, of: steps.length, what });
      await work();
      done++;
    },
    STEPS_AT_ONCE,
  );
  onProgress({ done: steps.length, of: steps.length, what: "" });
  // What was fetched and couldn't be written down isn't taken along.
  const lists = ["places", "people", "open-plants", "firsts", "populations", "keys", "floras", "plants::"];
  const names = [
    ...lists,
    ...wanted.places.flatMap((it) => [`plants:${it}:`, `site-visits:${it}:`, `found:${it}`]),
    ...wanted.floras.map((it) => `characters:${it}`),
  ];
  for (const name of names)
    if ((await keptAnswer(name)) === undefined)
      throw new Error("The room on this device is used up, or can’t be written to.");
  const along: Along = { ...wanted, at: Date.now(), plants, keys, epoch, last };
  await keepAlong(along);
  return along;
}

const fresh = { staleTime: 0 };

/** Asks the server anew, and keeps what it answers. */
export const freshly = <T, K extends readonly unknown[]>(asked: FetchQueryOptions<T, Error, T, K>): Promise<T> =>
  queryClient.fetchQuery({ ...asked, ...fresh });

/** The map: what it is drawn on, boundaries, and what was recorded where. */
export const keepMap = () => Promise.all([freshly(groundsServed), freshly(baseServed), freshly(pointsServed(""))]);

/** The lists of visits, the first page of each, and what was found at each place. */
export const keepVisitLists = (places: string[]) =>
  sideBySide(["", ...places], async (place) => {
    await siteVisitsServed(place, undefined);
    if (place) await freshly(foundServed(place, today()));
  });

/** Surveys with their plots and what was recorded in them. */
export async function keepSurveys(): Promise<void> {
  for (const { id } of await freshly(surveysServed)) await freshly(surveyServed(id));
}

/** The visits to a place with their lists. */
export async function keepVisitsOf(place: string): Promise<void> {
  for (let after: string | undefined; ;) {
    const page = await wholeSiteVisits({ place, after });
    await keepSiteVisits(page.items);
    if (page.next === undefined) return;
    after = page.next;
  }
}

/** What is open, what began, populations, and the page of today. */
export const keepToday = () =>
  Promise.all([
    freshly(openPlantsServed),
    freshly(firstsServed),
    freshly(populationsServed),
    freshly(todayOf(today())),
  ]);

/** All keys, ready to be followed; how many. */
export async function keepKeys(): Promise<number> {
  const all = await freshly(keysServed);
  await Promise.all([keepShelf([]), freshly(shelfInShort([]))]);
  // A version of a key never changes: one that is here is here.
  for (const { hash } of all) if ((await keptAnswer(`key:${hash}`)) === undefined) await freshly(keyServed(hash));
  return all.length;
}

export const keepFloraWhole = (id: string) => Promise.all([keepFlora(id), freshly(charactersServed(id))]);

/** Plants as a whole: those of a place, or those named. */
export const wholePlants = (query: { place?: string; id?: string[]; after?: string }) =>
  pageOf<Schemas["PlantDetail"]>((signal) =>
    api.GET("/api/v1/plants/whole", { params: { query: { ...query, size: MOST_WHOLE } }, signal }),
  );

/** The list of plants of a place, or of all, to its last page. */
export async function keepList(place: string): Promise<void> {
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
