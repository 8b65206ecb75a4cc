import { keepPreviousData, queryOptions, useInfiniteQuery, useQuery } from "@tanstack/react-query";
import { answerOf, api, pageOf, type Paged, type Schemas } from "../api/client";
import { today } from "../api/today";
import { core } from "../core/coreClient";
import { onOutboxChange, queued } from "./outbox";
import { queryClient, orKept } from "./queries";
import type { Command } from "./store";

// The one door to what pages read of places, plants and populations: what the server answered last, with what waits on this device put into
// it by the core. Whether there is signal makes no difference here.

const WAITING = ["waiting"];
const NOTHING: Command[] = [];
const NO_PLACES: Schemas["Place"][] = [];

onOutboxChange(() => void queryClient.invalidateQueries({ queryKey: WAITING }));

/** The commands that wait on this device, in their order; the same list until one comes or goes. */
export function useWaiting(): Command[] {
  const { data } = useQuery({
    queryKey: WAITING,
    queryFn: async () => (await queued()).map((it) => it.command),
    staleTime: Infinity,
    refetchOnWindowFocus: true,
  });
  return data && data.length > 0 ? data : NOTHING;
}

/** Ids of what the waiting commands make or change. */
export function useWaitingIds(): Set<string> {
  const waiting = useWaiting();
  return new Set(
    waiting.flatMap((command) =>
      Object.entries(command).flatMap(([field, value]) =>
        field.endsWith("Id") && typeof value === "string" ? value : [],
      ),
    ),
  );
}

interface Answered<T> {
  data: T | undefined;
  dataUpdatedAt: number;
}

/** An answer with what waits put into it; while that is worked out, what was shown last. */
function useWithWaiting<T>(
  name: string,
  answered: Answered<T>,
  isKnown: boolean,
  put: (waiting: Schemas["Waiting"]) => Promise<T | undefined>,
): T | undefined {
  const commands = useWaiting();
  const served = useServedPlaces();
  // What was never fetched here may be made here.
  const places = served.data ?? (served.isError ? NO_PLACES : undefined);
  const { data } = useQuery({
    enabled: isKnown && commands.length > 0 && places !== undefined,
    queryKey: ["with-waiting", name, answered.dataUpdatedAt, places?.length, ...commands.map((it) => it.id)],
    staleTime: Infinity,
    gcTime: 60_000,
    // Of the same document alone: another plant is never shown in its place.
    placeholderData: (before, query) => (query?.queryKey[1] === name ? before : undefined),
    queryFn: async () => (await put({ date: today(), commands, places: places ?? [] })) ?? null,
  });
  return commands.length === 0 ? answered.data : (data ?? answered.data);
}

export const placesServed = queryOptions({
  queryKey: ["places"],
  queryFn: () =>
    orKept<Schemas["Place"][]>("places", () => answerOf((signal) => api.GET("/api/v1/places", { signal }))),
});

const useServedPlaces = () => useQuery(placesServed);

/** The places, by name. */
export function usePlaces() {
  const served = useServedPlaces();
  const data = useWithWaiting("places", served, served.data !== undefined || served.isError, (waiting) =>
    core.places(waiting),
  );
  return { ...served, data };
}

/** A plant with all that is known of it; nothing without an id. */
export function usePlant(id: string | undefined) {
  const served = useQuery({
    enabled: id !== undefined,
    queryKey: ["plant", id],
    queryFn: () =>
      orKept<Schemas["PlantDetail"]>(`plant:${id}`, () =>
        answerOf((signal) => api.GET("/api/v1/plants/{id}", { params: { path: { id: id ?? "" } }, signal })),
      ),
  });
  const data = useWithWaiting(
    `plant:${id}`,
    served,
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

/** Populations with what they come to. */
export function usePopulations(isWanted = true) {
  const served = useQuery({
    enabled: isWanted,
    queryKey: ["populations"],
    queryFn: () =>
      orKept<Schemas["PopulationDetail"][]>("populations", () =>
        answerOf((signal) => api.GET("/api/v1/populations", { signal })),
      ),
  });
  const data = useWithWaiting("populations", served, served.data !== undefined || served.isError, (waiting) =>
    core.populations({ populations: served.data ?? [], waiting }),
  );
  return { ...served, data };
}

/** Plants with their tags that belong to no counted population, and how they were found last; page by page. */
export function usePlants(filter: { place: string; text: string }) {
  const { place, text } = filter;
  const served = useInfiniteQuery({
    queryKey: ["plants", place, text],
    initialPageParam: "",
    // While another text is looked for, what was found for the last one stays.
    placeholderData: keepPreviousData,
    queryFn: ({ pageParam: after }) => {
      const page = () =>
        pageOf((signal) =>
          api.GET("/api/v1/plants", {
            params: {
              query: { place: place || undefined, text: text || undefined, pegged: false, after: after || undefined },
            },
            signal,
          }),
        );
      // What was looked for isn't kept: nobody looks for just that again without signal.
      return text ? page() : orKept(`plants:${place}:${after}`, page);
    },
    getNextPageParam: (page: Paged<Schemas["TaggedPlant"]>) => page.next,
  });
  const shown = served.data?.pages.flatMap((page) => page.items);
  const plants = useWithWaiting(
    `plants:${place}:${text}`,
    { data: shown, dataUpdatedAt: served.dataUpdatedAt },
    shown !== undefined || served.isError,
    (waiting) =>
      core.plants({ plants: shown ?? [], waiting, isWhole: !served.hasNextPage, placeId: place || null, text }),
  );
  return { ...served, plants };
}
