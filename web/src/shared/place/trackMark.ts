import { useSyncExternalStore } from "react";

// That a track runs on this device, apart from what notes it: every page asks, and few need more.

export const RUNNING = "garten.track";
const CHANGED = "garten-track";

export const announceTrack = () => window.dispatchEvent(new Event(CHANGED));

export const onTrackChange = (onChange: () => void) => {
  window.addEventListener(CHANGED, onChange);
  window.addEventListener("storage", onChange);
  return () => {
    window.removeEventListener(CHANGED, onChange);
    window.removeEventListener("storage", onChange);
  };
};

/** Whether a track runs on this device. */
export const useIsTracking = () => useSyncExternalStore(onTrackChange, () => localStorage.getItem(RUNNING) !== null);
