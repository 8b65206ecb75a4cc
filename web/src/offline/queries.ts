import {
  QueryClient,
  queryOptions,
  useQuery,
  useQueryClient,
  type InfiniteQueryObserverResult,
  type Query,
} from "@tanstack/react-query";
import { useEffect } from "react";
import { answerOf, api, ask, AwayError, onLost, pageOf, type Paged, type Schemas } from "../api/client";
import { askedAt, sharedWithTime } from "./asked";
import { inTurn } from "./inTurn";
import { flush, MOST_FAILURES, onOutboxChange, queued, refusedCommands, sendForgotten } from "./outbox";
import {
  keep,
  keepAnswers,
  kept,
  keptAnswer,
  store,
  type QueuedCommand,
  type RefusedCommand,
  type PlantInHand,
} from "./store";

// What pages show of an answer. That it is fetched again, as all is after each change, concerns nobody unless something else comes of it.
const SHOWN: (keyof InfiniteQueryObserverResult)[] = [
  "data",
  "error",
  "isError",
  "isPending",
  "isLoading",
  "isSuccess",
  "isFetched",
  "isPlaceholderData",
  "hasNextPage",
  "isFetchingNextPage",
];

/** Of an answer that what waits is put into: also when it was given, since by that it is known whether what was sent is in it. */
export const SHOWN_WITH_TIME: typeof SHOWN = [...SHOWN, "dataUpdatedAt"];

export const queryClient = new QueryClient({
  defaultOptions: {
    queries: {
      retry: false,
      networkMode: "always",
      refetchOnWindowFocus: true,
      staleTime: 5_000,
      notifyOnChangeProps: SHOWN,
      structuralSharing: sharedWithTime,
    },
  },
});

// What is asked of this device alone, or by itself, or follows from other answers.
const ASKED_OTHERWISE: unknown[] = ["health", "local-work", "waiting", "with-waiting"];
const isOfServer = (query: Query) => !ASKED_OTHERWISE.includes(query.queryKey[0]);

// After a change all that is shown is fetched again. What was being fetched for the first time is begun anew: it may have been asked before
// the server took in what is now done, and would stand there as if nothing had been.
async function fetchAnew(client: QueryClient): Promise<void> {
  await client.cancelQueries({ predicate: (query) => isOfServer(query) && query.state.data === undefined });
  await client.invalidateQueries({ predicate: isOfServer });
}

const WATCH_MS = 15_000;
const WATCH_AWAY_MS = 2_000;

/** When the earliest of pages was asked of the server; 0 where none has answered, or an earlier version kept it. */
export const asOfPages = (pages: Paged<unknown>[] | undefined): number =>
  pages && pages.length > 0 ? Math.min(...pages.map((it) => it.asOf ?? 0)) : 0;

/** The answer of the server, or what it answered last time when it is away. */
export async function orKept<T>(name: string, fetch: () => Promise<T>): Promise<T> {
  const at = Date.now();
  try {
    const value = await fetch();
    // A store that is full, or can't be written, takes nothing from what the server has answered.
    await keepAnswers([[name, value]], at).catch(() => undefined);
    return askedAt(value, at);
  } catch (error) {
    const before = error instanceof AwayError ? await keptAnswer<T>(name) : undefined;
    if (before === undefined) throw error;
    return askedAt(before.value, before.at);
  }
}

/** Goes through a list to its last page. */
export async function allPages<T>(page: (after: string | undefined) => Promise<Paged<T>>): Promise<T[]> {
  const all: T[] = [];
  for (let after: string | undefined = ""; after !== undefined;) {
    const { items, next }: Paged<T> = await page(after || undefined);
    all.push(...items);
    after = next;
  }
  return all;
}

// As many as the server gives at a time.
const LARGEST_PAGE = 500;

export const peopleServed = queryOptions({
  queryKey: ["people"],
  queryFn: () =>
    orKept<Schemas["PersonReference"][]>("people", () => answerOf((signal) => api.GET("/api/v1/people", { signal }))),
});

