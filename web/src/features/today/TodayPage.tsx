import { Box, Button, Link, Typography } from "@mui/material";
import type { ReactNode } from "react";
import { Link as RouterLink } from "react-router";
import type { Schemas } from "../../api/client";
import words from "../../api/words";
import { spoken, today, weekday } from "../../shared/calendar/day";
import { Page, Part } from "../../shared/ui/Page";
import { useFigures } from "../../offline/figures";
import { useCopyWanted } from "../../offline/queries";
import { LineFigure } from "../../shared/botany/LineFigure";
import { useIsFirstStart } from "../../shared/botany/useIsFirstStart";
import { Awaited } from "../../shared/ui/Awaited";
import { FirstSteps } from "../../shared/ui/FirstSteps";
import { useFlora } from "../../shared/botany/queries";
import { Callout, CautionMarks } from "../../shared/botany/Cautions";
import { TaxonLabel } from "../../shared/botany/TaxonLabel";
import { bySubject, linkOf, type Question } from "../../shared/calendar/questions";
import { InSeason, MOST_DRAWN } from "./InSeason";
import { OpenVisits } from "./OpenVisits";
import { useToday } from "./useToday";
import { WeekStrip } from "./WeekStrip";

const figureAsked = (q: Question) => ({ name: q.question.name, character: q.question.need.character });

/** What to do today: where to go, what closes, what was looked at too early, what is in season. */
export function TodayPage() {
  const day = today();
  const { page, isAway } = useToday(day);
  const { flora } = useFlora(undefined);
  const copyWanted = useCopyWanted();
  const isFirstStart = useIsFirstStart();
  const answer = page?.today;
  const best = answer?.best;
  const next = page?.next;
  const first = answer?.closing[0];
  const figureOf = useFigures(flora?.id, [
    ...[answer?.closing, answer?.tooEarly, answer?.rest]
      .flatMap((it) => bySubject(it ?? NONE))
      .flatMap(([q]) => (q ? figureAsked(q) : [])),
    ...(answer?.threats ?? []).map((it) => ({ name: it.taxon, character: "" })),
    ...(page?.inSeason ?? []).flatMap((it) =>
      it.inFlower.slice(0, MOST_DRAWN).map(({ name }) => ({ name, character: "" })),
    ),
  ]);
  return (
    <Page
      title={weekday(day)}
      aside={
        <Button variant="contained" component={RouterLink} to="/bench" sx={{ minHeight: { xs: 56, sm: 44 } }}>
          A plant in hand
        </Button>
      }
    >
      {!page && !isAway && <Awaited words="Working out the day …" heights={[34, 120, 58, 58, 58]} />}
      {isAway && !page && (
        <Typography role="alert">
          The server doesn’t answer just now; what is open appears as soon as it does.
        </Typography>
      )}
      <OpenVisits />
      {isFirstStart && <FirstSteps />}
      {answer && !isFirstStart && (
        <Typography component="p" variant="h2" sx={{ fontWeight: 500, mb: 2, maxWidth: "60ch" }}>
          {best ? (
            <>
              Go to <strong>{best.placeName}</strong>: {count(best.subjects, "plant")} there{" "}
              {best.subjects === 1 ? "has something" : "have something"} to answer today.
            </>
          ) : (
            "Nothing that is open can be answered today."
          )}{" "}
          {first?.closes && (
            <Box component="span" sx={{ color: "signal.conflict" }}>
              ▲ {count(answer.counts.closing, "window")} {answer.counts.closing === 1 ? "closes" : "close"} within two
              weeks, the first on {spoken(first.closes)}.
            </Box>
          )}
          {next && (
            <>
              {" "}
              After that the next visit is to {next.placeName}, about {spoken(next.date)}.
            </>
          )}
        </Typography>
      )}
      {answer && <WeekStrip weeks={answer.weeks} />}
      <Box
        sx={{ display: "grid", columnGap: 4, gridTemplateColumns: { xs: "1fr", md: "1fr 1fr" }, alignItems: "start" }}
      >
        <Box>
          {answer && answer.threats.length > 0 && (
            <Part id="threats" title="To act on">
              <Lines>
                {answer.threats.map((it) => (
                  <Line
                    key={it.threat.id}
                    link={`/populations/${it.population}`}
                    figure={figureOf({ name: it.taxon, character: "" })}
                    name={it.taxon}
                    where={`${it.name}, ${it.placeName}`}
                    isKeptBack={it.isSensitive}
                  >
                    <Box component="span" sx={{ color: "signal.caution", fontWeight: 700 }}>
                      △ by {spoken(it.threat.actBy ?? day)}
                    </Box>{" "}
                    {it.threat.text}
                  </Line>
                ))}
              </Lines>
            </Part>
          )}
          <Asked
            id="closing"
            title="Before it closes"
            questions={answer?.closing ?? NONE}
            of={answer?.counts.closingSubjects}
            figureOf={figureOf}
          >
            {(q) => (
              <Box component="span" sx={{ color: "signal.conflict", fontWeight: 700 }}>
                ▲ until {spoken(q.closes ?? day)}
              </Box>
            )}
          </Asked>
          <Asked
            id="too-early"
            title="Looked at too early, ready now"
            questions={answer?.tooEarly ?? NONE}
            of={answer?.counts.tooEarlySubjects}
            figureOf={figureOf}
          >
            {(q) => (
              <Box component="span" sx={{ color: "signal.open", fontWeight: 700 }}>
                ◐ not there on {spoken(q.question.lookedOn ?? day)}
              </Box>
            )}
          </Asked>
          <Asked
            id="open-now"
            title="Can be answered today"
            questions={answer?.rest ?? NONE}
            of={answer?.counts.restSubjects}
            figureOf={figureOf}
          />
          {answer?.questions === 0 && !isFirstStart && (
            <Typography>
              Nothing is open. Take a plant to{" "}
              <Link component={RouterLink} to="/bench">
                Identify
              </Link>{" "}
              and keep its name: what it still lacks appears here on the day on which it can be seen.
            </Typography>
          )}
        </Box>
        <InSeason places={page?.inSeason ?? []} figureOf={figureOf} />
      </Box>
      {copyWanted && (
        <Callout tone="open" role="note">
          <Typography variant="body2">
            <strong>○ No copy was made for a month.</strong> On the machine that serves this page:{" "}
            <code>./garten backup garten.copy</code>, and keep the file somewhere else.
          </Typography>
        </Callout>
      )}
    </Page>
  );
}

