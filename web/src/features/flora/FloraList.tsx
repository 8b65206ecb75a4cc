import words from "../../api/words";
import { Box, Button, Link, MenuItem, Typography } from "@mui/material";
import { TextField } from "../../shared/form/TextField";
import { useDeferredValue, useState } from "react";
import { Link as RouterLink, useParams } from "react-router";
import type { Schemas } from "../../api/client";
import { Page } from "../../shared/ui/Page";
import { usePlaces } from "../../offline/documents";
import { Plate } from "../../plates/drawn";
import { today } from "../../shared/calendar/day";
import { CautionMarks } from "../../shared/botany/Cautions";
import { TaxonLabel } from "../../shared/botany/TaxonLabel";
import { useFlora, useTaxa, type Wanted } from "../../shared/botany/queries";
import { useHere } from "../../shared/place/here";

const nothing: Wanted = { find: "", family: "", growthForm: "", origin: "", day: "", place: "", cell: "", from: 0 };

const PAGE = 24;

// Before the id of a place whose grid cell is meant, not what was recorded at it.
const LIST_OF = "list:";

// What catches the eye in a list, each with its sign.
const signs: Partial<Record<Schemas["Phenophase"], string>> = { flower: "✿ in", youngFruit: "◒", ripeFruit: "●" };

/** The taxa of a flora, found by any name. */
export function FloraList() {
  const { floraId } = useParams();
  const { flora, floras, failed, loaded } = useFlora(floraId);
  const places = usePlaces();
  const here = useHere();
  const [typed, setWanted] = useState(nothing);
  // The list of the place where one is, until another one is asked for.
  const [chosenAt, setAt] = useState<string>();
  const at = chosenAt ?? (places.data?.some((it) => it.id === here.placeId && it.cell) ? LIST_OF + here.placeId : "");
  const listOf = at.startsWith(LIST_OF) ? places.data?.find((it) => it.id === at.slice(LIST_OF.length)) : undefined;
  const where = { place: at.startsWith(LIST_OF) ? "" : at, cell: listOf?.cell ?? "" };
  const wanted = { ...typed, ...where };
  const asked = { ...useDeferredValue(typed), ...where };
  const list = useTaxa(flora?.id, asked);
  const set = (change: Partial<Wanted>) => setWanted({ ...wanted, from: 0, ...change });
  const showAll = () => {
    setWanted(nothing);
    setAt("");
  };
  const narrowedBesides = JSON.stringify({ ...wanted, cell: "", from: 0 }) !== JSON.stringify(nothing);
  const narrowed = JSON.stringify({ ...wanted, from: 0 }) !== JSON.stringify(nothing);
  return (
    <Page
      title={flora ? `Flora of ${flora.name}` : "Flora"}
      aside={
        <Box sx={{ display: "flex", gap: 2, flexWrap: "wrap", alignItems: "center" }}>
          {flora && (
            <>
              <Link component={RouterLink} to={`/flora/${flora.id}/glossary`}>
                Glossary
              </Link>
              {flora.version > 0 && (
                <Link component={RouterLink} to={`/flora/${flora.id}/crib`}>
                  Diagnostic here
                </Link>
              )}
            </>
          )}
          <Link component={RouterLink} to="/flora/bring">
            Bring a flora
          </Link>
          <Link component={RouterLink} to="/flora/paste">
            Paste descriptions
          </Link>
        </Box>
      }
    >
      {failed && (
        <Typography>The floras can’t be fetched just now. They appear here as soon as the server answers.</Typography>
      )}
      {loaded && !flora && floras.length > 0 && (
        <Typography>
          There is no such flora here.{" "}
          {floras.map((it) => (
            <Link key={it.id} component={RouterLink} to={`/flora/${it.id}`} sx={{ mr: 2 }}>
              {it.name}
            </Link>
          ))}
        </Typography>
      )}
      {loaded && floras.length === 0 && (
        <Typography>
          There is no flora here yet.{" "}
          <Link component={RouterLink} to="/flora/bring">
            Bring one as a table
          </Link>
          .
        </Typography>
      )}
      {flora && (
        <>
          <Box
            sx={{
              display: "grid",
              gap: 1.25,
              gridTemplateColumns: { xs: "1fr 1fr", md: "2fr 1fr 1fr 1fr 1fr 1fr" },
              mb: 1.5,
            }}
          >
            <TextField
              label="Any name, or “ve al”"
              value={wanted.find}
              onChange={(event) => set({ find: event.target.value })}
              sx={{ gridColumn: { xs: "1 / -1", md: "auto" } }}
              autoComplete="off"
            />
            <Choice
              label="Family"
              value={wanted.family}
              options={list.data?.families ?? []}
              onChange={(family) => set({ family })}
            />
            <Choice
              label="Growth form"
              value={wanted.growthForm}
              options={list.data?.growthForms ?? []}
              onChange={(growthForm) => set({ growthForm })}
            />
            <Choice
              label="Status"
              value={wanted.origin}
              options={["native", "introduced", "doubtful"]}
              onChange={(origin) => set({ origin })}
            />
            <TextField
              select
              label="Season"
              value={wanted.day ? "now" : ""}
              onChange={(event) => set({ day: event.target.value ? today() : "" })}
              slotProps={{ inputLabel: { shrink: true }, select: { displayEmpty: true } }}
            >
              <MenuItem value="">All year</MenuItem>
              <MenuItem value="now">Flower or fruit now</MenuItem>
            </TextField>
            <TextField
              select
              label="Place"
              value={at}
              onChange={(event) => {
                setAt(event.target.value);
                set({});
              }}
              slotProps={{ inputLabel: { shrink: true }, select: { displayEmpty: true } }}
            >
              <MenuItem value="">Everywhere</MenuItem>
              {(places.data ?? []).flatMap((place) => [
                place.cell && (
                  <MenuItem key={LIST_OF + place.id} value={LIST_OF + place.id}>
                    On the list of {place.name}
                  </MenuItem>
                ),
                <MenuItem key={place.id} value={place.id}>
                  Recorded at {place.name}
                </MenuItem>,
              ])}
            </TextField>
          </Box>
          <Box sx={{ display: "flex", alignItems: "center", gap: 2, flexWrap: "wrap" }}>
            <Typography variant="body2" color="text.secondary" role="status" sx={{ flex: 1 }}>
              {list.data
                ? `${list.data.found === 1 ? "1 taxon" : `${list.data.found} taxa`}${listOf ? ` on the list of ${listOf.name}` : ""}${narrowedBesides ? (list.data.found === 1 ? " fits" : " fit") : ""}.`
                : list.isError
                  ? "The list can’t be fetched just now."
                  : "Fetching the list …"}
            </Typography>
            {narrowed && <Button onClick={showAll}>Show all</Button>}
            {floras.length > 1 && (
              <Box component="nav" aria-label="Floras" sx={{ display: "flex", gap: 1.5, flexWrap: "wrap" }}>
                {floras.map((it) =>
                  it.id === flora.id ? null : (
                    <Link key={it.id} component={RouterLink} to={`/flora/${it.id}`}>
                      {it.name}
                      {it.version === 0 && " (draft)"}
                    </Link>
                  ),
                )}
              </Box>
            )}
          </Box>
          <Box component="ol" sx={{ listStyle: "none", p: 0, m: 0 }}>
            {list.data?.taxa.map((line) => (
              <Line key={line.taxon.id} flora={flora.id} line={line} />
            ))}
          </Box>
          {list.data?.found === 0 && (
            <Typography sx={{ py: 2 }}>
              {listOf ? `No taxon on the list of ${listOf.name} fits.` : "No taxon fits."} Take a narrowing away, or try
              another name. {listOf && <Button onClick={() => setAt("")}>Look everywhere</Button>}
            </Typography>
          )}
          {list.data && list.data.found > PAGE && (
            <Box sx={{ display: "flex", gap: 1.5, alignItems: "center", mt: 2 }}>
              <Button
                disabled={wanted.from === 0}
                onClick={() => {
                  setWanted({ ...wanted, from: Math.max(0, wanted.from - PAGE) });
                  window.scrollTo(0, 0);
                }}
              >
                Back
              </Button>
              <Typography variant="body2">
                {wanted.from + 1} to {Math.min(list.data.found, wanted.from + PAGE)} of {list.data.found}
              </Typography>
              <Button
                disabled={wanted.from + PAGE >= list.data.found}
                onClick={() => {
                  setWanted({ ...wanted, from: wanted.from + PAGE });
                  window.scrollTo(0, 0);
                }}
              >
                Further
              </Button>
            </Box>
          )}
        </>
      )}
    </Page>
  );
}

