// A browser has six connections to a server: some are left for what a page asks meanwhile.
const AT_ONCE = 4;

/** Does work for each, a few at a time. Where one fails nothing more is begun, and that failure is the outcome. */
export async function sideBySide<T>(all: readonly T[], work: (it: T) => Promise<void>): Promise<void> {
  const left = [...all];
  const worker = async () => {
    for (let it = left.shift(); it !== undefined; it = left.shift()) await work(it);
  };
  try {
    await Promise.all(Array.from({ length: AT_ONCE }, worker));
  } finally {
    left.length = 0;
  }
}
