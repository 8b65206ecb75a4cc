import { Box, Button, Checkbox, FormControlLabel, Link, MenuItem, Typography } from "@mui/material";
import { TextField } from "../../shared/form/TextField";
import { useQuery } from "@tanstack/react-query";
import { useMemo, useState } from "react";
import { Link as RouterLink, useSearchParams } from "react-router";
import type { Schemas } from "../../api/client";
import words from "../../api/words";
import { core } from "../../core/coreClient";
import { usePlaces } from "../../offline/documents";
import { useMending } from "../../offline/mending";
import { baseServed, pointsServed, tracksServed, useGrounds } from "../../offline/grounds";
import { useFlora } from "../../shared/botany/queries";
import { TaxonLabel } from "../../shared/botany/TaxonLabel";
import { useAllTaxa } from "../../offline/taxa";
import { useBenchFlora } from "../../shared/botany/useBenchFlora";
import { day } from "../../shared/calendar/day";
import { Autocomplete } from "../../shared/form/Autocomplete";
import { useHere } from "../../shared/place/here";
import { later } from "../../shared/ui/later";
import { Page } from "../../shared/ui/Page";
import { GroundPanel } from "./GroundPanel";
import { SHEET_HEIGHT } from "./sheetHeight";
import { ScannedSheets, useScannedSheets } from "./ScannedSheets";
import { SquareList } from "./SquareList";
import { useTilesUnder } from "./tilesUnder";

// What draws maps is larger than the rest of the page.
const MapSheet = later(async () => (await import("./MapSheet")).MapSheet);
const GroundForm = later(async () => (await import("./GroundForm")).GroundForm);
const NO_PLACES: Schemas["Place"][] = [];
const NO_POINTS: Schemas["MapPoint"][] = [];
const NO_TRACKS: Schemas["PlacedTrack"][] = [];
const NO_SQUARES: Schemas["SquareSeen"][] = [];

// Beside the map nobody reads more of them.
const MOST_LISTED = 25;
const MOST_TRACKS = 6;

