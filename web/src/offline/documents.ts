import { keepPreviousData, queryOptions, useInfiniteQuery, useQuery } from "@tanstack/react-query";
import { answerOf, api, AwayError, pageOf, type Paged, type Schemas } from "../api/client";
import { today } from "../api/today";
import { core } from "../core/coreClient";
import { asOf } from "./asked";
import { oneByOne } from "./oneByOne";
import { onOutboxChange, queued, queuedAndSent, sentSince } from "./outbox";
import { asOfPages, keyServed, keysServed, queryClient, orKept, SHOWN_WITH_TIME } from "./queries";
import { holdSearched } from "./searched";
import { answersChanged, keepAnswers, keptAnswers, type Command, type QueuedCommand } from "./store";

// The one door to what pages read of places, plants and populations: what the server answered last, with what waits on this device put into
// it by the core, and what was sent since it was asked. Whether there is signal makes no difference here.

const WAITING = ["waiting"];
const NO_PLACES: Schemas["Place"][] = [];
const NO_SUMMARIES: Schemas["KeySummary"][] = [];

onOutboxChange(() => void queryClient.invalidateQueries({ queryKey: WAITING }));

// The same list stays for as long as nothing in it has changed: all that is worked out of it stays too.
const isSame = (one: QueuedCommand, other: QueuedCommand | undefined) =>
  one.id === other?.id && one.failures === other.failures && one.nextTry === other.nextTry;

interface Here {
  entries: QueuedCommand[];
  lastSent: number;
}

const isHere = (it: unknown): it is Here => typeof it === "object" && it !== null && "entries" in it;

const waitingHere = queryOptions({
  queryKey: WAITING,
  queryFn: queuedAndSent,
  staleTime: Infinity,
  refetchOnWindowFocus: true,
  // What is worked out of the list comes by here too, and is taken as it is.
  structuralSharing: (old, now) => {
    if (!isHere(old) || !isHere(now)) return now;
    const [before, after] = [old.entries, now.entries];
    const isUnchanged = before.length === after.length && after.every((it, i) => isSame(it, before[i]));
    if (!isUnchanged) return now;
    return old.lastSent === now.lastSent ? old : { entries: before, lastSent: now.lastSent };
  },
});

/** What pages ask of the list that waits. */
interface Waits {
  /** Tells this list from any other one. */
  number: number;
  commands: Command[];
  /** Ids of what they make or change. */
  ids: Set<string>;
  /** Hashes of the keys among them. */
  keys: string[];
}

const keysIn = (entries: QueuedCommand[]) =>
  entries.flatMap((it) => (it.command.kind === "saveKeys" ? (it.creates ?? []) : []));

const commandsOf = (entries: QueuedCommand[]) => entries.map((it) => it.command);

const idsOf = (command: Command) =>
  Object.entries(command).flatMap(([field, value]) => (field.endsWith("Id") && typeof value === "string" ? value : []));

// Tells a list from any other one, also from one that is as long; 0 for none.
const numbered = new WeakMap<object, number>();
let numbers = 0;

function numberOf(list: object | undefined): number {
  if (!list) return 0;
  const number = numbered.get(list) ?? ++numbers;
  numbered.set(list, number);
  return number;
}

const NOTHING: Waits = { number: 0, commands: [], ids: new Set(), keys: [] };
const known = new WeakMap<QueuedCommand[], Waits>();

// Worked out once for all that ask: a long list of plants asks for each of its rows.
function waitsOf(entries: QueuedCommand[]): Waits {
  if (entries.length === 0) return NOTHING;
  const before = known.get(entries);
  if (before) return before;
  const commands = commandsOf(entries);
  const waits = { number: numberOf(entries), commands, ids: new Set(commands.flatMap(idsOf)), keys: keysIn(entries) };
  known.set(entries, waits);
  return waits;
}

const useWaits = (): Waits => useQuery({ ...waitingHere, select: (it) => waitsOf(it.entries) }).data ?? NOTHING;

const useLastSent = (): number => useQuery({ ...waitingHere, select: (it) => it.lastSent }).data ?? 0;

/** The commands that wait on this device, in their order; the same list until one comes or goes. */
export const useWaiting = (): Command[] => useWaits().commands;

/** Hashes of the keys that wait on this device to be sent. */
export const useWaitingKeys = (): string[] => useWaits().keys;

