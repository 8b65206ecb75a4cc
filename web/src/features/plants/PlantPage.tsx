import { useWithComposed } from "../../offline/vocabulary";
import words from "../../api/words";
import { day } from "../../shared/calendar/day";
import { Box, Button, Link, Typography } from "@mui/material";
import { useMemo, useState } from "react";
import { Link as RouterLink, useNavigate, useParams } from "react-router";
import { ProblemError, type Schemas } from "../../api/client";
import { spoken, today } from "../../shared/calendar/day";
import { core } from "../../core/coreClient";
import { useAsked } from "../../offline/flora";
import { WaitingNote } from "../../shared/ui/WaitingNote";
import { Page, Part } from "../../shared/ui/Page";
import { QuietButton } from "../../shared/ui/QuietButton";
import { useMending } from "../../offline/mending";
import { useKeys, usePlant } from "../../offline/documents";
import { useShelfInShort } from "../../offline/shelf";
import { TrailRibbon } from "../../plant-in-hand/key/TrailRibbon";
import { beginWalk } from "../../plant-in-hand/walks";
import { GradeShoot } from "../../shared/botany/GradeShoot";
import { Callout, CautionNotes, GroundCaution } from "../../shared/botany/Cautions";
import { NamesLabel } from "../../shared/botany/TaxonLabel";
import { Erase } from "../../shared/form/Erase";
import { FindingSketch } from "../../shared/form/FindingSketch";
import { later } from "../../shared/ui/later";
import { PaperOfPlant } from "./PaperOfPlant";
import { PassedOnList } from "./PassedOnList";
import { PlantYearStrip, useLooks } from "../../shared/calendar/PlantYears";
import { SeasonsSideBySide } from "../../shared/calendar/SeasonsSideBySide";

const TagForm = later(async () => (await import("../../shared/form/TagForm")).TagForm);
const ChooseKey = later(async () => (await import("./ChooseKey")).ChooseKey, true);

const NO_VERSIONS: string[] = [];

