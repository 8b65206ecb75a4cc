import { queryOptions } from "@tanstack/react-query";
import { answerOf, api, AwayError, type Schemas } from "../api/client";
import { core } from "../core/coreClient";
import { holdKeptFlora, keepFlora } from "./flora";
import { oneByOne } from "./oneByOne";
import { keptOnce, LOOKED_AGAIN_MS, queryClient } from "./queries";
import { answersChanged, keptAnswer } from "./store";
import { holdVocabulary } from "./vocabulary";

type Findable = Schemas["Findable"];

// What is looked through, read once and not at each letter.
const searchedHere = (changes: number) =>
  queryOptions({
    queryKey: ["searched-here", changes],
    staleTime: LOOKED_AGAIN_MS,
    queryFn: async () => {
      const [places, keys, plants, floras] = await Promise.all([
        keptAnswer<Schemas["Place"][]>("places").then((it) => it?.value),
        keptAnswer<Schemas["KeySummary"][]>("keys").then((it) => it?.value),
        keptOnce<{ items: Schemas["TaggedPlant"][] }>("plants:"),
        keptAnswer<Schemas["FloraSummary"][]>("floras").then((it) => it?.value),
        // The terms of the glossary are known where the vocabulary was taken along.
        holdVocabulary().catch(() => undefined),
      ]);
      const floraId = floras?.find((it) => it.isDefault)?.id ?? null;
      const flora = floraId ? await keepFlora(floraId).catch(() => undefined) : undefined;
      const tagged = new Map(plants.flatMap((page) => page.items).map((it) => [it.id, it]));
      return {
        flora,
        asked: {
          floraId,
          places: places ?? [],
          keys: (keys ?? []).map(({ hash, title }) => ({ hash, title })),
          plants: [...tagged.values()],
        },
      };
    },
  });

const inTurn = oneByOne();

/** What is found of a text: by the server, and without it among what is kept on this device, by the same rule. */
export async function found(text: string, wanted: AbortSignal): Promise<Findable[]> {
  try {
    return await answerOf((signal) => api.GET("/api/v1/search", { params: { query: { text } }, signal }));
  } catch (error) {
    if (!(error instanceof AwayError)) throw error;
  }
  return inTurn(wanted, async () => {
    const { flora, asked } = await queryClient.fetchQuery(searchedHere(answersChanged()));
    if (asked.floraId && flora) await holdKeptFlora(asked.floraId, flora);
    return core.search({ text, ...asked });
  });
}