/** Ids of what the waiting commands make or change. */
export const useWaitingIds = (): Set<string> => useWaits().ids;

interface Answered<T> {
  data: T | undefined;
  dataUpdatedAt: number;
  /** When it was asked of the server; 0 where it never answered. */
  asOf: number;
}

// What was never answered is made up of what was sent in so many days.
const LONGEST_BEHIND_MS = 7 * 86_400_000;

/** Whether something was sent from here since an answer was asked for: the answer may be without it. */
export const useIsBehind = (asOf: number): boolean => useLastSent() >= Math.max(asOf, 1);

/** An answer with what waits put into it, and what was sent since; while that is worked out, what was shown last. */
export function useWithWaiting<T>(
  name: string,
  answered: Answered<T>,
  isKnown: boolean,
  put: (waiting: Schemas["Waiting"]) => Promise<T | undefined>,
): T | undefined {
  const { commands, number } = useWaits();
  const lastSent = useLastSent();
  const isBehind = useIsBehind(answered.asOf);
  const served = useServedPlaces();
  // What was never fetched here may be made here.
  const places = served.data ?? (served.isError ? NO_PLACES : undefined);
  const isMore = commands.length > 0 || isBehind;
  const { data } = useQuery({
    enabled: isKnown && isMore && places !== undefined,
    queryKey: [
      "with-waiting",
      name,
      answered.dataUpdatedAt,
      answered.asOf,
      numberOf(places),
      number,
      isBehind ? lastSent : 0,
    ],
    staleTime: Infinity,
    gcTime: 10_000,
    // What is shown while nothing waits is shown on while the next change is put into it.
    initialData: isMore ? undefined : answered.data,
    // Of the same document alone: another plant is never shown in its place.
    placeholderData: (before, query) => (query?.queryKey[1] === name ? before : undefined),
    queryFn: async () => {
      const sent = isBehind ? await sentSince(answered.asOf || lastSent - LONGEST_BEHIND_MS) : [];
      const waiting = new Set(commands.map((it) => it.id));
      const all = [...sent.filter((it) => !waiting.has(it.id)), ...commands];
      return (await put({ date: today(), commands: all, places: places ?? [] })) ?? null;
    },
  });
  return isMore ? (data ?? answered.data) : answered.data;
}

export const placesServed = queryOptions({
  queryKey: ["places"],
  queryFn: () =>
    orKept<Schemas["Place"][]>("places", () => answerOf((signal) => api.GET("/api/v1/places", { signal }))),
});

const useServedPlaces = () => useQuery({ ...placesServed, notifyOnChangeProps: SHOWN_WITH_TIME });

/** The places that are offered where one is chosen: those that aren’t laid to rest, and the one that is chosen. */
export const offered = (places: Schemas["Place"][], chosen: string) =>
  places.filter((it) => !it.isAtRest || it.id === chosen);

/** The places, by name. */
export function usePlaces() {
  const served = useServedPlaces();
  const data = useWithWaiting(
    "places",
    { ...served, asOf: asOf(served.data) },
    served.data !== undefined || served.isError,
    (waiting) => core.places(waiting),
  );
  return { ...served, data };
}

/** The newest version of every key. */
export function useKeys() {
  const served = useQuery({ ...keysServed, notifyOnChangeProps: SHOWN_WITH_TIME });
  const data = useWithWaiting(
    "keys",
    { ...served, asOf: asOf(served.data) },
    served.data !== undefined || served.isError,
    (waiting) => core.keys({ keys: served.data ?? [], waiting }),
  );
  return { ...served, data };
}

/** A version of a key. */
export function useKey(hash: string) {
  const isHere = useWaitingKeys().includes(hash);
  // The server doesn't know one that waits.
  const served = useQuery({ ...keyServed(hash), enabled: !isHere, notifyOnChangeProps: SHOWN_WITH_TIME });
  const keys = useQuery(keysServed);
  const data = useWithWaiting(
    `key:${hash}`,
    {
      data: served.data,
      dataUpdatedAt: served.dataUpdatedAt + keys.dataUpdatedAt,
      asOf: asOf(served.data ?? keys.data),
    },
    served.data !== undefined || served.isError || isHere,
    async (waiting) =>
      (await core.key({ hash, key: served.data ?? null, keys: keys.data ?? NO_SUMMARIES, waiting }))[0],
  );
  return { ...served, data, isError: served.isError && !data };
}

