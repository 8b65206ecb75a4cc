import { QueryClient, queryOptions, useQuery, useQueryClient, type Query } from "@tanstack/react-query";
import { useEffect, useState } from "react";
import { answerOf, api, ask, AwayError, pageOf, type Paged, type Schemas } from "../api/client";
import { flush, MOST_FAILURES, onOutboxChange, queued, refusedCommands } from "./outbox";
import {
  keep,
  keepAnswer,
  kept,
  keptAnswer,
  store,
  type QueuedCommand,
  type RefusedCommand,
  type PlantInHand,
} from "./store";

export const queryClient = new QueryClient({
  defaultOptions: { queries: { retry: false, networkMode: "always", refetchOnWindowFocus: true, staleTime: 5_000 } },
});

const isOfServer = (query: Query) => query.queryKey[0] !== "health";

// After a change all that is shown is fetched again. What was being fetched for the first time is begun anew: it may have been asked before
// the server took in what is now done, and would stand there as if nothing had been.
async function fetchAnew(client: QueryClient): Promise<void> {
  await client.cancelQueries({ predicate: (query) => isOfServer(query) && query.state.data === undefined });
  await client.invalidateQueries({ predicate: isOfServer });
}

const WATCH_MS = 15_000;
const WATCH_AWAY_MS = 2_000;

/** The answer of the server, or what it answered last time when it is away. */
export async function orKept<T>(name: string, fetch: () => Promise<T>): Promise<T> {
  try {
    const value = await fetch();
    // A store that is full, or can't be written, takes nothing from what the server has answered.
    await keepAnswer(name, value).catch(() => undefined);
    return value;
  } catch (error) {
    const before = error instanceof AwayError ? await keptAnswer<T>(name) : undefined;
    if (before === undefined) throw error;
    return before;
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

export const useKeys = () => useQuery(keysServed);

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

export type Connection = "ready" | "away" | "outOfReach";

/** Whether a copy of the database is wanted: none was made for a month. */
export function useCopyWanted(): boolean {
  const { data } = useQuery({
    queryKey: ["copy-wanted"],
    queryFn: async () => (await answerOf((signal) => api.GET("/api/v1/health", { signal }))).copyWanted,
    staleTime: 600_000,
  });
  return data ?? false;
}

/**
 * Whether the server was set back to a copy since this device last met it: what was sent after the copy was made isn't there any more. And
 * whether it is a sandbox; undefined until it has answered.
 */
export function useSetBack(): { isSetBack: boolean; isSandbox: boolean | undefined; seen: () => Promise<void> } {
  const client = useQueryClient();
  const { data } = useQuery({
    queryKey: ["epoch"],
    queryFn: async () => {
      const { epoch, isSandbox } = await answerOf((signal) => api.GET("/api/v1/health", { signal }));
      const known = await kept<string>(EPOCH);
      if (known === undefined) await keep(EPOCH, epoch);
      return { epoch, isSandbox, isSetBack: known !== undefined && known !== epoch };
    },
    staleTime: 600_000,
  });
  const seen = async () => {
    if (!data) return;
    await keep(EPOCH, data.epoch);
    client.setQueryData(["epoch"], { ...data, isSetBack: false });
  };
  return { isSetBack: data?.isSetBack ?? false, isSandbox: data?.isSandbox, seen };
}

/** Watches whether the server and its database answer; sends what waits as soon as they do. */
export function useConnection(): Connection {
  const client = useQueryClient();
  const { data } = useQuery({
    queryKey: ["health"],
    queryFn: async (): Promise<Connection> => {
      const outcome = await ask((signal) => api.GET("/api/v1/health", { signal }));
      if (outcome.kind === "away" && !outcome.isServerThere) return "outOfReach";
      return outcome.kind === "answer" ? "ready" : "away";
    },
    refetchInterval: (query) => (query.state.data === "ready" ? WATCH_MS : WATCH_AWAY_MS),
    refetchIntervalInBackground: true,
    staleTime: 0,
  });
  useEffect(() => {
    if (data !== "ready") return;
    void flush();
    void client.invalidateQueries({ predicate: isOfServer });
  }, [data, client]);
  return data ?? "ready";
}

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

/** What is kept on this device alone. */
export function useLocalWork(): LocalWork {
  const client = useQueryClient();
  const [work, setWork] = useState<LocalWork>({ outbox: [], stuck: [], refused: [], walks: [], loaded: false });
  useEffect(() => {
    let current = true;
    const load = async () => {
      const [all, refused, walks] = await Promise.all([queued(), refusedCommands(), (await store()).getAll("walks")]);
      const isStuck = (it: QueuedCommand) => (it.failures ?? 0) >= MOST_FAILURES;
      if (!current) return;
      setWork({
        outbox: all.filter((it) => !isStuck(it)),
        stuck: all.filter(isStuck),
        refused,
        walks: walks.sort((a, b) => b.updatedAt - a.updatedAt),
        loaded: true,
      });
    };
    // A store that can't be opened is said by the frame.
    load().catch(() => undefined);
    const stop = onOutboxChange((taken) => {
      load().catch(() => undefined);
      if (taken) void fetchAnew(client);
    });
    return () => {
      current = false;
      stop();
    };
  }, [client]);
  return work;
}
