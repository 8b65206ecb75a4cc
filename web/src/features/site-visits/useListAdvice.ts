import { useQuery } from "@tanstack/react-query";
import { useMemo } from "react";
import type { Schemas } from "../../api/client";
import { useAskedEither } from "../../offline/hosts";
import { foundServed } from "../../offline/siteVisits";
import { useBenchFlora } from "../../shared/botany/useBenchFlora";

// More than anyone reads through beside a list.
const MOST_EXPECTED = 30;

const NOTHING = new Map<string, Schemas["LineAdvice"]>();

/** What the flora and earlier visits say of a list: doubts, what is new, what may be found yet. */
export function useListAdvice(visit: Schemas["SiteVisit"] | undefined) {
  const { flora, host } = useBenchFlora(undefined);
  const found = useQuery({ ...foundServed(visit?.place.id ?? "", visit?.date ?? ""), enabled: visit !== undefined });
  const before = found.data;
  const isSettled = before !== undefined || found.isError;
  const question = useMemo(
    () =>
      visit && flora && isSettled
        ? {
            floraId: flora.id,
            date: visit.date,
            lines: visit.lines,
            at: {
              cell: visit.place.cell,
              elevation: visit.place.elevationMetres ?? null,
              habitats: visit.place.habitats ?? null,
            },
            before: before ?? null,
            most: MOST_EXPECTED,
          }
        : undefined,
    [visit, flora, isSettled, before],
  );
  const { answer } = useAskedEither("listAdvice", question, host);
  const advice = useMemo(() => new Map(answer?.lines.map((it) => [it.lineId, it]) ?? NOTHING), [answer]);
  return { flora, host, advice, answer };
}