/** A version of a key, asked once: of one that waits what is here, of another one what the server says or said last. */
export async function keyKnown(hash: string): Promise<Schemas["KeyDetail"]> {
  const entries = await queued();
  if (!keysIn(entries).includes(hash)) return queryClient.fetchQuery(keyServed(hash));
  const keys = await queryClient.fetchQuery(keysServed).catch(() => NO_SUMMARIES);
  const waiting = { date: today(), commands: commandsOf(entries), places: [] };
  const [found] = await core.key({ hash, key: null, keys, waiting });
  if (!found) throw new AwayError();
  return found;
}

/** Hashes of the keys that a command saves. */
export const hashesOf = async (command: Command): Promise<string[]> =>
  (await core.keys({ keys: [], waiting: { date: today(), commands: [command], places: [] } })).map((it) => it.hash);

/** A plant as the server has it, or had it last. */
export const plantServed = (id: string) =>
  queryOptions({
    queryKey: ["plant", id],
    queryFn: () =>
      orKept<Schemas["PlantDetail"]>(`plant:${id}`, () =>
        answerOf((signal) => api.GET("/api/v1/plants/{id}", { params: { path: { id } }, signal })),
      ),
  });

/** A plant with all that is known of it; nothing without an id. */
export function usePlant(id: string | undefined) {
  const served = useQuery({
    ...plantServed(id ?? ""),
    enabled: id !== undefined,
    notifyOnChangeProps: SHOWN_WITH_TIME,
  });
  const data = useWithWaiting(
    `plant:${id}`,
    { ...served, asOf: asOf(served.data) },
    // One that was tagged out of reach is known here alone.
    id !== undefined && (served.data !== undefined || served.isError),
    async (waiting) => (await core.plant({ id: id ?? "", plant: served.data ?? null, waiting }))[0],
  );
  return { ...served, data, isError: served.isError && !data };
}

/** The page of a day as the server works it out. */
export const todayOf = (day: string) =>
  queryOptions({
    queryKey: ["today", day],
    queryFn: () =>
      orKept<Schemas["TodayDocument"]>(`today:${day}`, () =>
        answerOf((signal) => api.GET("/api/v1/today", { params: { query: { date: day } }, signal })),
      ),
  });

export const populationsServed = queryOptions({
  queryKey: ["populations"],
  queryFn: () =>
    orKept<Schemas["PopulationDetail"][]>("populations", () =>
      answerOf((signal) => api.GET("/api/v1/populations", { signal })),
    ),
});

/** Populations with what they come to. */
export function usePopulations(isWanted = true) {
  const served = useQuery({ ...populationsServed, enabled: isWanted, notifyOnChangeProps: SHOWN_WITH_TIME });
  const data = useWithWaiting(
    "populations",
    { ...served, asOf: asOf(served.data) },
    served.data !== undefined || served.isError,
    (waiting) => core.populations({ populations: served.data ?? [], waiting }),
  );
  return { ...served, data };
}

/** A page of the plants of a place, or of all, as it is kept on this device. */
export const plantsServed = (place: string, after: string | undefined) =>
  orKept(`plants:${place}:${after ?? ""}`, () =>
    pageOf((signal) =>
      api.GET("/api/v1/plants", { params: { query: { place: place || undefined, pegged: false, after } }, signal }),
    ),
  );

/** Keeps plants as a whole, each as if it had been asked for. */
export const keepPlants = (plants: Schemas["PlantDetail"][]) => keepAnswers(plants.map((it) => [`plant:${it.id}`, it]));

/** Which records are asked for. */
interface Narrow {
  taxon?: string;
  place?: string;
  of?: Schemas["RecordsOf"];
}

/** A page of the records; out of reach those of the plants that are on this device, and that it is so. */
export async function recordsServed(
  narrow: Narrow,
  after: string | undefined,
): Promise<Schemas["RecordPage"] & { isOfDevice?: boolean }> {
  try {
    return await answerOf((signal) => api.GET("/api/v1/records", { params: { query: { ...narrow, after } }, signal }));
  } catch (error) {
    if (!(error instanceof AwayError)) throw error;
    const { records, names } = await queryClient.fetchQuery(recordsOfDevice(narrow));
    if (names.length === 0) throw error;
    const from = Number(after ?? 0);
    const next = from + RECORDS_AT_ONCE < records.length ? String(from + RECORDS_AT_ONCE) : null;
    return { records: records.slice(from, from + RECORDS_AT_ONCE), next, names, isOfDevice: true };
  }
}

