import { Autocomplete } from "../../shared/form/Autocomplete";
import { Awaited } from "../../shared/ui/Awaited";
import { useHere } from "../../shared/place/here";
import { useBenchFlora } from "../../shared/botany/useBenchFlora";
import { Box, Button, Link, MenuItem, Typography } from "@mui/material";
import { TextField } from "../../shared/form/TextField";
import { useMemo, useState } from "react";
import { Link as RouterLink, useSearchParams } from "react-router";
import type { Schemas } from "../../api/client";
import { spoken, today, windowsInWords } from "../../shared/calendar/day";
import { Page, Part } from "../../shared/ui/Page";

import { useAllTaxa } from "../../offline/taxa";
import { useAskedEither } from "../../offline/hosts";
import { usePlaces } from "../../offline/documents";
import { useFirsts } from "../../offline/queries";
import { YearBand } from "../../shared/calendar/YearBand";
import { Choice } from "../../shared/form/Choice";
import { TaxonLabel } from "../../shared/botany/TaxonLabel";
import { linkOf, useOpenDocuments, useQuestions } from "../../shared/calendar/questions";

import { Arithmetic } from "./SeasonArithmetic";
import { rowStyle, Months, Row } from "./SeasonLines";

const lists = [
  ["list", "the list of the place"],
  ["open", "my open questions"],
] as const;

const shown = [
  ["now", "what can be seen now"],
  ["all", "all of it"],
] as const;

const siteOf = (place: Schemas["Place"] | undefined): Schemas["SeasonSite"] | null =>
  place && typeof place.elevationMetres === "number"
    ? { latitude: place.latitude, longitude: place.longitude, elevationMetres: place.elevationMetres }
    : null;

