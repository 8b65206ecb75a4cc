import { Autocomplete } from "../../shared/form/Autocomplete";
import { day } from "../../shared/calendar/day";
import { Box, Button, Link, MenuItem, Typography } from "@mui/material";
import { Choice } from "../../shared/form/Choice";
import { TextField } from "../../shared/form/TextField";
import { keepPreviousData, useInfiniteQuery, useQuery } from "@tanstack/react-query";
import { Link as RouterLink, useSearchParams } from "react-router";
import { answerOf, api, type Schemas } from "../../api/client";
import { Page } from "../../shared/ui/Page";
import { useInSteps } from "../../shared/ui/useInSteps";
import { ExportList } from "./ExportList";
import { recordsServed, usePlaces } from "../../offline/documents";
import { useHere } from "../../shared/place/here";
import { useLocalWork } from "../../offline/queries";
import { ExactExport } from "../../shared/ui/ExactExport";
import { Callout } from "../../shared/botany/Cautions";
import { useFigures } from "../../offline/figures";
import { LineFigure } from "../../shared/botany/LineFigure";
import { useFlora } from "../../shared/botany/queries";
import { NamesLabel } from "../../shared/botany/TaxonLabel";

const kinds = [
  ["all", "all"],
  ["plants", "plants"],
  ["lists", "lists"],
] as const;

// As many as a screen holds.
const LINES_AT_ONCE = 14;

/** The records, newest first: names of plants, and what was listed on visits. */
export function RecordList() {
  const [search, setSearch] = useSearchParams();
  const taxon = search.get("taxon") ?? "";
  // Where one is narrows the list until another place, or all, is asked for.
  const here = useHere();
  const place = search.get("place") ?? here.placeId;
  const places = usePlaces();
  const { outbox } = useLocalWork();
  const of = kinds.find(([id]) => id === search.get("of"))?.[0] ?? "all";
  const narrow = { taxon: taxon || undefined, place: place || undefined, of };
  const records = useInfiniteQuery({
    queryKey: ["records", taxon, place, of],
    initialPageParam: undefined as string | undefined,
    placeholderData: keepPreviousData,
    queryFn: ({ pageParam }) => recordsServed(narrow, pageParam),
    getNextPageParam: (page) => page.next ?? undefined,
  });
  const contradictions = useQuery({
    queryKey: ["contradictions"],
    staleTime: 600_000,
    queryFn: () => answerOf((signal) => api.GET("/api/v1/contradictions", { signal })),
  });
  const lines = records.data?.pages.flatMap((page) => page.records) ?? [];
  const names = records.data?.pages[0]?.names ?? [];
  const most = useInSteps(lines.length, LINES_AT_ONCE, `${taxon} ${place} ${of}`);
  const { flora } = useFlora(undefined);
  const figureOf = useFigures(
    flora?.id,
    lines.flatMap((line) => (line.names[0] ? [{ name: line.names[0], character: "" }] : [])),
  );
  const set = (part: Record<string, string>) => {
    const next = { taxon, place, of: of === "all" ? "" : of, ...part };
    // "All places" is a choice of its own while one is at a place.
    setSearch(Object.fromEntries(Object.entries(next).filter(([name, value]) => value || name === "place")), {
      replace: true,
    });
  };
  const waiting = outbox.flatMap((entry) => (entry.command.kind === "recordDetermination" ? [entry.command] : []));
  const query = new URLSearchParams(
    Object.entries({ taxon, place, of: of === "all" ? "" : of }).flatMap(([key, value]) =>
      value ? [[key, value]] : [],
    ),
  ).toString();

  const archive = place ? `?place=${place}` : "";
  return (
    <Page
      title="Records"
      aside={
        <>
          <Button component={RouterLink} to="/imports">
            Bring records
          </Button>
          <ExportList query={query} archive={archive} />
          <ExactExport href={`/api/v1/exact/records.csv${query && "?" + query}`} what="Records" />
        </>
      }
    >
      <Box role="search" aria-label="Narrow the records" sx={{ display: "flex", flexWrap: "wrap", gap: 2, mb: 2 }}>
        <Autocomplete
          options={names}
          value={taxon || null}
          onChange={(_, value) => set({ taxon: value ?? "" })}
          isOptionEqualToValue={(option, value) => option === value}
          sx={{ flex: "1 1 16rem", maxWidth: 420 }}
          renderInput={(params) => <TextField {...params} label="Taxon" />}
        />
        <TextField
          select
          label="Place"
          value={places.data?.some((p) => p.id === place) ? place : ""}
          onChange={(event) => set({ place: event.target.value })}
          sx={{ flex: "1 1 16rem", maxWidth: 420 }}
          slotProps={{ select: { displayEmpty: true }, inputLabel: { shrink: true } }}
        >
          <MenuItem value="">All places</MenuItem>
          {(places.data ?? []).map((it) => (
            <MenuItem key={it.id} value={it.id}>
              {it.name}
            </MenuItem>
          ))}
        </TextField>
        <Choice
          label="Records"
          choices={kinds}
          value={of}
          onChoose={(it) => set({ of: !it || it === "all" ? "" : it })}
        />
        {(taxon || place) && <Button onClick={() => set({ taxon: "", place: "" })}>Show all</Button>}
      </Box>
      {records.data?.pages.some((page) => page.isOfDevice) && (
        <Typography role="note" sx={{ mb: 1 }}>
          ◌ Only the records that are on this device. The server has the whole list.
        </Typography>
      )}
      {records.isError && lines.length === 0 && (
        <Typography role="alert">
          The records can’t be fetched just now. They appear here as soon as the server answers.
        </Typography>
      )}
      {(contradictions.data ?? []).length > 0 && (
        <Callout tone="caution" role="note">
          <Typography variant="body2">
            <strong>△ Facts that contradict each other</strong> were written before the database held them together.
            They stay as they are:
          </Typography>
          {contradictions.data?.map((it) => (
            <Typography key={it.kind + it.id + it.reason} variant="body2">
              {it.plantId ? (
                <Link component={RouterLink} to={`/plants/${it.plantId}`}>
                  {it.kind}
                </Link>
              ) : (
                it.kind
              )}
              : {it.reason}
            </Typography>
          ))}
        </Callout>
      )}
      {waiting.map((command) => (
        <Box key={command.id} sx={{ bgcolor: "signal.openWash", px: 1, py: 1, borderBottom: 1, borderColor: "rule" }}>
          <NamesLabel names={command.names} />
          <Typography variant="body2">◌ Kept on this device on {day(command.eventDate)}, waiting to be sent</Typography>
        </Box>
      ))}
      {records.isSuccess && lines.length === 0 && (
        <Typography>
          {taxon || place ? (
            "No record fits. Show all, or narrow it otherwise."
          ) : (
            <>
              There is no record yet.{" "}
              <Link component={RouterLink} to="/bench">
                Take a plant in hand
              </Link>{" "}
              and follow a key.
            </>
          )}
        </Typography>
      )}
      <Box
        component="ol"
        aria-label="Records, newest first"
        sx={{ listStyle: "none", p: 0, m: 0, borderTop: lines.length ? 1 : 0, borderColor: "rule" }}
      >
        {lines.slice(0, most).map((line) => (
          <Line
            key={line.determinationId}
            line={line}
            figure={line.names[0] ? figureOf({ name: line.names[0], character: "" }) : undefined}
          />
        ))}
      </Box>
      {records.hasNextPage && (
        <Button sx={{ mt: 2 }} disabled={records.isFetchingNextPage} onClick={() => void records.fetchNextPage()}>
          Show older records
        </Button>
      )}
    </Page>
  );
}

