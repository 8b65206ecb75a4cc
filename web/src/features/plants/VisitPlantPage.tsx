import { useWithComposed } from "../../offline/vocabulary";
import words from "../../api/words";
import { lastRecorder } from "../../shared/form/last";
import { holding } from "../../plant-in-hand/sheet/sheet";
import { core } from "../../core/coreClient";
import { useAsked } from "../../offline/flora";
import { Box, Button, Typography } from "@mui/material";
import { TextField } from "../../shared/form/TextField";
import { startTransition, useMemo, useState, type FormEvent } from "react";
import { Link as RouterLink, useNavigate, useParams } from "react-router";
import { v7 as uuid } from "uuid";
import type { Schemas } from "../../api/client";
import { today } from "../../shared/calendar/day";
import { useProblem } from "../../shared/form/useProblem";
import { Page, Part } from "../../shared/ui/Page";
import { QuietButton } from "../../shared/ui/QuietButton";
import { useMending, useSend } from "../../offline/mending";
import { personOf } from "../../offline/people";
import { usePlant } from "../../offline/documents";
import { usePeople } from "../../offline/queries";
import { useHeldShelf, useShelfInShort } from "../../offline/shelf";
import type { RefusedCommand, PlantInHand } from "../../offline/store";
import { PlantFigure, type OrganState } from "../../plant-in-hand/PlantFigure";
import { CautionNotes, GroundCaution } from "../../shared/botany/Cautions";
import { NamesLabel } from "../../shared/botany/TaxonLabel";
import { Choice } from "../../shared/form/Choice";
import { FindingSketch } from "../../shared/form/FindingSketch";
import { later } from "../../shared/ui/later";
import { useTyped } from "../../shared/form/useTyped";

const OrganSheet = later(async () => (await import("../../plant-in-hand/sheet/OrganSheet")).OrganSheet);

interface Draft {
  walk: PlantInHand;
  state: Schemas["PlantState"];
  phases: Schemas["PhaseNote"][];
  sexes: Schemas["BranchSex"][];
  note: string;
}

const states = Object.entries(words.plantStates) as [Schemas["PlantState"], string][];
const asked = words.phasesOfVisit as Schemas["Phenophase"][];
const stages = Object.entries(words.stages) as [Schemas["PhaseStage"], string][];
const sexes = (Object.entries(words.context.sex.values) as [Schemas["PartSex"], string][]).filter(
  ([sex]) => sex !== "unsaid",
);

const NO_VERSIONS: string[] = [];

const NO_CHARACTERS: Schemas["Character"][] = [];

type Mend = (RefusedCommand & { command: Schemas["CommandVisitPlantCommand"] }) | null;

/** A tagged plant visited again: how it was found, what it shows, and evidence of another season. */
export function VisitPlantPage() {
  const mend = useMending("visitPlant");
  return mend === undefined ? null : <Visit mend={mend} />;
}

