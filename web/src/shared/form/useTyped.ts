import { useCallback, useEffect, useRef, useState } from "react";
import { keep, kept } from "../../offline/store";

/** Something typed that is kept on this device until it is sent: undefined while it is looked up. */
export function useTyped<T>(
  name: string,
  start: () => T,
): [T | undefined, (next: T | ((newest: T | undefined) => T)) => void, () => void] {
  const [value, setValue] = useState<T>();
  const newest = useRef<T>(undefined);
  // Changes that came before what is kept was read; undefined once it was.
  const early = useRef<((newest: T | undefined) => T)[] | undefined>([]);
  // It is begun once for each name.
  const begin = useRef(start);
  useEffect(() => {
    begin.current = start;
  });
  useEffect(() => {
    let current = true;
    early.current = [];
    void kept<T>(name).then((before) => {
      if (!current) return;
      const changes = early.current ?? [];
      early.current = undefined;
      newest.current = changes.reduce((now, change) => change(now), before ?? begin.current());
      setValue(() => newest.current);
      if (changes.length > 0) void keep(name, newest.current);
    });
    return () => {
      current = false;
    };
  }, [name]);
  const change = useCallback(
    (next: T | ((newest: T | undefined) => T)) => {
      const isChange = typeof next === "function";
      if (isChange && early.current) return void early.current.push(next as (newest: T | undefined) => T);
      const now = isChange ? (next as (newest: T | undefined) => T)(newest.current) : next;
      newest.current = now;
      setValue(() => now);
      void keep(name, now);
    },
    [name],
  );
  const clear = useCallback(() => void keep(name, undefined), [name]);
  return [value, change, clear];
}
