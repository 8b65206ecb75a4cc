import { later } from "../../shared/ui/later";
import words from "../../api/words";
import { Autocomplete } from "../../shared/form/Autocomplete";
import { useBenchFlora } from "../../shared/botany/useBenchFlora";
import { Box, Button, Link, Typography } from "@mui/material";
import { TextField } from "../../shared/form/TextField";
import { startTransition, useEffect, useMemo, useRef, useState } from "react";
import { Link as RouterLink, useNavigate, useParams } from "react-router";
import type { Schemas } from "../../api/client";
import { Page } from "../../shared/ui/Page";
import { useAskedEither } from "../../offline/hosts";
import { useAllTaxa, useDescribed, type AskedFlora } from "../../offline/taxa";
import { usePlaces } from "../../offline/documents";
import type { PlantInHand } from "../../offline/store";

import { useStoredWalk } from "../useStoredWalk";
import { plantTitle, FloraMissing, WalkGone, WalkSending } from "../WalkStates";
import { CautionNotes } from "../../shared/botany/Cautions";
import { TaxonLabel } from "../../shared/botany/TaxonLabel";

import { ModeBar } from "../ModeBar";
import { WhereKeysPart } from "./WhereKeysPart";
import { useOwnPlants, useSheets } from "../sift/useOwnPlants";

const OrganSheet = later(async () => (await import("../sheet/OrganSheet")).OrganSheet);
const ContrastTable = later(async () => (await import("./ContrastTable")).ContrastTable);
const KeepForm = later(async () => (await import("../keep/KeepForm")).KeepForm);

const { fewestToContrast: FEWEST, mostToContrast: MOST } = words.limits;
import { Summary } from "./ContrastSummary";

/** Contrast: a few taxa side by side, and only what separates them. */
export function ContrastPage() {
  const { walkId = "" } = useParams();
  return <Contrast key={walkId} walkId={walkId} />;
}

