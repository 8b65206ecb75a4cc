import { useQuery } from "@tanstack/react-query";
import { useMemo } from "react";
import type { Schemas } from "../../api/client";
import { core } from "../../core/coreClient";
import { useAsked } from "../../offline/flora";
import { todayOf, useIsBehind, usePlaces, useWaiting } from "../../offline/documents";
import { asOf } from "../../offline/asked";
import { SHOWN_WITH_TIME, useFirsts } from "../../offline/queries";
import { useBenchFlora } from "../../shared/botany/useBenchFlora";
import { useOpenDocuments } from "../../shared/calendar/questions";

/**
 * The page of a day: one answer of the server. Where commands wait on this device it is worked out here instead, with what they do put into
 * the documents that it follows from.
 */
export function useToday(day: string): { page: Schemas["TodayDocument"] | undefined; isAway: boolean } {
  const waiting = useWaiting();
  const isWaiting = waiting.length > 0;
  const served = useQuery({ ...todayOf(day), enabled: !isWaiting, notifyOnChangeProps: SHOWN_WITH_TIME });
  const isBehind = useIsBehind(asOf(served.data)) && served.data !== undefined;
  // A day that was never asked of the server is worked out here too.
  const isOwn = isWaiting || isBehind || (served.isError && !served.data);
  const own = useOwn(day, isOwn);
  return { page: isOwn ? (own.page ?? served.data) : served.data, isAway: isOwn ? own.isAway : served.isError };
}

function useOwn(day: string, isWanted: boolean): { page: Schemas["TodayDocument"] | undefined; isAway: boolean } {
  const { plants, populations, isLoaded, isAway } = useOpenDocuments(isWanted);
  const { flora, host } = useBenchFlora(undefined, undefined, isWanted);
  const firsts = useFirsts(isWanted).data;
  const places = usePlaces().data;
  const request = useMemo(
    () => (isWanted && isLoaded ? { date: day, plants, populations } : undefined),
    [isWanted, isLoaded, day, plants, populations],
  );
  const question = useMemo(
    () =>
      isWanted && flora && places
        ? {
            floraId: flora.id,
            date: day,
            places: places.map(({ id, name, cell }) => ({ id, name, cell })),
            firsts: firsts ?? [],
          }
        : undefined,
    [isWanted, flora, day, places, firsts],
  );
  const { answer } = useAsked(request, core.today);
  const next = useAsked(request, core.nextVisit).answer;
  const inSeason = useAsked(question, async (it) => {
    await host.held();
    return core.inSeason(it);
  }).answer;
  return {
    page: answer && { today: answer, next: next?.[0] ?? null, inSeason: inSeason ?? [] },
    isAway,
  };
}
