import { Box, Button, Link, Typography } from "@mui/material";
import { useMemo, useState } from "react";
import { Link as RouterLink, useParams } from "react-router";
import type { Schemas } from "../../api/client";
import { today } from "../../api/today";
import words from "../../api/words";
import { core } from "../../core/coreClient";
import { useAsked } from "../../offline/flora";
import { useMending } from "../../offline/mending";
import { useSurvey } from "../../offline/surveys";
import { TaxonLabel } from "../../shared/botany/TaxonLabel";
import { day, everyYear } from "../../shared/calendar/day";
import { Page, Part } from "../../shared/ui/Page";
import { WaitingNote } from "../../shared/ui/WaitingNote";
import { later } from "../../shared/ui/later";
import { PlotPlan } from "./PlotPlan";
import { SurveyPlan } from "./SurveyPlan";

const SurveyForm = later(async () => (await import("./SurveyForm")).SurveyForm);
const PlotForm = later(async () => (await import("./PlotForm")).PlotForm);
const PlotLaying = later(async () => (await import("./PlotLaying")).PlotLaying);

/** A survey: what it asks, what is done and due, its plots, and the ways to its figures and its report. */
export function SurveyPage() {
  const { surveyId = "" } = useParams();
  const { data: whole, isError } = useSurvey(surveyId);
  return (
    <Page
      title={whole?.survey.name ?? "Survey"}
      aside={
        whole && (
          <Box sx={{ display: "flex", flexWrap: "wrap", gap: 1 }}>
            <Button component={RouterLink} to="report" variant="contained" sx={{ minHeight: 48 }}>
              Report
            </Button>
            <Button component={RouterLink} to="figures">
              Figures
            </Button>
          </Box>
        )
      }
    >
      {isError && (
        <Typography role="alert">
          There is no such survey on this device, and the server can’t be asked just now, or doesn’t know it.
        </Typography>
      )}
      {whole && <Whole whole={whole} />}
    </Page>
  );
}

function Whole({ whole }: { whole: Schemas["SurveyWhole"] }) {
  const { survey } = whole;
  const mend = useMending("saveSurvey", "savePlot");
  const [open, setOpen] = useState<"" | "change" | "plot" | "lay">("");
  const close = () => setOpen("");
  const changed = mend?.command.kind === "saveSurvey" && mend.command.surveyId === survey.id ? mend.command : undefined;
  const plot = mend?.command.kind === "savePlot" && mend.command.surveyId === survey.id ? mend.command : undefined;
  const protocol = survey.protocols.at(-1)?.protocol;
  const question = useMemo(() => ({ survey: whole, date: today() }), [whole]);
  const standing = useAsked(question, core.surveyStanding).answer;
  return (
    <>
      <Typography sx={{ maxWidth: 720 }}>{survey.question}</Typography>
      <Typography variant="body2" sx={{ mb: 1 }}>
        {day(survey.from)} to {day(survey.to)} · {survey.leader.name} · {survey.places.map((it) => it.name).join(", ")}{" "}
        {survey.team.length > 0 && `· with ${survey.team.map((it) => it.name).join(", ")} `}· {whole.visits.length}{" "}
        visits · {whole.records.length} plot recordings <WaitingNote id={survey.id} />
      </Typography>
      <Box sx={{ display: "flex", flexWrap: "wrap", gap: 1, mb: 2 }}>
        <Button onClick={() => setOpen("change")}>Change the survey</Button>
        {protocol && <Button onClick={() => setOpen("plot")}>Add a plot</Button>}
        {protocol && <Button onClick={() => setOpen("lay")}>Lay plots by chance</Button>}
      </Box>
      {(open === "change" || changed) && (
        <Part id="change" title="Change the survey">
          <SurveyForm
            survey={survey}
            refused={changed && mend ? { id: mend.id, command: changed } : undefined}
            onDone={close}
            onCancel={close}
          />
        </Part>
      )}
      {(open === "plot" || plot) && (
        <Part id="add-plot" title="A plot">
          <PlotForm
            survey={survey}
            refused={plot && mend ? { id: mend.id, command: plot } : undefined}
            onDone={close}
            onCancel={close}
          />
        </Part>
      )}
      {open === "lay" && (
        <Part id="lay-plots" title="Lay plots by chance">
          <PlotLaying whole={whole} onDone={close} onCancel={close} />
        </Part>
      )}
      <Box sx={{ display: "grid", gridTemplateColumns: { md: "minmax(0, 7fr) minmax(0, 5fr)" }, columnGap: 4 }}>
        <Part id="standing" title="This year">
          {standing && <Standing whole={whole} standing={standing} />}
        </Part>
        <Box>
          <Part id="plan" title="The days that will do">
            <SurveyPlan whole={whole} />
          </Part>
          {whole.plots.length > 0 && (
            <Part id="plots" title={`${whole.plots.length} plots`}>
              <PlotPlan whole={whole} />
            </Part>
          )}
          {standing && standing.sought.length > 0 && (
            <Part id="sought" title="Sought above all">
              <Sought sought={standing.sought} />
            </Part>
          )}
        </Box>
      </Box>
    </>
  );
}

