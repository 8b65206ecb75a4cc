import { queryOptions, useQuery } from "@tanstack/react-query";
import { answerOf, api, AwayError, type Schemas } from "../api/client";
import { core, fillShelf } from "../core/coreClient";
import { useWaitingKeys } from "./documents";
import { queued } from "./outbox";
import { holder, knowsCharacters, packed, type Packed } from "./packed";
import { orKept } from "./queries";

const hold = holder((bytes) => fillShelf(bytes).then(knowsCharacters));

const sorted = (versions: string[]) => [...new Set(versions)].sort();

/** What a page needs of the keys within reach of some versions, of all without any: the versions, the taxa and the characters. */
export const shelfInShort = (versions: string[]) => {
  const wanted = sorted(versions);
  const fetched = (of: string[]) =>
    orKept<Schemas["ShelfInShort"]>("shelf-in-short:" + of.join(), () =>
      answerOf((signal) => api.GET("/api/v1/keys/shelf/short", { params: { query: { with: of } }, signal })),
    );
  return queryOptions({
    queryKey: ["shelf", "short", ...wanted],
    staleTime: 60_000,
    queryFn: () => orAll(wanted, fetched),
  });
};

// Of a key that was never followed here the shelf of all keys has what is needed, where that was fetched.
const orAll = <T>(wanted: string[], fetched: (of: string[]) => Promise<T>): Promise<T> =>
  fetched(wanted).catch((error: unknown) => {
    if (error instanceof AwayError && wanted.length > 0) return fetched([]);
    throw error;
  });

export const useShelfInShort = (versions: string[] | undefined) =>
  useQuery({ ...shelfInShort(versions ?? []), enabled: versions !== undefined });

/** Keeps the keys within reach of some versions, of all without any, as the core takes them. */
export const keepShelf = (versions: string[]): Promise<Packed> =>
  packed(
    `shelf-packed:${versions.join()}`,
    `/api/v1/keys/shelf/packed?${versions.map((it) => `with=${encodeURIComponent(it)}`).join("&")}`,
  );

// What is known of the server's keys; a device that never fetched any follows those that it has itself.
async function holdServed(versions: string[]): Promise<string> {
  try {
    return await orAll(sorted(versions), async (of) => hold(of.join(), await keepShelf(of)));
  } catch (error) {
    if (error instanceof AwayError && (await waitingKeys()).length > 0) return "";
    throw error;
  }
}

const waitingKeys = async () => (await queued()).map((it) => it.command).filter((it) => it.kind === "saveKeys");

// The keys that the worker has of those that wait.
let shelved = "";

async function shelve(): Promise<string> {
  const commands = await waitingKeys();
  const ids = commands.map((it) => it.id).join();
  if (ids !== shelved) await core.shelve({ commands });
  shelved = ids;
  return ids;
}

/** Has the core hold the keys within reach of some versions, of all without any; with those that wait on this device to be sent. */
export async function holdShelf(versions: string[]): Promise<string> {
  const served = await holdServed(versions);
  return `${served} ${await shelve()}`;
}

/** The same for a page: its version once the core holds it. */
export function useHeldShelf(versions: string[] | undefined) {
  const waiting = useWaitingKeys();
  return useQuery({
    enabled: versions !== undefined,
    queryKey: ["shelf", "held", ...sorted(versions ?? []), ...waiting],
    staleTime: 60_000,
    // What is in the worker is no longer certain once another shelf was asked for.
    gcTime: 0,
    queryFn: () => holdShelf(versions ?? []),
  });
}
