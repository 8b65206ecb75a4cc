/**
 * Does one piece of work at a time, in the order in which they came; what is no longer wanted when its turn comes isn't begun. So of the
 * letters of a word only the first and the newest are worked at.
 */
export function oneByOne() {
  let last: Promise<unknown> = Promise.resolve();
  return <T>(signal: AbortSignal, work: () => Promise<T>): Promise<T> => {
    const own = last.then(() => {
      signal.throwIfAborted();
      return work();
    });
    last = own.catch(() => undefined);
    return own;
  };
}
