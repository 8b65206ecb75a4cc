import { Button, Typography } from "@mui/material";
import { useState } from "react";
import { useNavigate } from "react-router";
import { usePeople } from "../../offline/queries";
import type { Question } from "../../shared/calendar/questions";
import { lastRecorder } from "../../shared/form/last";
import { beginVisit } from "../../shared/place/beginVisit";
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
    const begun = await beginVisit({
      placeId: place.placeId,
      recorder,
      people: people.data,
      purpose: "as planned",
      planned: questions.map(({ question: q }) => ({
        id: q.id,
        subjectId: q.subjectId,
        isOfPopulation: q.isOfPopulation,
        called: [q.name, q.label].filter(Boolean).join(", "),
        text: q.need.text,
      })),
    });
    if (begun.failure !== undefined) return setFailure(begun.failure);
    choosePlace(place.placeId);
    void navigate(`/site-visits/${begun.id}`);
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
