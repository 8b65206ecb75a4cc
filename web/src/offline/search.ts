import { answerOf, api, AwayError, type Schemas } from "../api/client";
import { core } from "../core/coreClient";
import { holdKeptFlora } from "./flora";
import { oneByOne } from "./oneByOne";
import { holdSearched, searchedFlora } from "./searched";

const inTurn = oneByOne();

/** What is found of a text: by the server, and without it among what is kept on this device, by the same rule. */
export async function found(text: string, wanted: AbortSignal): Promise<Schemas["Findable"][]> {
  try {
    return await answerOf((signal) => api.GET("/api/v1/search", { params: { query: { text } }, signal }));
  } catch (error) {
    if (!(error instanceof AwayError)) throw error;
  }
  return inTurn(wanted, async () => {
    const [of] = await Promise.all([searchedFlora(), holdSearched()]);
    if (of) await holdKeptFlora(of.id, of.flora);
    return core.search({ text, floraId: of?.id ?? null });
  });
}
