import { useEffect, useMemo } from "react";
import { api, ask, ProblemError, type Schemas } from "../api/client";
import words from "../api/words";
import { core, coreStarted } from "../core/coreClient";
import { hurry } from "../core/firstView";
import { useAsked } from "./flora";

type Calls = Schemas["CoreCalls"];

// From this status on the server says that it failed, not that the question is wrong (RFC 9110, 15.6).
const SERVER_FAILS = 500;

/** Calls that the server answers as well as the core on this device. */
export type Served = keyof Calls & keyof typeof words.addresses;

// Those who wait until the core holds something. A page may be left before it does: what was asked there is answered once another page has
// the core hold the same.
const waiting = new Map<string, (() => void)[]>();

/** The core on this device, as far as it holds what some calls are answered from. */
export class Host {
  /** Whether it answers as quickly as it ever will: it holds all, and has answered once. */
  isReady = false;
  /** The newest question that the server was asked in its place. */
  instead?: () => Promise<unknown>;
  private holdsAll = false;

  /**
   * @param of What it is to hold: another thing is another host.
   * @param isAlone Whether it alone can answer: the server doesn't know what is asked about yet.
   */
  constructor(
    readonly of: string,
    readonly isAlone = false,
  ) {}

  /** Waits until it holds all, or another one of the same does. */
  held(): Promise<void> {
    if (this.holdsAll) return Promise.resolve();
    return new Promise((resolve) => waiting.set(this.of, [...(waiting.get(this.of) ?? []), resolve]));
  }

  /** It holds all now. The first call of a core takes longest: it is made while the server still answers. */
  hold(): void {
    this.holdsAll = true;
    const own = waiting.get(this.of) ?? [];
    waiting.delete(this.of);
    for (const goOn of own) goOn();
    const ready = () => (this.isReady = true);
    (this.instead?.() ?? Promise.resolve()).then(ready, ready);
  }
}

/** Of calls that are answered from the request alone: the core, once it has started. */
export const started = new Host("core");
void coreStarted.then(() => started.hold());

/** A host that holds all once something is true of it. */
export function useHost(isHeld: boolean, of: string, isAlone = false): Host {
  const host = useMemo(() => new Host(of, isAlone), [of, isAlone]);
  useEffect(() => {
    if (isHeld) host.hold();
  }, [host, isHeld]);
  return host;
}

/**
 * Asks the core on this device where it is ready. While it is still starting the server answers, where the same core runs; where there is no
 * server the core is waited for.
 */
export async function askEither<N extends Served>(
  name: N,
  request: Calls[N]["request"],
  host: Host,
): Promise<Calls[N]["answer"]> {
  if (host.isAlone) {
    hurry();
    await host.held();
  } else if (!host.isReady) {
    host.instead = () => core[name](request);
    const address = `/api/v1/${words.addresses[name]}` as "/api/v1/identify/sift";
    const there = await ask((signal) => api.POST(address, { body: request as never, signal }));
    if (there.kind === "answer") return there.value as Calls[N]["answer"];
    // What is wrong with the question the core would say as well; where the server itself fails the core is asked.
    if (there.kind === "problem" && there.problem.status < SERVER_FAILS) throw new ProblemError(there.problem);
    hurry();
    // It is about to ask the core itself.
    host.instead = undefined;
    await host.held();
  }
  return core[name](request);
}

/** The newest answer of either to a question that changes. */
export const useAskedEither = <N extends Served>(name: N, question: Calls[N]["request"] | undefined, host: Host) =>
  useAsked<Calls[N]["request"], Calls[N]["answer"]>(question, (it) => askEither(name, it, host));
