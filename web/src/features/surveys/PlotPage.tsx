import { Box, Button, Link, Typography } from "@mui/material";
import { useState } from "react";
import { Link as RouterLink, useParams } from "react-router";
import type { Schemas } from "../../api/client";
import words from "../../api/words";
import { useMending } from "../../offline/mending";
import { useSurvey } from "../../offline/surveys";
import { TaxonLabel } from "../../shared/botany/TaxonLabel";
import { day } from "../../shared/calendar/day";
import { later } from "../../shared/ui/later";
import { Page, Part } from "../../shared/ui/Page";
import { WaitingNote } from "../../shared/ui/WaitingNote";
import { amountOf } from "./amount";

const PlotForm = later(async () => (await import("./PlotForm")).PlotForm);
const PlotRecorder = later(async () => (await import("./PlotRecorder")).PlotRecorder);
type Whole = Schemas["SurveyWhole"];
type PlotRecord = Schemas["PlotRecord"];

/** A plot: how it is found again, what was recorded in it, and recording it now. */
export function PlotPage() {
  const { surveyId = "", plotId = "" } = useParams();
  const { data: whole, isError } = useSurvey(surveyId);
  const plot = whole?.plots.find((it) => it.id === plotId);
  return (
    <Page
      title={plot ? `Plot ${plot.label}` : "Plot"}
      isTight
      aside={
        whole && (
          <Link component={RouterLink} to={`/surveys/${surveyId}`} sx={{ py: 1.5 }}>
            {whole.survey.name}
          </Link>
        )
      }
    >
      {(isError || (whole && !plot)) && (
        <Typography role="alert">
          There is no such plot on this device, and the server can’t be asked just now, or doesn’t know it.
        </Typography>
      )}
      {whole && plot && <Plot key={plot.id} whole={whole} plot={plot} />}
    </Page>
  );
}

function Plot({ whole, plot }: { whole: Whole; plot: Schemas["Plot"] }) {
  const [changing, setChanging] = useState(false);
  const mend = useMending("recordPlot");
  const refused = mend?.command.plotId === plot.id ? mend : undefined;
  const place = whole.survey.places.find((it) => it.id === plot.placeId);
  const protocol = whole.survey.protocols.at(-1)?.protocol;
  const corrected = new Set(whole.records.flatMap((it) => (it.supersedes ? [it.supersedes] : [])));
  const records = whole.records.filter((it) => it.plotId === plot.id && !corrected.has(it.id));
  const [correcting, setCorrecting] = useState<PlotRecord>();
  const size = plot.squareMetres ?? protocol?.squareMetres;
  return (
    <>
      <Typography variant="body2" sx={{ mb: 1 }}>
        {[
          place?.name,
          plot.part,
          plot.group && plot.group !== plot.part && `compared under ${plot.group}`,
          size ? `${size} m²` : "",
          words.plotPlacings[plot.placing] + (typeof plot.seed === "number" ? `, seed ${plot.seed}` : ""),
          plot.isPermanent && "permanent",
        ]
          .filter(Boolean)
          .join(" · ")}{" "}
        <WaitingNote id={plot.id} />
      </Typography>
      <FoundAgain plot={plot} />
      {place?.caution && <Typography sx={{ my: 1 }}>△ {place.caution}</Typography>}
      {protocol && (
        <Part id="record" title={correcting ? `Correct the recording of ${day(correcting.date)}` : "Record it"}>
          <PlotRecorder
            key={correcting?.id ?? ""}
            whole={whole}
            plot={plot}
            protocol={protocol}
            records={records}
            correcting={correcting}
            refused={refused}
            onDone={() => setCorrecting(undefined)}
          />
        </Part>
      )}
      {records.length > 0 && (
        <Part id="recorded" title="What was recorded">
          <Recorded records={records} onCorrect={setCorrecting} />
        </Part>
      )}
      {changing ? (
        <Part id="change" title="Change the plot">
          <PlotForm
            survey={whole.survey}
            plot={plot}
            onDone={() => setChanging(false)}
            onCancel={() => setChanging(false)}
          />
        </Part>
      ) : (
        <Button onClick={() => setChanging(true)}>Change what is said of the plot</Button>
      )}
    </>
  );
}

