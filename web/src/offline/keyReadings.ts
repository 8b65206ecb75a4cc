import { useQuery } from "@tanstack/react-query";
import { api, ask, type Schemas } from "../api/client";
import { core } from "../core/coreClient";
import { useWaitingKeys } from "./documents";
import { holdShelf } from "./shelf";
import { holdVocabulary } from "./vocabulary";

async function hold(hash: string): Promise<true> {
  await Promise.all([holdShelf([hash]), holdVocabulary()]);
  return true;
}

async function read(hash: string, first: number, isAlone: boolean): Promise<Schemas["ReadKey"]> {
  if (isAlone) {
    await hold(hash);
    return core.keyReading({ hash, first });
  }
  const there = await ask((signal) => api.POST("/api/v1/keys/reading", { body: { hash, first }, signal }));
  if (there.kind === "answer") return there.value;
  await hold(hash);
  return core.keyReading({ hash, first });
}

/**
 * A key as its statements are read, the first couplets alone or all: by the server, which takes a hundredth of the time, and by the same
 * core on this device where there is no signal.
 */
export function useKeyReadings(hash: string, first: number, enabled = true) {
  const isAlone = useWaitingKeys().includes(hash);
  return useQuery({
    enabled,
    // What is taught or set makes the shelf another one, and the reading with it.
    queryKey: ["shelf", "reading", hash, first, isAlone],
    staleTime: Infinity,
    placeholderData: (before: Schemas["ReadKey"] | undefined) => before,
    queryFn: () => read(hash, first, isAlone),
  });
}

/** Whether the core on this device holds a key with the vocabulary, for what is asked about it while somebody types. */
export function useHeldForReading(hash: string, wanted: boolean): boolean {
  return (
    useQuery({
      enabled: wanted,
      queryKey: ["shelf", "held-for-reading", hash],
      staleTime: Infinity,
      queryFn: () => hold(hash),
    }).data ?? false
  );
}
