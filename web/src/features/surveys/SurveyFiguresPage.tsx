import { Box, Link, MenuItem, Typography } from "@mui/material";
import { TextField } from "../../shared/form/TextField";
import { useMemo } from "react";
import { Link as RouterLink, useParams, useSearchParams } from "react-router";
import type { Schemas } from "../../api/client";
import words from "../../api/words";
import { core } from "../../core/coreClient";
import { useAsked } from "../../offline/flora";
import { useSurvey } from "../../offline/surveys";
import { useBenchFlora } from "../../shared/botany/useBenchFlora";
import { AccumulationCurve, Estimates } from "../../shared/figures/drawings";
import { Likenesses, Methods, SampleTable } from "../../shared/figures/tables";
import { later } from "../../shared/ui/later";
import { Page, Part } from "../../shared/ui/Page";
import { CoverageFigure } from "./CoverageFigure";
import { IndicatedTable, NestedFigure, QualityTable, SharesFigure } from "./EcologyParts";
import { ChangeTable, FrequencyTable, IndicatorTable, MoreFound } from "./SurveyTables";

const SurveyArranged = later(async () => (await import("./SurveyArranged")).SurveyArranged);
const HowMuch = later(async () => (await import("./SurveyEffort")).HowMuch);
const MissedOrGone = later(async () => (await import("./SurveyEffort")).MissedOrGone);
const BesideSurvey = later(async () => (await import("./BesideSurvey")).BesideSurvey);
type Unit = Schemas["SurveyUnit"];

const CLUSTERS = [2, 3, 4, 5, 6, 8] as const;

