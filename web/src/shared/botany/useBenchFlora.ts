import type { Schemas } from "../../api/client";
import { useCoreFlora } from "../../offline/flora";
import { useHost } from "../../offline/hosts";
import { hasComposed, useHeldVocabulary, useWithComposed } from "../../offline/vocabulary";
import { useCharacters, useFlora } from "./queries";

/** The flora of a plant in hand, its characters, and who answers questions about it: the core on this device once it holds it. */
export function useBenchFlora(floraId: string | undefined, looks?: Schemas["Observation"][], isAsked = true) {
  const isWanted = hasComposed(looks);
  const vocabulary = useHeldVocabulary(isWanted);
  const { flora, floras, failed, isMissing } = useFlora(floraId);
  const held = useCoreFlora(isAsked ? flora?.id : undefined, flora?.version);
  const host = useHost(held.data !== undefined && vocabulary.isSettled, `flora ${flora?.id} ${flora?.version}`);
  const characters = useCharacters(isAsked ? flora?.id : undefined);
  const all = useWithComposed(characters.data ?? NONE, looks);
  const version = flora && `${flora.id} ${flora.version} ${isWanted ? (vocabulary.version ?? "") : ""}`.trim();
  return {
    flora,
    floras: floras.filter((f) => f.version > 0),
    host,
    asked: { floraId: flora?.id, version, host },
    version,
    characters: all,
    isMissing,
    failure:
      failed || (held.isError && !held.data)
        ? "The flora can’t be fetched just now. What you have seen is kept on this device; the list appears when the server answers."
        : undefined,
  };
}

const NONE: Schemas["Character"][] = [];
