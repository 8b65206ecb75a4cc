import { startTransition, useEffect, useState } from "react";

// The page answers to what is typed and tapped between two steps.
const PAUSE_MS = 30;

/**
 * How much of a long list is drawn by now: its beginning at once, the rest step by step while nothing else is done.
 * @param total How many lines it has.
 * @param step How many are drawn at a time; the first ones fill the screen.
 * @param list Tells one list from another, which begins anew.
 */
export function useInSteps(total: number, step: number, list = ""): number {
  const [drawn, setDrawn] = useState({ list, most: step });
  const most = drawn.list === list ? drawn.most : step;
  useEffect(() => {
    if (most >= total) return;
    const next = setTimeout(() => startTransition(() => setDrawn({ list, most: most + step })), PAUSE_MS);
    return () => clearTimeout(next);
  }, [list, most, step, total]);
  return Math.min(most, total);
}
