import words from "../../api/words";
import { Box, Button, Link, Slider, Typography } from "@mui/material";
import { useMemo, useState } from "react";
import { Link as RouterLink } from "react-router";
import type { Schemas } from "../../api/client";
import { brief, dayOfYear, daysLater, spoken } from "../../shared/calendar/day";
import { grouped } from "../../shared/ui/group";
import { core } from "../../core/coreClient";
import { useAsked } from "../../offline/flora";

import { YearBand } from "../../shared/calendar/YearBand";

import { CautionMarks, GroundCaution } from "../../shared/botany/Cautions";
import { TaxonLabel } from "../../shared/botany/TaxonLabel";
import { asNeeds, bySubject, linkOf, type Question } from "../../shared/calendar/questions";

import { BeginPlanned } from "./BeginPlanned";

const { planAhead } = words.limits;

export function Visit(props: {
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
            <BeginPlanned questions={here} isSeveral={places.length > 1} isOpen={visit.isOpen} />
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
