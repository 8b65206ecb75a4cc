import { useQuery } from "@tanstack/react-query";
import type { Schemas } from "../api/client";
import { askEither, type Host } from "./hosts";

/** A flora that is asked for: its version, and the host that answers. */
export interface AskedFlora {
  floraId: string | undefined;
  version: string | undefined;
  host: Host;
}

/** Taxa with what they are like. */
export function useDescribed({ floraId, version, host }: AskedFlora, taxa: string[]) {
  const wanted = [...new Set(taxa)].sort();
  const { data } = useQuery({
    enabled: floraId !== undefined && version !== undefined && wanted.length > 0,
    queryKey: ["described", version, wanted.join()],
    staleTime: Infinity,
    placeholderData: (before: Map<string, Schemas["DescribedTaxon"]> | undefined) => before,
    queryFn: async () =>
      new Map(
        (await askEither("describe", { floraId: floraId ?? "", taxa: wanted }, host)).map((it) => [it.taxon.id, it]),
      ),
  });
  return data ?? NOTHING;
}

const NOTHING = new Map<string, Schemas["DescribedTaxon"]>();

/** All taxa of the flora that a plant can be named as, by name. */
export function useAllTaxa({ floraId, version, host }: AskedFlora) {
  const { data } = useQuery({
    enabled: floraId !== undefined && version !== undefined,
    queryKey: ["all-taxa", version],
    staleTime: Infinity,
    placeholderData: (before: Schemas["Taxon"][] | undefined) => before,
    queryFn: async () =>
      (await askEither("describe", { floraId: floraId ?? "", taxa: null }, host)).map((it) => it.taxon),
  });
  return data ?? NONE;
}

const NONE: Schemas["Taxon"][] = [];
