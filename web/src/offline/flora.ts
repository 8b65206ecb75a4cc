import { useQuery } from "@tanstack/react-query";
import { startTransition, useEffect, useRef, useState } from "react";
import { loadFlora } from "../core/coreClient";
import { holder, knowsCharacters, packed, type Packed } from "./packed";

const hold = holder((bytes) => loadFlora(bytes).then(knowsCharacters));

/** Keeps a flora on this device as the core takes it. */
export const keepFlora = (floraId: string): Promise<Packed> =>
  packed(`columns:${floraId}`, `/api/v1/floras/${encodeURIComponent(floraId)}/columns`);

/** Has the core hold a flora as it is kept on this device; answers with its version. What it holds already isn't given to it again. */
export const holdKeptFlora = (floraId: string, flora: Packed): Promise<string> => hold(floraId, flora);

/** Has the core hold a flora; answers with its version. */
export const holdFlora = async (floraId: string): Promise<string> => holdKeptFlora(floraId, await keepFlora(floraId));

/** The flora that the core is to hold: its version once it does. It is fetched once and kept on this device. */
export const useCoreFlora = (floraId: string | undefined, version: number | undefined) =>
  useQuery({
    enabled: floraId !== undefined,
    queryKey: ["core-flora", floraId, version],
    staleTime: 60_000,
    // What is in the worker is no longer certain once another flora was asked for.
    gcTime: 0,
    queryFn: () => holdFlora(floraId ?? ""),
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
