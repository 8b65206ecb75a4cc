import { useQuery, useQueryClient, type QueryClient } from "@tanstack/react-query";
import { api, ask, type Schemas } from "../api/client";
import { core, fillShelf } from "../core/coreClient";
import { shelfOf } from "./queries";
import { holdVocabulary } from "./vocabulary";

async function hold(client: QueryClient, hash: string): Promise<true> {
  const [shelf] = await Promise.all([client.fetchQuery(shelfOf([hash])), holdVocabulary()]);
  await fillShelf(shelf);
  return true;
}

async function read(client: QueryClient, hash: string, first: number): Promise<Schemas["ReadKey"]> {
  const there = await ask((signal) => api.POST("/api/v1/keys/reading", { body: { hash, first }, signal }));
  if (there.kind === "answer") return there.value;
  await hold(client, hash);
  return core.keyReading({ hash, first });
}

/**
 * A key as its statements are read, the first couplets alone or all: by the server, which takes a hundredth of the time, and by the same
 * core on this device where there is no signal.
 */
export function useKeyReadings(hash: string, first: number, enabled = true) {
  const client = useQueryClient();
  return useQuery({
    enabled,
    // What is taught or set makes the shelf another one, and the reading with it.
    queryKey: ["shelf", "reading", hash, first],
    staleTime: Infinity,
    placeholderData: (before: Schemas["ReadKey"] | undefined) => before,
    queryFn: () => read(client, hash, first),
  });
}

/** Whether the core on this device holds a key with the vocabulary, for what is asked about it while somebody types. */
export function useHeldForReading(hash: string, wanted: boolean): boolean {
  const client = useQueryClient();
  return (
    useQuery({
      enabled: wanted,
      queryKey: ["shelf", "held", hash],
      staleTime: Infinity,
      queryFn: () => hold(client, hash),
    }).data ?? false
  );
}
