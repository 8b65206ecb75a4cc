import { later } from "../../shared/ui/later";
import { useWithComposed } from "../../offline/vocabulary";
import { leadLetter } from "../../shared/botany/leads";
import { Box, Button, Typography } from "@mui/material";
import { useEffect, useMemo, useRef, useState } from "react";
import { useNavigate, useParams } from "react-router";
import { Page } from "../../shared/ui/Page";
import { CautionNotes } from "../../shared/botany/Cautions";

import { CoupletPane } from "./CoupletPane";

import { RemainingTaxa } from "./RemainingTaxa";

import { PlantFigure, type OrganState } from "../PlantFigure";
import { newLook, withLook } from "../sheet/sheet";
import { TrailRibbon } from "./TrailRibbon";
import { useWalk, type OpenCouplet } from "./useWalk";
import { ModeBar } from "../ModeBar";
import { ChooseKey, plantTitle, WalkGone, WalkSending } from "../WalkStates";
import type { Schemas } from "../../api/client";
import { Awaited } from "../../shared/ui/Awaited";
import { useIsPhone } from "../../shared/ui/useIsPhone";
import { WeakestTurn, End, TestTheTrail } from "./TurnAndEnd";
import { counted } from "../../shared/ui/counted";

const OrganSheet = later(async () => (await import("../sheet/OrganSheet")).OrganSheet);
const GlossaryDialog = later(async () => (await import("../../shared/botany/GlossaryDialog")).GlossaryDialog, true);
const KeyboardHelp = later(async () => (await import("./KeyboardHelp")).KeyboardHelp, true);
const KeepForm = later(async () => (await import("../keep/KeepForm")).KeepForm);

type Pane = "figure" | "trail" | "taxa";

const panes: [Pane, string][] = [
  ["figure", "Plant"],
  ["trail", "Trail"],
  ["taxa", "taxa"],
];

const NO_ENDS: Schemas["WeighedEnd"][] = [];

const NO_CHARACTERS: Schemas["Character"][] = [];

/** The Bench: a couplet on the table, the trail and the taxa still standing beside it. */
export function BenchWalk() {
  const { walkId = "" } = useParams();
  return <PlantInHand key={walkId} walkId={walkId} />;
}

