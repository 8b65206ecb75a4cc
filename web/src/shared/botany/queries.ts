import { keepPreviousData, queryOptions, useQuery } from "@tanstack/react-query";
import { answerOf, api, type Schemas } from "../../api/client";
import { orKept } from "../../offline/queries";

export const florasServed = queryOptions({
  queryKey: ["floras"],
  queryFn: () =>
    orKept<Schemas["FloraSummary"][]>("floras", () => answerOf((signal) => api.GET("/api/v1/floras", { signal }))),
});

export const useFloras = () => useQuery(florasServed);

export interface Wanted {
  find: string;
  family: string;
  growthForm: string;
  origin: string;
  day: string;
  place: string;
  from: number;
}

export const useTaxa = (flora: string | undefined, wanted: Wanted) =>
  useQuery({
    enabled: flora !== undefined,
    queryKey: ["taxa", flora, wanted],
    placeholderData: keepPreviousData,
    queryFn: () =>
      orKept<Schemas["TaxonList"]>(`taxa:${flora}:${JSON.stringify(wanted)}`, () =>
        answerOf((signal) =>
          api.GET("/api/v1/floras/{id}/taxa", {
            params: {
              path: { id: flora ?? "" },
              query: {
                find: wanted.find || undefined,
                family: wanted.family || undefined,
                growthForm: wanted.growthForm || undefined,
                origin: wanted.origin || undefined,
                day: wanted.day || undefined,
                place: wanted.place || undefined,
                from: wanted.from,
              },
            },
            signal,
          }),
        ),
      ),
  });

export const useTaxon = (flora: string, taxon: string, day: string) =>
  useQuery({
    queryKey: ["taxon", flora, taxon, day],
    queryFn: () =>
      orKept<Schemas["TaxonPage"]>(`taxon:${flora}:${taxon}`, () =>
        answerOf((signal) =>
          api.GET("/api/v1/floras/{id}/taxa/{taxon}", {
            params: { path: { id: flora, taxon }, query: { day } },
            signal,
          }),
        ),
      ),
  });

export const useCharacters = (flora: string | undefined) =>
  useQuery({
    enabled: flora !== undefined,
    queryKey: ["characters", flora],
    staleTime: 60_000,
    queryFn: () =>
      orKept<Schemas["Character"][]>(`characters:${flora}`, () =>
        answerOf((signal) =>
          api.GET("/api/v1/floras/{id}/characters", { params: { path: { id: flora ?? "" } }, signal }),
        ),
      ),
  });

export const useShowing = (flora: string, character: string | undefined) =>
  useQuery({
    enabled: character !== undefined,
    queryKey: ["character", flora, character],
    queryFn: () =>
      orKept<Schemas["GlossaryEntry"]>(`character:${flora}:${character}`, () =>
        answerOf((signal) =>
          api.GET("/api/v1/floras/{id}/characters/{character}", {
            params: { path: { id: flora, character: character ?? "" } },
            signal,
          }),
        ),
      ),
  });

/** A flora; where none is named the one to begin with. */
export function useFlora(id: string | undefined): {
  flora?: Schemas["FloraSummary"];
  floras: Schemas["FloraSummary"][];
  failed: boolean;
  loaded: boolean;
} {
  const floras = useFloras();
  const all = floras.data ?? [];
  return {
    floras: all,
    flora: id ? all.find((f) => f.id === id) : all.find((f) => f.isDefault),
    failed: floras.isError && !floras.data,
    loaded: floras.data !== undefined,
  };
}
