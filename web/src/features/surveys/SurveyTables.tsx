import { Box, Button, Typography } from "@mui/material";
import { useState } from "react";
import type { Schemas } from "../../api/client";
import { TaxonLabel } from "../../shared/botany/TaxonLabel";
import { oneFigure } from "../../shared/calendar/day";
import { SurveyTable } from "./SurveyTable";
import { number, signed } from "./signed";

const cell = { px: 1, py: 0.5, borderBottom: "1px dotted", borderColor: "rule", textAlign: "left" } as const;
const table = { borderCollapse: "collapse", fontVariantNumeric: "tabular-nums", "& th, & td": cell } as const;
const classes = ["–", "I", "II", "III", "IV", "V"];
const MOST_SHOWN = 30;

/** In how many recordings of each group a taxon stands, as classes of constancy; sorted by any column. */
export function FrequencyTable({ figures }: { figures: Schemas["SurveyFigures"] }) {
  const [by, setBy] = useState(-1);
  const [isAll, setAll] = useState(false);
  const groups = figures.frequencies[0]?.groups.map((it) => it.group) ?? [];
  const share = (it: Schemas["TaxonFrequency"]) => it.groups[by]?.share.share ?? 0;
  const sorted = by < 0 ? figures.frequencies : [...figures.frequencies].sort((a, b) => share(b) - share(a));
  const shown = isAll ? sorted : sorted.slice(0, MOST_SHOWN);
  return (
    <>
      <Box sx={{ overflowX: "auto" }} tabIndex={0} role="region" aria-label="Table of constancy">
        <Box component="table" sx={table}>
          <thead>
            <tr>
              <th scope="col" aria-sort={by < 0 ? "descending" : "none"}>
                <Button size="small" onClick={() => setBy(-1)}>
                  Taxon, most frequent first
                </Button>
              </th>
              {groups.map((it, i) => (
                <th scope="col" key={it} aria-sort={by === i ? "descending" : "none"}>
                  <Button size="small" onClick={() => setBy(i)}>
                    {it}
                  </Button>
                </th>
              ))}
            </tr>
          </thead>
          <tbody>
            {shown.map((it) => (
              <tr key={it.taxon}>
                <th scope="row">
                  <TaxonLabel name={it.taxon} />
                </th>
                {it.groups.map((of) => (
                  <td key={of.group}>
                    <strong>{classes[of.constancy]}</strong>{" "}
                    {of.found > 0 && (
                      <Typography component="span" variant="body2">
                        {of.found} of {of.of}
                        {of.median && ` · class ${of.median}`}
                        {typeof of.density === "number" && ` · ${oneFigure(of.density)} in 1 m²`}
                        {typeof of.mean === "number" && ` · ${of.mean.toFixed(1)}`}
                      </Typography>
                    )}
                  </td>
                ))}
              </tr>
            ))}
          </tbody>
        </Box>
      </Box>
      <Typography variant="body2" sx={{ mt: 1 }}>
        I to V: up to a fifth, two fifths … of the recordings of a group.
        {figures.hasRanks && " The class is the middle one where the taxon stands."}
        {figures.unit && ` Behind the last point the mean amount over all of them, in ${figures.unit}.`}
      </Typography>
      {figures.frequencies.length > MOST_SHOWN && (
        <Button onClick={() => setAll(!isAll)}>{isAll ? "Fewer" : `All ${figures.frequencies.length} taxa`}</Button>
      )}
    </>
  );
}

/** Taxa with their group, its value and how often chance does as well. */
export function IndicatorTable({ indicators }: { indicators: Schemas["IndicatorValue"][] }) {
  return (
    <>
      <SurveyTable
        label="Table of indicators"
        what="taxa"
        columns={["Taxon", "Group", "Value", "Specificity", "Fidelity", "p"]}
        rows={indicators.map((it) => ({
          key: it.taxon,
          head: <TaxonLabel name={it.taxon} />,
          cells: [it.group, it.value.toFixed(2), it.specificity.toFixed(2), it.fidelity.toFixed(2), it.p.toFixed(3)],
        }))}
      />
      <Typography variant="body2" sx={{ mt: 1 }}>
        Specificity (how much of it stands in the group) times fidelity (in how many of its recordings), after Dufrêne
        and Legendre 1997; p by 999 permutations from a fixed seed. Of many taxa tested some come out by chance.
      </Typography>
    </>
  );
}