export const usePeople = () => useQuery(peopleServed);

export const openPlantsServed = queryOptions({
  queryKey: ["open-plants"],
  queryFn: () =>
    orKept<Schemas["OpenPlant"][]>("open-plants", () =>
      allPages((after) =>
        pageOf((signal) =>
          api.GET("/api/v1/seasons/open", { params: { query: { after, size: LARGEST_PAGE } }, signal }),
        ),
      ),
    ),
});

/** All plants of which something is still to be seen. */
export const useOpenPlants = (isWanted = true) => useQuery({ ...openPlantsServed, enabled: isWanted });

export const firstsServed = queryOptions({
  queryKey: ["firsts"],
  queryFn: () =>
    orKept<Schemas["SeasonFirst"][]>("firsts", () =>
      answerOf((signal) => api.GET("/api/v1/seasons/firsts", { signal })),
    ),
});

/** What began this year on one's own plants. */
export const useFirsts = (isWanted = true) => useQuery({ ...firstsServed, enabled: isWanted });

export const keysServed = queryOptions({
  queryKey: ["keys"],
  queryFn: () =>
    orKept<Schemas["KeySummary"][]>("keys", () => answerOf((signal) => api.GET("/api/v1/keys", { signal }))),
});

/** A version of a key. */
export const keyServed = (hash: string) =>
  queryOptions({
    queryKey: ["key", hash],
    queryFn: () =>
      orKept<Schemas["KeyDetail"]>(`key:${hash}`, () =>
        answerOf((signal) => api.GET("/api/v1/keys/{hash}", { params: { path: { hash } }, signal })),
      ),
  });

const EPOCH = "epoch";
const SET_BACK = "set-back";

export type Connection = "ready" | "away" | "outOfReach" | "unpaired";

/** Whether a copy of the database is wanted: none was made for a month. */
export function useCopyWanted(): boolean {
  const { data } = useQuery({
    queryKey: ["copy-wanted"],
    queryFn: async () => (await answerOf((signal) => api.GET("/api/v1/health", { signal }))).copyWanted,
    staleTime: 600_000,
  });
  return data ?? false;
}

/** What the server was when this device last met it, and is now. */
interface SetBack {
  /** It was set back to a copy of itself: so many changes are sent again, and so many older ones are left. */
  again?: number;
  older?: number;
  /** It is another database: nothing of this device is sent again. */
  isAnother?: boolean;
}

/**
 * Whether the server was set back to a copy since this device last met it: what was sent after the copy was made isn't there any more, and is
 * sent again. And whether it is a sandbox; undefined until it has answered.
 */
export function useSetBack(): { setBack: SetBack | undefined; isSandbox: boolean | undefined; seen: () => void } {
  const client = useQueryClient();
  const { data } = useQuery({
    queryKey: ["epoch"],
    queryFn: async () => {
      const { epoch, isSandbox } = await answerOf((signal) => api.GET("/api/v1/health", { signal }));
      return { isSandbox, setBack: await inTurn("garten-set-back", () => noticeSetBack(epoch)) };
    },
    staleTime: 600_000,
  });
  const seen = () => {
    void keep(SET_BACK, undefined);
    client.setQueryData(["epoch"], data && { ...data, setBack: undefined });
  };
  return { setBack: data?.setBack, isSandbox: data?.isSandbox, seen };
}

// Another life of the database is noticed once; what became of it is told until it was seen.
async function noticeSetBack(epoch: string): Promise<SetBack | undefined> {
  const known = await kept<string>(EPOCH);
  if (known === epoch) return kept<SetBack>(SET_BACK);
  if (known === undefined) {
    await keep(EPOCH, epoch);
    return undefined;
  }
  const { earlier } = await answerOf((signal) => api.GET("/api/v1/changes", { signal }));
  const told: SetBack = earlier.includes(known) ? await sendForgotten() : { isAnother: true };
  await keep(SET_BACK, told);
  await keep(EPOCH, epoch);
  return told;
}