/** What can be seen when: the list of a place, one taxon, or one's open questions, through the year. */
export function SeasonsPage() {
  const [params, setParams] = useSearchParams();
  const { flora, version, host, asked, failure } = useBenchFlora(undefined);
  const taxa = useAllTaxa(asked);
  const places = usePlaces();
  const firsts = useFirsts();
  const documents = useOpenDocuments();
  const [what, setWhat] = useState<"list" | "open">("list");
  const [which, setWhich] = useState<"now" | "all">("now");
  const [day, setDay] = useState(today());
  const here = useHere();
  const placeId = params.get("place") ?? here.placeId;
  const taxon = params.get("taxon") ?? "";
  const isShifted = params.get("shift") !== "no";
  const place = places.data?.find((p) => p.id === placeId);
  const set = (name: string, value: string) =>
    setParams(
      (before) => {
        // "Anywhere" is a choice of its own while one is at a place.
        if (value || name === "place") before.set(name, value);
        else before.delete(name);
        return before;
      },
      { replace: true },
    );
  const question = useMemo(
    (): Schemas["SeasonRequest"] | undefined =>
      flora && version && places.data && day
        ? {
            floraId: flora.id,
            date: day,
            taxa: taxon ? [taxon] : null,
            cell: taxon ? null : place?.cell || null,
            sites: isShifted ? places.data.map((p) => ({ id: p.id, site: siteOf(p) })) : null,
            toPlace: place?.id ?? null,
            fromPlace: params.get("from"),
            firsts: isShifted ? (firsts.data ?? []) : [],
          }
        : undefined,
    [flora, version, places.data, day, taxon, place, isShifted, params, firsts.data],
  );
  const { answer, failure: wrong } = useAskedEither("year", question, host);
  const rows = answer?.rows ?? [];
  const now = rows.filter((r) => r.year.nameableNow || r.year.conspicuousNow);
  const listed = taxon || which === "all" ? rows : now;
  const ordered = [...listed].sort((a, b) => rank(b.year) - rank(a.year) || a.name.localeCompare(b.name));
  const questions = (useQuestions(day, documents) ?? []).filter((q) => !place || q.question.placeId === place.id);
  const from = places.data?.find((p) => p.id === answer?.fromPlace);
  return (
    <Page title="Seasons">
      <Box sx={{ display: "grid", gap: 1.5, gridTemplateColumns: { xs: "1fr", sm: "1fr 11rem 1.4fr" }, mb: 1.5 }}>
        <TextField
          select
          label="At"
          value={place ? place.id : ""}
          onChange={(e) => set("place", e.target.value)}
          slotProps={{ inputLabel: { shrink: true }, select: { displayEmpty: true } }}
        >
          <MenuItem value="">anywhere in the flora</MenuItem>
          {(places.data ?? []).map((p) => (
            <MenuItem key={p.id} value={p.id}>
              {p.name}
              {p.elevationMetres !== null && `, ${p.elevationMetres} m`}
            </MenuItem>
          ))}
        </TextField>
        <TextField
          type="date"
          label="On"
          value={day}
          onChange={(e) => setDay(e.target.value)}
          slotProps={{ inputLabel: { shrink: true } }}
        />
        <Autocomplete
          options={taxa}
          getOptionLabel={(t) => t.name}
          value={taxa.find((t) => t.id === taxon) ?? null}
          onChange={(_, it) => set("taxon", it?.id ?? "")}
          renderInput={(input) => <TextField {...input} label="Only this taxon" />}
        />
      </Box>
      {!taxon && (
        <Box sx={{ display: "flex", gap: 3, flexWrap: "wrap", mb: 1.5 }}>
          <Choice label="Show" choices={lists} value={what} onChoose={(it) => it && setWhat(it)} />
          {what === "list" && (
            <Choice label="Of it" choices={shown} value={which} onChoose={(it) => it && setWhich(it)} />
          )}
        </Box>
      )}
      {(failure ?? wrong) && <Typography role="alert">{failure ?? wrong}</Typography>}
      {!answer && !failure && !wrong && <Awaited words="Working out the year …" heights={[24, 56, 56, 56, 56]} />}
      {answer && (what === "list" || taxon) && (
        <>
          {!taxon && (
            <Typography sx={{ mb: 1 }}>
              On {spoken(day)}
              {place ? ` at ${place.name}` : ""}:{" "}
              <strong>
                {answer.nameableNow} of {rows.length} can be named by what they show
              </strong>
              {answer.onlyConspicuousNow > 0 &&
                `; ${answer.onlyConspicuousNow} more ${answer.onlyConspicuousNow === 1 ? "is" : "are"} conspicuous, but can’t be told from look-alikes yet`}
              .
            </Typography>
          )}
          <Typography variant="caption" component="p" color="text.secondary" sx={{ mb: 0.5 }}>
            <Box component="span" sx={{ color: "signal.open", fontWeight: 700 }}>
              ▭ above: conspicuous
            </Box>{" "}
            (to search for it) ·{" "}
            <Box component="span" sx={{ color: "signal.support", fontWeight: 700 }}>
              ▬ below: can be named
            </Box>{" "}
            (everything that it may be confused with is excluded by what can be seen)
          </Typography>
          <Months />
          <Box component="ul" aria-label="Through the year" sx={{ listStyle: "none", p: 0, m: 0, mb: 3 }}>
            {ordered.map((row) => (
              <Row key={row.taxon} row={row} day={day} floraId={flora?.id ?? ""} isOpen={Boolean(taxon)} taxa={taxa} />
            ))}
          </Box>
          {ordered.length === 0 && (
            <Typography>
              Nothing of this list is conspicuous or can be named on that day.{" "}
              <Button onClick={() => setWhich("all")}>Show all of it</Button>
            </Typography>
          )}
        </>
      )}
      {what === "open" && !taxon && (
        <Box component="ul" aria-label="Open questions through the year" sx={{ listStyle: "none", p: 0, m: 0, mb: 3 }}>
          {questions.map((it) => {
            const { question: q, isOpen: isNow } = it;
            return (
              <Box component="li" key={q.id} sx={rowStyle}>
                <Typography variant="body2" component="div">
                  <Link component={RouterLink} to={linkOf(it)}>
                    <TaxonLabel name={q.name} />
                    {q.label && `, ${q.label}`}
                  </Link>
                  <Box component="span" sx={{ display: "block" }}>
                    <Box component="span" sx={{ color: isNow ? "signal.support" : "signal.absent", fontWeight: 700 }}>
                      {isNow ? "● now" : "◌ not on that day"}
                    </Box>{" "}
                    {q.need.text}
                  </Box>
                </Typography>
                <Box>
                  <YearBand windows={q.need.windows} today={day} />
                  <Typography variant="caption">{windowsInWords(q.need.windows)}</Typography>
                </Box>
              </Box>
            );
          })}
          {questions.length === 0 && <Typography>Nothing is open here.</Typography>}
        </Box>
      )}
      <Part id="shift" title="Shifted to the place">
        <Box sx={{ display: "flex", gap: 2, flexWrap: "wrap", alignItems: "center", mb: 1 }}>
          <Choice
            label="Shift"
            choices={[
              ["yes", "to the place and the year"],
              ["no", "as the flora says"],
            ]}
            value={isShifted ? "yes" : "no"}
            onChoose={(it) => set("shift", it === "no" ? "no" : "")}
          />
          {isShifted && (
            <TextField
              select
              size="small"
              label="The flora’s seasons are those of"
              value={from?.id ?? ""}
              onChange={(e) => set("from", e.target.value)}
              sx={{ maxWidth: 300 }}
            >
              {(places.data ?? [])
                .filter((p) => p.elevationMetres !== null)
                .map((p) => (
                  <MenuItem key={p.id} value={p.id}>
                    {p.name}, {p.elevationMetres} m
                  </MenuItem>
                ))}
            </TextField>
          )}
        </Box>
        {isShifted && answer && <Arithmetic answer={answer} place={place} />}
      </Part>
    </Page>
  );
}

const rank = (year: Schemas["SeasonRow"]) => (year.nameableNow ? 2 : 0) + (year.conspicuousNow ? 1 : 0);
