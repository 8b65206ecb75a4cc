import { useKeys } from "../../offline/documents";
import { useFloras } from "./queries";

/** Whether there is neither a key nor a flora that a plant could be named by. */
export function useIsFirstStart(): boolean {
  const keys = useKeys();
  const floras = useFloras();
  return keys.data?.length === 0 && floras.data !== undefined && floras.data.every((it) => it.version === 0);
}
