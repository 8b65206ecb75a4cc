/** Does something while no other tab does anything under the same name. */
export async function inTurn<T>(name: string, work: () => Promise<T>): Promise<T> {
  return "locks" in navigator ? ((await navigator.locks.request(name, work)) as T) : work();
}
