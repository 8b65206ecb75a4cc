import { queryOptions, useQuery } from "@tanstack/react-query";
import { answerOf, api, AwayError, type Schemas } from "../api/client";
import { fillShelf } from "../core/coreClient";
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

/** Has the core hold the keys within reach of some versions, of all without any. */
export const holdShelf = (versions: string[]): Promise<string> =>
  orAll(sorted(versions), async (of) => hold(of.join(), await keepShelf(of)));

/** The same for a page: its version once the core holds it. */
export const useHeldShelf = (versions: string[] | undefined) =>
  useQuery({
    enabled: versions !== undefined,
    queryKey: ["shelf", "held", ...sorted(versions ?? [])],
    staleTime: 60_000,
    // What is in the worker is no longer certain once another shelf was asked for.
    gcTime: 0,
    queryFn: () => holdShelf(versions ?? []),
  });