function Choice({
  label,
  value,
  options,
  onChange,
}: {
  label: string;
  value: string;
  options: string[];
  onChange: (value: string) => void;
}) {
  return (
    <TextField
      select
      label={label}
      value={value}
      onChange={(event) => onChange(event.target.value)}
      slotProps={{ inputLabel: { shrink: true }, select: { displayEmpty: true } }}
    >
      <MenuItem value="">All</MenuItem>
      {options.map((option) => (
        <MenuItem key={option} value={option}>
          {option}
        </MenuItem>
      ))}
    </TextField>
  );
}

function Line({ flora, line }: { flora: string; line: Schemas["TaxonLine"] }) {
  const { taxon } = line;
  const facts = taxon.facts;
  return (
    <Box
      component="li"
      sx={{
        display: "grid",
        gridTemplateColumns: { xs: "minmax(0, 1fr) 132px", md: "minmax(0, 1fr) 300px" },
        columnGap: 2,
        alignItems: "center",
        borderBottom: "1px dotted",
        borderColor: "rule",
        py: 0.75,
        minHeight: 84,
      }}
    >
      <Box>
        <Link
          component={RouterLink}
          to={`/flora/${flora}/taxa/${taxon.id}`}
          sx={{ fontSize: "1.15rem", display: "inline-flex", minHeight: 44, alignItems: "center" }}
        >
          <TaxonLabel name={taxon.name} />
        </Link>
        <Typography variant="body2" color="text.secondary">
          {[
            line.matched ? `“${line.matched}”` : taxon.commonName,
            taxon.family,
            taxon.rank === "species" ? "" : taxon.rank,
            facts ? words.origins[facts.origin] : "",
          ]
            .filter(Boolean)
            .join(" · ")}
        </Typography>
        <Typography variant="body2">
          <CautionMarks cautions={taxon.cautions} />
          {line.visible
            .map((phase) => signs[phase] && `${signs[phase]} ${words.phases[phase]}`)
            .filter(Boolean)
            .join(" · ")}
        </Typography>
      </Box>
      <Plate name={taxon.name} description={line.description} small />
    </Box>
  );
}
