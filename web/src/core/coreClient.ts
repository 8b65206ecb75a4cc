import { wrap, type Remote } from "comlink";
import type { Schemas } from "../api/client";
import { firstViewDone } from "./firstView";
import type { InWorker } from "./worker";

type Calls = Schemas["CoreCalls"];

/** A call of the core, from its request to its answer. */
export type CoreCall<N extends keyof Calls> = (request: Calls[N]["request"]) => Promise<Calls[N]["answer"]>;

let remote: Remote<InWorker> | undefined;

function inWorker(): Remote<InWorker> {
  remote ??= wrap<InWorker>(new Worker(new URL("./worker.ts", import.meta.url), { type: "module" }));
  return remote;
}

/** Starts loading the core once the first view has had its time, so that it is warm when it is needed. */
export const whenStarted = (): Promise<void> => firstViewDone.then(() => inWorker().ready());

/** Puts key versions and taxa in their binary form on the shelf that walks go through. */
export const fillShelf = (shelf: Uint8Array): Promise<void> => inWorker().fillShelf(shelf);

/** Takes the vocabulary of parts and qualities in its binary form. */
export const loadVocabulary = (vocabulary: Uint8Array): Promise<void> => inWorker().loadVocabulary(vocabulary);

/** Takes a flora in its binary form; answers with its id. */
export const loadFlora = (pack: Uint8Array): Promise<string> => inWorker().loadFlora(pack);

const made = new Map<string, (request: unknown) => Promise<unknown>>();

/** The core's calls, as the description of the API declares them. Each is one and the same function whenever it is asked for. */
export const core = new Proxy({} as { readonly [N in keyof Calls]: CoreCall<N> }, {
  get(_, name: string) {
    const known = made.get(name);
    if (known) return known;
    const call = (request: unknown) => inWorker().call(name, request);
    made.set(name, call);
    return call;
  },
});
