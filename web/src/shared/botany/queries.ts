import { keepPreviousData, queryOptions, useQuery } from "@tanstack/react-query";
import { answerOf, api, AwayError, type Schemas } from "../../api/client";
import { core } from "../../core/coreClient";
import { hurry } from "../../core/firstView";
import { holdFlora } from "../../offline/flora";
import { orKept } from "../../offline/queries";
import { holdShelf } from "../../offline/shelf";
import { keptAnswers } from "../../offline/store";

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
  /** A place where it is recorded. */
  place: string;
  /** A grid cell where it is recorded. */
  cell: string;
  from: number;
}

/** The answer of the server; out of reach the same of the flora on this device. */
async function orCore<T>(served: () => Promise<T>, own: () => Promise<T>): Promise<T> {
  try {
    return await served();
  } catch (error) {
    if (!(error instanceof AwayError)) throw error;
    hurry();
    // A flora that was never here can't be told of: that it is out of reach is the reason.
    return own().catch(() => {
      throw error;
    });
  }
}

// Names of plants at a place, as far as they were taken along.
async function namesAt(place: string): Promise<string[] | null> {
  if (!place) return null;
  const plants = await keptAnswers<Schemas["PlantDetail"]>("plant:");
  const here = plants.filter((it) => it.place.id === place);
  // Of a place that was never taken along nothing is known.
  if (here.length === 0) throw new AwayError();
  return here.flatMap((it) => it.determinations[0]?.names ?? []);
}

async function foundHere(floraId: string, wanted: Wanted): Promise<Schemas["TaxonList"]> {
  await holdFlora(floraId);
  const { find, family, growthForm, day, cell, from } = wanted;
  const origin = (wanted.origin || null) as Schemas["Origin"] | null;
  return core.findTaxa({
    floraId,
    find,
    family,
    growthForm,
    origin,
    day,
    cell,
    names: await namesAt(wanted.place),
    from,
  });
}

async function pageHere(floraId: string, taxon: string, day: string): Promise<Schemas["TaxonPage"]> {
  // Where it stands in keys is told as far as they are here.
  await Promise.all([holdFlora(floraId), holdShelf([]).catch(() => undefined)]);
  return core.taxonPage({ floraId, taxon, day });
}

export const useTaxa = (flora: string | undefined, wanted: Wanted) =>
  useQuery({
    enabled: flora !== undefined,
    queryKey: ["taxa", flora, wanted],
    placeholderData: keepPreviousData,
    queryFn: () =>
      orCore(
        () =>
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
                  cell: wanted.cell || undefined,
                  from: wanted.from,
                },
              },
              signal,
            }),
          ),
        () => foundHere(flora ?? "", wanted),
      ),
  });

export const useTaxon = (flora: string, taxon: string, day: string) =>
  useQuery({
    queryKey: ["taxon", flora, taxon, day],
    queryFn: () =>
      orCore(
        () =>
          answerOf((signal) =>
            api.GET("/api/v1/floras/{id}/taxa/{taxon}", {
              params: { path: { id: flora, taxon }, query: { day } },
              signal,
            }),
          ),
        () => pageHere(flora, taxon, day),
      ),
  });

export const charactersServed = (flora: string | undefined) =>
  queryOptions({
    queryKey: ["characters", flora],
    staleTime: 60_000,
    queryFn: () =>
      orKept<Schemas["Character"][]>(`characters:${flora}`, () =>
        answerOf((signal) =>
          api.GET("/api/v1/floras/{id}/characters", { params: { path: { id: flora ?? "" } }, signal }),
        ),
      ),
  });

export const useCharacters = (flora: string | undefined) =>
  useQuery({ ...charactersServed(flora), enabled: flora !== undefined });

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
  /** Whether all floras are known and this one isn’t among them. */
  isMissing: boolean;
} {
  const floras = useFloras();
  const all = floras.data ?? [];
  const flora = id ? all.find((f) => f.id === id) : all.find((f) => f.isDefault);
  return {
    floras: all,
    flora,
    isMissing: floras.data !== undefined && !flora,
    failed: floras.isError && !floras.data,
    loaded: floras.data !== undefined,
  };
}
