import createClient from "openapi-fetch";
import { deviceId } from "./device";
import type { components, paths } from "./schema";

export type Schemas = components["schemas"];
export type Problem = Schemas["ProblemReport"];

/** What a request ended in: an answer, a problem that the server states, or no database, or no server at all, within reach. */
export type Outcome<T> =
  | { kind: "answer"; value: T }
  | { kind: "problem"; problem: Problem }
  | { kind: "away"; isServerThere: boolean; isUnpaired?: boolean };

// Longer than this and the server, or the database behind it, is taken to be away.
const PATIENCE_MS = 20_000;

// What a server says to a device that was never paired with it, or was taken out.
const UNPAIRED = "device.unpaired";

export const api = createClient<paths>({ baseUrl: "/" });
api.use({
  onRequest({ request }) {
    request.headers.set("Garten-Device", deviceId());
    return request;
  },
});

/** Carries out a request and sorts its end into the three kinds. */
export async function ask<T>(
  request: (signal: AbortSignal) => Promise<{ data?: T; error?: unknown; response: Response }>,
): Promise<Outcome<T>> {
  try {
    const { data, error, response } = await request(AbortSignal.timeout(PATIENCE_MS));
    if (response.ok && data !== undefined) return { kind: "answer", value: data };
    if (response.status === 503 || response.status === 502 || response.status === 504) {
      tellLost();
      return { kind: "away", isServerThere: response.status === 503 };
    }
    // The server says what is wrong in its own form; anything else that answers in its place isn't the server.
    const problem = asProblem(error);
    // Nothing is wrong with what was asked: it waits until the device is let in.
    if (problem?.code === UNPAIRED) return { kind: "away", isServerThere: true, isUnpaired: true };
    return problem ? { kind: "problem", problem } : { kind: "away", isServerThere: false };
  } catch {
    // It wasn't reached, or let itself be waited for too long.
    tellLost();
    return { kind: "away", isServerThere: false };
  }
}

const lostListeners = new Set<() => void>();

function tellLost(): void {
  for (const listener of lostListeners) listener();
}

/** Calls back whenever a request was lost on its way, or the server or its database was away just then. */
export function onLost(listener: () => void): () => void {
  lostListeners.add(listener);
  return () => lostListeners.delete(listener);
}

export class AwayError extends Error {
  constructor() {
    super("The server doesn’t answer.");
  }
}

export class ProblemError extends Error {
  constructor(readonly problem: Problem) {
    super(problem.detail);
  }
}

/** The answer of a request; throws AwayError or ProblemError otherwise. */
export async function answerOf<T>(
  request: (signal: AbortSignal) => Promise<{ data?: T; error?: unknown; response: Response }>,
): Promise<T> {
  const outcome = await ask(request);
  if (outcome.kind === "answer") return outcome.value;
  throw outcome.kind === "away" ? new AwayError() : new ProblemError(outcome.problem);
}

/** One page of a list, and where the next one begins; undefined on the last. */
export interface Paged<T> {
  items: T[];
  next?: string;
  /** When it was asked for; left out of pages that were kept by earlier versions. */
  asOf?: number;
}

/** A page of a list; the header “Link” (RFC 8288) says where the next one is. */
export async function pageOf<T>(
  request: (signal: AbortSignal) => Promise<{ data?: T[]; error?: unknown; response: Response }>,
): Promise<Paged<T>> {
  let link = "";
  const asOf = Date.now();
  const items = await answerOf(async (signal) => {
    const answer = await request(signal);
    link = answer.response.headers.get("Link") ?? "";
    return answer;
  });
  const next = /<([^>]+)>;\s*rel="next"/.exec(link)?.[1];
  return {
    items,
    next: next ? (new URL(next, location.href).searchParams.get("after") ?? undefined) : undefined,
    asOf,
  };
}

const asProblem = (error: unknown): Problem | undefined =>
  typeof error === "object" && error !== null && "code" in error && "detail" in error ? (error as Problem) : undefined;