function Visit({ mend }: { mend: Mend }) {
  const { plantId = "" } = useParams();
  const navigate = useNavigate();
  const send = useSend(mend?.id);
  const before = mend?.command;
  const plant = usePlant(plantId).data;
  const people = usePeople();
  // What is measured on the visit is read by the characters of the keys.
  useHeldShelf(NO_VERSIONS);
  const own = useShelfInShort(NO_VERSIONS).data?.characters ?? NO_CHARACTERS;
  const [draft, setDraft, clear] = useTyped<Draft>(mend ? `mend:${mend.id}` : `visit:${plantId}`, () => ({
    walk: {
      id: `visit:${plantId}`,
      start: "",
      title: "",
      answers: [],
      observations: before?.observations ?? [],
      form: {
        placeId: "",
        date: before?.date ?? today(),
        recorder: before?.recorder.name ?? lastRecorder(),
        label: "",
        note: "",
      },
      updatedAt: Date.now(),
    },
    state: before?.state ?? "alive",
    phases: before?.phases ?? [],
    sexes: before?.sexes ?? [],
    note: before?.note ?? "",
  }));
  const characters = useWithComposed(own, draft?.walk.observations);
  const [organ, setOrgan] = useState<{ organ: Schemas["Organ"]; focus?: string }>();
  const [branch, setBranch] = useState("");
  const { at, elsewhere, miss, clear: clearProblem, setProblem } = useProblem(["recorder", "date", "note"]);
  const needs = useMemo(() => plant?.determinations[0]?.confirmation?.needs ?? [], [plant]);
  const date = draft?.walk.form.date;
  const standing = useMemo(
    () =>
      date && needs.length > 0 ? { date, questions: needs.map(({ id, windows }) => ({ id, windows })) } : undefined,
    [date, needs],
  );
  const stands = useAsked(standing, core.questionStatus);
  if (!plant || !draft)
    return (
      <Page title="Visit a plant">
        <Typography role="status">Fetching the plant …</Typography>
      </Page>
    );
  const { walk } = draft;
  const looks = holding(walk.observations ?? []);
  const openNow = new Set(stands.answer?.filter((it) => it.open).map((it) => it.id));
  const wanted = needs.filter((n) => n.character && openNow.has(n.id));
  // Of a plant that wasn't found nothing is seen; a dead one still shows what is left of it.
  const isGone = draft.state === "notRefound";
  const organs: OrganState[] = [...new Set(characters.map((c) => c.organ))].map((it) => {
    const ofOrgan = characters.filter((c) => c.organ === it);
    return {
      organ: it,
      seen: looks.filter((o) => ofOrgan.some((c) => c.id === o.character)).length,
      conflict: false,
      asked: wanted.some((n) => ofOrgan.some((c) => c.id === n.character)),
      absent: false,
    };
  });
  const setForm = (part: Partial<PlantInHand["form"]>) => {
    clearProblem();
    setDraft({
      ...draft,
      walk: {
        ...walk,
        form: { ...walk.form, ...part },
        // What was looked at on this visit is of its day.
        observations: part.date
          ? walk.observations?.map((o) => ({ ...o, date: part.date ?? o.date }))
          : walk.observations,
      },
    });
  };
  const set = (part: Partial<Draft>) => {
    clearProblem();
    setDraft({ ...draft, ...part });
  };
  const look = (character: string) => {
    const found = characters.find((c) => c.id === character);
    if (found) startTransition(() => setOrgan({ organ: found.organ, focus: character }));
  };
  const submit = async (event: FormEvent) => {
    event.preventDefault();
    if (!walk.form.recorder.trim()) return miss("recorder", "Write who looked.");
    if (!walk.form.date) return miss("date", "Give the day of the visit.");
    const sent = await send({
      kind: "visitPlant",
      id: uuid(),
      visitId: uuid(),
      plantId: plant.id,
      date: walk.form.date,
      recorder: await personOf(walk.form.recorder, people.data),
      state: draft.state,
      phases: isGone ? [] : draft.phases,
      sexes: isGone ? [] : draft.sexes,
      note: draft.note.trim(),
      observations: isGone ? [] : (walk.observations ?? []),
    });
    if (sent.kind === "refused") return setProblem(sent.problem);
    clear();
    void navigate(`/plants/${plant.id}`);
  };
  if (organ) {
    return (
      <Page title={`${plant.label}: what is seen on this visit`}>
        <OrganSheet
          key={organ.organ}
          organ={organ.organ}
          focus={organ.focus}
          walk={walk}
          characters={characters.filter((c) => c.organ === organ.organ)}
          lines={[]}
          asked={new Set(wanted.map((n) => n.character))}
          askedBy="still open"
          seenNow={() => true}
          backTo="Back to the visit"
          onChange={(next) => set({ walk: next })}
          onBack={() => setOrgan(undefined)}
        />
      </Page>
    );
  }
  return (
    <Page isKeptBack={plant.isSensitive} title={`Visit: ${plant.label || "a plant"}, ${plant.place.name}`}>
      {plant.determinations[0] && (
        <Typography>
          <NamesLabel names={plant.determinations[0].names} />
        </Typography>
      )}
      <GroundCaution text={plant.place.caution} />
      <CautionNotes taxa={plant.taxa} />
      <Box component="form" noValidate onSubmit={(event) => void submit(event)} sx={{ mt: 1.5 }}>
        {elsewhere && (
          <Typography role="alert" color="error" sx={{ mb: 1.5 }}>
            {elsewhere}
          </Typography>
        )}
        <Part id="found" title="How was it found?">
          <Choice label="State" choices={states} value={draft.state} onChoose={(state) => state && set({ state })} />
          {draft.state === "notRefound" && (
            <Box sx={{ mt: 1 }}>
              <FindingSketch plant={plant} />
              <Typography variant="body2">Not refound is not dead: shares are given with it on either side.</Typography>
            </Box>
          )}
        </Part>
        {!isGone && (
          <>
            <Part id="shows" title="What does it show?">
              <Box sx={{ display: "grid", gap: 1 }}>
                {asked.map((phase) => (
                  <Box
                    key={phase}
                    sx={{
                      display: "grid",
                      gridTemplateColumns: { xs: "1fr", sm: "9rem 1fr" },
                      alignItems: "center",
                      columnGap: 1,
                    }}
                  >
                    <Typography>{words.phases[phase]}</Typography>
                    <Choice
                      label={words.phases[phase]}
                      choices={stages}
                      canBeNone
                      value={draft.phases.find((p) => p.phase === phase)?.stage}
                      onChoose={(stage) =>
                        set({
                          phases: [
                            ...draft.phases.filter((p) => p.phase !== phase),
                            ...(stage ? [{ phase, stage }] : []),
                          ],
                        })
                      }
                    />
                  </Box>
                ))}
                <Box
                  sx={{
                    display: "grid",
                    gridTemplateColumns: { xs: "1fr", sm: "9rem 1fr" },
                    alignItems: "center",
                    columnGap: 1,
                  }}
                >
                  <Typography>sex</Typography>
                  <Box sx={{ display: "flex", flexWrap: "wrap", gap: 1, alignItems: "center" }}>
                    <TextField
                      size="small"
                      label="Branch"
                      placeholder="whole plant"
                      value={branch}
                      onChange={(e) => setBranch(e.target.value)}
                      slotProps={{ inputLabel: { shrink: true } }}
                      sx={{ width: 200 }}
                    />
                    <Choice
                      label="Sex"
                      choices={sexes}
                      canBeNone
                      value={draft.sexes.find((s) => s.branch === branch.trim())?.sex}
                      onChoose={(sex) =>
                        set({
                          sexes: [
                            ...draft.sexes.filter((s) => s.branch !== branch.trim()),
                            ...(sex ? [{ branch: branch.trim(), sex }] : []),
                          ],
                        })
                      }
                    />
                    {draft.sexes.length > 0 && (
                      <Typography variant="body2">
                        {draft.sexes.map((s) => `${s.branch || "whole plant"} ${s.sex}`).join("; ")}
                      </Typography>
                    )}
                  </Box>
                </Box>
              </Box>
              <Typography variant="caption" color="text.secondary">
                “Not yet” dates the first flower; absence of fruit is no sex.
              </Typography>
            </Part>
            <Part id="evidence" title="What is seen of its characters?">
              {wanted.length > 0 && (
                <Box sx={{ mb: 1 }}>
                  <Typography variant="body2">
                    <strong>○ Still open, and to be seen now:</strong>
                  </Typography>
                  {wanted.map((need) => (
                    <QuietButton key={need.id} name={`Look now: ${need.text}`} onClick={() => look(need.character)}>
                      {need.text}
                    </QuietButton>
                  ))}
                </Box>
              )}
              <Box sx={{ display: "flex", flexWrap: "wrap", gap: 3 }}>
                <Box sx={{ maxWidth: 340, flex: "1 1 280px" }}>
                  {organs.length > 0 && (
                    <PlantFigure organs={organs} onChoose={(it) => startTransition(() => setOrgan({ organ: it }))} />
                  )}
                </Box>
                <Box sx={{ flex: "1 1 240px" }}>
                  {looks.length === 0 ? (
                    <Typography variant="body2">Tap a part of the plant to note what you see of it.</Typography>
                  ) : (
                    looks.map((o) => {
                      const character = characters.find((c) => c.id === o.character);
                      return (
                        <Typography variant="body2" key={o.id}>
                          <Box component="span" sx={{ color: "signal.support", fontWeight: 700 }}>
                            ●{" "}
                          </Box>
                          {character?.name}:{" "}
                          {o.states.map((id) => character?.states.find((s) => s.id === id)?.name ?? id).join(", ") ||
                            o.readings.map((r) => r.text || String(r.value)).join(", ")}
                        </Typography>
                      );
                    })
                  )}
                </Box>
              </Box>
            </Part>
          </>
        )}
        <Part id="when" title="When, and who looked?">
          <Box sx={{ display: "grid", gap: 2, gridTemplateColumns: { xs: "1fr", sm: "1fr 1fr" } }}>
            <TextField
              required
              type="date"
              label="Visited on"
              value={walk.form.date}
              onChange={(e) => setForm({ date: e.target.value })}
              slotProps={{ htmlInput: { max: today() }, inputLabel: { shrink: true } }}
              {...at("date")}
            />
            <TextField
              required
              label="Recorder"
              value={walk.form.recorder}
              onChange={(e) => setForm({ recorder: e.target.value })}
              {...at("recorder")}
            />
            <TextField
              label="Note"
              multiline
              minRows={2}
              value={draft.note}
              onChange={(e) => set({ note: e.target.value })}
              sx={{ gridColumn: { sm: "1 / -1" } }}
              {...at("note")}
            />
          </Box>
        </Part>
        <Box sx={{ display: "flex", gap: 1.5, flexWrap: "wrap" }}>
          <Button type="submit" variant="contained" sx={{ minHeight: 52, minWidth: 180 }}>
            Keep the visit
          </Button>
          <Button component={RouterLink} to={`/plants/${plant.id}`}>
            Back to the plant
          </Button>
        </Box>
      </Box>
    </Page>
  );
}
