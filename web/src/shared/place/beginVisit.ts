import { v7 as uuid } from "uuid";
import type { Schemas } from "../../api/client";
import { timeNow, today } from "../../api/today";
import { send } from "../../offline/outbox";
import { personOf } from "../../offline/people";
import { beginTrackAsBefore } from "./tracking";

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

/** Begins a visit to a place today, now, with its track if the last one had one; its id, or why there is none. */
export async function beginVisit(it: Begun): Promise<{ id: string; failure?: undefined } | { failure: string }> {
  const id = uuid();
  const person = await personOf(it.recorder, it.people);
  const sent = await send(
    {
      kind: "saveSiteVisit",
      id: uuid(),
      siteVisitId: id,
      placeId: it.placeId,
      date: today(),
      startedAt: timeNow(),
      people: [person],
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
  if (sent.kind === "refused") return { failure: `${sent.problem.title} ${sent.problem.detail}` };
  await beginTrackAsBefore({ visitId: id, placeId: it.placeId, recorder: person, day: today() });
  return { id };
}
