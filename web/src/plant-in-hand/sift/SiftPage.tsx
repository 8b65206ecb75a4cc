import { later } from "../../shared/ui/later";
import words from "../../api/words";
import { useBenchFlora } from "../../shared/botany/useBenchFlora";
import { Box, Button, ButtonBase, Typography } from "@mui/material";
import { startTransition, useEffect, useMemo, useRef, useState } from "react";
import { useNavigate, useParams } from "react-router";
import type { Schemas } from "../../api/client";
import { Page } from "../../shared/ui/Page";

import { useAllTaxa, useDescribed } from "../../offline/taxa";

import { PlantFigure, type OrganState } from "../PlantFigure";
import { useStoredWalk } from "../useStoredWalk";
import { plantTitle, FloraMissing, WalkGone, WalkSending } from "../WalkStates";
import { CautionNotes } from "../../shared/botany/Cautions";
import { NamesLabel } from "../../shared/botany/TaxonLabel";
import { Circumstances } from "./Circumstances";
import { ModeBar } from "../ModeBar";
import { MOST_DRAWN, Ranking } from "./Ranking";
import { TellingLooks } from "./TellingLooks";
import { newLook, withLook } from "../sheet/sheet";
import { Awaited } from "../../shared/ui/Awaited";
import { isPhoneNow, useIsPhone } from "../../shared/ui/useIsPhone";
import { NOT_ON_LIST, useSift } from "./useSift";
import { Call, GiveawayNote, onePerTaxon } from "./SiftCall";

// Of a wide page it is no part; on a phone it is fetched with the page itself.
const fetchLookAfterLook = async () => (await import("./LookAfterLook")).LookAfterLook;
if (isPhoneNow()) void fetchLookAfterLook().catch(() => undefined);
const LookAfterLook = later(fetchLookAfterLook);
const OrganSheet = later(async () => (await import("../sheet/OrganSheet")).OrganSheet);
const KeepForm = later(async () => (await import("../keep/KeepForm")).KeepForm);

const MOST_GIVEAWAYS = 2;
const { fewestToContrast, mostToContrast } = words.limits;

const mayLack: string[] = words.organsThatMayLack;

/** Sift: whatever was seen, in any order, and the list as it stands by it. */
export function SiftPage() {
  const { walkId = "" } = useParams();
  return <Sift key={walkId} walkId={walkId} />;
}

