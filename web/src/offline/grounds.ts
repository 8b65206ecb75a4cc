import { queryOptions, useQuery } from "@tanstack/react-query";
import { answerOf, api, type Schemas } from "../api/client";
import { core } from "../core/coreClient";
import { asOf } from "./asked";
import { useWithWaiting } from "./documents";
import { orKept, SHOWN_WITH_TIME } from "./queries";

// Where places lie and what is drawn of them, as documents: what the server answered last, with what waits on this device put into it.

export const groundsServed = queryOptions({
  queryKey: ["grounds"],
  queryFn: () =>
    orKept<Schemas["PlaceGround"][]>("grounds", () =>
      answerOf((signal) => api.GET("/api/v1/places/grounds", { signal })),
    ),
});

/** What maps are drawn on: features with a kind and a name. */
export interface BaseMap {
  type: "FeatureCollection";
  features: { type: "Feature"; properties: { kind?: string; name?: string } | null; geometry: unknown }[];
}

export const baseServed = queryOptions({
  queryKey: ["base-map"],
  staleTime: 600_000,
  queryFn: () =>
    orKept<BaseMap>(
      "base-map",
      () => answerOf((signal) => api.GET("/api/v1/map/base", { signal })) as unknown as Promise<BaseMap>,
    ),
});

/** Whether tiles of a server elsewhere can lie under the map. */
export const tilesServed = queryOptions({
  queryKey: ["map-tiles"],
  staleTime: 600_000,
  queryFn: () =>
    orKept<Schemas["MapBelow"]>("map-tiles", () => answerOf((signal) => api.GET("/api/v1/map/tiles", { signal }))),
});

export const pointsServed = (taxon: string) =>
  queryOptions({
    queryKey: ["map-points", taxon],
    queryFn: () =>
      orKept<Schemas["MapPoint"][]>(`map-points:${taxon}`, () =>
        answerOf((signal) =>
          api.GET("/api/v1/map/points", { params: { query: { taxon: taxon || undefined } }, signal }),
        ),
      ),
  });

/** The tracks of visits to a place. */
export const tracksServed = (place: string) =>
  queryOptions({
    queryKey: ["map-tracks", place],
    queryFn: () =>
      orKept<Schemas["PlacedTrack"][]>(`map-tracks:${place}`, () =>
        answerOf((signal) => api.GET("/api/v1/map/tracks", { params: { query: { place } }, signal })),
      ),
  });

/** The grounds of places. */
export function useGrounds() {
  const served = useQuery({ ...groundsServed, notifyOnChangeProps: SHOWN_WITH_TIME });
  const data = useWithWaiting(
    "grounds",
    { ...served, asOf: asOf(served.data) },
    served.data !== undefined || served.isError,
    (waiting) => core.grounds({ grounds: served.data ?? [], waiting }),
  );
  return { ...served, data };
}
