import { answerOf, api, AwayError, type Schemas } from "../api/client";
import { core } from "../core/coreClient";
import { holdFlora } from "./flora";
import { keptOnce } from "./queries";
import { keptAnswer } from "./store";
import { holdVocabulary } from "./vocabulary";

type Findable = Schemas["Findable"];

/** What is found of a text: by the server, and without it among what is kept on this device, by the same rule. */
export async function found(text: string): Promise<Findable[]> {
  try {
    return await answerOf((signal) => api.GET("/api/v1/search", { params: { query: { text } }, signal }));
  } catch (error) {
    if (!(error instanceof AwayError)) throw error;
  }
  const [places, keys, plants, floras] = await Promise.all([
    keptAnswer<Schemas["Place"][]>("places").then((it) => it?.value),
    keptAnswer<Schemas["KeySummary"][]>("keys").then((it) => it?.value),
    keptOnce<{ items: Schemas["TaggedPlant"][] }>("plants:"),
    keptAnswer<Schemas["FloraSummary"][]>("floras").then((it) => it?.value),
  ]);
  // The terms of the glossary are known where the vocabulary was taken along.
  await holdVocabulary().catch(() => undefined);
  const floraId = floras?.find((it) => it.isDefault)?.id ?? null;
  if (floraId) await holdFlora(floraId).catch(() => undefined);
  const tagged = new Map(plants.flatMap((page) => page.items).map((it) => [it.id, it]));
  return core.search({
    text,
    floraId,
    places: places ?? [],
    keys: (keys ?? []).map(({ hash, title }) => ({ hash, title })),
    plants: [...tagged.values()],
  });
}
