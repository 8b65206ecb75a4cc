import words from "../../api/words";
import { Box, Button, Link, Slider, Typography } from "@mui/material";
import { useMemo, useState } from "react";
import { Link as RouterLink } from "react-router";
import type { Schemas } from "../../api/client";
import { brief, dayOfYear, daysLater, spoken, today } from "../../shared/calendar/day";
import { grouped } from "../../shared/ui/group";
import { Page, Part } from "../../shared/ui/Page";
import { core } from "../../core/coreClient";
import { useAsked } from "../../offline/flora";
import { useShelf } from "../../offline/queries";
import { YearBand } from "../../shared/calendar/YearBand";
import { Choice } from "../../shared/form/Choice";
import { CautionMarks, GroundCaution } from "../../shared/botany/Cautions";
import { TaxonLabel } from "../../shared/botany/TaxonLabel";
import {
  asNeeds,
  bySubject,
  linkOf,
  useOpenDocuments,
  useQuestions,
  type Question,
} from "../../shared/calendar/questions";

const { planAhead } = words.limits;
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
  const characters = useShelf(NO_VERSIONS).data?.table.characters ?? [];
  const [way, setWay] = useState<"places" | "trips">("places");
  const known = useQuestions(from, documents);
  const questions = known ?? NO_QUESTIONS;
  const request = useMemo(
    (): Schemas["VisitsRequest"] | undefined =>
      questions.length === 0 ? undefined : { from, needs: asNeeds(questions, way === "trips") },
    [questions, from, way],
  );
  const { answer, failure, of } = useAsked(request, core.planVisits);
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
            Take away as a calendar
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
            the Bench
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

function Visit(props: {
  visit: Schemas["RequestedVisit"];
  questions: Question[];
  characters: Schemas["Character"][];
  from: string;
}) {
  const { visit, questions, characters, from } = props;
  const [moved, setMoved] = useState<string>();
  const days = useMemo(() => Array.from({ length: planAhead + 1 }, (_, at) => daysLater(from, at)), [from]);
  const wanted = characters.filter((c) => questions.some((q) => q.question.need.character === c.id));
  const tools = [...new Set(wanted.map((c) => c.tool))].filter((tool) => words.toBring[tool]);
  const organs = [...new Set(wanted.map((c) => c.organ))];
  const places = [...grouped(questions, (q) => q.question.placeId).values()];
  const move = useMemo(
    (): Schemas["MoveVisitRequest"] | undefined =>
      moved === undefined ? undefined : { date: moved, needs: asNeeds(questions, false) },
    [moved, questions],
  );
  const { answer } = useAsked(move, core.moveVisit);
  const lost = new Set(moved === undefined ? [] : answer?.lost);
  const title = places.map((p) => p[0]?.question.placeName).join(", ");
  return (
    <Box
      component="li"
      sx={{
        display: "grid",
        gridTemplateColumns: { xs: "minmax(0, 1fr)", sm: "16rem minmax(0, 1fr)" },
        columnGap: 3,
        borderTop: 1,
        borderColor: "rule",
        py: 1.5,
      }}
    >
      <Box>
        <Typography variant="h2">
          {moved !== undefined ? spoken(moved) : visit.isOpen ? "Now" : `About ${spoken(visit.date)}`}
        </Typography>
        <Typography>{title}</Typography>
        <Typography
          variant="body2"
          sx={visit.closesSoon ? { color: "signal.conflict", fontWeight: 700 } : { color: "text.secondary" }}
        >
          {visit.closesSoon && <span aria-hidden="true">▲ </span>}
          {visit.isAllYear
            ? "at any time of the year"
            : visit.latest === from
              ? "today is the last day"
              : `${visit.isOpen ? "until" : `from ${spoken(visit.earliest)} to`} ${spoken(visit.latest)}`}
        </Typography>
        <Box sx={{ mt: 0.5 }}>
          <YearBand windows={[{ from: dayOfYear(visit.earliest), to: dayOfYear(visit.latest) }]} today={from} />
        </Box>
        <Slider
          size="small"
          min={0}
          max={planAhead}
          value={days.indexOf(moved ?? visit.date)}
          onChange={(_, value) => setMoved(days[value])}
          getAriaLabel={() => `Move the visit to ${title}`}
          getAriaValueText={(value) => spoken(days[value] ?? from)}
          sx={{ maxWidth: 260, color: "primary.main" }}
        />
        {moved !== undefined && answer && (
          <Typography variant="body2" role="status">
            {answer.lost.length === 0 ? (
              <Box component="span" sx={{ color: "signal.support", fontWeight: 700 }}>
                ● Nothing is lost on {brief(moved)}.
              </Box>
            ) : (
              <Box component="span" sx={{ color: "signal.conflict", fontWeight: 700 }}>
                ✕ On {brief(moved)} {answer.lost.length} of {questions.length} are lost.
              </Box>
            )}{" "}
            <Button size="small" onClick={() => setMoved(undefined)}>
              Put it back
            </Button>
          </Typography>
        )}
      </Box>
      <Box>
        <Typography variant="body2">
          {organs.length > 0 && (
            <>
              <strong>Look at:</strong> {organs.map((o) => words.organs[o].toLowerCase()).join(", ")}.{" "}
            </>
          )}
          {tools.length > 0 && (
            <>
              <strong>Bring:</strong> {tools.map((t) => words.toBring[t]).join(", ")}.
            </>
          )}
        </Typography>
        {places.map((here) => (
          <Box key={here[0]?.question.placeId}>
            {places.length > 1 && <Typography variant="h3">{here[0]?.question.placeName}</Typography>}
            <GroundCaution text={here[0]?.question.placeCaution ?? ""} />
            <Box component="ul" sx={{ listStyle: "none", p: 0, m: 0 }}>
              {bySubject(here).map((own) => (
                <Subject key={own[0]?.question.subjectId} questions={own} lost={lost} />
              ))}
            </Box>
          </Box>
        ))}
      </Box>
    </Box>
  );
}

