import { useBenchFlora } from "../../shared/botany/useBenchFlora";
import { Box, Button, Link, Typography } from "@mui/material";
import { useMemo, type ReactNode } from "react";
import { Link as RouterLink } from "react-router";
import type { Schemas } from "../../api/client";
import { dated, daysBetween, spoken, today } from "../../shared/calendar/day";
import { grouped } from "../../shared/ui/group";
import { Page, Part } from "../../shared/ui/Page";
import { core } from "../../core/coreClient";
import { useAllTaxa, useAsked } from "../../offline/flora";
import { useCopyWanted, useFirsts, useOpenPlants, usePlaces, usePopulations } from "../../offline/queries";
import { Callout, CautionMarks } from "../../shared/botany/Cautions";
import { TaxonLabel } from "../../shared/botany/TaxonLabel";
import { asNeeds, bySubject, questionsOf, type Question } from "../../shared/calendar/questions";

// What closes or has to be done within so many days is told first.
const SOON_DAYS = 14;
const MOST_SHOWN = 6;

const weekday = new Intl.DateTimeFormat("en-GB", { weekday: "long", day: "numeric", month: "long" });

/** What to do today: where to go, what closes, what was looked at too early, what is in season. */
export function TodayPage() {
  const day = today();
  const open = useOpenPlants();
  const populations = usePopulations();
  const places = usePlaces();
  const copyWanted = useCopyWanted();
  const questions = useMemo(() => questionsOf(open.data ?? [], populations.data ?? []), [open.data, populations.data]);
  const request = useMemo(
    (): Schemas["VisitsRequest"] | undefined =>
      questions.length === 0 ? undefined : { from: day, needs: asNeeds(questions, false) },
    [questions, day],
  );
  const plan = useAsked(request, core.planVisits).answer;
  const asked = useMemo(
    (): Schemas["StandingRequest"] => ({
      date: day,
      questions: questions.map((q) => ({
        id: q.id,
        windows: q.need.windows,
        lookedOn: q.need.character ? (q.lookedOn ?? null) : null,
      })),
    }),
    [questions, day],
  );
  const standings = useAsked(asked, core.standings).answer;
  const standing = new Map(standings?.map((it) => [it.id, it]));
  const closesOn = (q: Question) => standing.get(q.id)?.closes ?? "";
  const now = questions.filter((q) => standing.get(q.id)?.open);
  const closing = now
    .filter((q) => closesOn(q) && daysBetween(day, closesOn(q)) <= SOON_DAYS)
    .sort((a, b) => closesOn(a).localeCompare(closesOn(b)));
  const tooEarly = now.filter((q) => !closing.includes(q) && standing.get(q.id)?.tooEarly);
  const rest = now.filter((q) => !closing.includes(q) && !tooEarly.includes(q));
  const byPlace = [...grouped(now, (q) => q.placeId).values()].sort(
    (a, b) => bySubject(b).length - bySubject(a).length,
  );
  const best = byPlace[0];
  const next = plan?.visits.find((v) => v.earliest > day);
  const nextFor = next && questions.find((q) => q.placeId === next.place);
  const threats = (populations.data ?? [])
    .flatMap((p) => p.threats.filter((t) => !t.dealtWith).map((t) => ({ p, t })))
    .filter(({ t }) => t.actBy && daysBetween(day, t.actBy) <= 2 * SOON_DAYS)
    .sort((a, b) => (a.t.actBy ?? "").localeCompare(b.t.actBy ?? ""));
  const isReady = open.data !== undefined && populations.data !== undefined && standings !== undefined;
  const first = closing[0];
  return (
    <Page
      title={weekday.format(dated(day))}
      aside={
        <Button variant="contained" component={RouterLink} to="/bench">
          A plant in hand
        </Button>
      }
    >
      {(open.isError || populations.isError) && !(open.data && populations.data) && (
        <Typography role="alert">
          The server doesn’t answer just now; what is open appears as soon as it does.
        </Typography>
      )}
      {isReady && (
        <Typography component="p" variant="h2" sx={{ fontWeight: 500, mb: 2, maxWidth: "60ch" }}>
          {best?.[0] ? (
            <>
              Go to <strong>{best[0].placeName}</strong>: {count(bySubject(best).length, "plant")} there{" "}
              {bySubject(best).length === 1 ? "has something" : "have something"} to answer today.
            </>
          ) : (
            "Nothing that is open can be answered today."
          )}{" "}
          {first && (
            <Box component="span" sx={{ color: "signal.conflict" }}>
              ▲ {count(closing.length, "window")} {closing.length === 1 ? "closes" : "close"} within two weeks, the
              first on {spoken(closesOn(first))}.
            </Box>
          )}
          {next && nextFor && (
            <>
              {" "}
              After that the next visit is to {nextFor.placeName}, about {spoken(next.date)}.
            </>
          )}
        </Typography>
      )}
      {copyWanted && (
        <Callout tone="open" role="note">
          <Typography variant="body2">
            <strong>○ No copy was made for a month.</strong> On the machine that serves this page:{" "}
            <code>./garten backup garten.copy</code>, and keep the file somewhere else.
          </Typography>
        </Callout>
      )}
      <Box
        sx={{ display: "grid", columnGap: 4, gridTemplateColumns: { xs: "1fr", md: "1fr 1fr" }, alignItems: "start" }}
      >
        <Box>
          {threats.length > 0 && (
            <Part id="threats" title="To act on">
              <Lines>
                {threats.map(({ p, t }) => (
                  <Line
                    key={t.id}
                    link={`/populations/${p.id}`}
                    name={p.taxon}
                    where={`${p.name}, ${p.place.name}`}
                    isKeptBack={p.isSensitive}
                  >
                    <Box component="span" sx={{ color: "signal.caution", fontWeight: 700 }}>
                      △ by {spoken(t.actBy ?? day)}
                    </Box>{" "}
                    {t.text}
                  </Line>
                ))}
              </Lines>
            </Part>
          )}
          <Asked id="closing" title="Before it closes" questions={closing}>
            {(q) => (
              <Box component="span" sx={{ color: "signal.conflict", fontWeight: 700 }}>
                ▲ until {spoken(closesOn(q))}
              </Box>
            )}
          </Asked>
          <Asked id="too-early" title="Looked at too early, ready now" questions={tooEarly}>
            {(q) => (
              <Box component="span" sx={{ color: "signal.open", fontWeight: 700 }}>
                ◐ not there on {spoken(q.lookedOn ?? day)}
              </Box>
            )}
          </Asked>
          <Asked id="open-now" title="Can be answered today" questions={rest} />
          {isReady && questions.length === 0 && (
            <Typography>
              Nothing is open. Take a plant to{" "}
              <Link component={RouterLink} to="/bench">
                the Bench
              </Link>{" "}
              and keep its name: what it still lacks appears here on the day on which it can be seen.
            </Typography>
          )}
        </Box>
        <InSeason day={day} places={places.data ?? []} />
      </Box>
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
  name: string;
  where: string;
  isKeptBack?: boolean;
  marks?: ReactNode;
  children: ReactNode;
}

function Line(props: LineProps) {
  return (
    <Box component="li" sx={{ py: 0.75, borderTop: "1px dotted", borderColor: "rule" }}>
      <Link component={RouterLink} to={props.link} sx={{ fontSize: "1.0625rem" }}>
        <TaxonLabel name={props.name} />
      </Link>
      <span data-kept-back={props.isKeptBack ? "" : undefined}>, {props.where}</span> {props.marks}
      <Typography variant="body2">{props.children}</Typography>
    </Box>
  );
}

interface AskedProps {
  id: string;
  title: string;
  questions: Question[];
  children?: (first: Question) => ReactNode;
}

// Questions of a kind, those of one plant or population together.
function Asked({ id, title, questions, children }: AskedProps) {
  const subjects = bySubject(questions);
  if (subjects.length === 0) return null;
  return (
    <Part id={id} title={title}>
      <Lines>
        {subjects.slice(0, MOST_SHOWN).map((own) => {
          const q = own[0];
          return (
            q && (
              <Line
                key={q.subject}
                link={q.link}
                name={q.name}
                where={[q.label, q.placeName].filter(Boolean).join(", ")}
                isKeptBack={q.isSensitive}
                marks={<CautionMarks cautions={[...new Set(q.cautions.flatMap((c) => c.cautions))]} />}
              >
                {children?.(q)} {own.map((it) => it.need.text.replace(/\.$/, "")).join("; ")}
              </Line>
            )
          );
        })}
      </Lines>
      {subjects.length > MOST_SHOWN && (
        <Typography variant="body2" sx={{ mt: 0.5 }}>
          <Link component={RouterLink} to="/visits">
            {subjects.length - MOST_SHOWN} more in the visits
          </Link>
        </Typography>
      )}
    </Part>
  );
}

const inFlower: Schemas["Phenophase"][] = ["flower"];
const inFruit: Schemas["Phenophase"][] = ["youngFruit", "ripeFruit", "fruitPersisting"];

// What flowers, fruits and can be named at each of one's places today, by the flora shifted to this year.
function InSeason({ day, places }: { day: string; places: Schemas["Place"][] }) {
  const { flora, version } = useBenchFlora(undefined);
  const firsts = useFirsts();
  const question = useMemo(
    (): Schemas["SeasonRequest"] | undefined =>
      flora && version
        ? { floraId: flora.id, date: day, taxa: null, cell: null, from: null, to: null, firsts: firsts.data ?? [] }
        : undefined,
    [flora, version, day, firsts.data],
  );
  const { answer } = useAsked(question, core.year);
  const { data: described } = useCells(flora?.id, version);
  if (!answer || places.length === 0) return <Box />;
  return (
    <Part id="in-season" title="In season at your places">
      {places.map((place) => {
        const here = answer.rows.filter((r) => !place.cell || described?.get(r.taxon)?.includes(place.cell));
        const doing = (phases: Schemas["Phenophase"][]) =>
          here.filter((r) => r.year.phases.some((p) => p.now && phases.includes(p.phase)));
        const [flowers, fruits] = [doing(inFlower), doing(inFruit)];
        const named = here.filter((r) => r.year.nameableNow);
        return (
          <Box key={place.id} sx={{ py: 0.75, borderTop: "1px dotted", borderColor: "rule" }}>
            <Link
              component={RouterLink}
              to={`/seasons?place=${place.id}`}
              sx={{ fontSize: "1.0625rem", fontWeight: 600 }}
            >
              {place.name}
            </Link>
            <Typography variant="body2">
              {flowers.length > 0 && (
                <>
                  In flower: <Names rows={flowers} />.{" "}
                </>
              )}
              {fruits.length > 0 && (
                <>
                  In fruit: <Names rows={fruits} />.{" "}
                </>
              )}
              {flowers.length + fruits.length === 0 && "Neither flower nor fruit. "}
              {named.length > 0
                ? `${named.length} of ${here.length} on its list can be named by what they show now.`
                : "Nothing on its list can be named by what it shows now."}
            </Typography>
          </Box>
        );
      })}
    </Part>
  );
}

const MOST_NAMES = 4;

function Names({ rows }: { rows: Schemas["NamedSeasonRow"][] }) {
  return (
    <>
      {rows.slice(0, MOST_NAMES).map((row, i) => (
        <span key={row.taxon}>
          {i > 0 && ", "}
          <TaxonLabel name={row.name} />
        </span>
      ))}
      {rows.length > MOST_NAMES && ` and ${rows.length - MOST_NAMES} more`}
    </>
  );
}

// The grid cells that each taxon is recorded in.
function useCells(floraId: string | undefined, version: string | undefined) {
  const taxa = useAllTaxa(floraId, version);
  return { data: useMemo(() => new Map(taxa.map((t) => [t.id, t.facts?.cells ?? []])), [taxa]) };
}
