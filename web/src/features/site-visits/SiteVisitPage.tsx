import { Box, Button, Link, Typography } from "@mui/material";
import { useState } from "react";
import { Link as RouterLink, useParams } from "react-router";
import { v7 as uuid } from "uuid";
import type { Schemas } from "../../api/client";
import { timeNow, today } from "../../api/today";
import words from "../../api/words";
import { useMending, useSend } from "../../offline/mending";
import { send, sendTogether } from "../../offline/outbox";
import { useSiteVisit } from "../../offline/siteVisits";
import { Callout, GroundCaution } from "../../shared/botany/Cautions";
import { brief, weekday, dayOrSpan } from "../../shared/calendar/day";
import { lastRecorder } from "../../shared/form/last";
import { useTyped } from "../../shared/form/useTyped";
import { holdTrack } from "../../shared/place/tracking";
import { Page, Part } from "../../shared/ui/Page";
import { useIsPhone } from "../../shared/ui/useIsPhone";
import { useStable } from "../../shared/ui/useStable";
import { WaitingNote } from "../../shared/ui/WaitingNote";
import { later } from "../../shared/ui/later";
import { AwaitedTaxa } from "./AwaitedTaxa";
import { Compartments, useCompartments } from "./Compartments";
import { LastListed } from "./LastListed";
import { ListedRecords } from "./ListedRecords";
import { ListEntry } from "./ListEntry";
import { PlannedQuestions } from "./PlannedQuestions";
import { TrackControl, useOwnTrack } from "./TrackControl";
import { usePosition } from "./usePosition";
import { useListAdvice } from "./useListAdvice";
import { OtherHands } from "./OtherHands";
import {
  headCommand,
  lineCommand,
  lineTime,
  NOTHING_NOTED,
  through,
  withdraw,
  type Hands,
  type Listed,
  type Where,
} from "./useVisitCommands";
import { VisitSummary } from "./VisitSummary";

const NONE: Schemas["Awaited"][] = [];

const LineForm = later(async () => (await import("./LineForm")).LineForm);
const VisitForm = later(async () => (await import("./VisitForm")).VisitForm);
const PasteList = later(async () => (await import("./PasteList")).PasteList);
const VisitTracks = later(async () => (await import("./VisitTracks")).VisitTracks);
const MoveLines = later(async () => (await import("./MoveLines")).MoveLines);

/** A visit: its head, its list as it is written, and what may be found yet. */
export function SiteVisitPage() {
  const { visitId = "" } = useParams();
  const { data: visit, isError } = useSiteVisit(visitId);
  const recorder = visit && (visit.people.find((it) => it.name === lastRecorder()) ?? visit.people[0]);
  return (
    <Page
      title={visit ? visit.place.name : "Visit"}
      isTight
      isKeptBack={(visit?.sensitive?.length ?? 0) > 0}
      aside={
        visit && (
          <Typography color="text.secondary">
            {visit.until ? dayOrSpan(visit.date, visit.until) : `${weekday(visit.date)} ${visit.date.slice(0, 4)}`}
          </Typography>
        )
      }
    >
      {isError && (
        <Typography role="alert">
          There is no such visit on this device, and the server can’t be asked just now, or doesn’t know it.
        </Typography>
      )}
      {visit && recorder && <Visit visit={visit} recorder={recorder} />}
    </Page>
  );
}

/** What to mind at the place; on a phone one line that opens once the list is begun. */
function Hazards({ text, isFolded }: { text: string; isFolded: boolean }) {
  const isPhone = useIsPhone();
  if (!isFolded || !isPhone) return <GroundCaution text={text} />;
  return (
    <Box component="details" sx={{ bgcolor: "signal.cautionWash", px: 1 }}>
      <Box component="summary" sx={{ minHeight: 44, display: "flex", alignItems: "center", fontWeight: 700 }}>
        △ Site hazards
      </Box>
      <Typography variant="body2" sx={{ pb: 1 }}>
        {text}
      </Typography>
    </Box>
  );
}

