import { Box, Button, Typography } from "@mui/material";
import type { Schemas } from "../../api/client";
import { takeAway } from "../ui/takeAway";

type Figures = Schemas["StatisticsResponse"];
type Sample = Schemas["SampleFigures"];

const PLACES = 3;
const MOST_SHOWN = 200;
const MOST_ALIKE = 20;

const said = (value: number | null | undefined, places = PLACES) =>
  value === null || value === undefined ? "" : Number.isInteger(value) ? String(value) : value.toFixed(places);

const columns: { name: string; of: (it: Sample) => number | null; error?: (it: Sample) => number | null }[] = [
  { name: "Individuals", of: (it) => it.individuals },
  { name: "Taxa", of: (it) => it.richness },
  { name: "Shannon", of: (it) => it.shannon },
  { name: "Simpson", of: (it) => it.simpson },
  { name: "Evenness", of: (it) => it.pielou },
  { name: "Chao1", of: (it) => it.chao1, error: (it) => it.chao1SE },
  { name: "ACE", of: (it) => it.ace, error: (it) => it.aceSE },
  { name: "Coverage", of: (it) => it.coverage },
  { name: "Rarefied", of: (it) => it.rarefied, error: (it) => it.rarefiedSE },
];

const cell = { px: 1, py: 0.5, borderBottom: "1px dotted", borderColor: "rule", textAlign: "right" } as const;
const table = { borderCollapse: "collapse", fontVariantNumeric: "tabular-nums", "& th, & td": cell } as const;

/** The figures of each plot; those that aren't for such values are left out, and the methods say why. */
export function SampleTable({ figures }: { figures: Figures }) {
  const shown = columns.filter(({ of }) => figures.samples.some((it) => of(it) !== null));
  const rows = figures.samples.slice(0, MOST_SHOWN);
  return (
    <>
      <Box sx={{ overflowX: "auto" }} tabIndex={0} role="region" aria-label="Figures plot by plot">
        <Box component="table" sx={{ ...table, "& th:first-of-type": { textAlign: "left" } }}>
          <thead>
            <tr>
              <th scope="col">Plot</th>
              {shown.map((it) => (
                <th scope="col" key={it.name}>
                  {it.name === "Rarefied" ? `Rarefied to ${figures.rarefiedTo}` : it.name}
                </th>
              ))}
            </tr>
          </thead>
          <tbody>
            {rows.map((it) => (
              <tr key={it.sample}>
                <th scope="row">{it.sample}</th>
                {shown.map(({ name, of, error }) => (
                  <td key={name}>
                    {said(of(it)) || "–"}
                    {error && error(it) !== null && ` ± ${said(error(it), 2)}`}
                  </td>
                ))}
              </tr>
            ))}
          </tbody>
        </Box>
      </Box>
      {figures.samples.length > MOST_SHOWN && (
        <Typography variant="body2">
          {MOST_SHOWN} of {figures.samples.length} are shown; the file has all.
        </Typography>
      )}
      <Button onClick={() => takeAway("figures.csv", asText(figures), "text/csv")}>Export the table (CSV)</Button>
    </>
  );
}

const quoted = (text: string) => `"${text.replaceAll('"', '""')}"`;

// All figures with all their places, a plot a row.
const asText = ({ samples }: Figures) => {
  const names = Object.keys(samples[0] ?? {}).filter((it) => it !== "sample" && it !== "hill") as (keyof Sample)[];
  const lines = samples.map((it) =>
    [quoted(it.sample), ...names.map((name) => it[name] ?? ""), ...it.hill.map((h) => h ?? "")].join(","),
  );
  return [["sample", ...names, "hill0", "hill1", "hill2"].join(","), ...lines].join("\r\n") + "\r\n";
};

/** How alike any two plots are: Sørensen below, Bray and Curtis above the diagonal; the darker, the more alike. */
export function Likenesses({ figures }: { figures: Figures }) {
  const names = figures.samples.map((it) => it.sample);
  if (names.length < 2) return <Typography>There is one plot: it is compared with nothing.</Typography>;
  if (names.length > MOST_ALIKE)
    return (
      <Typography>
        Of more than {MOST_ALIKE} plots no table is drawn here; the address surveys/statistics of the API gives the
        pairs of up to 300.
      </Typography>
    );
  const of = new Map(figures.pairs.map((it) => [`${it.a}\n${it.b}`, it]));
  const between = (one: number, other: number) =>
    of.get(`${names[Math.min(one, other)]}\n${names[Math.max(one, other)]}`);
  return (
    <>
      <Box sx={{ overflowX: "auto" }} tabIndex={0} role="region" aria-label="How alike plots are">
        <Box component="table" sx={table}>
          <thead>
            <tr>
              <th scope="col">Plot</th>
              {names.map((name, i) => (
                <th scope="col" key={name} title={name}>
                  {i + 1}
                </th>
              ))}
            </tr>
          </thead>
          <tbody>
            {names.map((name, row) => (
              <tr key={name}>
                <th scope="row" style={{ textAlign: "left" }}>
                  {row + 1} {name}
                </th>
                {names.map((other, column) => {
                  const pair = row === column ? undefined : between(row, column);
                  const value = row > column ? pair?.sorensen : pair?.brayCurtis;
                  const alike = row > column ? value : value === null || value === undefined ? value : 1 - value;
                  return (
                    <Box
                      component="td"
                      key={other}
                      sx={
                        alike === null || alike === undefined
                          ? undefined
                          : {
                              background: (theme) =>
                                `color-mix(in srgb, ${theme.palette.success.main} ${Math.round(alike * 30)}%, transparent)`,
                            }
                      }
                    >
                      {row === column ? "·" : said(value, 2) || "–"}
                    </Box>
                  );
                })}
              </tr>
            ))}
          </tbody>
        </Box>
      </Box>
      <Typography variant="body2" sx={{ mt: 1 }}>
        Below the dots: Sørensen, 1 where the same taxa stand in both. Above: Bray–Curtis, 0 where they stand in the
        same amounts. The darker, the more alike.
      </Typography>
    </>
  );
}

/** Each figure with its formula, source and unit, and why one isn't given. */
export function Methods({ methods }: { methods: Schemas["FigureMethod"][] }) {
  return (
    <Box component="dl" sx={{ m: 0, columns: { md: 2 }, columnGap: 4, "& > div": { breakInside: "avoid", mb: 1 } }}>
      {methods.map((it) => (
        <div key={it.figure}>
          <dt>
            <strong>{it.name}</strong>
            {it.source && `, ${it.source}`}
          </dt>
          <Box component="dd" sx={{ m: 0 }}>
            {it.formula}
            {it.unit && ` · ${it.unit}`}
            {it.refused && (
              <Box component="span" sx={{ display: "block" }}>
                ◌ Not given: {it.refused}
              </Box>
            )}
          </Box>
        </div>
      ))}
    </Box>
  );
}
