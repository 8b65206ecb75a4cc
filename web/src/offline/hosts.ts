import { useEffect, useMemo } from "react";
import { api, ask, ProblemError, type Schemas } from "../api/client";
import words from "../api/words";
import { core, whenStarted } from "../core/coreClient";
import { useAsked } from "./flora";

type Calls = Schemas["CoreCalls"];

/** Calls that the server answers as well as the core on this device. */
export type Served = keyof Calls & keyof typeof words.addresses;

/** Whether the core on this device holds yet what calls are answered from. */
export class Host {
  isHeld = false;
  readonly held: Promise<void>;
  private open: () => void = () => undefined;

  constructor() {
    this.held = new Promise((resolve) => (this.open = resolve));
  }

  hold(): void {
    this.isHeld = true;
    this.open();
  }
}

/** Of calls that are answered from the request alone: the core, once it has started. */
export const started = new Host();
void whenStarted().then(
  () => started.hold(),
  () => undefined,
);

/** A host that is held once something is true of it. */
export function useHost(isHeld: boolean, of: string): Host {
  // eslint-disable-next-line react-hooks/exhaustive-deps -- another thing to hold is another host
  const host = useMemo(() => new Host(), [of]);
  useEffect(() => {
    if (isHeld) host.hold();
  }, [host, isHeld]);
  return host;
}

/**
 * Asks the core on this device where it holds what is wanted. While it is still starting the server answers, where the same core runs; where
 * there is no server the core is waited for.
 */
export async function askEither<N extends Served>(
  name: N,
  request: Calls[N]["request"],
  host: Host,
): Promise<Calls[N]["answer"]> {
  if (!host.isHeld) {
    const address = `/api/v1/${words.addresses[name]}` as "/api/v1/identify/sift";
    const there = await ask((signal) => api.POST(address, { body: request as never, signal }));
    if (there.kind === "answer") return there.value as Calls[N]["answer"];
    if (there.kind === "problem") throw new ProblemError(there.problem);
    await host.held;
  }
  return core[name](request);
}

/** The newest answer of either to a question that changes. */
export function useAskedEither<N extends Served>(name: N, question: Calls[N]["request"] | undefined, host: Host) {
  const asked = useAsked<Calls[N]["request"], Calls[N]["answer"]>(question, (it) => askEither(name, it, host));
  const isAnswered = asked.answer !== undefined;
  // The first call of a core takes longest: it is made while nobody waits for it.
  useEffect(() => {
    if (!isAnswered || host.isHeld || question === undefined) return;
    let current = true;
    void host.held.then(() => (current ? core[name](question) : undefined)).catch(() => undefined);
    return () => {
      current = false;
    };
  }, [name, question, host, isAnswered]);
  return asked;
}
