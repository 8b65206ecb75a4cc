import { queryOptions } from "@tanstack/react-query";
import { useEffect } from "react";
import type { Paged, Schemas } from "../api/client";
import { core } from "../core/coreClient";
import { keepFlora } from "./flora";
import { asOfPages, queryClient } from "./queries";
import { answersChanged, keptAnswer, keptAnswers } from "./store";
import { holdVocabulary } from "./vocabulary";

type TaggedPlant = Schemas["TaggedPlant"];

// In another tab something may be kept meanwhile. Longer than elsewhere: all plants are read and given to the core for it.
const ANEW_MS = 120_000;

/** What is looked through on this device where no server does it. */
export interface Searched {
  /** Plants by their ids. */
  plants: Map<string, TaggedPlant>;
  /** When the earliest of their pages was asked of the server. */
  asOf: number;
}

const searched = (changes: number) =>
  queryOptions({
    queryKey: ["searched", changes],
    staleTime: ANEW_MS,
    queryFn: async (): Promise<Searched> => {
      const [places, keys, pages] = await Promise.all([
        keptAnswer<Schemas["Place"][]>("places").then((it) => it?.value),
        keptAnswer<Schemas["KeySummary"][]>("keys").then((it) => it?.value),
        keptAnswers<Paged<TaggedPlant>>("plants:"),
      ]);
      const plants = new Map(pages.flatMap((page) => page.items).map((it) => [it.id, it]));
      await core.searchThrough({
        places: places ?? [],
        keys: (keys ?? []).map(({ hash, title }) => ({ hash, title })),
        plants: [...plants.values()],
      });
      return { plants, asOf: asOfPages(pages) };
    },
  });

/** Has the core hold what is searched on this device: read and given to it once, and not at each letter. */
export const holdSearched = (): Promise<Searched> => queryClient.fetchQuery(searched(answersChanged()));

/** Has it ready before the first letter is typed. */
export function useSearchedAhead(isWanted: boolean): void {
  useEffect(() => {
    if (isWanted) holdSearched().catch(() => undefined);
  }, [isWanted]);
}

/** The list whose taxa are searched besides; nothing where none is kept on this device. */
export const searchedFlora = () =>
  queryClient.fetchQuery({
    queryKey: ["searched-flora", answersChanged()],
    staleTime: ANEW_MS,
    queryFn: async () => {
      // The terms of the glossary are known where the vocabulary was taken along.
      await holdVocabulary().catch(() => undefined);
      const floras = (await keptAnswer<Schemas["FloraSummary"][]>("floras"))?.value;
      const id = floras?.find((it) => it.isDefault)?.id;
      const flora = id ? await keepFlora(id).catch(() => undefined) : undefined;
      return id && flora ? { id, flora } : null;
    },
  });