/** A plant through its years: what was seen when, what is still open, and every name it had. Nothing is overwritten. */
export function PlantPage() {
  const { plantId = "" } = useParams();
  const [choosing, setChoosing] = useState(false);
  const mend = useMending("tagPlant");
  const [chosen, setTagging] = useState<boolean>();
  const tagging = chosen ?? Boolean(mend);
  const navigate = useNavigate();
  const keys = useKeys();
  const shelf = useShelfInShort(NO_VERSIONS);
  const found = usePlant(plantId);
  const characters = useWithComposed(shelf.data?.characters ?? NO_CHARACTERS, found.data?.observations);
  const looks = useLooks(found.data, characters);
  const open = found.data?.determinations[0]?.confirmation?.needs;
  const standing = useMemo(
    () => open && { date: today(), questions: open.map(({ id, windows }) => ({ id, windows })) },
    [open],
  );
  const stands = useAsked(standing, core.questionStatus).answer;
  if (found.isError && !found.data) {
    return (
      <Page title="This plant can’t be shown">
        <Typography role="alert">
          {found.error instanceof ProblemError
            ? found.error.problem.detail
            : "The server doesn’t answer just now; the plant appears as soon as it does."}
        </Typography>
      </Page>
    );
  }
  if (!found.data)
    return (
      <Page title="Plant">
        <Typography role="status">Fetching the plant …</Typography>
      </Page>
    );
  const plant = found.data;
  const again = async (key: { hash: string; title: string }) => {
    const looks = plant.determinations.map((d) => ({ id: d.occurrenceId, date: d.eventDate }));
    const lastNamed = plant.determinations[0]?.id;
    const id = await beginWalk(
      key,
      { id: plant.id, label: plant.label, placeId: plant.place.id, placeName: plant.place.name, looks, lastNamed },
      plant.observations,
    );
    void navigate(`/bench/${id}${key.hash ? "" : "/sift"}`);
  };
  const newest = plant.determinations[0];
  const needs = newest?.confirmation?.needs ?? [];
  const last = plant.visits.at(-1);
  const isDead = plant.visits.some((v) => v.state === "dead");
  const sexed = plant.visits.filter((v) => v.sexes.length > 0);
  return (
    <Page
      isKeptBack={plant.isSensitive}
      title={plant.label ? `${plant.label}, ${plant.place.name}` : `A plant at ${plant.place.name}`}
      aside={
        <Box sx={{ display: "flex", gap: 1, flexWrap: "wrap" }}>
          {plant.taggedOn || plant.label ? (
            <Button variant="contained" component={RouterLink} to={`/plants/${plant.id}/visit`}>
              Visit it
            </Button>
          ) : (
            <Button variant="contained" onClick={() => setTagging(true)}>
              Tag it
            </Button>
          )}
          <Button onClick={() => setChoosing(true)}>Determine it again</Button>
        </Box>
      }
    >
      {newest && (
        <Typography variant="h1" component="h2" sx={{ fontSize: "1.55rem" }}>
          <NamesLabel names={newest.names} />
        </Typography>
      )}
      <WaitingNote id={plant.id} />
      <Typography variant="body2" color="text.secondary">
        {plant.taggedOn && <>Tagged on {spoken(plant.taggedOn)}. </>}
        {last && (
          <>
            Last visited on {spoken(last.date)}: {words.plantStates[last.state]}.{" "}
          </>
        )}
        {plant.populationId && (
          <Link component={RouterLink} to={`/populations/${plant.populationId}`}>
            One of a population’s marked plants
          </Link>
        )}
      </Typography>
      {last?.state === "notRefound" && !isDead && (
        <Typography sx={{ color: "signal.absent", fontWeight: 600, mt: 0.5 }}>
          ◌ Not refound, which is not dead: look again before it is struck off.
        </Typography>
      )}
      {isDead && (
        <Typography sx={{ color: "signal.conflict", fontWeight: 600, mt: 0.5 }}>
          ✕ Dead. Its evidence stands; nothing is asked of it any more.
        </Typography>
      )}
      <GroundCaution text={plant.place.caution} />
      <Box sx={{ mt: 1 }}>
        <CautionNotes taxa={plant.taxa} />
      </Box>
      <Part id="years" title="Its years">
        <Box sx={{ overflowX: "auto" }}>
          <PlantYearStrip plant={plant} looks={looks} needs={isDead ? [] : needs} />
        </Box>
        <Typography variant="caption" color="text.secondary">
          ● looked at (the larger, the more) · ○ visited · ◌ not refound · ✕ dead · ▼ the name changed
          {plant.taxa[0]?.facts?.phenology.length ? " · filled: in flower by the flora · dashed: in ripe fruit" : ""}
          {needs.length > 0 && !isDead && " · below: when what is open can be seen"}
        </Typography>
        {!isDead && needs.length > 0 && (
          <Box component="ul" aria-label="Still to be seen" sx={{ listStyle: "none", p: 0, m: 0, mt: 1 }}>
            {needs.map((need) => (
              <Typography component="li" variant="body2" key={need.id}>
                {stands?.find((it) => it.id === need.id)?.open ? (
                  <Box component="span" sx={{ color: "signal.support", fontWeight: 700 }}>
                    ● now{" "}
                  </Box>
                ) : (
                  <Box component="span" sx={{ color: "signal.absent" }}>
                    ◌ later{" "}
                  </Box>
                )}
                {need.text}
              </Typography>
            ))}
          </Box>
        )}
      </Part>
      <Part id="sheet" title="Evidence">
        <SeasonsSideBySide plant={plant} looks={looks} characters={characters} />
      </Part>
      {sexed.length > 0 && (
        <Part id="sexes" title="Sex, as it was seen">
          {sexed.map((visit) => (
            <Typography key={visit.id} variant="body2">
              {spoken(visit.date)}: {visit.sexes.map((s) => `${s.branch || "whole plant"} ${s.sex}`).join("; ")}
            </Typography>
          ))}
        </Part>
      )}
      <Part id="names" title="Its names">
        {plant.determinations.length === 0 && <Typography>It has no name yet. Determine it.</Typography>}
        {plant.determinations.map((it, i) => (
          <Named key={it.id} it={it} isNewest={i === 0} />
        ))}
      </Part>
      {plant.visits.some((v) => v.note || v.phases.length > 0) && (
        <Part id="visits" title="Visits">
          {[...plant.visits].reverse().map((visit) => (
            <Typography key={visit.id} variant="body2">
              {spoken(visit.date)}, {visit.recorder}:{" "}
              {[
                words.plantStates[visit.state],
                ...visit.phases.map((it) => words.phaseStages[it.phase][it.stage]),
              ].join("; ")}
              {visit.note && `. ${visit.note}`}
            </Typography>
          ))}
        </Part>
      )}
      {plant.unreadable.length > 0 && (
        <Callout tone="caution" role="note">
          <Typography variant="body2">
            <strong>△ Kept, but can’t be read:</strong>
          </Typography>
          {plant.unreadable.map((it) => (
            <Typography key={it.id} variant="body2">
              {it.what}
              {it.date && `, ${spoken(it.date)}`}: {it.reason} Nothing is worked out with it.
            </Typography>
          ))}
        </Callout>
      )}
      <PassedOnList plantId={plant.id} />
      <Part id="paper" title="On paper">
        <PaperOfPlant plantId={plant.id} hasName={plant.determinations.length > 0} />
      </Part>
      <Part id="find" title="To find it again">
        {tagging ? (
          <TagForm
            plantId={plant.id}
            placeId={plant.place.id}
            key={mend?.id}
            label={mend?.command.label ?? plant.label}
            site={mend ? (mend.command.site ?? null) : plant.site}
            finding={mend?.command.finding ?? plant.finding}
            populationId={plant.populationId}
            taggedOn={mend?.command.taggedOn ?? plant.taggedOn ?? firstSeen(plant) ?? today()}
            version={plant.version}
            mends={mend?.id}
            now={mend?.problem.code === "plant.changed" ? plant : undefined}
            onDone={() => setTagging(false)}
          />
        ) : (
          <>
            <FindingSketch plant={plant} />
            <QuietButton name="Change the tag" onClick={() => setTagging(true)}>
              Change the tag
            </QuietButton>
          </>
        )}
      </Part>
      <Box sx={{ mt: 3 }}>
        <Erase
          subjectId={plant.id}
          what="this plant"
          goes="The plant goes with its tag, visits, names and all that was seen of it."
          onErased={() => void navigate("/plants")}
        />
      </Box>
      {choosing && (
        <ChooseKey keys={keys.data ?? []} onChoose={(key) => void again(key)} onClose={() => setChoosing(false)} />
      )}
    </Page>
  );
}

