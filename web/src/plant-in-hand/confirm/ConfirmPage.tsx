import { later } from "../../shared/ui/later";
import words from "../../api/words";
import { useBenchFlora } from "../../shared/botany/useBenchFlora";
import { Box, Button, Typography } from "@mui/material";
import { startTransition, useMemo, useState } from "react";
import { useNavigate, useParams } from "react-router";
import type { Schemas } from "../../api/client";
import { Page, Part } from "../../shared/ui/Page";
import { useAllTaxa } from "../../offline/taxa";
import { useAskedEither } from "../../offline/hosts";
import { usePlaces } from "../../offline/documents";
import { useSurveyAt } from "../../offline/surveys";
import type { ConfirmSettings } from "../../offline/store";

import { useStoredWalk } from "../useStoredWalk";
import { plantTitle, FloraMissing, WalkGone, WalkSending } from "../WalkStates";
import { ModeBar } from "../ModeBar";
import { NOT_ON_LIST, plainSettings, siftPlace } from "../sift/useSift";
import { CautionNotes } from "../../shared/botany/Cautions";
import { TaxonLabel } from "../../shared/botany/TaxonLabel";
import { CheckList } from "./CheckList";
import { GradeShoot } from "../../shared/botany/GradeShoot";
import { LookAlikeList } from "./LookAlikeList";
import { NearestPlants } from "../sift/NearestPlants";
import { OpenNeeds } from "./OpenNeeds";
import { Naming, Choices } from "./ConfirmChoices";

const OrganSheet = later(async () => (await import("../sheet/OrganSheet")).OrganSheet);
const KeepForm = later(async () => (await import("../keep/KeepForm")).KeepForm);

/** Confirm: how well a name stands, what is still missing, and when that can be seen. */
export function ConfirmPage() {
  const { walkId = "" } = useParams();
  return <Confirm key={walkId} walkId={walkId} />;
}

const plainConfirm: ConfirmSettings = { rules: "confirmed-list", explanations: {} };

