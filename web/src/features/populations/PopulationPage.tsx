import words from "../../api/words";
import { Box, Button, Link, Typography } from "@mui/material";
import { useState } from "react";
import { Link as RouterLink, useParams } from "react-router";
import { v7 as uuid } from "uuid";
import type { Schemas } from "../../api/client";
import { day as dayInWords, spoken, today, windowsInWords } from "../../shared/calendar/day";

import { WaitingNote } from "../../shared/ui/WaitingNote";
import { Page, Part } from "../../shared/ui/Page";

import { useMending } from "../../offline/mending";

import { usePopulations } from "../../offline/documents";
import { later } from "../../shared/ui/later";
import { CautionMarks, GroundCaution } from "../../shared/botany/Cautions";
import { TaxonLabel } from "../../shared/botany/TaxonLabel";

import { SharePlot } from "./SharePlot";
import { StandJudged } from "./StandJudged";
import { CountPlot } from "./CountPlot";
import { ThreatLine } from "./Threats";

const TagForm = later(async () => (await import("../../shared/form/TagForm")).TagForm);
const Tally = later(async () => (await import("./Tally")).Tally);
const ThreatForm = later(async () => (await import("./ThreatForm")).ThreatForm);

/** A population: how many there are, what becomes of its marked plants, and what threatens it. */
export function PopulationPage() {
  const { populationId = "" } = useParams();
  const populations = usePopulations();
  const it = populations.data?.find((p) => p.id === populationId);
  const mend = useMending("countPopulation", "noteThreat");
  const [chosen, setOpen] = useState<"count" | "peg" | "threat" | "nothing">();
  // Opened to mend what was refused, it shows that form at once.
  const asked = mend ? (mend.command.kind === "noteThreat" ? "threat" : "count") : "nothing";
  const open = chosen ?? asked;
  const [newPeg, setNewPeg] = useState(() => uuid());
  if (!it) {
    return (
      <Page title="Population">
        <Typography role={populations.isLoading ? "status" : "alert"}>
          {populations.isLoading
            ? "Fetching the population …"
            : populations.isError
              ? "The server doesn’t answer just now; the population appears as soon as it does."
              : "No population has this address."}
        </Typography>
      </Page>
    );
  }
  const { summary } = it;
  const done = () => setOpen("nothing");
  const standing = it.threats.filter((t) => !t.dealtWith);
  return (
    <Page
      title={`${it.name}, ${it.place.name}`}
      isKeptBack={it.isSensitive}
      aside={
        <Box sx={{ display: "flex", gap: 1, flexWrap: "wrap" }}>
          <Button variant="contained" onClick={() => setOpen("count")}>
            Count it
          </Button>
          <Button onClick={() => setOpen("peg")}>Mark a plant</Button>
          <Button onClick={() => setOpen("threat")}>Note a threat</Button>
        </Box>
      }
    >
      <WaitingNote id={it.id} />
      <Typography variant="h1" component="h2" sx={{ fontSize: "1.55rem" }}>
        <TaxonLabel name={it.taxon} /> <CautionMarks cautions={[...new Set(it.cautions.flatMap((c) => c.cautions))]} />
      </Typography>
      {it.cautions.map((c) => (
        <Typography key={c.taxon} variant="body2" sx={{ color: "signal.caution", fontWeight: 600 }}>
          △ {c.note}
        </Typography>
      ))}
      {it.bounds && <Typography variant="body2">{it.bounds}</Typography>}
      <GroundCaution text={it.place.caution} />
      {standing.map((threat) => (
        <ThreatLine key={threat.id} threat={threat} population={it.id} />
      ))}
      {open === "count" && (
        <Part id="count" title="Count it">
          <Tally population={it} onDone={done} />
        </Part>
      )}
      {open === "peg" && (
        <Part id="peg" title="Mark a plant">
          <TagForm
            key={newPeg}
            plantId={newPeg}
            placeId={it.place.id}
            label={`${it.name} ${it.pegs.length + 1}`}
            site={null}
            finding={{ landmark: "", bearingDegrees: null, distanceMetres: null, note: "" }}
            populationId={it.id}
            taggedOn={today()}
            version={null}
            onDone={() => {
              setNewPeg(uuid());
              done();
            }}
          />
        </Part>
      )}
      {open === "threat" && (
        <Part id="threat" title="Note a threat">
          <ThreatForm population={it.id} onDone={done} />
        </Part>
      )}
      {(summary.due.length > 0 || summary.missed.length > 0) && (
        <Part id="due" title="To be done">
          {summary.due.map((need) => (
            <Typography key={need.id} variant="body2">
              ○ {need.text} {windowsInWords(need.windows)}.
            </Typography>
          ))}
          {summary.missed.map((text) => (
            <Typography key={text} variant="body2" sx={{ color: "signal.absent" }}>
              ◌ Missed: {text}
            </Typography>
          ))}
        </Part>
      )}
      <Part id="counts" title="How many">
        {it.counts.length === 0 ? (
          <Typography>It was not counted yet. The tally counts with one thumb.</Typography>
        ) : (
          <CountPlot it={it} />
        )}
      </Part>
      {it.pegs.length > 0 && (
        <Part id="fate" title="What becomes of them">
          {[...summary.years].reverse().map((year) => (
            <Box key={year.year} sx={{ mb: 1.5 }}>
              <Typography variant="h3">
                {year.year}: {year.pegged} marked
                {year.notRefound > 0 && `, ${year.notRefound} not refound`}
              </Typography>
              <SharePlot name="flowered" it={year.flowered} />
              <SharePlot name="fruited" it={year.fruited} />
              <SharePlot name="alive" it={year.alive} />
              {year.sexes.male + year.sexes.female + year.sexes.both > 0 && (
                <>
                  <SharePlot name="female" it={year.sexes.femaleShare} />
                  <Typography variant="body2">
                    {year.sexes.male} male, {year.sexes.female} female, {year.sexes.both} with both,{" "}
                    {year.sexes.notSexed} not sexed
                  </Typography>
                </>
              )}
            </Box>
          ))}
          {summary.neverFlowered.length > 0 && (
            <Typography variant="body2">
              <strong>Never flowered in two years or more:</strong> {summary.neverFlowered.join(", ")}.
            </Typography>
          )}
          <Typography variant="caption" color="text.secondary">
            The bar is Wilson’s 95 % interval among those whose fate is known; dotted, what it may be with those that
            were not refound or not looked at.
          </Typography>
        </Part>
      )}
      {it.pegs.length > 0 && <Pegs it={it} />}
      {it.pegs.length > 0 && <StandJudged it={it} />}
      {it.threats.some((t) => t.dealtWith) && (
        <Part id="dealt-with" title="Dealt with">
          {it.threats
            .filter((t) => t.dealtWith)
            .map((t) => (
              <Typography key={t.id} variant="body2">
                {spoken(t.notedOn)}: {t.text} → {t.dealtWith}
              </Typography>
            ))}
        </Part>
      )}
    </Page>
  );
}

