import { useSyncExternalStore } from "react";

/** Which of several things of one kind is used on this device, chosen in one tab and known in all. */
export function chosenDevice<T extends string>(kind: string) {
  const name = `garten.${kind}`;
  const changed = `garten-${kind}`;
  const now = () => localStorage.getItem(name) as T | null;
  const subscribe = (onChange: () => void) => {
    window.addEventListener(changed, onChange);
    window.addEventListener("storage", onChange);
    return () => {
      window.removeEventListener(changed, onChange);
      window.removeEventListener("storage", onChange);
    };
  };
  return {
    now,
    subscribe,
    choose: (it: T): void => {
      localStorage.setItem(name, it);
      window.dispatchEvent(new Event(changed));
    },
    useChosen: () => useSyncExternalStore(subscribe, now),
    /** What is used: what was chosen, if it can be; where stand-ins are and nobody has chosen otherwise, the first of these. */
    used: (chosen: T | null, moods: string[], otherwise: T): T =>
      chosen && (!chosen.startsWith("simulated") || moods.length > 0)
        ? chosen
        : moods[0]
          ? (`simulated:${moods[0]}` as T)
          : otherwise,
  };
}