/** The figures of a survey: from its lists or its plots, put together as one likes. */
export function SurveyFiguresPage() {
  const { surveyId = "" } = useParams();
  const [search, setSearch] = useSearchParams();
  const { data: whole } = useSurvey(surveyId);
  const { host } = useBenchFlora(undefined);
  const hasPlots = (whole?.records.length ?? 0) > 0;
  const from = (search.get("from") ?? (hasPlots ? "plots" : "lists")) as Schemas["SurveySource"];
  const by = (search.get("by") ?? "each") as Unit;
  const under = (search.get("under") ?? (from === "plots" ? "group" : "place")) as Unit;
  const asRanks = search.get("ranks") === "yes";
  const clusters = Number(search.get("clusters") ?? CLUSTERS[1]);
  const set = (part: Record<string, string>) =>
    setSearch(
      { from, by, under, clusters: String(clusters), ...(asRanks ? { ranks: "yes" } : {}), ...part },
      { replace: true },
    );
  const question = useMemo(
    () => whole && { survey: whole, from, by, under, asRanks, clusters },
    [whole, from, by, under, asRanks, clusters],
  );
  const figures = useAsked(question, async (it) => {
    await host.held();
    return core.surveyFigures({ ...it, rarefyTo: null });
  }).answer;
  const changed = useMemo(() => whole && hasPlots && { survey: whole, from: null, to: null }, [whole, hasPlots]);
  const change = useAsked(changed || undefined, core.surveyChange).answer?.[0];
  const choice = (name: string, label: string, value: string, offered: [string, string][]) => (
    <TextField select label={label} value={value} onChange={(event) => set({ [name]: event.target.value })}>
      {offered.map(([it, says]) => (
        <MenuItem key={it} value={it}>
          {says}
        </MenuItem>
      ))}
    </TextField>
  );
  const units = Object.entries(words.surveyUnits);
  const hasRanks = figures?.hasRanks ?? asRanks;
  return (
    <Page
      title={whole ? `Figures: ${whole.survey.name}` : "Figures"}
      aside={
        <Link component={RouterLink} to={`/surveys/${surveyId}`} sx={{ py: 1.5 }}>
          The survey
        </Link>
      }
    >
      <Box
        role="search"
        aria-label="What is compared"
        sx={{ display: "grid", gridTemplateColumns: { sm: "repeat(3, minmax(0, 15rem))" }, gap: 2, mb: 2 }}
      >
        {choice("from", "From", from, [
          ["lists", "lists of visits"],
          ["plots", "plots"],
        ])}
        {choice(
          "by",
          "A sample is",
          by,
          units.filter(([it]) => it !== "cluster"),
        )}
        {choice(
          "under",
          "Compared",
          under,
          units.filter(([it]) => it !== "each"),
        )}
        {under === "cluster" &&
          choice(
            "clusters",
            "Clusters",
            String(clusters),
            CLUSTERS.map((it): [string, string] => [String(it), String(it)]),
          )}
        {hasRanks &&
          choice("ranks", "Classes are compared", asRanks ? "yes" : "no", [
            ["no", "by the cover that stands for them"],
            ["yes", "by their ranks"],
          ])}
      </Box>
      {!figures && <Typography role="status">The figures are being worked out …</Typography>}
      {figures && (
        <>
          {figures.notes.length > 0 && (
            <Box component="ul" sx={{ pl: 2.5, mt: 0, maxWidth: 880 }}>
              {figures.notes.map((it) => (
                <li key={it}>{it}</li>
              ))}
            </Box>
          )}
          {change && from === "plots" && (
            <Part id="change" title={`What changed from ${change.from} to ${change.to}`}>
              <ChangeTable change={change} />
            </Part>
          )}
          {figures.statistics && (
            <Box sx={{ display: "grid", gridTemplateColumns: { md: "1fr 1fr" }, columnGap: 4 }}>
              <Part id="how-many" title="How many taxa there are">
                <Estimates pooled={figures.statistics.pooled} />
              </Part>
              <Part id="more-plots" title="What each recording adds">
                <AccumulationCurve
                  points={figures.statistics.accumulation}
                  unit={from === "lists" ? "list" : "recording"}
                />
              </Part>
            </Box>
          )}
          {figures.more.length > 1 && (
            <Part id="more" title="Whether more would find more">
              <MoreFound more={figures.more} />
            </Part>
          )}
          {figures.byCoverage && (
            <Part id="coverage" title="Compared at equal coverage">
              <CoverageFigure compared={figures.byCoverage} />
            </Part>
          )}
          {whole && from === "lists" && (
            <Part id="missed" title="Missed, or gone?">
              <MissedOrGone whole={whole} taxa={figures.frequencies.map((it) => it.taxon)} />
            </Part>
          )}
          {figures.nested.length > 0 && (
            <Part id="nested" title="Taxa by the size of the square">
              <NestedFigure nested={figures.nested} />
            </Part>
          )}
          {figures.shares.length > 0 && (
            <Part id="shares" title="What they are">
              <SharesFigure shares={figures.shares} />
            </Part>
          )}
          {figures.ecology.length > 0 && (
            <>
              <Part id="ground" title="What they say of the ground">
                <IndicatedTable ecology={figures.ecology} />
              </Part>
              <Part id="quality" title="How undisturbed it is, by its taxa">
                <QualityTable ecology={figures.ecology} />
              </Part>
            </>
          )}
          {whole && (
            <Part id="beside" title="Beside another survey">
              <BesideSurvey whole={whole} from={from} />
            </Part>
          )}
          <Part id="design" title="How much to record">
            <HowMuch key={change ? "own" : "assumed"} deviation={change?.deviation} />
          </Part>
          {figures.frequencies.length > 0 && (
            <Part id="constancy" title="How constant each taxon is">
              <FrequencyTable figures={figures} />
            </Part>
          )}
          {figures.indicators.length > 0 && (
            <Part id="indicators" title="Which taxa stand for a group">
              <IndicatorTable indicators={figures.indicators} />
            </Part>
          )}
          {whole && figures.statistics && (
            <Part id="arranged" title="In a plane, and as a tree">
              <SurveyArranged whole={whole} from={from} by={by} asRanks={asRanks} />
            </Part>
          )}
          {figures.statistics && (
            <>
              <Part id="samples" title="Recording by recording">
                <SampleTable figures={figures.statistics} />
              </Part>
              <Part id="alike" title="How alike they are">
                <Likenesses figures={figures.statistics} />
              </Part>
              <Part id="methods" title="How it is worked out">
                <Methods methods={figures.statistics.methods} />
              </Part>
            </>
          )}
        </>
      )}
    </Page>
  );
}
