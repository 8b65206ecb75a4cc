import { wrap, type Remote } from "comlink";
import type { Schemas } from "../api/client";
import { firstViewDone } from "./firstView";
import type { InWorker } from "./worker";

type Calls = Schemas["CoreCalls"];

/** A call of the core, from its request to its answer. */
export type CoreCall<N extends keyof Calls> = (request: Calls[N]["request"]) => Promise<Calls[N]["answer"]>;

// Between tries to start it: what it is made of can be lost on its way like anything that is fetched.
const TRIED_AGAIN_MS = [300, 1_000, 3_000];
let running: Promise<Remote<InWorker>> | undefined;

async function begin(): Promise<Remote<InWorker>> {
  const worker = new Worker(new URL("./worker.ts", import.meta.url), { type: "module" });
  const remote = wrap<InWorker>(worker);
  try {
    await new Promise<void>((resolve, reject) => {
      worker.addEventListener("error", (event) => reject(new Error(event.message || "The core couldn’t be loaded.")));
      remote.ready().then(resolve, reject);
    });
    return remote;
  } catch (failure) {
    worker.terminate();
    throw failure;
  }
}

async function beginAtLast(): Promise<Remote<InWorker>> {
  for (const wait of TRIED_AGAIN_MS)
    try {
      return await begin();
    } catch {
      await new Promise((resolve) => setTimeout(resolve, wait));
    }
  return begin();
}

// Nothing was put into one that never started: the next who needs it starts another one.
function inWorker(): Promise<Remote<InWorker>> {
  running ??= beginAtLast().then(
    (remote) => {
      hasStarted();
      return remote;
    },
    (failure: unknown) => {
      running = undefined;
      throw failure;
    },
  );
  return running;
}

let hasStarted: () => void = () => undefined;

/** When the core has started, however many times it took. */
export const coreStarted = new Promise<void>((resolve) => (hasStarted = resolve));

/** Starts loading the core once the first view has had its time, so that it is warm when it is needed. */
export const whenStarted = (): Promise<void> => firstViewDone.then(inWorker).then(() => undefined);

/** Puts key versions and taxa in their binary form on the shelf that walks go through. */
export const fillShelf = (shelf: Uint8Array): Promise<void> => inWorker().then((it) => it.fillShelf(shelf));

/** Takes the vocabulary of parts and qualities in its binary form. */
export const loadVocabulary = (vocabulary: Uint8Array): Promise<void> =>
  inWorker().then((it) => it.loadVocabulary(vocabulary));

/** Takes a flora in its binary form; answers with its id. */
export const loadFlora = (pack: Uint8Array): Promise<string> => inWorker().then((it) => it.loadFlora(pack));

const made = new Map<string, (request: unknown) => Promise<unknown>>();

/** The core's calls, as the description of the API declares them. Each is one and the same function whenever it is asked for. */
export const core = new Proxy({} as { readonly [N in keyof Calls]: CoreCall<N> }, {
  get(_, name: string) {
    const known = made.get(name);
    if (known) return known;
    const call = async (request: unknown) => (await inWorker()).call(name, request);
    made.set(name, call);
    return call;
  },
});
