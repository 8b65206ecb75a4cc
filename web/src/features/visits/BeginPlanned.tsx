import { Button, Typography } from "@mui/material";
import { useState } from "react";
import { useNavigate } from "react-router";
import { v7 as uuid } from "uuid";
import { timeNow, today } from "../../api/today";
import { send } from "../../offline/outbox";
import { personOf } from "../../offline/people";
import { usePeople } from "../../offline/queries";
import type { Question } from "../../shared/calendar/questions";
import { lastRecorder } from "../../shared/form/last";
import { choosePlace } from "../../shared/place/here";

interface Props {
  questions: Question[];
  /** Whether the plan leads to several places. */
  isSeveral: boolean;
  /** Whether what it is for can be seen already. */
  isOpen: boolean;
}

/** Begins the visit to a place that was planned: what it is to answer goes along. */
export function BeginPlanned({ questions, isSeveral, isOpen }: Props) {
  const navigate = useNavigate();
  const people = usePeople();
  const [failure, setFailure] = useState("");
  const place = questions[0]?.question;
  if (!place) return null;
  const recorder = lastRecorder();
  const begin = async () => {
    if (!recorder) return setFailure("Say first who records: begin a visit under Visits, or keep a record.");
    const id = uuid();
    const sent = await send(
      {
        kind: "saveSiteVisit",
        id: uuid(),
        siteVisitId: id,
        placeId: place.placeId,
        date: today(),
        startedAt: timeNow(),
        people: [await personOf(recorder, people.data)],
        purpose: "as planned",
        weather: "",
        until: "",
        pauses: [],
        safety: null,
        version: null,
        planned: questions.map(({ question: q }) => ({
          id: q.id,
          subjectId: q.subjectId,
          isOfPopulation: q.isOfPopulation,
          called: [q.name, q.label].filter(Boolean).join(", "),
          text: q.need.text,
        })),
      },
      { creates: [id] },
    );
    if (sent.kind === "refused") return setFailure(`${sent.problem.title} ${sent.problem.detail}`);
    choosePlace(place.placeId);
    void navigate(`/site-visits/${id}`);
  };
  return (
    <>
      <Button onClick={() => void begin()} sx={{ my: 0.5 }}>
        {isSeveral ? `Begin at ${place.placeName}` : "Begin this visit"}
        {!isOpen && ", before its days"}
      </Button>
      {failure && (
        <Typography role="alert" color="error" variant="body2">
          ✕ {failure}
        </Typography>
      )}
    </>
  );
}