function Subject({ questions, lost }: { questions: Question[]; lost: Set<string> }) {
  const [it] = questions;
  if (!it) return null;
  const first = it.question;
  return (
    <Box component="li" sx={{ pb: 0.75 }} data-kept-back={first.isSensitive ? "" : undefined}>
      <Typography component="div">
        <Link component={RouterLink} to={linkOf(it)}>
          <TaxonLabel name={first.name} />
          {first.label && `, ${first.label}`}
        </Link>{" "}
        {first.grade && (
          <Typography component="span" variant="body2" color="text.secondary">
            {words.grades[first.grade].toLowerCase()}
          </Typography>
        )}{" "}
        <CautionMarks cautions={[...new Set(first.cautions.flatMap((c) => c.cautions))]} />
      </Typography>
      {questions.map(({ question: q }) => (
        <Typography key={q.id} variant="body2" sx={{ pl: 2, color: lost.has(q.id) ? "signal.conflict" : undefined }}>
          <Box component="span" sx={{ color: lost.has(q.id) ? "signal.conflict" : "signal.open" }}>
            {lost.has(q.id) ? "✕ lost: " : "○ "}
          </Box>
          {q.need.text}
        </Typography>
      ))}
    </Box>
  );
}

// Without its full stop, to stand within a sentence.
const bare = (text: string) => text.replace(/\.$/, "");

// What the last looks have answered, and what has slipped since.
function Outcomes(props: { plants: Schemas["OpenPlant"][]; populations: Schemas["PopulationDetail"][] }) {
  const { plants, populations } = props;
  const slipped = plants.flatMap((p) => p.outcome.slipped.map((s) => ({ p, s })));
  const missed = populations.flatMap((p) => p.summary.missed.map((text) => ({ p, text })));
  const answered = plants.filter((p) => p.outcome.answered.length > 0);
  return (
    <>
      {(slipped.length > 0 || missed.length > 0) && (
        <Part id="slipped" title="Slipped">
          <Box component="ul" sx={{ listStyle: "none", p: 0, m: 0 }}>
            {slipped.map(({ p, s }) => (
              <Typography
                component="li"
                variant="body2"
                key={p.plantId + s.need.id}
                sx={{ py: 0.25 }}
                data-kept-back={p.isSensitive ? "" : undefined}
              >
                <Link component={RouterLink} to={`/plants/${p.plantId}`}>
                  <TaxonLabel name={p.name} />
                  {p.label && `, ${p.label}`}
                </Link>
                , {p.placeName}: {bare(s.need.text)}; it closed on {spoken(s.closed)} unseen, and opens again on{" "}
                {spoken(s.again)}.
              </Typography>
            ))}
            {missed.map(({ p, text }) => (
              <Typography
                component="li"
                variant="body2"
                key={p.id + text}
                sx={{ py: 0.25 }}
                data-kept-back={p.isSensitive ? "" : undefined}
              >
                <Link component={RouterLink} to={`/populations/${p.id}`}>
                  <TaxonLabel name={p.taxon} />, {p.name}
                </Link>
                , {p.place.name}: {text}
              </Typography>
            ))}
          </Box>
        </Part>
      )}
      {answered.length > 0 && (
        <Part id="answered" title="Answered at the last look">
          <Box component="ul" sx={{ listStyle: "none", p: 0, m: 0 }}>
            {answered.map((p) => (
              <Typography
                component="li"
                variant="body2"
                key={p.plantId}
                sx={{ py: 0.25 }}
                data-kept-back={p.isSensitive ? "" : undefined}
              >
                <Link component={RouterLink} to={`/plants/${p.plantId}`}>
                  <TaxonLabel name={p.name} />
                  {p.label && `, ${p.label}`}
                </Link>
                , {spoken(p.lookedOn)}:{" "}
                <Box component="span" sx={{ color: "signal.support", fontWeight: 700 }}>
                  ●
                </Box>{" "}
                {p.outcome.answered.map((n) => bare(n.text)).join("; ")}.
              </Typography>
            ))}
          </Box>
        </Part>
      )}
    </>
  );
}
