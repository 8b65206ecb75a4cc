import { useCallback, useEffect, useRef, useState } from "react";
import { keep, kept } from "../../offline/store";

/** Something typed that is kept on this device until it is sent: undefined while it is looked up. */
export function useTyped<T>(name: string, start: () => T): [T | undefined, (next: T) => void, () => void] {
  const [value, setValue] = useState<T>();
  // It is begun once for each name.
  const begin = useRef(start);
  useEffect(() => {
    begin.current = start;
  });
  useEffect(() => {
    let current = true;
    void kept<T>(name).then((before) => {
      if (current) setValue(before ?? begin.current());
    });
    return () => {
      current = false;
    };
  }, [name]);
  const change = useCallback(
    (next: T) => {
      setValue(next);
      void keep(name, next);
    },
    [name],
  );
  const clear = useCallback(() => void keep(name, undefined), [name]);
  return [value, change, clear];
}
