import type { Schemas } from "../../api/client";
import { useCoreFlora } from "../../offline/flora";
import { hasComposed, useVocabulary, useWithComposed } from "../../offline/vocabulary";
import { useCharacters, useFlora } from "./queries";

/** The flora of a plant in hand, its characters, and the core holding it, with what it needs for the looks on the sheet. */
export function useBenchFlora(floraId: string | undefined, looks?: Schemas["Observation"][]) {
  const isWanted = hasComposed(looks);
  const vocabulary = useVocabulary(isWanted);
  const { flora, floras, failed } = useFlora(floraId);
  const held = useCoreFlora(flora?.id);
  const characters = useCharacters(flora?.id);
  const all = useWithComposed(characters.data ?? NONE, looks);
  return {
    flora,
    floras: floras.filter((f) => f.version > 0),
    version:
      held.data && vocabulary.isSettled
        ? `${held.data} ${isWanted ? (vocabulary.data?.tag ?? "") : ""}`.trim()
        : undefined,
    characters: all,
    failure:
      failed || (held.isError && !held.data)
        ? "The flora can’t be fetched just now. What you have seen is kept on this device; the list appears when the server answers."
        : undefined,
  };
}

const NONE: Schemas["Character"][] = [];
