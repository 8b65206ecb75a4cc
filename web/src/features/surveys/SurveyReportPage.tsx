import { Box, Button, Link, Typography } from "@mui/material";
import { TextField } from "../../shared/form/TextField";
import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { Link as RouterLink, useParams } from "react-router";
import { v7 as uuid } from "uuid";
import { answerOf, api, type Schemas } from "../../api/client";
import { send } from "../../offline/outbox";
import { orKept } from "../../offline/queries";
import { useSurvey } from "../../offline/surveys";
import { day } from "../../shared/calendar/day";
import { Plane } from "../../shared/figures/Arranged";
import { AccumulationCurve } from "../../shared/figures/drawings";
import { ExactExport } from "../../shared/ui/ExactExport";
import { Page, Part } from "../../shared/ui/Page";
import { PlotPlan } from "./PlotPlan";
import { ReportSentences, ReportTables } from "./ReportParts";

const files = [
  { file: "report.html", says: "One page (HTML)" },
  { file: "tables.xlsx", says: "Tables (XLSX)" },
  { file: "datapackage.zip", says: "Data package (CSV)" },
  { file: "records.geojson", says: "Map (GeoJSON)" },
  { file: "archive.zip", says: "Darwin Core Archive" },
];

/** The report of a survey: what it says, each sentence to be changed, and the ways out. */
export function SurveyReportPage() {
  const { surveyId = "" } = useParams();
  const { data: whole } = useSurvey(surveyId);
  const { data: report, isError } = useQuery({
    queryKey: ["survey-report", surveyId],
    queryFn: () =>
      orKept<Schemas["SurveyReport"]>(`survey-report:${surveyId}`, () =>
        answerOf((signal) => api.GET("/api/v1/surveys/{id}/report", { params: { path: { id: surveyId } }, signal })),
      ),
  });
  const base = `/api/v1/surveys/${surveyId}`;
  return (
    <Page
      title={report ? `Report: ${report.title}` : "Report"}
      aside={
        <Link component={RouterLink} to={`/surveys/${surveyId}`} sx={{ py: 1.5, "@media print": { display: "none" } }}>
          The survey
        </Link>
      }
    >
      {isError && !report && (
        <Typography role="alert">The report is made by the server, and it doesn’t answer just now.</Typography>
      )}
      {report && (
        <>
          <Box sx={{ "@media print": { display: "none" } }}>
            <Typography variant="body2" sx={{ mb: 1 }}>
              As of {day(report.madeOn)}, with the places of sensitive taxa kept back. Each sentence can be changed;
              what a person wrote stays when the data are renewed. It prints from here too.
            </Typography>
            <Box sx={{ display: "flex", flexWrap: "wrap", gap: 1, mb: 2 }}>
              {files.map(({ file, says }) => (
                <Button
                  key={file}
                  component="a"
                  variant={file === "report.html" ? "contained" : "outlined"}
                  href={`${base}/${file}`}
                  {...(file === "report.html" ? { target: "_blank", rel: "noreferrer" } : { download: true })}
                >
                  {says}
                </Button>
              ))}
              <ExactExport href={`/api/v1/exact/surveys/${surveyId}/tables.xlsx`} what="Tables" />
            </Box>
          </Box>
          {report.sections.map((section, i) => (
            <Part key={section.title} id={`section-${i}`} title={section.title}>
              <ReportSentences surveyId={surveyId} sentences={section.sentences} />
              {i === 1 && whole && whole.plots.length > 0 && <PlotPlan whole={whole} isDrawn />}
              {section.title === "Figures" && (
                <Box sx={{ display: "grid", gridTemplateColumns: { md: "1fr 1fr" }, columnGap: 4, rowGap: 2 }}>
                  {report.accumulation.length > 1 && (
                    <AccumulationCurve points={report.accumulation} unit="recording" />
                  )}
                  {report.arrangement?.arrangement && (
                    <Plane arrangement={report.arrangement.arrangement} groups={report.arrangement.groups} />
                  )}
                </Box>
              )}
              <ReportTables tables={section.tables} />
            </Part>
          ))}
          <Part id="kept" title="Kept versions">
            <Kept surveyId={surveyId} reports={whole?.reports ?? []} />
          </Part>
        </>
      )}
    </Page>
  );
}

function Kept({ surveyId, reports }: { surveyId: string; reports: Schemas["KeptReport"][] }) {
  const [forWhom, setForWhom] = useState("");
  const [says, setSays] = useState("");
  const keep = async () => {
    if (!forWhom.trim()) return setSays("✕ Say whom it is for.");
    const sent = await send({ kind: "keepReport", id: uuid(), reportId: uuid(), surveyId, for: forWhom.trim() });
    setSays(
      sent.kind === "applied"
        ? "✓ Kept as it is now."
        : sent.kind === "waiting"
          ? "◌ It waits: it is kept as it stands when the server answers."
          : `✕ ${sent.problem.title} ${sent.problem.detail}`,
    );
    if (sent.kind !== "refused") setForWhom("");
  };
  return (
    <Box sx={{ "@media print": { display: "none" } }}>
      <Typography sx={{ maxWidth: 640 }}>
        A report that was sent is kept as it was: later records, floras and words never change it.
      </Typography>
      <Box component="ul" sx={{ listStyle: "none", p: 0, my: 1 }}>
        {reports.map((it) => (
          <Box component="li" key={it.id} sx={{ py: 1 }}>
            <Link href={`/api/v1/reports/${it.id}.html`} target="_blank" rel="noreferrer" sx={{ py: 1 }}>
              Version {it.version}
            </Link>{" "}
            for {it.for}, {day(it.keptAt.slice(0, 10))}
          </Box>
        ))}
      </Box>
      <Box
        component="form"
        noValidate
        onSubmit={(event) => {
          event.preventDefault();
          void keep();
        }}
        sx={{ display: "flex", flexWrap: "wrap", gap: 1.5, alignItems: "flex-start" }}
      >
        <TextField label="For whom" value={forWhom} onChange={(event) => setForWhom(event.target.value)} />
        <Button type="submit" sx={{ minHeight: 48 }}>
          Keep this version
        </Button>
      </Box>
      <Typography role="status">{says}</Typography>
    </Box>
  );
}
