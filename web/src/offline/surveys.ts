import { queryOptions, useQuery } from "@tanstack/react-query";
import { answerOf, api, type Schemas } from "../api/client";
import { core } from "../core/coreClient";
import { asOf, askedAt } from "./asked";
import { useWaiting, useWithWaiting } from "./documents";
import { orKept, SHOWN_WITH_TIME } from "./queries";

// Surveys as documents: what the server answered last, with what waits on this device put into it.

export const surveysServed = queryOptions({
  queryKey: ["surveys"],
  queryFn: () =>
    orKept<Schemas["SurveySummary"][]>("surveys", () => answerOf((signal) => api.GET("/api/v1/surveys", { signal }))),
});

const nameOf = (id: string) => `survey:${id}`;

// What a device kept from before surveys had terms and a team has none of them.
const completed = (it: Schemas["SurveyWhole"]): Schemas["SurveyWhole"] => {
  const { terms, team }: Partial<Schemas["Survey"]> = it.survey;
  if (terms && team) return it;
  const survey = {
    ...it.survey,
    terms: terms ?? { rounds: [], rules: "", leastGrade: "tentative" as const, licence: "" },
    team: team ?? [],
  };
  return askedAt({ ...it, survey }, asOf(it));
};

/** A survey with its plots, what was recorded in them, and its visits. */
export const surveyServed = (id: string) =>
  queryOptions({
    queryKey: ["survey", id],
    queryFn: () =>
      orKept<Schemas["SurveyWhole"]>(nameOf(id), () =>
        answerOf((signal) => api.GET("/api/v1/surveys/{id}", { params: { path: { id } }, signal })),
      ).then(completed),
  });

/** All surveys in short, with those that wait to be sent. */
export function useSurveys() {
  const served = useQuery(surveysServed);
  const known = new Set(served.data?.map((it) => it.id));
  const made = useWaiting().flatMap((it) =>
    it.kind === "saveSurvey" && !known.has(it.surveyId)
      ? [
          {
            id: it.surveyId,
            name: it.name,
            from: it.from,
            to: it.to,
            leader: it.leader.name,
            placeIds: it.placeIds,
            rules: it.terms?.rules ?? "",
          },
        ]
      : [],
  );
  const begun = made.map((it) => ({ ...it, places: [], visits: 0, plots: 0, records: 0 }));
  return { ...served, surveys: served.data || begun.length > 0 ? [...begun, ...(served.data ?? [])] : undefined };
}

export function useSurvey(id: string) {
  const served = useQuery({ ...surveyServed(id), notifyOnChangeProps: SHOWN_WITH_TIME });
  // One that was begun out of reach is known here alone.
  const data = useWithWaiting(
    nameOf(id),
    { ...served, asOf: asOf(served.data) },
    served.data !== undefined || served.isError,
    async (waiting) => (await core.survey({ id, survey: served.data ?? null, waiting }))[0],
  );
  return { ...served, data, isError: served.isError && !data };
}

/** The survey that a place and a day belong to and that agreed on how names are graded; nothing where there is none. */
export function useSurveyAt(placeId: string | undefined, day: string | undefined) {
  return useSurveys().surveys?.find(
    (it) => it.rules && placeId && day && it.placeIds.includes(placeId) && it.from <= day && day <= it.to,
  );
}