// "05-31"; a whole date is longer.
const MONTH_AND_DAY = 5;
const MOST_TASKS = 40;
const MORE_TASKS = 100;

const signs: Record<string, string> = { due: "△", late: "✕", coming: "◌", done: "✓" };

function Standing({ whole, standing }: { whole: Schemas["SurveyWhole"]; standing: Schemas["SurveyStanding"] }) {
  const [isAll, setAll] = useState(false);
  const { tasks, twiceDone, twiceWanted } = standing;
  const open = tasks.filter((it) => it.state !== "done");
  const [most, setMost] = useState(MOST_TASKS);
  const listed = isAll ? tasks : open;
  const shown = listed.slice(0, most);
  return (
    <>
      <Typography>
        {tasks.length - open.length} of {tasks.length} done
        {twiceWanted > 0 && twiceDone >= twiceWanted && `; ${twiceDone} plots were recorded twice`}.
      </Typography>
      {twiceDone < twiceWanted && (
        <Typography>
          △ {twiceWanted - twiceDone} of {twiceWanted} plots still to be recorded a second time, by somebody who hasn’t
          seen the first.
        </Typography>
      )}
      <Box component="ul" sx={{ listStyle: "none", p: 0, my: 1 }}>
        {shown.map((it) => (
          <Box
            component="li"
            key={it.plotId ?? `${it.placeId} ${it.round}`}
            sx={{
              display: "flex",
              gap: 1.5,
              alignItems: "center",
              minHeight: 44,
              borderTop: "1px dotted",
              borderColor: "rule",
            }}
          >
            <Box component="span" aria-hidden="true">
              {signs[it.state]}
            </Box>
            <Link
              component={RouterLink}
              to={it.plotId ? `/surveys/${whole.survey.id}/plots/${it.plotId}` : `/site-visits?place=${it.placeId}`}
              sx={{ flex: 1, py: 1 }}
            >
              {it.what}
            </Link>
            <Typography variant="body2" color="text.secondary">
              {words.surveyTaskStates[it.state]}
              {it.when &&
                ` · ${it.state === "done" ? day(it.when) : `${it.state === "coming" ? "from" : "until"} ${it.when.length > MONTH_AND_DAY ? day(it.when) : everyYear(it.when)}`}`}
            </Typography>
          </Box>
        ))}
      </Box>
      {listed.length > most && (
        <Button onClick={() => setMost(most + MORE_TASKS)}>
          {listed.length - most > MORE_TASKS
            ? `${MORE_TASKS} more of ${listed.length}`
            : `The other ${listed.length - most}`}
        </Button>
      )}
      {tasks.length > open.length && (
        <Button onClick={() => setAll(!isAll)}>{isAll ? "Only what is open" : "Show what is done too"}</Button>
      )}
    </>
  );
}

function Sought({ sought }: { sought: Schemas["SoughtStanding"][] }) {
  return (
    <Box component="ul" sx={{ listStyle: "none", p: 0, m: 0 }}>
      {sought.map((it) => (
        <Box component="li" key={it.taxon} sx={{ py: 0.75, borderTop: "1px dotted", borderColor: "rule" }}>
          <TaxonLabel name={it.taxon} />{" "}
          <Typography component="span" variant="body2">
            {it.found.length > 0 && `✓ found at ${it.found.join(", ")}`}
            {it.found.length > 0 && it.sought > 0 && "; "}
            {it.sought > 0 && `◌ ${it.sought} person-minutes in vain at ${it.soughtAt.join(", ")}`}
            {it.found.length === 0 && it.sought === 0 && "△ neither found nor sought yet"}
          </Typography>
        </Box>
      ))}
    </Box>
  );
}
