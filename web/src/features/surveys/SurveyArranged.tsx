import { Typography } from "@mui/material";
import { useMemo, useState } from "react";
import type { Schemas } from "../../api/client";
import { core } from "../../core/coreClient";
import { useAsked } from "../../offline/flora";
import { Arranged } from "../../shared/figures/Arranged";

interface Props {
  whole: Schemas["SurveyWhole"];
  from: Schemas["SurveySource"];
  by: Schemas["SurveyUnit"];
  asRanks: boolean;
}

/** The recordings in a plane and as a tree. */
export function SurveyArranged({ whole, from, by, asRanks }: Props) {
  const [chosen, setChosen] = useState<Schemas["SampleDistance"]>();
  // Of found or not there are no amounts to compare by.
  const distance = chosen ?? (from === "lists" ? "sorensen" : "brayCurtis");
  const question = useMemo(
    () => ({ survey: whole, from, by, distance, asRanks }),
    [whole, from, by, distance, asRanks],
  );
  const answer = useAsked(question, core.surveyArrangement).answer;
  if (!answer) return <Typography role="status">The samples are being arranged …</Typography>;
  return (
    <>
      {answer.notes.map((it) => (
        <Typography key={it}>{it}</Typography>
      ))}
      {answer.arrangement && (
        <Arranged arrangement={answer.arrangement} onDistance={setChosen} groups={answer.groups} />
      )}
    </>
  );
}
