import { Box, Typography } from "@mui/material";
import type { Schemas } from "../../api/client";
import words from "../../api/words";
import { oneFigure } from "../../shared/calendar/day";
import { TaxonLabel } from "../../shared/botany/TaxonLabel";
import { SurveyTable } from "./SurveyTable";

const said = (value: number | null | undefined) => (typeof value === "number" ? oneFigure(value) : "–");

/** What the taxa of each sample say of its ground: by indicator values, each drawn on its scale. */
export function IndicatedTable({ ecology }: { ecology: Schemas["SampleEcology"][] }) {
  const factors = ecology[0]?.factors.map((it) => it.factor) ?? [];
  return (
    <>
      <SurveyTable
        label="Table of indicator values"
        columns={["Sample", ...factors.map((it) => words.siteFactors[it])]}
        rows={ecology.map((it) => ({
          key: it.sample,
          head: it.sample,
          cells: it.factors.map((of) => <Indicated key={of.factor} of={of} />),
        }))}
      />
      <Typography variant="body2" sx={{ mt: 1 }}>
        ● the mean, | the median of the taxa with a value; in brackets how many of them have one, and the mean weighted
        by amounts where these are known. Values are the flora’s; they are steps on a scale, so the median is safer. Of
        fewer than three nothing is said.
      </Typography>
    </>
  );
}

const [LENGTH, HEIGHT, EDGE] = [96, 14, 5];

function Indicated({ of }: { of: Schemas["IndicatedFactor"] }) {
  if (typeof of.mean !== "number" || typeof of.median !== "number") return <>– ({of.rated})</>;
  const x = (value: number) => EDGE + ((value - 1) / (of.highest - 1)) * (LENGTH - 2 * EDGE);
  return (
    <Box sx={{ display: "flex", flexWrap: "wrap", alignItems: "center", columnGap: 1, minWidth: 150 }}>
      <svg width={LENGTH} height={HEIGHT} aria-hidden="true">
        <line x1={EDGE} x2={LENGTH - EDGE} y1={HEIGHT / 2} y2={HEIGHT / 2} stroke="currentColor" opacity={0.4} />
        <line x1={x(of.median)} x2={x(of.median)} y1={1} y2={HEIGHT - 1} stroke="currentColor" strokeWidth={2} />
        <circle cx={x(of.mean)} cy={HEIGHT / 2} r={4} fill="currentColor" />
      </svg>
      <span>
        <strong>{oneFigure(of.mean)}</strong>, median {oneFigure(of.median)} ({of.rated} of {of.of}
        {typeof of.weighted === "number" && `; weighted ${oneFigure(of.weighted)}`})
      </span>
    </Box>
  );
}

/** How far the taxa are those of ground that people have hardly changed. */
export function QualityTable({ ecology }: { ecology: Schemas["SampleEcology"][] }) {
  const isWeighted = ecology.some((it) => typeof it.quality.weighted === "number");
  return (
    <>
      <SurveyTable
        label="Table of floristic quality"
        columns={[
          "Sample",
          "Native, with a coefficient",
          "Introduced",
          "Mean of native",
          "Index",
          "Mean of all",
          "Adjusted, 0 to 100",
          ...(isWeighted ? ["Weighted mean"] : []),
        ]}
        rows={ecology.map(({ sample, quality: it }) => ({
          key: sample,
          head: sample,
          cells: [
            `${it.native}, ${it.rated}`,
            it.introduced,
            said(it.mean),
            said(it.index),
            said(it.meanOfAll),
            said(it.adjusted),
            ...(isWeighted ? [said(it.weighted)] : []),
          ],
        }))}
      />
      <Typography variant="body2" sx={{ mt: 1 }}>
        By the flora’s coefficients of conservatism, 0 (grows anywhere) to 10 (only on ground that people have hardly
        changed). Index: mean · √taxa (Swink and Wilhelm 1994), it grows with the number of taxa found; adjusted: mean /
        10 · √(native / all) · 100 (Miller and Wardrop 2006). Nothing is said where fewer than half of the native taxa
        have one.
      </Typography>
    </>
  );
}