const NO_CHARACTERS: Schemas["Character"][] = [];

const firstSeen = (plant: Schemas["PlantDetail"]) =>
  [...plant.observations.map((o) => o.date), ...plant.determinations.map((d) => d.eventDate)].sort()[0];

function Named({ it, isNewest }: { it: Schemas["DeterminationDetail"]; isNewest: boolean }) {
  return (
    <Box component="article" aria-labelledby={it.id} sx={{ borderTop: 1, borderColor: "rule", pt: 1, mt: 1.5 }}>
      <Typography variant="body2" color="text.secondary">
        {isNewest ? "Stands now" : "Earlier"} · seen on {day(it.eventDate)} · determined by {it.recorder.name}
        {Object.entries(it.floras).length > 0 &&
          ` · flora: ${Object.entries(it.floras)
            .map(([id, version]) => `${id} ${version}`)
            .join(", ")}`}
      </Typography>
      <Typography variant="h1" component="h3" id={it.id} sx={{ my: 0.5, fontSize: isNewest ? "1.4rem" : "1.2rem" }}>
        <NamesLabel names={it.names} />
      </Typography>
      {it.questions?.map((question) => (
        <Callout key={question.kind} tone="caution" role="note">
          <Typography variant="body2">
            <strong>△ In question.</strong> {question.says} Both stand until somebody has looked again: determine it
            anew.
          </Typography>
        </Callout>
      ))}
      {it.overturned && (
        <Callout tone="open">
          <Typography variant="body2">
            <strong>▼ It overturned</strong> <NamesLabel names={it.overturned.names} />.
          </Typography>
          {it.overturned.by.map((line) => (
            <Typography key={line} variant="body2">
              {line}
            </Typography>
          ))}
        </Callout>
      )}
      {it.names.length > 1 && (
        <Typography variant="body2" sx={{ color: "signal.open", fontWeight: 700 }}>
          ◐ {it.names.length} taxa open{it.name && ` within ${it.name}`}
        </Typography>
      )}
      {it.confirmation && (
        <Box sx={{ my: 1 }}>
          <GradeShoot grade={it.confirmation.grade} />
          <Typography variant="body2" color="text.secondary">
            {it.confirmation.rule}
          </Typography>
          {it.confirmation.hybrid && (
            <Typography variant="body2" sx={{ color: "signal.open", fontWeight: 600 }}>
              ◐ Perhaps a hybrid: {it.confirmation.hybrid.name}.
            </Typography>
          )}
          {it.confirmation.checks
            .filter((check) => check.verdict === "concern" || check.explained)
            .map((check) => (
              <Typography key={check.kind} variant="body2">
                {check.reason} {check.explained && `Explained: “${check.explained}”`}
              </Typography>
            ))}
        </Box>
      )}
      {it.note && <Typography sx={{ mb: 1 }}>{it.note}</Typography>}
      <Box sx={{ maxWidth: 620 }}>
        {it.steps.length > 0 ? (
          <TrailRibbon steps={it.steps} />
        ) : (
          <Typography variant="body2" color="text.secondary">
            {it.confirmation ? "Checked by what was seen" : "Named by what was seen"}, without a key.
          </Typography>
        )}
      </Box>
      <Erase
        subjectId={it.id}
        what="this name"
        of={it.names.join(" or ")}
        goes="The name goes with its note and its trail; the plant stays."
      />
    </Box>
  );
}