// How its marked plants were found last; a tap leads to the visit.
function Pegs({ it }: { it: Schemas["PopulationDetail"] }) {
  return (
    <Part id="pegs" title="Marked plants">
      <Box
        component="ul"
        sx={{
          listStyle: "none",
          p: 0,
          m: 0,
          display: "grid",
          columnGap: 4,
          gridTemplateColumns: { xs: "1fr", md: "1fr 1fr" },
        }}
      >
        {it.pegs.map((peg) => {
          const last = peg.visits.at(-1);
          return (
            <Box
              component="li"
              key={peg.id}
              sx={{
                display: "flex",
                gap: 1,
                alignItems: "center",
                borderTop: "1px dotted",
                borderColor: "rule",
                minHeight: 48,
              }}
            >
              <Box sx={{ flex: 1 }}>
                <Link component={RouterLink} to={`/plants/${peg.id}`}>
                  {peg.label}
                </Link>
                <Typography variant="body2" color="text.secondary">
                  {last
                    ? `${dayInWords(last.date)}: ${[words.plantStates[last.state], ...last.phases.map((it) => words.phaseStages[it.phase][it.stage])].join(", ")}`
                    : `marked on ${spoken(peg.peggedOn)}`}
                </Typography>
              </Box>
              <Button
                component={RouterLink}
                to={`/plants/${peg.id}/visit`}
                aria-label={`Visit ${peg.label}`}
                sx={{ flex: "none" }}
              >
                Visit
              </Button>
            </Box>
          );
        })}
      </Box>
    </Part>
  );
}
