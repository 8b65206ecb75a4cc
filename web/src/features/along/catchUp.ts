import { answerOf, api, type Schemas } from "../../api/client";
import { keepPlants, placesServed } from "../../offline/documents";
import { forgetErased } from "../../offline/erased";
import { inTurn } from "../../offline/inTurn";
import { whenSent } from "../../offline/outbox";
import { peopleServed } from "../../offline/queries";
import { keepSiteVisits, wholeSiteVisits } from "../../offline/siteVisits";
import { sideBySide } from "../../offline/sideBySide";
import { keptAnswersOf } from "../../offline/store";
import { keepVocabulary } from "../../offline/vocabulary";
import { florasServed } from "../../shared/botany/queries";
import {
  freshly,
  keepAlong,
  keepFloraWhole,
  keepKeys,
  keepList,
  keepMap,
  keepSurveys,
  keepToday,
  keepVisitLists,
  keepVisitsOf,
  MOST_WHOLE,
  takenAlong,
  wholePlants,
  type Along,
} from "./takeAlong";

/**
 * Fetches what has changed since this device looked last, and nothing else. Says whether it could: a device that never took anything along, or
 * did so in another life of the database, takes it along as a whole.
 */
export const catchUp = (last?: number): Promise<boolean> => inTurn("garten-catch-up", () => caughtUp(last));

async function caughtUp(last: number | undefined): Promise<boolean> {
  // What is being sent from here changes the same things.
  await whenSent();
  const forgotten = await forgetErased();
  const along = await takenAlong();
  if (along?.last === undefined) return false;
  if (last === along.last) return true;
  let known = along.last;
  const plants = new Set(forgotten);
  const visits = new Set<string>();
  const changed = { populations: false, places: false, surveys: false, keys: false, vocabulary: false, erased: false };
  for (let isMore = true; isMore;) {
    const after = known;
    const page = await answerOf((signal) => api.GET("/api/v1/changes", { params: { query: { after } }, signal }));
    if (page.epoch !== along.epoch) return false;
    for (const id of page.plants) plants.add(id);
    for (const id of page.visits) visits.add(id);
    changed.populations ||= page.populations;
    changed.places ||= page.places;
    changed.surveys ||= page.surveys;
    changed.keys ||= page.keys;
    changed.vocabulary ||= page.vocabulary;
    changed.erased ||= page.erased;
    // A file of records, or a place that was changed, is of more than can be told one by one: all is taken along anew.
    if (page.all) return false;
    known = page.last;
    isMore = page.isMore;
  }
  const hasPlants = plants.size > 0 || changed.erased;
  let { keys } = along;
  const [added] = await Promise.all([
    // The lists in which something erased stood were forgotten with it: those of any place.
    hasPlants ? keepChanged([...plants], along, changed.erased ? along.places : []) : 0,
    hasPlants || changed.places ? Promise.all([freshly(placesServed), freshly(peopleServed)]) : undefined,
    hasPlants || changed.populations ? keepToday() : undefined,
    hasPlants || changed.places || visits.size > 0 ? keepMap() : undefined,
    // What named something erased was forgotten with it.
    changed.erased ? sideBySide(along.places, keepVisitsOf).then(() => keepVisitLists(along.places)) : undefined,
    visits.size > 0 ? keepChangedVisits([...visits], along) : undefined,
    changed.surveys || visits.size > 0 || changed.erased ? keepSurveys() : undefined,
    changed.vocabulary ? keepVocabulary() : undefined,
    changed.keys ? keepKeys().then((count) => (keys = count)) : undefined,
  ]);
  // Kept at the end: where it breaks off, all of it is fetched again.
  await keepAlong({ ...along, at: Date.now(), plants: along.plants + added, keys, last: known });
  return true;
}

// The plants that changed, with the lists they stand in, and in which they stood; how many are new.
async function keepChanged(ids: string[], along: Along, lost: string[]): Promise<number> {
  let added = 0;
  // The list of all is the longest, and changes at any rate; those of places stand behind the plants by which they changed.
  const work: (() => Promise<void>)[] = [];
  const lists = new Set<string>();
  const listed = (place: string) => {
    if (lists.has(place)) return;
    lists.add(place);
    work.push(() => keepList(place));
  };
  for (const place of ["", ...lost]) listed(place);
  for (let from = 0; from < ids.length; from += MOST_WHOLE)
    work.push(async () => {
      const { items } = await wholePlants({ id: ids.slice(from, from + MOST_WHOLE) });
      const here = items.filter((it) => along.places.includes(it.place.id));
      const before = await keptAnswersOf<Schemas["PlantDetail"]>(here.map((it) => `plant:${it.id}`));
      added += before.filter((it) => !it).length;
      for (const it of [...here, ...before]) if (it) listed(it.place.id);
      await keepPlants(here);
    });
  await sideBySide(work, (it) => it());
  return added;
}

// The visits that changed to places that were taken along, with the lists they stand in.
async function keepChangedVisits(ids: string[], along: Along): Promise<void> {
  const places = new Set<string>();
  for (let from = 0; from < ids.length; from += MOST_WHOLE) {
    const { items } = await wholeSiteVisits({ id: ids.slice(from, from + MOST_WHOLE) });
    const here = items.filter((it) => along.places.includes(it.place.id));
    for (const it of here) places.add(it.place.id);
    await keepSiteVisits(here);
  }
  await keepVisitLists([...places]);
}

/** Floras that were published anew since; they come whole, where they changed. */
export async function keepFloras(along: Along): Promise<void> {
  const all = await freshly(florasServed);
  for (const { id } of all) if (along.floras.includes(id)) await keepFloraWhole(id);
}
