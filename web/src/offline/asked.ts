import { replaceEqualDeep } from "@tanstack/react-query";

// When an answer was asked of the server belongs to the answer itself: requests that overlap, and those that are given up and come all the
// same, each have a time of their own.
const times = new WeakMap<object, number>();

/** Notes when an answer was asked of the server. */
export function askedAt<T>(answer: T, at: number): T {
  if (typeof answer === "object" && answer !== null) times.set(answer, at);
  return answer;
}

/** When an answer was asked of the server; 0 where there is none, or it isn’t the server’s. */
export const asOf = (answer: object | undefined): number => (answer && times.get(answer)) ?? 0;

/** What of an answer is as it was stays the same object, as everywhere; and the answer knows when it was asked. */
export function sharedWithTime(old: unknown, now: unknown): unknown {
  const shared: unknown = replaceEqualDeep(old, now);
  return typeof now === "object" && now !== null && times.has(now) ? askedAt(shared, times.get(now) ?? 0) : shared;
}
