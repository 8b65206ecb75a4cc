import { useQuery } from "@tanstack/react-query";
import { startTransition, useEffect, useRef, useState } from "react";
import { AwayError, type Schemas } from "../api/client";
import { keep, kept } from "./store";
import { core, loadFlora } from "../core/coreClient";

interface KeptPack {
  tag: string;
  bytes: Uint8Array;
}

// What the worker holds: one flora at a time.
let loaded: { name: string; ready: Promise<unknown> } | undefined;

async function pack(floraId: string): Promise<KeptPack> {
  const name = `columns:${floraId}`;
  try {
    const response = await fetch(`/api/v1/floras/${encodeURIComponent(floraId)}/columns`);
    if (!response.ok) throw new AwayError();
    const tag = response.headers.get("ETag") ?? "";
    const before = await kept<KeptPack>(name);
    if (before && before.tag === tag) return before;
    const now = { tag, bytes: new Uint8Array(await response.arrayBuffer()) };
    await keep(name, now);
    return now;
  } catch (error) {
    const before = await kept<KeptPack>(name);
    if (before) return before;
    throw error;
  }
}

/** Has the core hold a flora; it is fetched once and kept on this device. */
async function hold(floraId: string): Promise<string> {
  const { tag, bytes } = await pack(floraId);
  const name = `${floraId} ${tag}`;
  if (loaded?.name !== name) loaded = { name, ready: loadFlora(bytes) };
  try {
    await loaded.ready;
  } catch (error) {
    loaded = undefined;
    throw error;
  }
  return name;
}

/** The flora that the core is to hold: its version once it does. */
export const useCoreFlora = (floraId: string | undefined) =>
  useQuery({
    enabled: floraId !== undefined,
    queryKey: ["core-flora", floraId],
    staleTime: 60_000,
    // What is in the worker is no longer certain once another flora was asked for.
    gcTime: 0,
    queryFn: () => hold(floraId ?? ""),
  });

/**
 * The core's newest answer to a question that changes. One question is under way at a time; of those asked meanwhile only the last one
 * goes on, so that the worker is never behind. The answer before stays until the next one is there; `of` says
 * what it answers.
 */
export function useAsked<Q, A>(question: Q | undefined, ask: (question: Q) => Promise<A>) {
  const [answered, setAnswered] = useState<{ answer?: A; of?: Q; failure?: string }>({});
  const waiting = useRef<Q>(undefined);
  const busy = useRef(false);
  const gone = useRef(false);
  const asking = useRef(ask);
  useEffect(() => {
    asking.current = ask;
  });
  useEffect(() => {
    gone.current = false;
    return () => {
      gone.current = true;
    };
  }, []);
  useEffect(() => {
    if (question === undefined) return;
    waiting.current = question;
    const next = () => {
      const now = waiting.current;
      if (now === undefined || busy.current || gone.current) return;
      waiting.current = undefined;
      busy.current = true;
      asking
        .current(now)
        .then(
          (answer) => {
            // One that has been overtaken is dropped; drawing what it says gives way to the next tap.
            if (!gone.current && waiting.current === undefined) startTransition(() => setAnswered({ answer, of: now }));
          },
          (error: unknown) => {
            if (!gone.current && waiting.current === undefined)
              setAnswered((before) => ({ ...before, failure: error instanceof Error ? error.message : String(error) }));
          },
        )
        .finally(() => {
          busy.current = false;
          next();
        });
    };
    next();
  }, [question]);
  return answered;
}

/** Taxa with what they are like, from the flora that the core holds. */
export function useDescribed(floraId: string | undefined, version: string | undefined, taxa: string[]) {
  const wanted = [...new Set(taxa)].sort();
  const { data } = useQuery({
    enabled: floraId !== undefined && version !== undefined && wanted.length > 0,
    queryKey: ["described", version, wanted.join()],
    staleTime: Infinity,
    placeholderData: (before: Map<string, Schemas["DescribedTaxon"]> | undefined) => before,
    queryFn: async () =>
      new Map((await core.describe({ floraId: floraId ?? "", taxa: wanted })).map((it) => [it.taxon.id, it])),
  });
  return data ?? NOTHING;
}

const NOTHING = new Map<string, Schemas["DescribedTaxon"]>();

/** All taxa of the flora that the core holds and a plant can be named as, by name. */
export function useAllTaxa(floraId: string | undefined, version: string | undefined) {
  const { data } = useQuery({
    enabled: floraId !== undefined && version !== undefined,
    queryKey: ["all-taxa", version],
    staleTime: Infinity,
    placeholderData: (before: Schemas["Taxon"][] | undefined) => before,
    queryFn: async () => (await core.describe({ floraId: floraId ?? "", taxa: null })).map((it) => it.taxon),
  });
  return data ?? NONE;
}

const NONE: Schemas["Taxon"][] = [];
