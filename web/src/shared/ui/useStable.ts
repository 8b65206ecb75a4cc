import { useCallback, useLayoutEffect, useRef } from "react";

/** The same function for as long as a component is shown, which does what the newest one given would do: what it is passed to needn’t be drawn
 * anew because its parent was. For events, never while drawing. */
export function useStable<A extends unknown[], R>(act: (...given: A) => R): (...given: A) => R {
  const newest = useRef(act);
  useLayoutEffect(() => {
    newest.current = act;
  });
  return useCallback((...given: A) => newest.current(...given), []);
}