/** What more samples would find. */
export function MoreFound({ more }: { more: Schemas["MoreSamples"][] }) {
  return (
    <>
      <Box component="table" sx={table}>
        <thead>
          <tr>
            <th scope="col">Samples</th>
            <th scope="col">Taxa to be expected</th>
            <th scope="col">Coverage</th>
          </tr>
        </thead>
        <tbody>
          {more.map((it) => (
            <tr key={it.samples}>
              <th scope="row">{it.samples}</th>
              <td>{it.richness.toFixed(1)}</td>
              <td>{percent(it.coverage)}</td>
            </tr>
          ))}
        </tbody>
      </Box>
      <Typography variant="body2" sx={{ mt: 1 }}>
        The first row is what there is. Coverage is the share of all finds to be expected whose taxa are among them
        (Chao and Jost 2012); taxa by extrapolation (Colwell and others 2012), to be trusted up to twice the samples.
      </Typography>
    </>
  );
}

const percent = (share: number) => `${Math.round(share * 100)} %`;

/** What changed in permanent plots, with intervals, beside what two recordings of one day differ by. */
export function ChangeTable({ change }: { change: Schemas["SurveyChange"] }) {
  const { richness, turnover, pseudoTurnover, twice, plots } = change;
  const [isAll, setAll] = useState(false);
  const moved = change.taxa.filter((it) => it.lost + it.gained > 0);
  const shown = isAll ? change.taxa : moved;
  return (
    <>
      <Typography sx={{ maxWidth: 720 }}>
        {plots} permanent plots were recorded in both years. Taxa in a plot: {number(richness.value, "+")} on average
        {typeof richness.low === "number" && typeof richness.high === "number"
          ? `, 95 % between ${number(richness.low)} and ${number(richness.high)}`
          : ""}
        .
        {typeof turnover === "number" && ` Of the taxa of a plot ${percent(turnover)} stand in one of the years alone;`}
        {typeof pseudoTurnover === "number"
          ? ` between two independent recordings of one day it is ${percent(pseudoTurnover)} (${twice} pairs).`
          : " how much of that is overlooking isn’t known: no plot was recorded twice."}
      </Typography>
      <SurveyTable
        label="Taxon by taxon"
        what="taxa"
        columns={["Taxon", "Both years", "Lost", "Gained", "Change of frequency", "95 %", "More in, less in", "p"]}
        rows={shown.map((it) => ({
          key: it.taxon,
          head: <TaxonLabel name={it.taxon} />,
          cells: [
            it.both,
            it.lost,
            it.gained,
            `${it.share.isClear ? "● " : ""}${signed(it.share.value)}`,
            typeof it.share.low === "number" && typeof it.share.high === "number"
              ? `${signed(it.share.low)} to ${signed(it.share.high)}`
              : "",
            `${it.rose}, ${it.fell}`,
            typeof it.p === "number" ? it.p.toFixed(3) : "–",
          ],
        }))}
      />
      {change.taxa.length > moved.length && (
        <Button onClick={() => setAll(!isAll)}>
          {isAll ? "Only what came or went" : `The ${change.taxa.length - moved.length} that stayed too`}
        </Button>
      )}
      <Typography variant="body2" sx={{ mt: 1 }}>
        ● the interval leaves out no change. Intervals after Newcombe 1998, method 10, each for one taxon alone. More
        and less: plots in which its amount or class rose or fell, with the sign test (Dixon and Mood 1946), which needs
        no more than their order.
      </Typography>
    </>
  );
}