function Visit({ visit, recorder }: { visit: Schemas["SiteVisit"]; recorder: Schemas["PersonReference"] }) {
  const { flora, host, advice, answer } = useListAdvice(visit);
  const mend = useMending("saveSiteVisit", "listTaxon");
  const [changing, setChanging] = useState(false);
  const [part, setPart] = useTyped<string>(`visit-part:${visit.id}`, () => "");
  const [last, setLast] = useState<{
    id: string;
    name: string;
    details: Schemas["LineDetails"];
    compartment: string;
    site: Schemas["PlantSite"] | null;
  }>();
  const [isTyping, setTyping] = useState(false);
  const [isPasting, setPasting] = useState(false);
  const [isSplitting, setSplitting] = useState(false);
  const [hands, setHands] = useState<Hands>({ determiner: "", typist: "" });
  const [failure, setFailure] = useState("");
  const isPhone = useIsPhone();
  const { running: track } = useOwnTrack(visit.id);
  const position = usePosition(visit.place, track !== undefined && !track.isHeld && !visit.closing);
  const compartments = useCompartments(visit.place);
  const again = useSend();
  const isOpen = !visit.closing;
  const compartment = part ?? "";
  const parts = [...new Set(visit.lines.map((it) => it.compartment).filter(Boolean))];
  // A line of a compartment is of its circle, not of where it was typed.
  const siteNow = () => compartments.siteOf(compartment) ?? position.siteNow();
  const whereNow = useStable((): Where => ({ compartment, site: siteNow(), at: lineTime(visit) }));
  const list = async (listed: Omit<Listed, "compartment">, where = whereNow()) => {
    const id = uuid();
    const it = { ...listed, details: through(listed.details, hands) };
    setLast({
      id,
      name: it.taxon || (it.unnamed ?? ""),
      details: it.details ?? NOTHING_NOTED,
      compartment: where.compartment,
      site: where.site,
    });
    const sent = await send(lineCommand(visit, recorder, { ...where, ...it }, id));
    setFailure(sent.kind === "refused" ? `${sent.problem.title} ${sent.problem.detail}` : "");
  };
  // A list out of a notebook is kept in one step: nobody waits for each of its lines.
  const listAll = async (lines: Omit<Listed, "compartment">[]) => {
    const where = whereNow();
    const sent = await sendTogether(
      lines.map((it) => lineCommand(visit, recorder, { ...where, ...it, details: through(it.details, hands) })),
    );
    const refused = sent.find((it) => it.kind === "refused");
    setFailure(refused ? `${refused.problem.title} ${refused.problem.detail}` : "");
  };
  const listOne = useStable((taxon: string, details?: Schemas["LineDetails"], where?: Where) =>
    list({ taxon, details }, where),
  );
  const listAwaited = useStable((taxon: string) => void listOne(taxon));
  const takeBack = useStable((line: Schemas["ListLine"]) => void withdraw(visit, line.id));
  const unnamed = async () => {
    const numbers = visit.lines.map((it) => Number(/^unnamed (\d+)$/.exec(it.unnamed)?.[1] ?? 0));
    const label = `unnamed ${Math.max(0, ...numbers) + 1}`;
    const plantId = uuid();
    const sent = await send(
      {
        kind: "tagPlant",
        id: uuid(),
        plantId,
        placeId: visit.place.id,
        label: `${label}, ${visit.date}`,
        taggedOn: visit.date,
        recorder,
        // The plant stands where its line does.
        site: position.siteNow(),
        finding: { landmark: "", bearingDegrees: null, distanceMetres: null, note: compartment },
        populationId: null,
        version: null,
      },
      { creates: [plantId] },
    );
    if (sent.kind === "refused") return setFailure(`${sent.problem.title} ${sent.problem.detail}`);
    await list({ taxon: "", unnamed: label, plantId });
  };
  const pause = visit.pauses.at(-1);
  const isPaused = pause !== undefined && pause.to === "";
  const setPauses = async (pauses: Schemas["VisitPause"][]) => {
    holdTrack(visit.id, pauses.at(-1)?.to === "");
    const sent = await again(headCommand(visit, { pauses }));
    setFailure(sent.kind === "refused" ? `${sent.problem.title} ${sent.problem.detail}` : "");
  };
  const isLate = isOpen && visit.date < today();
  return (
    <>
      {visit.place.caution && isOpen && <Hazards text={visit.place.caution} isFolded={visit.lines.length > 0} />}
      <Box sx={{ display: "flex", flexWrap: "wrap", alignItems: "center", columnGap: 1.5, rowGap: 0.5, mb: 1 }}>
        <Typography>
          {isPhone && `${visit.place.name}, ${brief(visit.date)}: `}
          {visit.people.map((it) => it.name).join(", ")}
          {visit.startedAt && isOpen && `, since ${visit.startedAt}`}
          {visit.purpose && ` · ${visit.purpose}`}
          {visit.weather && ` · ${visit.weather}`}
          {visit.safety && isOpen && ` · ${visit.safety.contact} expects you by ${visit.safety.backBy}`}
        </Typography>
        <WaitingNote id={visit.id} />
        <Box sx={{ display: "flex", flexWrap: "wrap", gap: 1 }}>
          <Button onClick={() => setChanging(!changing)} aria-expanded={changing}>
            Details
          </Button>
          {isOpen && visit.startedAt && visit.date === today() && (
            <Button
              aria-pressed={isPaused}
              onClick={() =>
                void setPauses(
                  isPaused
                    ? visit.pauses.map((it) => (it === pause ? { ...it, to: timeNow() } : it))
                    : [...visit.pauses, { from: timeNow(), to: "" }],
                )
              }
            >
              {isPaused ? `Go on (paused since ${pause.from})` : "Pause"}
            </Button>
          )}
          <Button
            component={RouterLink}
            to={`/site-visits/${visit.id}/end`}
            variant={isLate ? "contained" : "outlined"}
          >
            {isOpen ? "End the visit" : "What was said at its end"}
          </Button>
        </Box>
      </Box>
      {isLate && (
        <Callout tone="open" role="note">
          This visit was never ended. Say when it was, and what was looked for in vain; then its list counts.
        </Callout>
      )}
      {failure && (
        <Typography role="alert" color="error">
          ✕ {failure}
        </Typography>
      )}
      {(changing || mend?.command.kind === "saveSiteVisit") && (
        <VisitForm
          visit={visit}
          refused={mend?.command.kind === "saveSiteVisit" ? { id: mend.id, command: mend.command } : undefined}
          make={(typed) => ({ ...headCommand(visit, {}), ...typed })}
          submitName="Keep it"
          onDone={() => setChanging(false)}
          onCancel={() => setChanging(false)}
        />
      )}
      {mend?.command.kind === "listTaxon" && (
        <Part id="mend" title="A line that was refused">
          <LineForm
            visit={visit}
            recorder={mend.command.recorder}
            from={{
              taxon: mend.command.taxon,
              unnamed: mend.command.unnamed ?? "",
              plantId: mend.command.plantId ?? null,
              compartment: mend.command.compartment ?? "",
              details: mend.command.details ?? NOTHING_NOTED,
              site: mend.command.site ?? null,
            }}
            supersedes={mend.command.supersedes ?? undefined}
            mends={mend.id}
            onDone={() => history.replaceState(null, "", `/site-visits/${visit.id}`)}
          />
        </Part>
      )}
      {visit.closing && <VisitSummary visit={visit} />}
      <Box sx={{ display: "grid", gap: { xs: 2, md: 4 }, gridTemplateColumns: { md: "7fr 5fr" } }}>
        <Box sx={{ minWidth: 0 }}>
          {isOpen && flora && (
            <>
              <ListEntry
                visitId={visit.id}
                floraId={flora.id}
                host={host}
                onList={listOne}
                whereNow={whereNow}
                onTyping={setTyping}
              />
              {last && !isTyping && (
                <LastListed
                  visit={visit}
                  recorder={recorder}
                  line={last}
                  compartment={last.compartment}
                  advice={advice.get(last.id)}
                  onChanged={(id, details) => setLast({ ...last, id, details })}
                  onUndo={() => {
                    void withdraw(visit, last.id);
                    setLast(undefined);
                  }}
                />
              )}
              <Box sx={{ display: "flex", flexWrap: "wrap", gap: 1, alignItems: "flex-start", my: 1.5 }}>
                <Compartments compartments={compartments} value={compartment} onChange={setPart} used={parts} />
                <Button onClick={() => void unnamed()}>A plant I can’t name yet</Button>
                <Button aria-expanded={isPasting} onClick={() => setPasting(!isPasting)}>
                  Paste a list
                </Button>
                {visit.date === today() && <TrackControl visit={visit} recorder={recorder} position={position} />}
              </Box>
            </>
          )}
          {isOpen && flora && visit.date !== today() && <OtherHands value={hands} onChange={setHands} />}
          {isOpen && flora && isPasting && (
            <PasteList floraId={flora.id} host={host} onList={listAll} onDone={() => setPasting(false)} />
          )}
          {visit.records.length === 0 ? (
            <Typography sx={{ mt: 2 }}>
              {isOpen ? "Nothing is listed yet. " : "Nothing was listed. "}
              {isOpen && words.mindedAtStart.join(" ")}
            </Typography>
          ) : (
            <ListedRecords visit={visit} advice={advice} recorder={recorder} isOpen={isOpen} onWithdraw={takeBack} />
          )}
        </Box>
        <Box sx={{ minWidth: 0 }}>
          {visit.planned && visit.planned.length > 0 && <PlannedQuestions planned={visit.planned} />}
          <AwaitedTaxa
            id="before"
            title="Seen here before, not yet today"
            awaited={answer?.seenBefore ?? NONE}
            onList={isOpen ? listAwaited : undefined}
          />
          <AwaitedTaxa
            id="expected"
            title="Expected here now by the flora"
            awaited={answer?.expected ?? NONE}
            onList={isOpen ? listAwaited : undefined}
          />
          {(!isOpen || (visit.tracks?.length ?? 0) > 0 || visit.date !== today()) && (
            <VisitTracks visit={visit} recorder={recorder} />
          )}
          {visit.lines.length > 0 && (
            <Box sx={{ my: 1 }}>
              {isSplitting ? (
                <MoveLines visit={visit} onDone={() => setSplitting(false)} />
              ) : (
                <Button onClick={() => setSplitting(true)}>Move lines to another visit</Button>
              )}
            </Box>
          )}
          <Link component={RouterLink} to={`/site-visits?place=${visit.place.id}`}>
            Other visits to {visit.place.name}
          </Link>
        </Box>
      </Box>
    </>
  );
}