function Confirm({ walkId }: { walkId: string }) {
  const navigate = useNavigate();
  const { walk, setWalk, change } = useStoredWalk(walkId);
  const { flora, floras, version, host, asked, characters, failure, isMissing } = useBenchFlora(
    walk?.floraId,
    walk?.observations,
  );
  const places = usePlaces().data;
  const taxa = useAllTaxa(asked);
  const [organ, setOrgan] = useState<{ organ: Schemas["Organ"]; focus: string }>();
  const [keeping, setKeeping] = useState(false);
  const found = places?.find((p) => p.id === walk?.form.placeId);
  const place = useMemo(() => siftPlace(found), [found]);
  const survey = useSurveyAt(walk?.form.placeId, walk?.form.date);
  const settings = useMemo(
    () => walk?.confirm ?? { ...plainConfirm, rules: survey?.rules || plainConfirm.rules },
    [walk?.confirm, survey],
  );
  const sheet = walk?.observations;
  const date = walk?.form.date || null;
  const prior = (walk?.sift ?? plainSettings).prior;
  const chosen = settings.taxon ?? walk?.inQuestion?.[0];
  // Without a name of its own the plant is held against the one that leads.
  const ranking = useMemo((): Schemas["SiftRequest"] | undefined => {
    if (chosen || !walk || !flora || !version || !sheet?.length) return undefined;
    return {
      floraId: flora.id,
      sheet,
      options: { prior, at: place, date, narrowing: walk.sift?.narrowing ?? null, looks: false, why: [] },
    };
  }, [chosen, walk, flora, version, sheet, prior, place, date]);
  const ranked = useAskedEither("sift", ranking, host);
  const leader = ranked.answer?.standing.find((it) => it.taxon !== NOT_ON_LIST)?.taxon;
  const taxon = chosen ?? leader;
  const question = useMemo((): Schemas["ConfirmRequest"] | undefined => {
    if (!flora || !version || !taxon) return undefined;
    return {
      floraId: flora.id,
      taxon,
      sheet: sheet ?? [],
      at: place,
      date,
      prior,
      rules: settings.rules,
      planted: settings.planted ?? null,
      seconded: false,
      explanations: Object.entries(settings.explanations).flatMap(([kind, text]) =>
        text ? [{ kind: kind as Schemas["CheckKind"], text }] : [],
      ),
    };
  }, [flora, version, taxon, sheet, place, date, prior, settings]);
  const { answer, of, failure: asking } = useAskedEither("confirm", question, host);
  const byId = useMemo(() => new Map(taxa.map((t) => [t.id, t])), [taxa]);

  if (walk === null) return <WalkGone />;
  if (walk?.sending) return <WalkSending />;
  if (walk && isMissing) return <FloraMissing walk={walk} floras={floras} onChoose={change} />;
  if (failure && (!version || taxa.length === 0)) {
    return (
      <Page title="The flora isn’t ready" aside={<ModeBar walkId={walkId} />}>
        <Typography role="alert">{failure}</Typography>
      </Page>
    );
  }
  if (!walk || !flora || taxa.length === 0) {
    return (
      <Page title="Confirm" aside={<ModeBar walkId={walkId} />}>
        <Typography role="status">Making the flora ready …</Typography>
      </Page>
    );
  }

  const nameOf = (id: string) => byId.get(id)?.name ?? id;
  const set = (part: Partial<ConfirmSettings>) => change({ ...walk, confirm: { ...settings, ...part } });
  const look = (character: string) => {
    const found = characters.find((c) => c.id === character);
    if (found) startTransition(() => setOrgan({ organ: found.organ, focus: character }));
  };
  // What was answered of another name is not shown with this one.
  const fits = answer && of?.taxon === taxon ? answer : undefined;
  const report = fits?.reportAs;
  const reported = report?.name ?? "";
  return (
    <Page title={plantTitle(walk)} aside={<ModeBar walkId={walkId} />}>
      {keeping && fits ? (
        <KeepForm
          walk={walk}
          names={[reported || nameOf(fits.taxon)]}
          said={`${words.grades[fits.grade]}. ${report?.reason ?? ""}`}
          confirming={{
            floraId: flora.id,
            taxon: fits.taxon,
            rules: settings.rules,
            planted: settings.planted ?? null,
            explanations: question?.explanations ?? [],
            grade: fits.grade,
          }}
          backTo="Back to the checks"
          onChange={(form) => change({ ...walk, form, problem: undefined })}
          onBack={() => setKeeping(false)}
          onKept={(plantId) => void navigate(`/plants/${plantId}`)}
          onWaiting={() => void navigate("/records")}
          onRefused={(problem) => setWalk({ ...walk, problem })}
        />
      ) : (
        <>
          <CautionNotes taxa={(fits?.cautions ?? []).flatMap((c) => byId.get(c.taxon) ?? [])} />
          {organ && (
            <Box sx={{ borderBottom: 2, borderColor: "text.primary", mb: 2, pb: 1 }}>
              <OrganSheet
                key={organ.organ + organ.focus}
                organ={organ.organ}
                focus={organ.focus}
                walk={walk}
                characters={characters.filter((c) => c.id === organ.focus)}
                lines={[]}
                asked={new Set([organ.focus])}
                askedBy="a check asks for it"
                seenNow={() => true}
                backTo="Back to the checks"
                onChange={change}
                onBack={() => setOrgan(undefined)}
              />
            </Box>
          )}
          <Naming
            walk={walk}
            taxa={taxa}
            taxon={taxon}
            guessed={Boolean(chosen)}
            onName={(id) => set({ taxon: id, explanations: {} })}
          />
          {asking && <Typography role="alert">{asking}</Typography>}
          {taxon && !fits && !asking && <Typography role="status">Checking …</Typography>}
          {fits && (
            <Box
              sx={{
                display: "grid",
                columnGap: 4,
                gridTemplateColumns: { xs: "minmax(0, 1fr)", md: "minmax(0, 1.15fr) minmax(0, 1fr)" },
                gridTemplateRows: { md: "auto 1fr" },
                // On a narrow page what is still to be seen comes before what has passed.
                gridTemplateAreas: { xs: "'grade' 'open' 'checks'", md: "'grade open' 'checks open'" },
              }}
            >
              <Box sx={{ gridArea: "grade" }}>
                <GradeShoot grade={fits.grade} />
                <Typography variant="body2" sx={{ mt: 1 }}>
                  {fits.rule}
                </Typography>
                {fits.next && fits.missingForNext.length > 0 && (
                  <Typography variant="body2" component="div">
                    <strong>For {words.grades[fits.next].toLowerCase()}:</strong>
                    <Box component="ul" sx={{ m: 0, pl: 2.5 }}>
                      {fits.missingForNext.map((it) => (
                        <li key={it}>{it}</li>
                      ))}
                    </Box>
                  </Typography>
                )}
                <Box
                  role="group"
                  aria-labelledby="report-as"
                  sx={{ border: 1, borderColor: "text.primary", bgcolor: "background.paper", p: 1.5, my: 2 }}
                >
                  <Typography id="report-as" component="h2" sx={{ fontSize: "1.0625rem" }}>
                    Report as <strong>{reported ? <TaxonLabel name={reported} /> : "not determined yet"}</strong>
                    {report && reported && report.kind !== "species" && ` (${words.reportKinds[report.kind]})`}
                    {report && reported && report.kind !== "hybrid" && `, ${report.probabilityInWords}`}
                  </Typography>
                  <Typography variant="body2">{report?.reason}</Typography>
                  {fits.hybrid && (
                    <Box component="ul" sx={{ m: 0, mt: 0.5, pl: 2.5 }}>
                      {fits.hybrid.reasons.map((it) => (
                        <Typography component="li" variant="body2" key={it}>
                          {it}
                        </Typography>
                      ))}
                    </Box>
                  )}
                  <Button variant="contained" sx={{ mt: 1 }} onClick={() => setKeeping(true)}>
                    {`Keep it as ${reported || nameOf(fits.taxon)}, ${words.grades[fits.grade].toLowerCase()}`}
                  </Button>
                </Box>
              </Box>
              <Box sx={{ gridArea: "checks" }}>
                <Part title="Checks" id="checks">
                  <CheckList
                    checks={fits.checks}
                    onExplain={(kind, text) => set({ explanations: { ...settings.explanations, [kind]: text } })}
                  />
                  <Choices settings={settings} survey={survey} onSet={set} />
                </Part>
              </Box>
              <Box sx={{ gridArea: "open" }}>
                <Part title="Still to be seen" id="needs">
                  <OpenNeeds answer={fits} date={date} place={walk.form.placeId} onLook={look} />
                </Part>
                <Part title="Look-alikes" id="alikes">
                  <LookAlikeList alikes={fits.lookAlikes} nameOf={nameOf} onLook={look} />
                  <NearestPlants
                    taxa={[fits.taxon, ...fits.lookAlikes.map((it) => it.taxon)].map((id) => ({
                      id,
                      name: nameOf(id),
                    }))}
                    placeId={walk.form.placeId}
                    except={walk.plant?.id}
                  />
                </Part>
              </Box>
            </Box>
          )}
        </>
      )}
    </Page>
  );
}
