import { Box, Button, Link, Typography } from "@mui/material";
import { useMemo, useState } from "react";
import { Link as RouterLink } from "react-router";
import type { Schemas } from "../../api/client";
import { today } from "../../shared/calendar/day";

import { Page, Part } from "../../shared/ui/Page";
import { started, useAskedEither } from "../../offline/hosts";
import { useShelfInShort } from "../../offline/shelf";

import { Choice } from "../../shared/form/Choice";
import { TaxonLabel } from "../../shared/botany/TaxonLabel";
import { asNeeds, bySubject, useOpenDocuments, useQuestions, type Question } from "../../shared/calendar/questions";

import { Outcomes } from "./Outcomes";
import { Visit } from "./Visit";

const NO_QUESTIONS: Question[] = [];

const NO_VERSIONS: string[] = [];

const ways = [
  ["places", "place by place"],
  ["trips", "as trips over all places"],
] as const;

/** What is still to be seen and counted, in as few days as will do: those that close first at the front. */
export function VisitsPage() {
  const from = today();
  const documents = useOpenDocuments();
  const characters = useShelfInShort(NO_VERSIONS).data?.characters ?? [];
  const [way, setWay] = useState<"places" | "trips">("places");
  const known = useQuestions(from, documents);
  const questions = known ?? NO_QUESTIONS;
  const request = useMemo(
    (): Schemas["VisitsRequest"] | undefined =>
      questions.length === 0 ? undefined : { from, needs: asNeeds(questions, way === "trips") },
    [questions, from, way],
  );
  const { answer, failure, of } = useAskedEither("planVisits", request, started);
  const subjects = bySubject(questions).length;
  const byId = new Map(questions.map((q) => [q.question.id, q]));
  const days = way === "trips" ? "trip" : "day";
  return (
    <Page
      title="Visits"
      aside={
        answer &&
        answer.visits.length > 0 && (
          <Button component="a" href={`/api/v1/seasons/visits.ics?from=${from}&trips=${way === "trips"}`} download>
            Export as a calendar
          </Button>
        )
      }
    >
      {documents.isAway && (
        <Typography role="alert">
          The server doesn’t answer just now; what is open appears as soon as it does.
        </Typography>
      )}
      {failure && <Typography role="alert">{failure}</Typography>}
      {known?.length === 0 && (
        <Typography>
          Nothing is open. Take a plant to{" "}
          <Link component={RouterLink} to="/bench">
            Identify
          </Link>
          , and under Confirm keep its name: what it still lacks appears here with the days on which it can be seen.
        </Typography>
      )}
      {request && !answer && !failure && <Typography role="status">Finding the fewest days …</Typography>}
      {answer && request && (
        <>
          <Typography sx={{ mb: 1 }}>
            {questions.length} open {questions.length === 1 ? "question" : "questions"} about {subjects}{" "}
            {subjects === 1 ? "plant or population" : "plants and populations"}:{" "}
            <strong>
              {answer.visits.length} {answer.visits.length === 1 ? `${days} answers` : `${days}s answer`} all that can
              be
            </strong>
            {answer.optimal ? "; no fewer will do." : "; perhaps fewer would do."}
          </Typography>
          <Box sx={{ mb: 2 }}>
            <Choice label="Planned" choices={ways} value={way} onChoose={(it) => it && setWay(it)} />
          </Box>
          {of === request && (
            <Box component="ol" aria-label="Visits" sx={{ listStyle: "none", p: 0, m: 0 }}>
              {answer.visits.map((visit) => (
                <Visit
                  key={visit.place + visit.date}
                  visit={visit}
                  questions={visit.needs.flatMap((id) => byId.get(id) ?? [])}
                  characters={characters}
                  from={from}
                />
              ))}
            </Box>
          )}
          {answer.unanswerable.length > 0 && (
            <Part title="Not to be answered outdoors" id="unanswerable">
              <Box component="ul" sx={{ m: 0, pl: 2.5 }}>
                {answer.unanswerable
                  .flatMap((id) => byId.get(id)?.question ?? [])
                  .map((q) => (
                    <Typography
                      component="li"
                      variant="body2"
                      key={q.id}
                      data-kept-back={q.isSensitive ? "" : undefined}
                    >
                      <TaxonLabel name={q.name} />
                      {q.label && `, ${q.label}`}, {q.placeName}: {q.need.text}
                    </Typography>
                  ))}
              </Box>
            </Part>
          )}
        </>
      )}
      <Outcomes plants={documents.plants} populations={documents.populations} />
    </Page>
  );
}