function Contrast({ walkId }: { walkId: string }) {
  const navigate = useNavigate();
  const { walk, setWalk, change } = useStoredWalk(walkId);
  const { flora, floras, version, host, asked, characters, failure, isMissing } = useBenchFlora(
    walk?.floraId,
    walk?.observations,
  );
  const places = usePlaces().data ?? NO_PLACES;
  const taxa = useAllTaxa(asked);
  const [organ, setOrgan] = useState<{ organ: Schemas["Organ"]; focus: string }>();
  const [keeping, setKeeping] = useState(false);
  const top = useRef<HTMLDivElement>(null);
  const compared = useMemo(
    () => (walk?.inQuestion ?? []).filter((id) => taxa.length === 0 || taxa.some((t) => t.id === id)).slice(0, MOST),
    [walk?.inQuestion, taxa],
  );
  const byId = useMemo(() => new Map(taxa.map((t) => [t.id, t])), [taxa]);
  const nameOf = (id: string) => byId.get(id)?.name ?? id;
  const described = useDescribed(asked, compared);
  const own = useOwnPlants(
    compared.flatMap((id) => byId.get(id) ?? []),
    walk?.form.placeId,
    places,
    walk?.plant?.id,
  );
  const plants = useMemo(
    () => own.filter((it) => walk?.comparedPlants?.includes(it.plantId)).map((it) => it.plantId),
    [own, walk?.comparedPlants],
  );
  const plantKey = plants.join();
  const sheets = useSheets(plants);
  const question = useMemo((): Schemas["ContrastRequest"] | undefined => {
    if (!walk || !flora || !version || compared.length < FEWEST) return undefined;
    return {
      floraId: flora.id,
      taxa: compared,
      date: walk.form.date || null,
      sheet: walk.observations ?? [],
      plants: plantKey ? (sheets.data ?? []) : [],
    };
  }, [walk, flora, version, compared, plantKey, sheets.data]);
  const { answer, failure: asking } = useAskedEither("contrast", question, host);
  const near = useNear(asked, compared[0]);

  const onTable = keeping ? "keep" : (organ?.focus ?? "");
  const first = useRef(true);
  useEffect(() => {
    if (first.current) {
      first.current = false;
      return;
    }
    top.current?.focus({ preventScroll: true });
    top.current?.scrollIntoView();
  }, [onTable]);

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
      <Page title="Contrast" aside={<ModeBar walkId={walkId} />}>
        <Typography role="status">Making the flora ready …</Typography>
      </Page>
    );
  }

  const set = (inQuestion: string[], part: Partial<PlantInHand> = {}) => change({ ...walk, inQuestion, ...part });
  const settle = (taxon: string) => {
    set([taxon], { sides: undefined });
    setKeeping(true);
  };
  const careful = compared.flatMap((id) => byId.get(id) ?? []);
  // What was answered of other taxa is not shown with these.
  const fits = answer && answer.taxa.join() === compared.join() ? answer : undefined;
  const proposals = near.filter((id) => !compared.includes(id)).slice(0, compared.length > 3 ? 2 : 4);
  const lines = (fits?.rows ?? [])
    .filter((row) => row.seen)
    .map((row) => ({ character: row.character, seen: row.seen, reason: "", fitOfBest: null }));
  return (
    <Page title={plantTitle(walk)} aside={<ModeBar walkId={walkId} />}>
      <Box ref={top} tabIndex={-1} sx={{ outline: "none", scrollMarginTop: 8 }}>
        {keeping ? (
          <KeepForm
            walk={walk}
            names={compared.map(nameOf)}
            said={
              compared.length === 1
                ? "Named by contrast with its look-alikes, without a key."
                : `${compared.length} taxa are on the shortlist: kept as an open set. That is a good record; it says what is still to be seen.`
            }
            backTo="Back to the contrast"
            onChange={(form) => change({ ...walk, form, problem: undefined })}
            onBack={() => setKeeping(false)}
            onKept={(plantId) => void navigate(`/plants/${plantId}`)}
            onWaiting={() => void navigate("/records")}
            onRefused={(problem) => setWalk({ ...walk, problem })}
          />
        ) : (
          <>
            <CautionNotes taxa={careful} />
            {organ && (
              <Box sx={{ borderBottom: 2, borderColor: "text.primary", mb: 2, pb: 1 }}>
                <OrganSheet
                  key={organ.organ + organ.focus}
                  organ={organ.organ}
                  focus={organ.focus}
                  walk={walk}
                  characters={characters.filter((c) => c.id === organ.focus)}
                  lines={lines}
                  asked={new Set([organ.focus])}
                  askedBy="separates the taxa below"
                  seenNow={() => fits?.rows.find((row) => row.character === organ.focus)?.group !== "later"}
                  backTo="Back to the contrast"
                  onChange={change}
                  onBack={() => setOrgan(undefined)}
                />
              </Box>
            )}
            {compared.length >= FEWEST && fits && (
              <Summary
                answer={fits}
                nameOf={nameOf}
                characters={characters}
                couplet={walk.sides?.couplet}
                onLook={(character) => {
                  const found = characters.find((c) => c.id === character);
                  if (found) startTransition(() => setOrgan({ organ: found.organ, focus: character }));
                }}
              />
            )}
            {compared.length < FEWEST && (
              <Box sx={{ mb: 1.5 }}>
                <Typography variant="h1" component="h2">
                  {compared[0] ? (
                    <>
                      What is <TaxonLabel name={nameOf(compared[0])} /> taken for?
                    </>
                  ) : (
                    "Which taxa are on the shortlist?"
                  )}
                </Typography>
                <Typography variant="body2">
                  Choose 2 to 8 taxa: from those below, by name, or in{" "}
                  <Link component={RouterLink} to={`/bench/${walkId}/sift`} replace>
                    Sift
                  </Link>
                  .
                </Typography>
              </Box>
            )}
            <Box sx={{ display: "flex", flexWrap: "wrap", alignItems: "center", gap: 1, my: 1 }}>
              <Autocomplete
                key={compared.join()}
                options={taxa.filter((t) => !compared.includes(t.id))}
                getOptionLabel={(t) => t.name}
                renderOption={(optionProps, t) => (
                  <li {...optionProps} key={t.id}>
                    <span>
                      <TaxonLabel name={t.name} /> {t.commonName}
                    </span>
                  </li>
                )}
                filterOptions={(options, { inputValue }) => {
                  const text = inputValue.trim().toLowerCase();
                  return options
                    .filter((t) =>
                      `${t.name} ${t.commonName} ${t.facts?.synonyms.join(" ") ?? ""}`.toLowerCase().includes(text),
                    )
                    .slice(0, 50);
                }}
                value={null}
                disabled={compared.length >= MOST}
                onChange={(_, t) => t && set([...compared, t.id], { sides: undefined })}
                sx={{ width: { xs: "100%", sm: 300 } }}
                renderInput={(params) => (
                  <TextField
                    {...params}
                    label={
                      compared.length >= MOST ? "Eight at most" : compared.length === 0 ? "Name a taxon" : "Add a taxon"
                    }
                  />
                )}
              />
              {proposals.length > 0 && compared.length < MOST && (
                <>
                  <Typography variant="body2">Taken for it:</Typography>
                  {proposals.map((id) => (
                    <Button
                      key={id}
                      onClick={() => set([...compared, id], { sides: undefined })}
                      aria-label={`Add ${nameOf(id)}`}
                    >
                      +{" "}
                      <Box component="span" sx={{ ml: 0.75 }}>
                        <TaxonLabel name={nameOf(id)} />
                      </Box>
                    </Button>
                  ))}
                </>
              )}
            </Box>
            {own.length > 0 && (
              <Box
                role="group"
                aria-label="Own plants to compare with"
                sx={{ display: "flex", flexWrap: "wrap", gap: 1, alignItems: "center", mb: 1 }}
              >
                <Typography variant="body2">Plants seen before:</Typography>
                {own.map(({ plantId, record: line, away }) => {
                  const on = plants.includes(plantId);
                  return (
                    <Button
                      key={plantId}
                      aria-pressed={on}
                      variant={on ? "contained" : "outlined"}
                      onClick={() =>
                        change({
                          ...walk,
                          comparedPlants: on
                            ? (walk.comparedPlants ?? []).filter((id) => id !== plantId)
                            : [...(walk.comparedPlants ?? []), plantId],
                        })
                      }
                    >
                      {on && "✓ "}
                      {line.name}, {line.plantLabel || line.placeName}
                      {away && ` (${away})`}
                    </Button>
                  );
                })}
              </Box>
            )}
            {asking && <Typography role="alert">{asking}</Typography>}
            {compared.length >= FEWEST &&
              (fits ? (
                <ContrastTable
                  answer={fits}
                  described={described}
                  characters={characters}
                  nameOf={nameOf}
                  sides={walk.sides?.leads}
                  plants={own.filter((it) => plants.includes(it.plantId))}
                  plantIds={plants}
                  onLook={(character) => {
                    const found = characters.find((c) => c.id === character);
                    if (found) startTransition(() => setOrgan({ organ: found.organ, focus: character }));
                  }}
                  onRemove={(id) => set(compared.filter((it) => it !== id))}
                  onSettle={settle}
                />
              ) : (
                <Typography role="status">Holding them against each other …</Typography>
              ))}
            {fits && <WhereKeysPart names={compared.map(nameOf)} sheet={walk.observations ?? NO_LOOKS} />}
            {compared.length > 0 && (
              <Box sx={{ mt: 2 }}>
                <Button onClick={() => setKeeping(true)}>
                  {compared.length === 1
                    ? `Keep it as ${nameOf(compared[0] ?? "")}`
                    : `Keep the ${compared.length} as an open set`}
                </Button>
              </Box>
            )}
          </>
        )}
      </Box>
    </Page>
  );
}

const NO_PLACES: Schemas["Place"][] = [];

const NO_TAXA: string[] = [];

const NO_LOOKS: Schemas["Observation"][] = [];

/** What the first of the compared is taken for. */
function useNear({ floraId, version, host }: AskedFlora, taxon: string | undefined): string[] {
  const question = useMemo(
    () => (floraId && version && taxon ? { floraId, taxon } : undefined),
    [floraId, version, taxon],
  );
  return useAskedEither("near", question, host).answer?.taxa ?? NO_TAXA;
}