interface Watched {
  connection: Connection;
  /** The number of the server's last change. */
  last?: number;
  /** How many times requests were lost, when it was asked. */
  lost: number;
}

// A request can be lost on its way while the server is well: where a device changes from one network to the other its browser ends all that
// is under way. So long after a loss it is asked whether the server is there, and what is shown is asked for again; longer each time that
// it happens, and from the first again once nothing was lost for long.
const ASKED_AFTER_LOSS_MS = [300, 2_000, WATCH_MS, 60_000];
let losses = 0;
let lostLast = 0;

let asking: ReturnType<typeof setTimeout> | undefined;

// One question after several that were lost together.
onLost(() => {
  if (asking !== undefined) return;
  if (Date.now() - lostLast > 2 * (ASKED_AFTER_LOSS_MS.at(-1) ?? 0)) losses = 0;
  const wait = ASKED_AFTER_LOSS_MS[Math.min(losses, ASKED_AFTER_LOSS_MS.length - 1)];
  losses++;
  lostLast = Date.now();
  asking = setTimeout(() => {
    asking = undefined;
    void queryClient.invalidateQueries({ queryKey: ["health"] });
  }, wait);
});

/** Watches whether the server and its database answer; sends what waits as soon as they do, and shows what others have changed. */
export function useWatched(): Watched {
  const client = useQueryClient();
  const { data } = useQuery({
    queryKey: ["health"],
    queryFn: async (): Promise<Watched> => {
      // No proxy has an answer to this of yesterday.
      const at = String(Date.now());
      const lost = losses;
      const outcome = await ask((signal) => api.GET("/api/v1/health", { params: { query: { at } }, signal }));
      if (outcome.kind === "away" && !outcome.isServerThere) return { connection: "outOfReach", lost };
      if (outcome.kind === "away" && outcome.isUnpaired) return { connection: "unpaired", lost };
      return outcome.kind === "answer"
        ? { connection: "ready", last: outcome.value.lastChange, lost }
        : { connection: "away", lost };
    },
    refetchInterval: (query) => (query.state.data?.connection === "ready" ? WATCH_MS : WATCH_AWAY_MS),
    refetchIntervalInBackground: true,
    staleTime: 0,
  });
  const { connection, last, lost } = data ?? {};
  useEffect(() => {
    if (connection !== "ready") return;
    void flush();
    void client.invalidateQueries({ predicate: isOfServer });
  }, [connection, last, lost, client]);
  return data ?? { connection: "ready", lost: 0 };
}

/** Whether the server and its database answer. */
export const useConnection = () => useWatched().connection;

interface LocalWork {
  /** Commands that wait to be sent. */
  outbox: QueuedCommand[];
  /** Those among them at which the server fails again and again. */
  stuck: QueuedCommand[];
  /** Commands that were refused and wait for a person. */
  refused: RefusedCommand[];
  /** Plants in hand that aren't kept yet, newest first. */
  walks: PlantInHand[];
  loaded: boolean;
}

const NO_WORK: LocalWork = { outbox: [], stuck: [], refused: [], walks: [], loaded: false };
const isStuck = (it: QueuedCommand) => (it.failures ?? 0) >= MOST_FAILURES;

// A store that can't be opened is said by the frame.
const localWork = queryOptions({
  queryKey: ["local-work"],
  // Whatever is shown newly looks again.
  staleTime: 0,
  structuralSharing: false,
  queryFn: async (): Promise<LocalWork> => {
    const [all, refused, walks] = await Promise.all([queued(), refusedCommands(), (await store()).getAll("walks")]);
    return {
      outbox: all.filter((it) => !isStuck(it)),
      stuck: all.filter(isStuck),
      refused,
      walks: walks.sort((a, b) => b.updatedAt - a.updatedAt),
      loaded: true,
    };
  },
});

onOutboxChange((taken) => {
  void queryClient.invalidateQueries(localWork);
  if (taken) void fetchAnew(queryClient);
});

/** What is kept on this device alone. */
export const useLocalWork = (): LocalWork => useQuery(localWork).data ?? NO_WORK;
