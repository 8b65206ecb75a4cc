import { useQuery } from "@tanstack/react-query";
import { useMemo } from "react";
import { answerOf, api, type Schemas } from "../api/client";
import { core, loadVocabulary } from "../core/coreClient";
import { holder, packed } from "./packed";
import { orKept } from "./queries";

const NAME = "vocabulary";

const hold = holder(loadVocabulary);

const packedVocabulary = () => packed("vocabulary-packed", "/api/v1/vocabulary/packed");

const listed = () =>
  orKept<Schemas["Vocabulary"]>(NAME, () => answerOf((signal) => api.GET("/api/v1/vocabulary", { signal })));

/** Keeps the parts and qualities on this device: as the core takes them, and as they are read. */
export const keepVocabulary = () => Promise.all([packedVocabulary(), listed()]);

let held = "";

/** Hash of the parts and qualities that the core holds; empty before it does. Looks cite it. */
export const heldVocabulary = () => held;

/** Has the core hold the parts and qualities; they are fetched once and kept on this device. Answers with their version. */
export async function holdVocabulary(): Promise<string> {
  const packed = await packedVocabulary();
  const version = await hold("", packed);
  held = packed.tag.replaceAll('"', "").split("-")[0] ?? "";
  return version;
}

/** Whether the core holds parts and qualities, once they are wanted. Where they can't be had the rest works without them. */
export function useHeldVocabulary(wanted = true) {
  const held = useQuery({
    enabled: wanted,
    queryKey: [NAME, "held"],
    staleTime: 60_000,
    queryFn: holdVocabulary,
  });
  return { version: held.data, isSettled: !wanted || held.isFetched };
}

/** Whether a character is made of a part and a quality. */
export const isComposed = (character: string) => character.includes(".");

/** Whether a sheet holds looks at characters that are made of part and quality. */
export const hasComposed = (looks: Schemas["Observation"][] | undefined) =>
  looks?.some((look) => isComposed(look.character)) ?? false;

/** Parts and qualities, in the core and at hand. */
export const useVocabulary = () =>
  useQuery({
    queryKey: [NAME],
    staleTime: 60_000,
    queryFn: async () => {
      const [tag, vocabulary] = await Promise.all([holdVocabulary(), listed()]);
      return { tag, vocabulary };
    },
  });

/** Characters made of part and quality, by their ids. */
export function useComposed(ids: string[]) {
  const wanted = [...new Set(ids.filter(isComposed))].sort();
  const vocabulary = useHeldVocabulary(wanted.length > 0);
  const { data } = useQuery({
    enabled: wanted.length > 0 && vocabulary.version !== undefined,
    queryKey: ["composed", vocabulary.version, wanted.join()],
    staleTime: Infinity,
    placeholderData: (before: Schemas["Character"][] | undefined) => before,
    queryFn: () => core.composed({ ids: wanted }),
  });
  return data ?? NONE;
}

/** Characters of a flora with those that a sheet has looks at besides. */
export function useWithComposed(
  characters: Schemas["Character"][],
  looks: Schemas["Observation"][] | undefined,
): Schemas["Character"][] {
  const composed = useComposed((looks ?? []).map((look) => look.character));
  return useMemo(() => {
    const known = new Set(characters.map((it) => it.id));
    const others = composed.filter((it) => !known.has(it.id));
    return others.length > 0 ? [...characters, ...others] : characters;
  }, [characters, composed]);
}

const NONE: Schemas["Character"][] = [];
