import { v7 as uuid } from "uuid";
import type { Schemas } from "../../api/client";
import { timeNow, today } from "../../api/today";
import { send } from "../../offline/outbox";
import { personOf } from "../../offline/people";

interface Begun {
  placeId: string;
  /** Who is there, by name. */
  recorder: string;
  /** The people who are known. */
  people: Parameters<typeof personOf>[1];
  purpose?: string;
  /** What it is to answer. */
  planned?: Schemas["PlannedQuestion"][];
}

/** Begins a visit to a place today, now; its id, or why there is none. */
export async function beginVisit(it: Begun): Promise<{ id: string; failure?: undefined } | { failure: string }> {
  const id = uuid();
  const sent = await send(
    {
      kind: "saveSiteVisit",
      id: uuid(),
      siteVisitId: id,
      placeId: it.placeId,
      date: today(),
      startedAt: timeNow(),
      people: [await personOf(it.recorder, it.people)],
      purpose: it.purpose ?? "",
      weather: "",
      until: "",
      pauses: [],
      safety: null,
      version: null,
      ...(it.planned && { planned: it.planned }),
    },
    { creates: [id] },
  );
  return sent.kind === "refused" ? { failure: `${sent.problem.title} ${sent.problem.detail}` } : { id };
}
