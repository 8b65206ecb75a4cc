import { useQuery } from "@tanstack/react-query";
import { useMemo } from "react";
import { AwayError, type Schemas } from "../api/client";
import { core, loadVocabulary } from "../core/coreClient";
import { keep, kept } from "./store";

interface KeptVocabulary {
  tag: string;
  text: string;
}

// What the worker holds.
let loaded: { tag: string; ready: Promise<unknown> } | undefined;

const NAME = "vocabulary";

async function newest(): Promise<KeptVocabulary> {
  const before = await kept<KeptVocabulary>(NAME);
  try {
    const response = await fetch("/api/v1/vocabulary");
    if (!response.ok) throw new AwayError();
    const tag = response.headers.get("ETag") ?? "";
    if (before?.tag === tag) return before;
    const now = { tag, text: await response.text() };
    await keep(NAME, now);
    return now;
  } catch (error) {
    if (before) return before;
    throw error;
  }
}

/** Has the core hold the parts and qualities; they are fetched once and kept on this device. Answers with their version. */
export async function holdVocabulary(): Promise<KeptVocabulary> {
  const vocabulary = await newest();
  if (loaded?.tag !== vocabulary.tag) loaded = { tag: vocabulary.tag, ready: loadVocabulary(vocabulary.text) };
  try {
    await loaded.ready;
  } catch (error) {
    loaded = undefined;
    throw error;
  }
  return vocabulary;
}

/** Whether a character is made of a part and a quality. */
export const isComposed = (character: string) => character.includes(".");

/** Whether a sheet holds looks at characters that are made of part and quality. */
export const hasComposed = (looks: Schemas["Observation"][] | undefined) =>
  looks?.some((look) => isComposed(look.character)) ?? false;

/** Parts and qualities, in the core and at hand, once they are wanted. */
export function useVocabulary(wanted = true) {
  const held = useQuery({
    enabled: wanted,
    queryKey: [NAME],
    staleTime: 60_000,
    queryFn: async () => {
      const { tag, text } = await holdVocabulary();
      return { tag, vocabulary: JSON.parse(text) as Schemas["Vocabulary"] };
    },
  });
  // Where it can't be had the rest works without it.
  return { ...held, isSettled: !wanted || held.isFetched };
}

/** Characters made of part and quality, by their ids. */
export function useComposed(ids: string[]) {
  const wanted = [...new Set(ids.filter(isComposed))].sort();
  const vocabulary = useVocabulary(wanted.length > 0);
  const { data } = useQuery({
    enabled: wanted.length > 0 && vocabulary.data !== undefined,
    queryKey: ["composed", vocabulary.data?.tag, wanted.join()],
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