function Sift({ walkId }: { walkId: string }) {
  const navigate = useNavigate();
  const { walk, setWalk, change } = useStoredWalk(walkId);
  const {
    flora,
    floras,
    asked: askedFlora,
    characters,
    failure,
    isMissing,
  } = useBenchFlora(walk?.floraId, walk?.observations);
  const [opened, setOpened] = useState<string[]>([]);
  const sift = useSift(walk, askedFlora, opened);
  const { answer, settings } = sift;
  const [organ, setOrgan] = useState<{ organ: Schemas["Organ"]; focus?: string }>();
  const [keeping, setKeeping] = useState(false);
  const [all, setAll] = useState(false);
  const isPhone = useIsPhone();
  const [isList, setList] = useState(false);
  const table = useRef<HTMLDivElement>(null);
  const taxa = useAllTaxa(askedFlora);
  const drawn = answer?.standing.slice(0, MOST_DRAWN * 4).map((it) => it.taxon) ?? [];
  const described = useDescribed(
    askedFlora,
    drawn.filter((id) => id !== NOT_ON_LIST),
  );
  const byId = useMemo(() => new Map(taxa.map((taxon) => [taxon.id, taxon])), [taxa]);
  const nameOf = (id: string) => byId.get(id)?.name ?? id;
  // The list is drawn again in small pieces, so that the page goes on meanwhile.
  const backToList = () => startTransition(() => setOrgan(undefined));

  const onTable = keeping ? "keep" : organ ? organ.organ + (organ.focus ?? "") : "standing";
  const first = useRef(true);
  useEffect(() => {
    if (first.current) {
      first.current = false;
      return;
    }
    table.current?.focus({ preventScroll: true });
    if (window.innerWidth < 900 || (table.current?.getBoundingClientRect().top ?? 0) < 0)
      table.current?.scrollIntoView();
  }, [onTable]);

  if (walk === null) return <WalkGone />;
  if (walk?.sending) return <WalkSending />;
  if (walk && isMissing) return <FloraMissing walk={walk} floras={floras} onChoose={change} />;
  if (failure && !answer) {
    return (
      <Page title="The list isn’t ready" aside={<ModeBar walkId={walkId} />}>
        <Typography role="alert">{failure}</Typography>
      </Page>
    );
  }
  if (!walk || !flora || !answer) {
    return (
      <Page title="By characters" aside={<ModeBar walkId={walkId} />} isTight>
        {sift.failure ? (
          <Typography role="alert">{sift.failure}</Typography>
        ) : (
          <Awaited words="Making the list ready …" heights={[48, 160, 96, 96]} />
        )}
      </Page>
    );
  }

  const inQuestion = walk.inQuestion ?? answer.inQuestion;
  const leader = answer.standing.find((it) => it.taxon !== NOT_ON_LIST);
  const fitOf = new Map(leader?.reasons.map((reason) => [reason.character, reason.fit]));
  const lines = answer.sheet.map((line) => ({ ...line, fitOfBest: fitOf.get(line.character) ?? null }));
  const asked = new Set(answer.tellingLooks.slice(0, 1).map((look) => look.character));
  const notNow = new Set(answer.later.filter((look) => look.reason === "season").map((look) => look.character));
  const organs: OrganState[] = [...new Set(characters.map((c) => c.organ))].map((it) => {
    const own = characters.filter((c) => c.organ === it);
    const seen = lines.filter((l) => own.some((c) => c.id === l.character));
    return {
      organ: it,
      seen: new Set(seen.map((l) => l.character)).size,
      conflict: seen.some((l) => l.fitOfBest === "conflicts"),
      asked: own.some((c) => asked.has(c.id)),
      absent: settings.missing.includes(it),
    };
  });
  const look = (character: string) => {
    const found = characters.find((c) => c.id === character);
    setKeeping(false);
    if (found) startTransition(() => setOrgan({ organ: found.organ, focus: character }));
  };
  const toggle = (taxon: string) =>
    change({
      ...walk,
      sides: undefined,
      inQuestion: inQuestion.includes(taxon)
        ? inQuestion.filter((it) => it !== taxon)
        : [...inQuestion, taxon].slice(-mostToContrast),
    });
  const contrast = () => {
    const near = answer.standing.filter((it) => it.taxon !== NOT_ON_LIST).map((it) => it.taxon);
    // One alone is held against what comes next.
    const taken =
      inQuestion.length >= fewestToContrast
        ? inQuestion
        : [...new Set([...inQuestion, ...near])].slice(0, fewestToContrast);
    change({ ...walk, inQuestion: taken });
    void navigate(`/bench/${walkId}/contrast`, { replace: true });
  };
  const names = inQuestion.map(nameOf);
  const careful = answer.standing.flatMap((it) =>
    it.isWarnedOf && answer.isWeighed ? (byId.get(it.taxon) ?? []) : [],
  );
  const hasSeen = answer.sheet.length > 0;
  const record = (character: string, state: string) =>
    change(withLook(walk, newLook(walk, character, { states: [state] })));
  if (isPhone && !isList && !keeping && !organ)
    return (
      <Page title={plantTitle(walk)} isTight>
        <CautionNotes taxa={careful} isFolded />
        <LookAfterLook
          walk={walk}
          settings={settings}
          answer={answer}
          characters={characters}
          nameOf={nameOf}
          onChange={change}
          onList={() => setList(true)}
          onCheck={() => void navigate(`/bench/${walkId}/confirm`)}
        />
        <ModeBar walkId={walkId} />
      </Page>
    );
  const [nextLook] = answer.tellingLooks;
  return (
    <Page title={plantTitle(walk)} aside={<ModeBar walkId={walkId} />}>
      {isPhone && (
        <Button onClick={() => setList(false)} sx={{ mb: 1 }}>
          Look after look
        </Button>
      )}
      <Circumstances
        walk={walk}
        settings={settings}
        places={sift.places}
        atHand={sift.atHand}
        floras={floras}
        floraId={flora.id}
        taxa={taxa}
        organs={organs.map((it) => it.organ).filter((it) => mayLack.includes(it))}
        onAtHand={sift.changeAtHand}
        onChange={change}
      />
      <Box
        sx={{
          display: "grid",
          gap: { xs: 2, md: 3 },
          gridTemplateColumns: { xs: "minmax(0, 1fr)", md: "270px minmax(0, 1fr) minmax(280px, 340px)" },
          gridTemplateAreas: { xs: '"table" "next" "left"', md: '"left table next"' },
          alignItems: "start",
        }}
      >
        <Box
          sx={{
            gridArea: "left",
            position: { md: "sticky" },
            top: { md: 8 },
            maxHeight: { md: "calc(100vh - 16px)" },
            overflowY: { md: "auto" },
          }}
        >
          <Box sx={{ maxWidth: 340, mx: "auto" }}>
            {organs.length > 0 && (
              <PlantFigure
                organs={organs}
                chosen={organ?.organ}
                onChoose={(it) => {
                  setKeeping(false);
                  startTransition(() => setOrgan(organ?.organ === it ? undefined : { organ: it }));
                }}
              />
            )}
          </Box>
          {hasSeen && (
            <Box sx={{ mt: 1.5 }}>
              <Typography variant="h2">Seen</Typography>
              <Box component="ul" sx={{ listStyle: "none", p: 0, m: 0 }}>
                {lines.map((line) => (
                  <Box component="li" key={line.character + line.seen}>
                    <ButtonBase
                      onClick={() => look(line.character)}
                      sx={{
                        display: "block",
                        width: "100%",
                        textAlign: "left",
                        minHeight: 44,
                        py: 0.5,
                        borderTop: "1px dotted",
                        borderColor: "rule",
                        "&:hover": { bgcolor: "signal.chosenWash" },
                      }}
                    >
                      <Typography component="span" variant="caption" color="text.secondary" sx={{ display: "block" }}>
                        {characters.find((c) => c.id === line.character)?.name ?? line.character}
                      </Typography>
                      <Typography component="span" variant="body2">
                        <Box
                          component="span"
                          sx={{
                            color: line.fitOfBest === "conflicts" ? "signal.conflict" : "signal.support",
                            fontWeight: 700,
                          }}
                        >
                          {line.fitOfBest === "conflicts" ? "✕" : "●"}
                        </Box>{" "}
                        {line.seen}
                        {line.reason && ` (${line.reason})`}
                      </Typography>
                    </ButtonBase>
                  </Box>
                ))}
              </Box>
            </Box>
          )}
        </Box>
        <Box ref={table} tabIndex={-1} sx={{ gridArea: "table", outline: "none", scrollMarginTop: 8, minWidth: 0 }}>
          {keeping ? (
            <KeepForm
              walk={walk}
              names={names}
              said={
                names.length === 1
                  ? "Named by what was seen, without a key."
                  : `${names.length} taxa are on the shortlist: kept as an open set. That is a good record; it says what is still to be seen.`
              }
              trail={undefined}
              backTo="Back to the list"
              onChange={(form) => change({ ...walk, form, problem: undefined })}
              onBack={() => setKeeping(false)}
              onKept={(plantId) => void sift.learn().then(() => navigate(`/plants/${plantId}`))}
              onWaiting={() => void sift.learn().then(() => navigate("/records"))}
              onRefused={(problem) => setWalk({ ...walk, problem })}
            />
          ) : (
            <>
              <CautionNotes taxa={careful} />
              <Call answer={answer} nameOf={nameOf} />
              {sift.strangers?.inWords && (
                <Typography variant="body2" color="text.secondary" sx={{ mb: 0.5 }}>
                  {sift.strangers.inWords}
                </Typography>
              )}
              {!organ && nextLook && (
                <Button
                  variant="contained"
                  onClick={() => look(nextLook.character)}
                  sx={{ display: { md: "none" }, my: 1, width: "100%", minHeight: 52 }}
                >
                  Best to check next: {characters.find((c) => c.id === nextLook.character)?.name ?? nextLook.character}
                </Button>
              )}
              {answer.alike.map((set) => (
                <Typography key={set.join()} variant="body2" sx={{ mb: 0.5 }}>
                  <strong>◐ Described alike:</strong> <NamesLabel names={set.map(nameOf)} />. No look in this flora
                  tells them apart; keep them as an open set.
                </Typography>
              ))}
              {onePerTaxon(answer.giveaways)
                .slice(0, MOST_GIVEAWAYS)
                .map((it) => (
                  <GiveawayNote
                    key={it.taxon + it.character + it.state}
                    it={it}
                    name={nameOf(it.taxon)}
                    listed={answer.listed}
                    seen={answer.sheet.some((line) => line.character === it.character)}
                    onLook={() => look(it.character)}
                  />
                ))}
              {organ ? (
                <OrganSheet
                  key={organ.organ}
                  organ={organ.organ}
                  focus={organ.focus}
                  walk={walk}
                  characters={characters.filter((c) => c.organ === organ.organ)}
                  lines={lines}
                  asked={new Set(organ.focus ? [organ.focus] : [])}
                  askedBy="asked for by the list"
                  seenNow={(character) => !notNow.has(character.id)}
                  backTo="Back to the list"
                  onChange={change}
                  onBack={backToList}
                />
              ) : (
                <>
                  {answer.call === "nothing" && !all && (
                    <Box sx={{ my: 1 }}>
                      <Typography>
                        Tap a part of the plant and record whatever you see of it, in any order; or take the first look
                        that is proposed: it tells most for the effort.
                      </Typography>
                      <Button sx={{ mt: 1 }} onClick={() => setAll(true)}>
                        Show the whole list
                      </Button>
                    </Box>
                  )}
                  {(answer.call !== "nothing" || all) && (
                    <Ranking
                      answer={answer}
                      prior={settings.prior}
                      strict={settings.tolerance !== undefined}
                      described={described}
                      characters={characters}
                      inQuestion={inQuestion}
                      opened={opened}
                      onOpen={(taxon, open) =>
                        setOpened(open ? [...opened, taxon] : opened.filter((it) => it !== taxon))
                      }
                      onToggle={toggle}
                      onLook={look}
                    />
                  )}
                  <Box sx={{ display: "flex", flexWrap: "wrap", gap: 1.5, mt: 1.5 }}>
                    {(answer.call !== "nothing" || inQuestion.length > 0) && (
                      <Button variant="contained" onClick={contrast}>
                        {inQuestion.length >= 2
                          ? `Contrast the ${inQuestion.length} of the shortlist`
                          : inQuestion.length === 1
                            ? "Contrast it with the next"
                            : "Contrast the first two"}
                      </Button>
                    )}
                    <Button disabled={inQuestion.length === 0} onClick={() => setKeeping(true)}>
                      {inQuestion.length === 1 ? `Keep it as ${names[0]}` : "Keep the shortlist"}
                    </Button>
                    {walk.inQuestion && (
                      <Button onClick={() => change({ ...walk, inQuestion: undefined, sides: undefined })}>
                        Take those that lead
                      </Button>
                    )}
                  </Box>
                </>
              )}
            </>
          )}
        </Box>
        <Box
          tabIndex={0}
          role="region"
          aria-labelledby="next"
          sx={{
            gridArea: "next",
            position: { md: "sticky" },
            top: { md: 8 },
            maxHeight: { md: "calc(100vh - 16px)" },
            overflowY: { md: "auto" },
          }}
        >
          <TellingLooks
            now={answer.tellingLooks}
            later={answer.later}
            characters={characters}
            onLook={look}
            onSkip={(character) => change({ ...walk, sift: { ...settings, skip: [...settings.skip, character] } })}
            onState={record}
          />
        </Box>
      </Box>
    </Page>
  );
}
