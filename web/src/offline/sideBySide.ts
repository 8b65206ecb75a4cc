// A browser has six connections to a server: some are left for what a page asks meanwhile.
const AT_ONCE = 4;

/**
 * Does work for each, a few at a time; what is put behind the last one meanwhile is done too. Where one fails nothing more is begun, and
 * that failure is the outcome.
 */
export async function sideBySide<T>(
  all: readonly T[],
  work: (it: T) => Promise<void>,
  atOnce = AT_ONCE,
): Promise<void> {
  let next = 0;
  let hasFailed = false;
  const worker = async () => {
    while (next < all.length && !hasFailed) await work(all[next++] as T);
  };
  try {
    await Promise.all(Array.from({ length: atOnce }, worker));
  } catch (error) {
    hasFailed = true;
    throw error;
  }
}