/** Places and what was recorded, on a map and in a list beside it. */
export function MapPage() {
  const [search, setSearch] = useSearchParams();
  const here = useHere();
  const chosen = search.get("place") ?? here.placeId;
  const taxon = search.get("taxon") ?? "";
  const places = usePlaces().data ?? NO_PLACES;
  const grounds = useGrounds().data;
  const base = useQuery(baseServed).data;
  const points = useQuery(pointsServed(taxon)).data ?? NO_POINTS;
  const isTracked = search.get("tracks") !== "no";
  const tracks = useQuery({ ...tracksServed(chosen), enabled: chosen !== "" }).data ?? NO_TRACKS;
  const [drawn, setDrawn] = useState<Schemas["GroundPoint"][]>();
  const [changing, setChanging] = useState(false);
  const mend = useMending("describePlace");
  const { flora } = useFlora(undefined);
  const { asked } = useBenchFlora(undefined, undefined, flora !== undefined);
  const taxa = useAllTaxa(asked);
  const described = useMemo(() => new Map(grounds?.map((it) => [it.placeId, it.ground])), [grounds]);
  const place = places.find((it) => it.id === chosen);
  const ground = grounds?.find((it) => it.placeId === chosen);
  const sheets = useScannedSheets();
  const tiles = useTilesUnder();
  const side = Number(search.get("squares") ?? 0);
  const squares = useQuery({
    enabled: place !== undefined && side > 0,
    queryKey: ["squares", chosen, side, taxon, points.length, tracks.length, ground?.version],
    queryFn: () =>
      core.squares({
        place: { latitude: place?.latitude ?? 0, longitude: place?.longitude ?? 0 },
        placeMetres: place?.uncertaintyMetres ?? 0,
        outline: ground?.ground.outline ?? [],
        sideMetres: side,
        points,
        tracks,
      }),
  }).data;
  const set = (part: Record<string, string>) =>
    setSearch(
      Object.fromEntries(
        Object.entries({
          place: chosen,
          taxon,
          tracks: isTracked ? "" : "no",
          squares: side > 0 ? String(side) : "",
          ...part,
        }).filter(([name, it]) => it || name === "place"),
      ),
      { replace: true },
    );
  const listed = points.filter((it) => !place || it.placeId === place.id);
  return (
    <Page title={place ? `Map: ${place.name}` : "Map"} isKeptBack={points.some((it) => it.isSensitive)}>
      <Box role="search" aria-label="Narrow the map" sx={{ display: "flex", flexWrap: "wrap", gap: 2, mb: 1.5 }}>
        <Autocomplete
          options={taxa.map((it) => it.name)}
          value={taxon || null}
          onChange={(_, value) => set({ taxon: value ?? "" })}
          isOptionEqualToValue={(option, value) => option === value}
          sx={{ flex: "1 1 16rem", maxWidth: 420 }}
          renderInput={(params) => <TextField {...params} label="Only records of" />}
        />
        {place && <Button onClick={() => set({ place: "" })}>All places</Button>}
        {place && (
          <TextField
            select
            label="Squares"
            value={String(side || "")}
            onChange={(event) => set({ squares: event.target.value })}
            slotProps={{ inputLabel: { shrink: true }, select: { displayEmpty: true } }}
            sx={{ width: 130 }}
          >
            <MenuItem value="">none</MenuItem>
            {words.squareSides.map((it) => (
              <MenuItem key={it} value={String(it)}>
                {it} m
              </MenuItem>
            ))}
          </TextField>
        )}
        {tracks.length > 0 && (
          <Button aria-pressed={isTracked} onClick={() => set({ tracks: isTracked ? "no" : "" })}>
            {isTracked ? "✓ Tracks" : "Tracks"}
          </Button>
        )}
      </Box>
      <Box
        sx={{ display: "grid", gap: { xs: 2, md: 3 }, gridTemplateColumns: { md: "minmax(0, 3fr) minmax(0, 2fr)" } }}
      >
        <Box sx={{ minWidth: 0 }}>
          <Box sx={{ minHeight: SHEET_HEIGHT }}>
            <MapSheet
              base={base}
              places={places}
              grounds={described}
              points={points}
              tracks={place && isTracked ? tracks : NO_TRACKS}
              squares={squares?.squares ?? NO_SQUARES}
              sheets={sheets.shown}
              tiles={tiles.shown}
              onTilesMissing={tiles.onMissing}
              chosen={place?.id ?? ""}
              onChoose={(id) => set({ place: id })}
              drawn={drawn}
              onDraw={setDrawn}
            />
          </Box>
          <Typography variant="body2" color="text.secondary" sx={{ mt: 0.5 }}>
            ● marked plant · ○ line of a list or population · number: as many close together · △ hazard · ⌂ way in
            {squares && " · filled square: recorded in, dashed: walked through, thin: nobody was there yet"}
            {tracks.length > 0 && isTracked && " · line: a track, the newest in full, rings where no position was"}
          </Typography>
          {tiles.told && (
            <Box>
              <FormControlLabel
                control={<Checkbox checked={tiles.shown !== undefined} onChange={(_, on) => tiles.show(on)} />}
                label={`Tiles under the map: ${tiles.told.credit}`}
              />
              <Typography variant="body2" color="text.secondary">
                Whoever sends them learns which part of the map is looked at, not by whom. Leave them off where nobody
                should guess at a plant.
              </Typography>
              <Typography role="status" variant="body2">
                {tiles.isMissing && "△ Tiles don’t come just now; the drawn map stays."}
              </Typography>
            </Box>
          )}
          <ScannedSheets sheets={sheets} />
        </Box>
        <Box sx={{ minWidth: 0 }}>
          {!place && (
            <Box component="ul" aria-label="Places" sx={{ listStyle: "none", p: 0, m: 0 }}>
              {places.map((it) => (
                <Box component="li" key={it.id} sx={{ borderTop: "1px dotted", borderColor: "rule", py: 0.5 }}>
                  <Link component={RouterLink} to={`/map?place=${it.id}${taxon ? `&taxon=${taxon}` : ""}`}>
                    {it.name}
                  </Link>
                  <Typography variant="body2" color="text.secondary">
                    {[
                      it.cell && `square ${it.cell}`,
                      described.has(it.id) ? "" : "no boundary yet",
                      `${points.filter((point) => point.placeId === it.id).length} recorded with a position`,
                    ]
                      .filter(Boolean)
                      .join(" · ")}
                  </Typography>
                </Box>
              ))}
            </Box>
          )}
          {place && (changing || mend) && (
            <GroundForm
              key={place.id}
              place={place}
              ground={ground}
              refused={mend ? { id: mend.id, ground: mend.command.ground } : undefined}
              drawn={drawn}
              onDraw={setDrawn}
              onDone={() => {
                setDrawn(undefined);
                setChanging(false);
                set({});
              }}
            />
          )}
          {place && !changing && !mend && (
            <>
              <GroundPanel place={place} ground={ground} onChange={() => setChanging(true)} />
              {squares && <SquareList answer={squares} />}
              {isTracked && tracks.length > 0 && (
                <Box component="ul" aria-label="Tracks" sx={{ listStyle: "none", p: 0, m: 0, mb: 1 }}>
                  {tracks.slice(0, MOST_TRACKS).map((it) => (
                    <li key={it.track.id}>
                      <Link component={RouterLink} to={`/site-visits/${it.visitId}`}>
                        {day(it.date)}
                      </Link>{" "}
                      <Typography component="span" variant="body2">
                        {it.track.recorder}: {it.track.inWords}
                      </Typography>
                    </li>
                  ))}
                </Box>
              )}
              <Box component="ul" aria-label="Recorded here" sx={{ listStyle: "none", p: 0, m: 0 }}>
                {listed.slice(0, MOST_LISTED).map((it, i) => (
                  <Box
                    component="li"
                    key={it.id + i}
                    data-kept-back={it.isSensitive ? "" : undefined}
                    sx={{ borderTop: "1px dotted", borderColor: "rule", py: 0.25 }}
                  >
                    <Link component={RouterLink} to={`${addresses[it.kind]}/${it.id}`}>
                      <TaxonLabel name={it.called} scientific={/^[A-Z]\S* /.test(it.called)} />
                    </Link>{" "}
                    <Typography component="span" variant="body2" color="text.secondary">
                      {it.date ? day(it.date) : ""} ± {it.uncertaintyMetres} m
                    </Typography>
                  </Box>
                ))}
              </Box>
              {listed.length > MOST_LISTED && (
                <Typography variant="body2">and {listed.length - MOST_LISTED} more on the map</Typography>
              )}
            </>
          )}
        </Box>
      </Box>
    </Page>
  );
}

const addresses: Record<Schemas["MapPointKind"], string> = {
  plant: "/plants",
  line: "/site-visits",
  population: "/populations",
};