function FoundAgain({ plot }: { plot: Schemas["Plot"] }) {
  const { finding, site } = plot;
  const lines = [
    ...finding.marks.map(
      (it) =>
        `${it.metres} m from ${it.what}${typeof it.bearingDegrees === "number" ? ` at ${it.bearingDegrees}°` : ""}`,
    ),
    typeof finding.declinationDegrees === "number" && `declination ${finding.declinationDegrees}° east`,
    finding.buried && `buried: ${finding.buried}`,
    finding.photograph && `photographed ${finding.photograph}`,
    site && `${site.latitude}, ${site.longitude} (± ${site.uncertaintyMetres} m)`,
  ].filter(Boolean);
  return lines.length === 0 ? null : <Typography>⚑ {lines.join("; ")}.</Typography>;
}

const cell = { px: 1, py: 0.5, borderBottom: "1px dotted", borderColor: "rule", textAlign: "left" } as const;

/** Taxa down, recordings across: what came and what went is seen in a row. */
function Recorded({ records, onCorrect }: { records: PlotRecord[]; onCorrect: (it: PlotRecord) => void }) {
  const layers = [...new Set(records.flatMap((it) => it.layers.map((of) => of.name)))];
  const share = (value: number | null | undefined) => (typeof value === "number" ? `${value} %` : "");
  const aside = (
    [
      ...layers.map((name): [string, (it: PlotRecord) => string] => [
        `Layer ${name}`,
        (it) => {
          const of = it.layers.find((one) => one.name === name);
          const height = typeof of?.heightCm === "number" ? `${of.heightCm} cm high` : "";
          return [share(of?.percent), height].filter(Boolean).join(", ");
        },
      ]),
      ["Bare ground", (it) => share(it.bareGround)],
      ["Litter", (it) => share(it.litter)],
      ["Minutes", (it) => (typeof it.minutes === "number" ? String(it.minutes) : "")],
      ["Note", (it) => it.note],
    ] satisfies [string, (it: PlotRecord) => string][]
  ).filter(([, of]) => records.some(of));
  const rows = [...new Set(records.flatMap((it) => it.finds.map((find) => `${find.taxon}\n${find.layer}`)))].sort();
  return (
    <Box sx={{ overflowX: "auto" }} tabIndex={0} role="region" aria-label="Table of recordings">
      <Box component="table" sx={{ borderCollapse: "collapse", "& th, & td": cell }}>
        <thead>
          <tr>
            <th scope="col">Taxon</th>
            {records.map((it) => (
              <th scope="col" key={it.id}>
                {day(it.date)}
                <Typography variant="body2">
                  {it.recorder}
                  {it.repeats && ", independently"}
                </Typography>
                <Button size="small" onClick={() => onCorrect(it)}>
                  Correct
                </Button>
                <WaitingNote id={it.id} />
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {rows.map((row) => {
            const [taxon = "", layer = ""] = row.split("\n");
            return (
              <tr key={row}>
                <th scope="row">
                  <TaxonLabel name={taxon} />
                  {layer && ` · ${layer}`}
                </th>
                {records.map((it) => {
                  const find = it.finds.find((one) => one.taxon === taxon && one.layer === layer);
                  return <td key={it.id}>{find ? amountOf(find) : "–"}</td>;
                })}
              </tr>
            );
          })}
          <tr>
            <th scope="row">Taxa</th>
            {records.map((it) => (
              <td key={it.id}>{new Set(it.finds.map((find) => find.taxon)).size}</td>
            ))}
          </tr>
          {aside.map(([says, of]) => (
            <tr key={says}>
              <th scope="row">{says}</th>
              {records.map((it) => (
                <td key={it.id}>{of(it) || "–"}</td>
              ))}
            </tr>
          ))}
          {records.some((it) => it.departure) && (
            <tr>
              <th scope="row">Departs from the protocol</th>
              {records.map((it) => (
                <td key={it.id}>{it.departure}</td>
              ))}
            </tr>
          )}
        </tbody>
      </Box>
    </Box>
  );
}