function PlantInHand({ walkId }: { walkId: string }) {
  const navigate = useNavigate();
  const bench = useWalk(walkId);
  const { walk, state, reopened, path } = bench;
  const [keeping, setKeeping] = useState(false);
  const [help, setHelp] = useState(false);
  const [term, setTerm] = useState<Schemas["StatementReading"]>();
  const [organ, setOrgan] = useState<{ organ: Schemas["Organ"]; focus?: string }>();
  const isPhone = useIsPhone();
  const [shownPane, setPane] = useState<Pane>();
  const table = useRef<HTMLDivElement>(null);
  const taxa = useMemo(() => new Map(bench.taxa.map((taxon) => [taxon.id, taxon])), [bench.taxa]);

  const couplet = reopened?.open ?? path;
  const at = couplet && { keyVersion: couplet.keyVersion, couplet: couplet.couplet.label };
  const verdict = bench.verdictOf(at);
  const asked = new Set(
    verdict?.leads.flatMap((l) => l.statements.flatMap((st) => st.reading.claims.map((c) => c.character))) ?? [],
  );
  // What says nothing of the plants behind these keys isn't asked for, unless the couplet on the table does.
  const usable = bench.bench?.usable;
  const all = useWithComposed(bench.characters ?? NO_CHARACTERS, bench.walk?.observations);
  const characters = all.filter(
    (c) =>
      !usable ||
      usable.length === 0 ||
      usable.includes(c.id) ||
      asked.has(c.id) ||
      c.id === organ?.focus ||
      !bench.characters?.includes(c),
  );
  const seenNow = (character: Schemas["Character"]) => !bench.bench?.notNow.includes(character.id);
  const organs: OrganState[] = [...new Set(characters.map((c) => c.organ))].map((it) => {
    const own = characters.filter((c) => c.organ === it);
    const lines = bench.bench?.sheet.filter((l) => own.some((c) => c.id === l.character)) ?? [];
    return {
      organ: it,
      seen: new Set(lines.map((l) => l.character)).size,
      conflict: lines.some((l) => l.fitOfBest === "conflicts"),
      asked: own.some((c) => asked.has(c.id)),
      absent: !own.some(seenNow),
    };
  });
  const look = (character: string) => {
    const found = all.find((c) => c.id === character);
    if (found) setOrgan({ organ: found.organ, focus: character });
  };
  // A statement that fits lands on the sheet; one that isn't understood is weighed by hand.
  const onStatement = (lead: number, statement: number, fits: boolean) => {
    if (!walk || !at) return;
    const own = verdict?.leads[lead]?.statements[statement];
    if (!own || own.ifFits.length === 0) {
      const others = (walk.hand ?? []).filter(
        (h) =>
          !(h.keyVersion === at.keyVersion && h.couplet === at.couplet && h.lead === lead && h.statement === statement),
      );
      bench.change({ ...walk, hand: [...others, { ...at, lead, statement, fits }] });
      return;
    }
    const next = (fits ? own.ifFits : own.ifNot).reduce(
      (before, told) =>
        withLook(
          before,
          newLook(before, told.character, { states: told.states, fromCouplet: `${at.keyVersion}#${at.couplet}` }),
        ),
      walk,
    );
    bench.change(next);
  };
  // How sure an answer is, couplet by couplet, as far as it was said.
  const [said, setSaid] = useState<Record<string, boolean>>({});
  const fairly = (at && said[at.keyVersion + at.couplet]) ?? (reopened !== undefined && reopened.sureness !== "sure");
  const answer = (lead: number | null) => {
    if (at) bench.answer(at, lead, fairly && lead !== null ? "fairly" : "sure");
  };
  const sayFairly = (it: boolean) => {
    if (at) setSaid({ ...said, [at.keyVersion + at.couplet]: it });
  };

  const pathOf = (of: { keyVersion: string; couplet: string } | undefined) =>
    bench.bench?.paths.find((it) => it.keyVersion === of?.keyVersion && it.couplet === of.couplet);
  // What lies on either side of a fork, the likeliest of each side, held against each other.
  const contrast = (it: OpenCouplet) => {
    if (!walk) return;
    const sides = pathOf({ keyVersion: it.keyVersion, couplet: it.couplet.label })?.sides ?? [];
    const leads = Object.fromEntries(sides.flatMap((taxa, lead) => taxa.map((id) => [id, leadLetter(lead)])));
    bench.change({ ...walk, inQuestion: Object.keys(leads), sides: { couplet: it.couplet.label, leads } });
    void navigate(`/bench/${walkId}/contrast`);
  };

  useEffect(() => {
    const onKey = (event: KeyboardEvent) => {
      if (keeping || help || term || organ || event.ctrlKey || event.altKey || event.metaKey || isTyping(event.target))
        return;
      const digit = /^[0-9]$/.test(event.key) ? Number(event.key) : undefined;
      if (digit === 0 && at) answer(null);
      else if (digit !== undefined && couplet && digit <= couplet.couplet.leads.length && digit > 0) answer(digit - 1);
      else if (event.key === "f" && at) sayFairly(!fairly);
      else if (event.key === "Backspace") bench.stepBack();
      else if (event.key === "?") setHelp(true);
      else return;
      event.preventDefault();
    };
    window.addEventListener("keydown", onKey);
    return () => window.removeEventListener("keydown", onKey);
  });

  // After each answer the eye, and a screen reader, go on at the new couplet.
  const onTable = keeping ? "keep" : organ ? organ.organ : at ? at.keyVersion + at.couplet : "end";
  const first = useRef(true);
  const loaded = state !== undefined;
  useEffect(() => {
    if (!loaded) return;
    if (first.current) {
      first.current = false;
      return;
    }
    table.current?.focus({ preventScroll: true });
    const top = table.current?.getBoundingClientRect().top ?? 0;
    if (window.innerWidth < 900 || top < 0) table.current?.scrollIntoView();
  }, [onTable, loaded]);

  if (walk === null) return <WalkGone />;
  if (walk?.sending) return <WalkSending />;
  if (walk && !walk.start)
    return <ChooseKey walk={walk} onChoose={(key) => bench.change({ ...walk, start: key.hash, title: key.title })} />;
  if (bench.failure) {
    return (
      <Page title="The key isn’t ready">
        <Typography role="alert">{bench.failure}</Typography>
      </Page>
    );
  }
  // Cautions stand above the leads: they are waited for, so that nothing moves under the finger.
  if (!walk || !state || !bench.characters)
    return (
      <Page title="Key" isTight>
        <Awaited words="Fetching the key …" heights={[96, 96, 56]} />
      </Page>
    );

  const weakest = bench.bench?.weakest ?? undefined;
  // The trail proposes a better open path; it never jumps by itself.
  const betterPath = pathOf(at)?.better;
  const names = state.standing.map((s) => s.name);
  const careful = state.standing.flatMap((s) => (s.taxonId ? (taxa.get(s.taxonId) ?? []) : []));
  const notes = (
    <>
      {weakest && !reopened && (
        <WeakestTurn
          turn={weakest}
          character={all.find((c) => c.id === weakest.character)?.name}
          onLook={() => look(weakest.character)}
          onReopen={() => bench.reopen({ keyVersion: weakest.keyVersion, couplet: weakest.couplet })}
        />
      )}
      {reopened && (
        <Box
          sx={{
            bgcolor: "signal.openWash",
            px: 1.5,
            py: 0.75,
            mb: 1.5,
            display: "flex",
            flexWrap: "wrap",
            alignItems: "center",
            gap: 1,
          }}
        >
          <Typography variant="body2" sx={{ flex: 1 }}>
            <strong>↺ Open again.</strong> A changed answer takes the trail another way; the answers below are kept in
            case you change it back.
          </Typography>
          <Button onClick={() => bench.reopen(undefined)}>Leave it as it is</Button>
        </Box>
      )}
      {betterPath && !reopened && (
        <Box
          sx={{
            bgcolor: "signal.openWash",
            px: 1.5,
            py: 0.5,
            mb: 1.5,
            display: "flex",
            flexWrap: "wrap",
            alignItems: "center",
            gap: 1,
          }}
        >
          <Typography variant="body2" sx={{ flex: "1 1 14rem" }}>
            <strong>⋔ By the evidence another open path is likelier:</strong> couplet {betterPath.couplet},{" "}
            {betterPath.shareInWords}.
          </Typography>
          <Button onClick={() => bench.choosePath(betterPath)}>Go on there</Button>
        </Box>
      )}
    </>
  );
  // On a phone figure, trail and taxa are a tap away, below the leads.
  const isShown = (pane: Pane) => !isPhone || shownPane === pane;
  return (
    <Page
      title={plantTitle(walk)}
      isTight
      aside={
        <>
          <ModeBar walkId={walkId} />
          <Button
            onClick={() => setHelp(true)}
            aria-keyshortcuts="?"
            aria-label="Keyboard ?"
            sx={{ "@media (pointer: coarse)": { display: "none" } }}
          >
            Keyboard <strong style={{ marginLeft: 6 }}>?</strong>
          </Button>
        </>
      }
    >
      <Box
        sx={{
          display: "grid",
          gap: { xs: 1, sm: 2.5, md: 3 },
          gridTemplateColumns: { xs: "minmax(0, 1fr)", md: "270px minmax(0, 1fr) minmax(190px, 240px)" },
          gridTemplateAreas: { xs: '"table" "panes" "figure" "standing" "trail"', md: '"left table standing"' },
        }}
      >
        {/* Beside a long sheet, plant, trail and taxa stay in sight; on a phone each has its place in the one column. */}
        <Box
          sx={{
            display: { xs: "contents", md: "block" },
            gridArea: { md: "left" },
            position: { md: "sticky" },
            top: { md: 8 },
            alignSelf: "start",
            maxHeight: { md: "calc(100vh - 16px)" },
            overflowY: { md: "auto" },
          }}
        >
          {isShown("figure") && organs.length > 0 && (
            <Box sx={{ gridArea: { xs: "figure" }, maxWidth: 340, width: "100%", mx: "auto" }}>
              <PlantFigure
                organs={organs}
                chosen={organ?.organ}
                onChoose={(it) => {
                  setKeeping(false);
                  setOrgan(organ?.organ === it ? undefined : { organ: it });
                }}
              />
            </Box>
          )}
          {isShown("trail") && (
            <Box sx={{ gridArea: { xs: "trail" }, mt: { md: 2 } }}>
              <Typography variant="h2" sx={{ mb: 0.5 }}>
                Trail
              </Typography>
              <TrailRibbon
                steps={state.steps}
                open={state.open}
                at={at}
                bySheet={bench.bench?.bySheet}
                fairly={walk.answers.filter((a) => a.sureness && a.sureness !== "sure")}
                against={bench.bench?.against}
                weakest={weakest}
                shares={bench.bench && bench.bench.sheet.length > 0 ? bench.bench.paths : []}
                onReopen={(step) => {
                  setKeeping(false);
                  setOrgan(undefined);
                  bench.reopen({ keyVersion: step.keyVersion, couplet: step.couplet });
                }}
                onPath={(name) => {
                  setKeeping(false);
                  setOrgan(undefined);
                  bench.reopen(undefined);
                  bench.choosePath(name);
                }}
              />
            </Box>
          )}
        </Box>
        <Box ref={table} tabIndex={-1} sx={{ gridArea: "table", outline: "none", scrollMarginTop: 8 }}>
          {keeping ? (
            <KeepForm
              walk={walk}
              names={names}
              said={
                names.length === 1
                  ? "The trail ends at one taxon."
                  : `${names.length} taxa are still open: kept as an open set. That is a good record; it says what is still to be seen.`
              }
              trail={{
                startKey: walk.start,
                answers: (bench.bench?.answers ?? walk.answers).filter((a) =>
                  state.steps.some((it) => it.keyVersion === a.keyVersion && it.couplet === a.couplet),
                ),
              }}
              backTo="Back to the key"
              onChange={(form) => bench.change({ ...walk, form, problem: undefined })}
              onBack={() => setKeeping(false)}
              onKept={(plantId) => void navigate(`/plants/${plantId}`)}
              onWaiting={() => void navigate("/records")}
              onRefused={(problem) => bench.setWalk({ ...walk, problem })}
            />
          ) : organ ? (
            <>
              <CautionNotes taxa={careful} />
              <OrganSheet
                key={organ.organ}
                organ={organ.organ}
                focus={organ.focus}
                walk={walk}
                characters={characters.filter((c) => c.organ === organ.organ)}
                lines={bench.bench?.sheet ?? []}
                asked={asked}
                seenNow={seenNow}
                backTo="Back to the key"
                onChange={bench.change}
                onBack={() => setOrgan(undefined)}
              />
            </>
          ) : (
            <>
              <CautionNotes taxa={careful} isFolded={isPhone} />
              {!isPhone && notes}
              {couplet ? (
                <CoupletPane
                  open={couplet}
                  verdict={verdict}
                  given={reopened?.lead}
                  fairly={fairly}
                  onFairly={sayFairly}
                  onAnswer={answer}
                  onStatement={onStatement}
                  onLook={look}
                  onTerm={setTerm}
                  onContrast={() => contrast(couplet)}
                />
              ) : (
                <End names={names} />
              )}
              {isPhone && notes}
              <Box sx={{ display: "flex", flexWrap: "wrap", gap: 1.5, mt: { xs: 1, sm: 1.5 } }}>
                <Button
                  variant={couplet ? "outlined" : "contained"}
                  disabled={state.steps.length === 0}
                  onClick={() => setKeeping(true)}
                >
                  {couplet ? "Keep it as it stands" : "Keep it"}
                </Button>
                <Button disabled={state.steps.length === 0} onClick={bench.stepBack} aria-keyshortcuts="Backspace">
                  Step back
                </Button>
              </Box>
              {!couplet && (
                <TestTheTrail
                  looks={bench.bench?.trailLooks ?? []}
                  nameOf={(id) => all.find((c) => c.id === id)?.name ?? id}
                  onLook={look}
                />
              )}
            </>
          )}
        </Box>
        {isPhone && (
          <Box sx={{ gridArea: "panes", display: "grid", gap: 1 }}>
            <Box role="group" aria-label="Beside the couplet" sx={{ display: "flex", gap: 1 }}>
              {panes.map(([pane, name]) => (
                <Button
                  key={pane}
                  aria-pressed={shownPane === pane}
                  onClick={() => setPane(shownPane === pane ? undefined : pane)}
                  sx={{ flex: 1, px: 0.5, bgcolor: shownPane === pane ? "signal.chosenWash" : undefined }}
                >
                  {pane === "taxa" ? counted(state.standing.length, "taxon", name) : name}
                </Button>
              ))}
            </Box>
            <ModeBar walkId={walkId} />
          </Box>
        )}
        {isShown("taxa") && (
          <Box
            tabIndex={0}
            role="region"
            aria-labelledby="standing"
            sx={{
              gridArea: "standing",
              position: { md: "sticky" },
              top: { md: 8 },
              alignSelf: "start",
              maxHeight: { md: "calc(100vh - 16px)" },
              overflowY: { md: "auto" },
            }}
          >
            <RemainingTaxa
              standing={state.standing}
              taxa={taxa}
              ends={bench.bench?.isWeighed ? bench.bench.ends : NO_ENDS}
            />
          </Box>
        )}
      </Box>
      {term && (
        <GlossaryDialog
          characters={all.filter((c) => term.claims.some((claim) => claim.character === c.id))}
          marked={term.claims.flatMap((claim) => claim.states)}
          onClose={() => setTerm(undefined)}
        />
      )}
      {help && <KeyboardHelp onClose={() => setHelp(false)} />}
    </Page>
  );
}

function isTyping(target: EventTarget | null): boolean {
  return (
    target instanceof HTMLElement &&
    (target.isContentEditable ||
      ["INPUT", "TEXTAREA", "SELECT"].includes(target.tagName) ||
      target.closest("[role=listbox], [role=dialog]") !== null)
  );
}
