import words from "../../api/words";
import { useBenchFlora } from "../../shared/botany/useBenchFlora";
import { Autocomplete, Box, Button, Link, MenuItem, TextField, Typography } from "@mui/material";
import { useMemo, useState } from "react";
import { Link as RouterLink, useSearchParams } from "react-router";
import type { Schemas } from "../../api/client";
import { months, signed, spoken, today, windowsInWords } from "../../shared/calendar/day";
import { Page, Part } from "../../shared/ui/Page";
import { QuietButton } from "../../shared/ui/QuietButton";
import { core } from "../../core/coreClient";
import { useAllTaxa, useAsked } from "../../offline/flora";
import { usePlaces } from "../../offline/documents";
import { useFirsts } from "../../offline/queries";
import { YearBand } from "../../shared/calendar/YearBand";
import { Choice } from "../../shared/form/Choice";
import { TaxonLabel } from "../../shared/botany/TaxonLabel";
import { linkOf, useOpenDocuments, useQuestions } from "../../shared/calendar/questions";
import { TaxonYear } from "../../shared/calendar/TaxonYear";

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
  const { flora, version, failure } = useBenchFlora(undefined);
  const taxa = useAllTaxa(flora?.id, version);
  const places = usePlaces();
  const firsts = useFirsts();
  const documents = useOpenDocuments();
  const [what, setWhat] = useState<"list" | "open">("list");
  const [which, setWhich] = useState<"now" | "all">("now");
  const [day, setDay] = useState(today());
  const placeId = params.get("place") ?? "";
  const taxon = params.get("taxon") ?? "";
  const isShifted = params.get("shift") !== "no";
  const place = places.data?.find((p) => p.id === placeId);
  const set = (name: string, value: string) =>
    setParams(
      (before) => {
        if (value) before.set(name, value);
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
  const { answer, failure: wrong } = useAsked(question, core.year);
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
      {!answer && !failure && !wrong && <Typography role="status">Working out the year …</Typography>}
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
                `; ${answer.onlyConspicuousNow} more ${answer.onlyConspicuousNow === 1 ? "catches" : "catch"} the eye, but can’t be told from look-alikes yet`}
              .
            </Typography>
          )}
          <Typography variant="caption" component="p" color="text.secondary" sx={{ mb: 0.5 }}>
            <Box component="span" sx={{ color: "signal.open", fontWeight: 700 }}>
              ▭ above: catches the eye
            </Box>{" "}
            (to search for it) ·{" "}
            <Box component="span" sx={{ color: "signal.support", fontWeight: 700 }}>
              ▬ below: can be named
            </Box>{" "}
            (everything that it is taken for is excluded by what can be seen)
          </Typography>
          <Months />
          <Box component="ul" aria-label="Through the year" sx={{ listStyle: "none", p: 0, m: 0, mb: 3 }}>
            {ordered.map((row) => (
              <Row key={row.taxon} row={row} day={day} floraId={flora?.id ?? ""} isOpen={Boolean(taxon)} taxa={taxa} />
            ))}
          </Box>
          {ordered.length === 0 && (
            <Typography>
              Nothing of this list catches the eye or can be named on that day.{" "}
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

const rowStyle = {
  display: "grid",
  gridTemplateColumns: { xs: "1fr", sm: "minmax(0, 17rem) minmax(0, 1fr)" },
  columnGap: 2,
  alignItems: "center",
  py: 0.5,
  borderTop: "1px dotted",
  borderColor: "rule",
} as const;

function Months() {
  return (
    <Box aria-hidden="true" sx={{ ...rowStyle, borderTop: 0, py: 0 }}>
      <Box sx={{ display: { xs: "none", sm: "block" } }} />
      <Box sx={{ display: "grid", gridTemplateColumns: "repeat(12, minmax(0, 1fr))" }}>
        {months("short").map((m) => (
          <Typography key={m} variant="caption" sx={{ textAlign: "center" }}>
            {m}
          </Typography>
        ))}
      </Box>
    </Box>
  );
}

function Row(props: {
  row: Schemas["NamedSeasonRow"];
  day: string;
  floraId: string;
  isOpen: boolean;
  taxa: Schemas["Taxon"][];
}) {
  const { row, day, floraId, taxa } = props;
  const [opened, setOpened] = useState(props.isOpen);
  const { year } = row;
  return (
    <Box component="li" sx={rowStyle}>
      <Box>
        <QuietButton
          name={`${opened ? "Less" : "More"} about ${row.name}`}
          expanded={opened}
          onClick={() => setOpened(!opened)}
        >
          {row.name}
        </QuietButton>
        <Typography variant="caption" component="div" sx={{ pl: 1 }}>
          {year.nameableNow ? (
            <Box component="span" sx={{ color: "signal.support", fontWeight: 700 }}>
              ● can be named
            </Box>
          ) : (
            <Box component="span" sx={{ color: "signal.absent" }}>
              ◌ {year.notNameableFrom.length > 0 ? "never by looks alone" : "not to be named then"}
            </Box>
          )}
          {year.conspicuousNow && (
            <Box component="span" sx={{ color: "signal.open", fontWeight: 700 }}>
              {" "}
              ▭ {year.conspicuousBy}
            </Box>
          )}
        </Typography>
      </Box>
      <TaxonYear nameable={year.nameable} conspicuous={year.conspicuous} day={day} name={row.name} />
      {opened && (
        <Box sx={{ gridColumn: "1 / -1", pl: 1, pb: 1 }}>
          {year.phases.map((phase) => (
            <Typography key={phase.phase} variant="body2">
              {phase.now ? (
                <Box component="span" sx={{ color: "signal.support", fontWeight: 700 }}>
                  ●{" "}
                </Box>
              ) : (
                "○ "
              )}
              {words.phases[phase.phase]}: {windowsInWords(phase.windows)}
              {phase.shiftInWords && ` (${phase.shiftInWords} than the flora says)`}
            </Typography>
          ))}
          {year.warning && (
            <Typography variant="body2" role="note" sx={{ color: "signal.caution", fontWeight: 600 }}>
              △ {year.warning}
            </Typography>
          )}
          <Typography variant="body2">
            {year.organsNow.length > 0
              ? `On that day there is to look at: ${year.organsNow.map((o) => words.organs[o].toLowerCase()).join(", ")}.`
              : "On that day nothing of it can be looked at."}{" "}
            {year.notNameableFrom.length > 0 &&
              `No look tells it from ${year.notNameableFrom.map((id) => taxa.find((t) => t.id === id)?.name ?? id).join(", ")}. `}
            <Link component={RouterLink} to={`/flora/${floraId}/taxa/${row.taxon}`}>
              What it is like
            </Link>
          </Typography>
        </Box>
      )}
    </Box>
  );
}

// The sum, part by part, so that it can be done again by hand.
function Arithmetic({ answer, place }: { answer: Schemas["SeasonResponse"]; place?: Schemas["Place"] }) {
  const { spring, ripeFruit, autumn, lead, firsts } = answer;
  return (
    <Box sx={{ display: "grid", gap: 3, gridTemplateColumns: { xs: "1fr", md: "1fr 1fr" } }}>
      <Box>
        {!place ? (
          <Typography variant="body2">Choose a place: height, latitude and longitude shift its seasons.</Typography>
        ) : !spring ? (
          <Typography variant="body2">The height of the place isn’t known, so nothing can be shifted to it.</Typography>
        ) : (
          <>
            {spring.parts
              .filter((part) => !part.isOfYear)
              .map((part) => (
                <Typography key={part.reason} variant="body2">
                  {part.reason}: <strong>{signed(part.days)} days</strong>
                </Typography>
              ))}
            <Typography variant="body2">
              Up to young fruit × {spring.coefficient}, ripe fruit × {ripeFruit?.coefficient}, autumn ×{" "}
              {autumn?.coefficient}
              {lead.firsts > 0 && `; and the year ${signed(lead.days)}`}:{" "}
              <strong>
                {signed(spring.days)}, {signed(ripeFruit?.days ?? 0)}, {signed(autumn?.days ?? 0)} days
              </strong>
              .
            </Typography>
            {[...new Set(spring.warnings)].map((warning) => (
              <Typography key={warning} variant="body2" role="note" sx={{ color: "signal.caution", fontWeight: 600 }}>
                △ {warning}
              </Typography>
            ))}
            <Typography variant="caption" color="text.secondary">
              4 days per degree of latitude, per 5° of longitude and per 122 m of height (Hopkins 1918).
            </Typography>
          </>
        )}
      </Box>
      <Box>
        {lead.firsts === 0 ? (
          <Typography variant="body2">
            No firsts this year: note “not yet” on a visit and “yes” within ten days, and the year’s lead or lag
            follows.
          </Typography>
        ) : (
          <>
            <Typography variant="body2">
              This year is <strong>{lead.inWords}</strong> by {lead.firsts} firsts: their median, drawn towards 0 by{" "}
              {lead.firsts}/({lead.firsts} + 3).
            </Typography>
            {firsts.map((f) => (
              <Typography key={f.taxon + f.phase + f.seen} variant="body2" color="text.secondary">
                <TaxonLabel name={f.taxon} />, {words.phases[f.phase]}: {spoken(f.seen)}, expected {spoken(f.expected)}{" "}
                ({signed(f.days)})
              </Typography>
            ))}
          </>
        )}
      </Box>
    </Box>
  );
}
