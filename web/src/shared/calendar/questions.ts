import { useMemo } from "react";
import type { Schemas } from "../../api/client";
import { core } from "../../core/coreClient";
import { useAsked } from "../../offline/flora";
import { usePopulations } from "../../offline/documents";
import { useOpenPlants } from "../../offline/queries";
import { grouped } from "../ui/group";
import { today } from "./day";

/** A question as it stands on a day. */
export type Question = Schemas["QuestionOnDay"];

/** What is open of plants and of populations, and whether it has been fetched. */
export function useOpenDocuments(isWanted = true) {
  const open = useOpenPlants(isWanted);
  const populations = usePopulations(isWanted);
  return {
    plants: open.data ?? NO_PLANTS,
    populations: populations.data ?? NO_POPULATIONS,
    isLoaded: open.data !== undefined && populations.data !== undefined,
    isAway: (open.isError || populations.isError) && !(open.data && populations.data),
  };
}

const NO_PLANTS: Schemas["OpenPlant"][] = [];
const NO_POPULATIONS: Schemas["PopulationDetail"][] = [];

/** All that is open, as it stands on a day. */
export function useQuestions(date: string, documents: ReturnType<typeof useOpenDocuments>): Question[] | undefined {
  const { plants, populations, isLoaded } = documents;
  const request = useMemo(
    () => (isLoaded && date ? { date, plants, populations } : undefined),
    [isLoaded, date, plants, populations],
  );
  return useAsked(request, core.questions).answer;
}

/** How far days are from today, each asked for once: the plants of a long list were seen on few. */
export function useDays(dates: string[]): Map<string, Schemas["DayDistance"]> {
  // One and the same question as long as the same days are asked for.
  const key = [...new Set(dates)].sort().join();
  const request = useMemo(
    () => ({ date: today(), days: key ? key.split(",").map((date) => ({ id: date, date })) : [] }),
    [key],
  );
  const { answer } = useAsked(request, core.days);
  return useMemo(() => new Map(answer?.map((it) => [it.id, it])), [answer]);
}

/** The page of what a question is about. */
export const linkOf = ({ question: q }: Question) =>
  q.isOfPopulation ? `/populations/${q.subjectId}` : `/plants/${q.subjectId}`;

/** The questions of one plant or population together, in their order. */
export const bySubject = (questions: Question[]) => [...grouped(questions, (q) => q.question.subjectId).values()];

/** What trips over several places are planned as: one place. */
const TRIP = "trip";

/** The questions as needs of visits. */
export const asNeeds = (questions: Question[], asTrips: boolean): Schemas["RequestedNeed"][] =>
  questions.map(({ question: q }) => ({ id: q.id, place: asTrips ? TRIP : q.placeId, windows: q.need.windows }));