/** The taxa of a survey divided: bars of how many, with the share of the finds. */
export function SharesFigure({ shares }: { shares: Schemas["FoundShares"][] }) {
  return (
    <Box sx={{ display: "grid", gridTemplateColumns: { md: "1fr 1fr" }, columnGap: 4, rowGap: 2 }}>
      {shares.map((it) => (
        <Box key={it.by}>
          <Typography component="h3" variant="subtitle2">
            {words.sharesBy[it.by]}
          </Typography>
          <Box component="ul" sx={{ listStyle: "none", p: 0, m: 0 }}>
            {it.shares.map((of) => (
              <Box component="li" key={of.name} sx={{ py: 0.5 }}>
                <Box sx={{ display: "flex", justifyContent: "space-between", gap: 1 }}>
                  <span>{of.name}</span>
                  <Typography component="span" variant="body2">
                    {of.taxa} {of.taxa === 1 ? "taxon" : "taxa"}, {percent(of.ofTaxa)} · {percent(of.ofFinds)} of finds
                  </Typography>
                </Box>
                <Box aria-hidden="true" sx={{ height: 6, bgcolor: "rule" }}>
                  <Box sx={{ height: 6, width: `${of.ofTaxa * 100}%`, bgcolor: "text.primary" }} />
                </Box>
              </Box>
            ))}
          </Box>
        </Box>
      ))}
    </Box>
  );
}

const percent = (share: number) => `${Math.round(share * 100)} %`;

const [WIDE, HIGH, LEFT, FOOT] = [420, 220, 36, 30];

/** How many taxa stand in squares of each size, and how often each one: frequencies belong to a size. */
export function NestedFigure({ nested }: { nested: Schemas["NestedFrequency"][] }) {
  const taxa = nested.at(-1)?.taxa ?? [];
  const of = (size: Schemas["NestedFrequency"], taxon: string) => size.taxa.find((it) => it.taxon === taxon);
  const sizes = nested.map((it) => it.squareMetres);
  const richest = Math.max(1, ...nested.map((it) => it.richness + (it.deviation ?? 0)));
  const x = (size: number) => LEFT + 24 + sizes.indexOf(size) * ((WIDE - LEFT - 72) / (sizes.length - 1));
  const y = (richness: number) => HIGH - FOOT - (richness / richest) * (HIGH - FOOT - 24);
  return (
    <>
      <figure style={{ margin: 0 }}>
        <Box
          component="svg"
          viewBox={`0 0 ${WIDE} ${HIGH}`}
          role="img"
          aria-label={`Taxa by size: ${nested.map((it) => `${it.squareMetres} m² ${oneFigure(it.richness)}`).join(", ")}.`}
          sx={{
            width: "100%",
            maxWidth: WIDE,
            color: "text.primary",
            "& text": { fontSize: 12, fill: "currentColor" },
          }}
        >
          <path d={`M${LEFT} 8V${HIGH - FOOT}H${WIDE - 8}`} fill="none" stroke="currentColor" opacity={0.5} />
          <path
            d={nested.map((it, i) => `${i === 0 ? "M" : "L"}${x(it.squareMetres)} ${y(it.richness)}`).join("")}
            fill="none"
            stroke="currentColor"
            strokeWidth={1.5}
          />
          {nested.map((it) => (
            <g key={it.squareMetres}>
              {typeof it.deviation === "number" && (
                <line
                  x1={x(it.squareMetres)}
                  x2={x(it.squareMetres)}
                  y1={y(Math.max(0, it.richness - it.deviation))}
                  y2={y(it.richness + it.deviation)}
                  stroke="currentColor"
                />
              )}
              <circle cx={x(it.squareMetres)} cy={y(it.richness)} r={4} fill="currentColor" />
              <text x={x(it.squareMetres)} y={HIGH - 12} textAnchor="middle">
                {it.squareMetres}
              </text>
              <text x={x(it.squareMetres) + 8} y={y(it.richness) - 6}>
                {oneFigure(it.richness)}
              </text>
            </g>
          ))}
        </Box>
        <Typography component="figcaption" variant="body2">
          Mean taxa in a square of each size in m², with the standard deviation. The steps between sizes are drawn
          alike.
        </Typography>
      </figure>
      <SurveyTable
        label="Table of nested frequencies"
        columns={["Taxon", ...nested.map((it) => `${it.squareMetres} m²`)]}
        rows={taxa.map((it) => ({
          key: it.taxon,
          head: <TaxonLabel name={it.taxon} />,
          cells: nested.map((size) => {
            const found = of(size, it.taxon);
            return found ? `${found.found} of ${size.squares}` : "–";
          }),
        }))}
      />
    </>
  );
}
