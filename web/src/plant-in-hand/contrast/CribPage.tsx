import { useBenchFlora } from "../../shared/botany/useBenchFlora";
import { useHere } from "../../shared/place/here";
import { Box, Button, Link, MenuItem, Typography } from "@mui/material";
import { TextField } from "../../shared/form/TextField";
import { useMemo } from "react";
import { Link as RouterLink, useParams, useSearchParams } from "react-router";
import type { Schemas } from "../../api/client";
import { Page } from "../../shared/ui/Page";
import { useAllTaxa } from "../../offline/taxa";
import { useAskedEither } from "../../offline/hosts";
import { usePlaces } from "../../offline/documents";
import { StateFigure } from "../../plates/drawn";
import { months, today } from "../../shared/calendar/day";
import { CautionMarks } from "../../shared/botany/Cautions";
import { TaxonLabel } from "../../shared/botany/TaxonLabel";
import { siftPlace } from "../sift/useSift";

const names = months("long");

// So that it stays on one page: the two quickest looks of each taxon.
const MOST_EACH = 2;

/** What gives each taxon away on the list of a place in a month, on one page to be printed and taken along. */
export function CribPage() {
  const { floraId = "" } = useParams();
  const [search, setSearch] = useSearchParams();
  const places = usePlaces().data ?? [];
  const { flora, version, host, asked, characters, failure: notHere, isMissing } = useBenchFlora(floraId);
  const failure = isMissing ? "There is no such flora here." : notHere;
  const taxa = useAllTaxa(asked);
  const here = useHere();
  const month = Number(search.get("month") ?? Number(today().slice(5, 7)));
  const wanted = search.get("place") ?? here.placeId;
  const place = places.find((p) => p.id === wanted);
  const question = useMemo((): Schemas["GiveawayRequest"] | undefined => {
    if (!flora || !version) return undefined;
    return {
      floraId: flora.id,
      at: siftPlace(place),
      date: names[month - 1] ? `${today().slice(0, 4)}-${String(month).padStart(2, "0")}-15` : null,
      narrowing: place ? { recordedHere: true } : null,
    };
  }, [flora, version, place, month]);
  const found = useAskedEither("giveaways", question, host);
  const answer = found.of === question ? found.answer : undefined;
  const asking = found.failure;
  const set = (part: Record<string, string>) =>
    setSearch({ place: wanted, month: String(month), ...part }, { replace: true });
  const byTaxon = new Map<string, Schemas["NamedGiveaway"][]>();
  for (const it of answer?.giveaways ?? []) byTaxon.set(it.taxon, [...(byTaxon.get(it.taxon) ?? []), it]);
  const rows = [...byTaxon.entries()].sort(([, a], [, b]) => (a[0]?.name ?? "").localeCompare(b[0]?.name ?? ""));
  const title = `Diagnostic here: ${place?.name ?? flora?.name ?? "the flora"}, ${names[month - 1] ?? "any month"}`;
  return (
    <Page
      title={title}
      aside={
        <Box sx={{ display: "flex", gap: 1.5, alignItems: "center", "@media print": { display: "none" } }}>
          <Link component={RouterLink} to={`/flora/${floraId}`}>
            To the list
          </Link>
          <Button variant="contained" onClick={() => window.print()}>
            Print it
          </Button>
        </Box>
      }
    >
      <Box
        sx={{
          display: "grid",
          gap: 1.5,
          gridTemplateColumns: { xs: "1fr", sm: "1fr 1fr" },
          maxWidth: 620,
          mb: 1.5,
          "@media print": { display: "none" },
        }}
      >
        <TextField
          select
          label="List of"
          value={place?.id ?? ""}
          onChange={(event) => set({ place: event.target.value })}
          slotProps={{ select: { displayEmpty: true }, inputLabel: { shrink: true } }}
        >
          <MenuItem value="">the whole flora</MenuItem>
          {places.map((it) => (
            <MenuItem key={it.id} value={it.id}>
              {it.name}
            </MenuItem>
          ))}
        </TextField>
        <TextField select label="Month" value={String(month)} onChange={(event) => set({ month: event.target.value })}>
          {names.map((name, i) => (
            <MenuItem key={name} value={String(i + 1)}>
              {name}
            </MenuItem>
          ))}
        </TextField>
      </Box>
      {(failure ?? asking) && <Typography role="alert">{failure ?? asking}</Typography>}
      {!answer && !failure && <Typography role="status">Looking through the list …</Typography>}
      {answer && (
        <>
          <Typography variant="body2" sx={{ mb: 1 }}>
            {place
              ? `${answer.listed} taxa are recorded in the grid cell of ${place.name} (${place.cell}). `
              : `${answer.listed} taxa are on the list. `}
            {rows.length === 0
              ? "None of them can be told by one look this month."
              : `${rows.length} of them can be told by one look that no other of the list shows; the others want a comparison.`}{" "}
            A plant that isn’t on the list may show the same.
          </Typography>
          <Box
            component="ul"
            sx={{
              listStyle: "none",
              p: 0,
              m: 0,
              columns: { xs: 1, md: 2 },
              columnGap: 3,
              "@media print": { columns: 2, fontSize: "9pt" },
            }}
          >
            {rows.map(([taxon, all]) => (
              <Box
                component="li"
                key={taxon}
                sx={{
                  breakInside: "avoid",
                  display: "flex",
                  gap: 1,
                  alignItems: "center",
                  borderTop: "1px dotted",
                  borderColor: "rule",
                  py: 0.5,
                }}
              >
                {all.slice(0, 1).map((it) => {
                  const character = characters.find((c) => c.id === it.character);
                  return character && <StateFigure key={it.state} character={character} state={it.state} size={42} />;
                })}
                <Box sx={{ minWidth: 0 }}>
                  <Typography component="span" sx={{ "@media print": { fontSize: "9.5pt" } }}>
                    <Link component={RouterLink} to={`/flora/${floraId}/taxa/${taxon}`} sx={{ color: "inherit" }}>
                      <TaxonLabel name={all[0]?.name ?? taxon} />
                    </Link>{" "}
                    <CautionMarks cautions={taxa.find((t) => t.id === taxon)?.cautions ?? []} />
                  </Typography>
                  <Typography variant="body2" sx={{ "@media print": { fontSize: "8.5pt" } }}>
                    {all
                      .slice(0, MOST_EACH)
                      .map((it) => it.text)
                      .join(" · or ")}
                  </Typography>
                </Box>
              </Box>
            ))}
          </Box>
          <Typography variant="caption" color="text.secondary" component="p" sx={{ mt: 1 }}>
            Look first; don’t pick, break or taste anything. Local law, the landowner’s word and licensed advice come
            first.
          </Typography>
        </>
      )}
    </Page>
  );
}
