import { queryOptions, useInfiniteQuery, useQuery } from "@tanstack/react-query";
import { answerOf, api, pageOf, type Paged, type Schemas } from "../api/client";
import { core } from "../core/coreClient";
import { asOf } from "./asked";
import { useWithWaiting } from "./documents";
import { asOfPages, orKept, SHOWN_WITH_TIME } from "./queries";
import { keepAnswers, keptAnswers } from "./store";

// Visits to places, as documents: what the server answered last, with what waits on this device put into it.

/** A page of the visits to a place, or of all, as it is kept on this device. */
export const siteVisitsServed = (place: string, after: string | undefined) =>
  orKept(`site-visits:${place}:${after ?? ""}`, () =>
    pageOf<Schemas["SiteVisitSummary"]>((signal) =>
      api.GET("/api/v1/site-visits", { params: { query: { place: place || undefined, after } }, signal }),
    ),
  );

const wholeName = (id: string) => `site-visit:${id}`;

/** Keeps visits as a whole, each as if it had been asked for. */
export const keepSiteVisits = (visits: Schemas["SiteVisit"][]) =>
  keepAnswers(visits.map((it) => [wholeName(it.id), it]));

/** Visits as a whole: those to a place, or those named. */
export const wholeSiteVisits = (query: { place?: string; id?: string[]; after?: string }) =>
  pageOf<Schemas["SiteVisit"]>((signal) => api.GET("/api/v1/site-visits/whole", { params: { query }, signal }));

/** Visits to places, newest first; page by page. */
export function useSiteVisits(place: string) {
  const served = useInfiniteQuery({
    queryKey: ["site-visits", place],
    notifyOnChangeProps: SHOWN_WITH_TIME,
    initialPageParam: "",
    queryFn: ({ pageParam }) => siteVisitsServed(place, pageParam || undefined),
    getNextPageParam: (page: Paged<Schemas["SiteVisitSummary"]>) => page.next,
  });
  const shown = served.data?.pages.flatMap((page) => page.items);
  const visits = useWithWaiting(
    `site-visits:${place}`,
    { data: shown, dataUpdatedAt: served.dataUpdatedAt, asOf: asOfPages(served.data?.pages) },
    shown !== undefined || served.isError,
    async (waiting) => {
      const known = await keptAnswers<Schemas["SiteVisit"]>("site-visit:");
      const all = await core.siteVisits({ visits: shown ?? [], known, waiting });
      return place ? all.filter((it) => it.placeId === place) : all;
    },
  );
  return { ...served, visits };
}

/** A visit with its list. */
export function useSiteVisit(id: string) {
  const served = useQuery({
    queryKey: ["site-visit", id],
    notifyOnChangeProps: SHOWN_WITH_TIME,
    queryFn: () =>
      orKept<Schemas["SiteVisit"]>(wholeName(id), () =>
        answerOf((signal) => api.GET("/api/v1/site-visits/{id}", { params: { path: { id } }, signal })),
      ),
  });
  // One that was begun out of reach is known here alone.
  const data = useWithWaiting(
    wholeName(id),
    { ...served, asOf: asOf(served.data) },
    served.data !== undefined || served.isError,
    async (waiting) => (await core.siteVisit({ id, visit: served.data ?? null, waiting }))[0],
  );
  return { ...served, data, isError: served.isError && !data };
}

/** What was found at a place before a day, with the years. */
export const foundServed = (place: string, before: string) =>
  queryOptions({
    queryKey: ["found", place, before],
    staleTime: 60_000,
    queryFn: () =>
      orKept<Schemas["FoundBefore"][]>(`found:${place}`, () =>
        answerOf((signal) =>
          api.GET("/api/v1/places/{id}/found", { params: { path: { id: place }, query: { before } }, signal }),
        ),
      ),
  });