// As many as the server tells at once.
const RECORDS_AT_ONCE = 50;

// In another tab something may be kept meanwhile. Longer than elsewhere: all plants with all that was seen are read for it.
const RECORDS_ANEW_MS = 120_000;

// Of plants and visits what a list of records is made of: what was seen is the larger part by far, and is left out.
const namesOfDevice = (changes: number) =>
  queryOptions({
    queryKey: ["names-of-device", changes],
    staleTime: RECORDS_ANEW_MS,
    queryFn: async () => {
      const plants = await keptAnswers<Schemas["PlantDetail"]>("plant:");
      const visits = await keptAnswers<Schemas["SiteVisit"]>("site-visit:");
      return {
        plants: plants.map(({ id, label, place, isSensitive = false, determinations }) => ({
          id,
          label,
          placeId: place.id,
          placeName: place.name,
          isSensitive,
          determinations: determinations.map((it) => ({
            id: it.id,
            eventDate: it.eventDate,
            recordedAt: it.recordedAt,
            recorder: it.recorder.name,
            name: it.name,
            names: it.names,
            note: it.note,
            grade: it.confirmation?.grade ?? null,
            isInQuestion: (it.questions?.length ?? 0) > 0,
          })),
        })),
        visits: visits.map(({ id, place, date, lines }) => ({
          id,
          placeId: place.id,
          placeName: place.name,
          date,
          lines,
        })),
      };
    },
  });

// Worked out once, until something that is kept here changes: nobody waits for it at each page of the list.
const recordsOfDevice = ({ taxon = "", place = "", of = "all" }: Narrow) =>
  queryOptions({
    queryKey: ["records-of-device", answersChanged(), taxon, place, of],
    staleTime: RECORDS_ANEW_MS,
    queryFn: async (): Promise<{ records: Schemas["RecordLine"][]; names: string[] }> => {
      const known = await queryClient.fetchQuery(namesOfDevice(answersChanged()));
      const isAll = !taxon && !place && of === "all";
      const records = await core.records({ ...known, taxon: taxon || null, placeId: place || null, of });
      const names = isAll
        ? [...new Set(records.flatMap((it) => it.names))].sort()
        : (await queryClient.fetchQuery(recordsOfDevice({}))).names;
      return { records, names };
    },
  });

// Out of reach what was taken along is looked through, by the rule by which waiting plants are found.
const foundAmongKept = (place: string, text: string, wanted: AbortSignal): Promise<Paged<Schemas["TaggedPlant"]>> =>
  inTurn(wanted, async () => {
    const { plants, asOf } = await holdSearched();
    const ids = await core.foundPlants({ placeId: place || null, text });
    return { items: ids.flatMap((id) => plants.get(id) ?? []), next: undefined, asOf };
  });

const inTurn = oneByOne();

/** Plants with their tags that belong to no counted population, and how they were found last; page by page. */
export function usePlants(filter: { place: string; text: string }) {
  const { place, text } = filter;
  const served = useInfiniteQuery({
    queryKey: ["plants", place, text],
    notifyOnChangeProps: SHOWN_WITH_TIME,
    initialPageParam: "",
    // While another text is looked for, what was found for the last one stays.
    placeholderData: keepPreviousData,
    queryFn: async ({ pageParam: after, signal: wanted }) => {
      if (!text) return plantsServed(place, after || undefined);
      try {
        return await pageOf((signal) =>
          api.GET("/api/v1/plants", {
            params: { query: { place: place || undefined, text, pegged: false, after: after || undefined } },
            signal,
          }),
        );
      } catch (error) {
        if (error instanceof AwayError) return foundAmongKept(place, text, wanted);
        throw error;
      }
    },
    getNextPageParam: (page: Paged<Schemas["TaggedPlant"]>) => page.next,
  });
  const shown = served.data?.pages.flatMap((page) => page.items);
  const plants = useWithWaiting(
    `plants:${place}:${text}`,
    { data: shown, dataUpdatedAt: served.dataUpdatedAt, asOf: asOfPages(served.data?.pages) },
    shown !== undefined || served.isError,
    (waiting) =>
      core.plants({ plants: shown ?? [], waiting, isWhole: !served.hasNextPage, placeId: place || null, text }),
  );
  return { ...served, plants };
}