function Line({ line, figure }: { line: Schemas["RecordLine"]; figure?: Schemas["TaxonFigure"] }) {
  const overtaken = line.number < line.ofPlant;
  return (
    <Box
      component="li"
      sx={{
        display: "grid",
        gridTemplateColumns: {
          xs: "58px minmax(0, 1fr)",
          sm: "58px 8.5rem minmax(0, 1fr) minmax(0, 16rem)",
        },
        "& > :not(:first-of-type)": { gridColumn: { xs: 2, sm: "auto" } },
        columnGap: 2,
        py: 1,
        borderBottom: "1px dotted",
        borderColor: "rule",
      }}
    >
      <Box sx={{ gridRow: { xs: "1 / span 3", sm: "auto" } }}>
        <LineFigure figure={figure} />
      </Box>
      <Typography component="span" variant="body2" color="text.secondary">
        {day(line.eventDate)}
      </Typography>
      <Box>
        <Link
          component={RouterLink}
          to={line.siteVisitId ? `/site-visits/${line.siteVisitId}` : `/plants/${line.plantId}`}
          sx={{ fontSize: "1.0625rem" }}
        >
          <NamesLabel names={line.names} />
        </Link>
        <Typography component="span" variant="body2" sx={{ display: "block" }}>
          {line.names.length > 1 && (
            <Box component="span" sx={{ color: "signal.open", fontWeight: 700 }}>
              ◐ {line.names.length} taxa open{" "}
            </Box>
          )}
          {line.isInQuestion && (
            <Box component="span" sx={{ color: "signal.conflict", fontWeight: 700 }}>
              △ in question{" "}
            </Box>
          )}
          {overtaken && (
            <Box component="span" sx={{ color: "signal.absent", fontWeight: 700 }}>
              ↷ determined again later{" "}
            </Box>
          )}
          {line.ofPlant > 1 && (
            <Box component="span" sx={{ color: "text.secondary" }}>
              determination {line.number} of {line.ofPlant}{" "}
            </Box>
          )}
          <span data-kept-back={line.isSensitive ? "" : undefined}>{line.note}</span>
        </Typography>
      </Box>
      <Typography
        component="span"
        variant="body2"
        color="text.secondary"
        data-kept-back={line.isSensitive ? "" : undefined}
      >
        {line.placeName}
        {line.plantLabel && <>, {line.plantLabel}</>}
        <br />
        {line.recorder}
      </Typography>
    </Box>
  );
}
