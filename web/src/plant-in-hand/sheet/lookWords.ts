import { useMemo } from "react";
import type { Schemas } from "../../api/client";
import { core } from "../../core/coreClient";
import { useAsked } from "../../offline/flora";

export type LookWords = Map<string, Schemas["LookInWords"]>;

/** The looks of a sheet that hold, in words. */
export function useLookWords(observations: Schemas["Observation"][], characters: Schemas["Character"][]): LookWords {
  const question = useMemo(
    () => ({
      observations,
      characters: characters.filter((c) => observations.some((o) => o.character === c.id)),
    }),
    [observations, characters],
  );
  const { answer } = useAsked(question, core.looks);
  return useMemo(() => new Map(answer?.map((it) => [it.id, it])), [answer]);
}
