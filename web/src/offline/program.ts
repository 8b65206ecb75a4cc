import type { Workbox } from "workbox-window";
import { isPinned } from "../api/today";

/** How the program is kept on this device. */
export interface Program {
  /** Whether it starts from this device, without the server. */
  isKept: boolean;
  /** Whether a newer version is here and waits to be asked for. */
  isNewer: boolean;
}

const watchers = new Set<() => void>();
let now: Program = { isKept: false, isNewer: false };
let worker: Workbox | undefined;

function set(part: Partial<Program>): void {
  now = { ...now, ...part };
  for (const watcher of watchers) watcher();
}

/** How the program is kept, as it changes. */
export const program = {
  subscribe: (watcher: () => void) => {
    watchers.add(watcher);
    return () => watchers.delete(watcher);
  },
  now: () => now,
};

/** Whether this page was started from this device. */
export const isStartedFromHere = Boolean(navigator.serviceWorker?.controller);

// A page that stays open for days asks now and then whether there is a newer version.
const ASK_AGAIN_MS = 3_600_000;

/** Keeps the program on this device, so that it starts without the server. A server whose day is pinned is for showing and testing alone. */
export async function keepProgram(): Promise<void> {
  if (worker || isPinned || !("serviceWorker" in navigator)) return;
  const { Workbox } = await import("workbox-window");
  worker ??= new Workbox("/serviceWorker.js");
  worker.addEventListener("waiting", () => set({ isNewer: true }));
  try {
    const registered = await worker.register();
    if (registered?.waiting) set({ isNewer: true });
    await navigator.serviceWorker.ready;
    set({ isKept: true });
    setInterval(() => void registered?.update().catch(() => undefined), ASK_AGAIN_MS);
  } catch {
    // A browser that keeps nothing, or no server just now: the pages work as they did.
    worker = undefined;
  }
}

/** Begins the newer version: all pages of this program are loaded anew by it. What was typed is kept at every step. */
export function beginNewer(): void {
  worker?.addEventListener("controlling", () => location.reload());
  worker?.messageSkipWaiting();
}
