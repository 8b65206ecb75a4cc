import { useCallback, useEffect, useState } from "react";
import { keep, kept } from "../../offline/store";

/** Something typed that is kept on this device until it is sent: undefined while it is looked up. */
export function useTyped<T>(name: string, start: () => T): [T | undefined, (next: T) => void, () => void] {
  const [value, setValue] = useState<T>();
  useEffect(() => {
    let current = true;
    void kept<T>(name).then((before) => {
      if (current) setValue(before ?? start());
    });
    return () => {
      current = false;
    };
    // It is begun once for each name.
    // eslint-disable-next-line react-hooks/exhaustive-deps
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