const count = (n: number, word: string) => `${n === 1 ? "one" : n} ${word}${n === 1 ? "" : "s"}`;

function Lines({ children }: { children: ReactNode }) {
  return (
    <Box component="ul" sx={{ listStyle: "none", p: 0, m: 0 }}>
      {children}
    </Box>
  );
}

interface LineProps {
  link: string;
  figure: Schemas["TaxonFigure"] | undefined;
  name: string;
  where: string;
  isKeptBack?: boolean;
  marks?: ReactNode;
  children: ReactNode;
}

function Line(props: LineProps) {
  return (
    <Box component="li" sx={{ display: "flex", gap: 1.25, py: 0.75, borderTop: "1px dotted", borderColor: "rule" }}>
      <LineFigure figure={props.figure} />
      <Box sx={{ minWidth: 0 }}>
        <Link component={RouterLink} to={props.link} sx={{ fontSize: "1.0625rem" }}>
          <TaxonLabel name={props.name} />
        </Link>
        <span data-kept-back={props.isKeptBack ? "" : undefined}>, {props.where}</span> {props.marks}
        <Typography variant="body2">{props.children}</Typography>
      </Box>
    </Box>
  );
}

interface AskedProps {
  id: string;
  title: string;
  questions: Question[];
  /** How many plants and populations there are, with those that aren't listed here. */
  of: number | undefined;
  figureOf: (it: Schemas["FigureAsked"]) => Schemas["TaxonFigure"] | undefined;
  children?: (first: Question) => ReactNode;
}

// Questions of a kind, those of one plant or population together.
function Asked({ id, title, questions, of = 0, figureOf, children }: AskedProps) {
  const subjects = bySubject(questions);
  if (subjects.length === 0) return null;
  return (
    <Part id={id} title={title}>
      <Lines>
        {subjects.slice(0, words.limits.mostShownToday).map((own) => {
          const q = own[0];
          return (
            q && (
              <Line
                key={q.question.subjectId}
                figure={figureOf(figureAsked(q))}
                link={linkOf(q)}
                name={q.question.name}
                where={[q.question.label, q.question.placeName].filter(Boolean).join(", ")}
                isKeptBack={q.question.isSensitive}
                marks={<CautionMarks cautions={[...new Set(q.question.cautions.flatMap((c) => c.cautions))]} />}
              >
                {children?.(q)} {own.map((it) => it.question.need.text.replace(/\.$/, "")).join("; ")}
              </Line>
            )
          );
        })}
      </Lines>
      {of > words.limits.mostShownToday && (
        <Typography variant="body2" sx={{ mt: 0.5 }}>
          <Link component={RouterLink} to="/visits">
            {of - words.limits.mostShownToday} more in the visits
          </Link>
        </Typography>
      )}
    </Part>
  );
}

const NONE: Question[] = [];
