import { useHere } from "../../shared/place/here";
import { Box, Button, Link, MenuItem, Typography } from "@mui/material";
import { TextField } from "../../shared/form/TextField";
import { useDeferredValue, useState } from "react";
import { Link as RouterLink, useNavigate } from "react-router";
import { v7 as uuid } from "uuid";
import type { Schemas } from "../../api/client";
import { spoken, today } from "../../shared/calendar/day";
import { useDays } from "../../shared/calendar/questions";
import { grouped } from "../../shared/ui/group";
import { useInSteps } from "../../shared/ui/useInSteps";
import { twoColumns } from "../../shared/ui/twoColumns";
import { Page, Part } from "../../shared/ui/Page";
import { useConnection } from "../../offline/queries";
import { useMending } from "../../offline/mending";
import { usePlaces, usePlants, usePopulations } from "../../offline/documents";
import { ExactExport } from "../../shared/ui/ExactExport";
import { TaxonLabel } from "../../shared/botany/TaxonLabel";
import { useFigures } from "../../offline/figures";
import { useSearchedAhead } from "../../offline/searched";
import { LineFigure } from "../../shared/botany/LineFigure";
import { useFlora } from "../../shared/botany/queries";
import { later } from "../../shared/ui/later";
import { PlantLine } from "./PlantLine";

const TagForm = later(async () => (await import("../../shared/form/TagForm")).TagForm);
const PopulationForm = later(async () => (await import("../../shared/form/PopulationForm")).PopulationForm);

const NOTHING_SAID: Schemas["Finding"] = { landmark: "", bearingDegrees: null, distanceMetres: null, note: "" };

// As many as two screens hold.
const LINES_AT_ONCE = 24;

/** Plants that are seen again, place by place, and the populations that are counted. */
export function PlantList() {
  const navigate = useNavigate();
  const [typed, setTyped] = useState("");
  // The list is asked for again when nothing was typed for a moment.
  const text = useDeferredValue(typed).trim();
  const populations = usePopulations();
  const places = usePlaces();
  const here = useHere();
  const connection = useConnection();
  const [place, setPlace] = useState(here.placeId);
  const plants = usePlants({ place, text });
  const isAway = connection === "away" || connection === "outOfReach";
  useSearchedAhead(isAway);
  const mend = useMending("tagPlant", "savePopulation");
  const tag = mend?.command.kind === "tagPlant" ? mend.command : undefined;
  const population = mend?.command.kind === "savePopulation" ? mend.command : undefined;
  const [chosen, setAdding] = useState<"plant" | "population" | "nothing">();
  const adding = chosen ?? (tag ? "plant" : population ? "population" : "nothing");
  const [ownId] = useState(() => uuid());
  const newId = tag?.plantId ?? ownId;
  const [chosenPlace, setAt] = useState<string>();
  const at = chosenPlace ?? mend?.command.placeId ?? here.placeId;
  const own = plants.plants ?? [];
  const far = useDays(own.flatMap((p) => p.lastSeen ?? []));
  const { flora } = useFlora(undefined);
  const figureOf = useFigures(
    flora?.id,
    [...own.map((p) => p.names[0]), ...(populations.data ?? []).map((p) => p.taxon)].flatMap((name) =>
      name ? [{ name, character: "" }] : [],
    ),
  );
  const firstYear = Math.min(...own.flatMap((p) => p.years ?? []));
  const most = useInSteps(own.length, LINES_AT_ONCE, `${place} ${text}`);
  const byPlace = grouped(own.slice(0, most), (p) => p.placeName);
  const counted = (populations.data ?? []).filter(
    (p) =>
      (!place || p.place.id === place) && (!text || `${p.name} ${p.taxon}`.toLowerCase().includes(text.toLowerCase())),
  );
  return (
    <Page
      title="Plants to come back to"
      aside={
        <Box sx={{ display: "flex", gap: 1, flexWrap: "wrap" }}>
          <Button variant="contained" onClick={() => setAdding("plant")}>
            Tag a plant
          </Button>
          <Button onClick={() => setAdding("population")}>Count a population</Button>
        </Box>
      }
    >
      {adding !== "nothing" && mend !== undefined && (
        <Part id="new" title={adding === "plant" ? "Tag a plant" : "A population to be counted"}>
          <TextField
            select
            required
            label="Place"
            value={places.data?.some((p) => p.id === at) ? at : ""}
            onChange={(e) => setAt(e.target.value)}
            sx={{ maxWidth: 360, mb: 2 }}
          >
            {(places.data ?? []).map((p) => (
              <MenuItem key={p.id} value={p.id}>
                {p.name}
              </MenuItem>
            ))}
          </TextField>
          {!at ? (
            <Typography variant="body2">Choose the place first.</Typography>
          ) : adding === "plant" ? (
            <TagForm
              plantId={newId}
              placeId={at}
              label={tag?.label ?? ""}
              site={tag?.site ?? null}
              finding={tag?.finding ?? NOTHING_SAID}
              populationId={tag?.populationId ?? null}
              taggedOn={tag?.taggedOn ?? today()}
              version={null}
              mends={mend?.id}
              onDone={() => void navigate(`/plants/${newId}`)}
            />
          ) : (
            <PopulationForm
              placeId={at}
              mends={mend?.id}
              start={population}
              onDone={(id) => (id ? void navigate(`/populations/${id}`) : setAdding("nothing"))}
            />
          )}
        </Part>
      )}
      <TextField
        label="Find"
        placeholder="a tag or a name"
        value={typed}
        onChange={(e) => setTyped(e.target.value)}
        slotProps={{ inputLabel: { shrink: true } }}
        sx={{ maxWidth: 320, mb: 2, mr: 2 }}
      />
      <TextField
        select
        label="At"
        value={place}
        onChange={(e) => setPlace(e.target.value)}
        slotProps={{ inputLabel: { shrink: true }, select: { displayEmpty: true } }}
        sx={{ maxWidth: 320, mb: 2 }}
      >
        <MenuItem value="">all places</MenuItem>
        {(places.data ?? []).map((p) => (
          <MenuItem key={p.id} value={p.id}>
            {p.name}
          </MenuItem>
        ))}
      </TextField>
      {isAway && (
        <Typography variant="body2" role="status" sx={{ mb: 1 }}>
          ◌ The server isn’t reached: these are the plants that this device has.
        </Typography>
      )}
      {counted.length > 0 && (
        <Part id="populations" title="Populations">
          <Box component="ul" sx={twoColumns}>
            {counted.map((p) => (
              <PopulationLine key={p.id} it={p} figure={figureOf({ name: p.taxon, character: "" })} />
            ))}
          </Box>
          <Button component="a" href="/api/v1/populations.csv" download sx={{ mt: 1 }}>
            Export as CSV
          </Button>
          <ExactExport href="/api/v1/exact/populations.csv" what="Populations" />
        </Part>
      )}
      {[...byPlace].map(([name, here]) => (
        <Part key={name} id={`at-${here[0]?.placeId}`} title={name}>
          <Box component="ul" sx={twoColumns}>
            {here.map((p) => (
              <PlantLine
                key={p.id}
                plant={p}
                figure={p.names[0] ? figureOf({ name: p.names[0], character: "" }) : undefined}
                isLongAgo={far.get(p.lastSeen ?? "")?.isLongAgo ?? false}
                firstYear={firstYear}
              />
            ))}
          </Box>
        </Part>
      ))}
      {plants.hasNextPage && (
        <Button onClick={() => void plants.fetchNextPage()} disabled={plants.isFetchingNextPage} sx={{ mt: 1 }}>
          {plants.isFetchingNextPage ? "Fetching …" : "More plants"}
        </Button>
      )}
      {plants.plants && own.length === 0 && (place !== "" || text !== "") && (
        <Typography role="status">
          {counted.length > 0 ? "No other plant fits" : "Nothing fits"}
          {text && ` “${text}”: it is looked for in tags and in the names that plants bear now`}.
        </Typography>
      )}
      {plants.plants && own.length === 0 && !place && !text && (
        <Typography>
          No plant is tagged yet. Tag one, and what was seen of its twig in January stands beside its flower of May.
        </Typography>
      )}
      {plants.isError && !plants.plants && (
        <Typography role="alert">The server doesn’t answer just now; the plants appear as soon as it does.</Typography>
      )}
    </Page>
  );
}

function PopulationLine({ it, figure }: { it: Schemas["PopulationDetail"]; figure?: Schemas["TaxonFigure"] }) {
  const change = it.summary.changes.at(-1);
  const last = it.counts.at(-1);
  return (
    <Box
      component="li"
      sx={{ display: "flex", gap: 1.25, py: 0.75, borderTop: "1px dotted", borderColor: "rule" }}
      data-kept-back={it.isSensitive ? "" : undefined}
    >
      <LineFigure figure={figure} />
      <Box sx={{ minWidth: 0 }}>
        <Link component={RouterLink} to={`/populations/${it.id}`}>
          <TaxonLabel name={it.taxon} />, {it.name}, {it.place.name}
        </Link>
        <Typography variant="body2" color="text.secondary">
          {last ? `${last.number} ${last.unit} on ${spoken(last.date)}` : "not counted yet"}
          {change &&
            change.from > 0 &&
            `, ${change.to === change.from ? "= as" : change.to > change.from ? "▲ from" : "▼ from"} ${change.from} in ${change.fromYear}`}
          {it.pegs.length > 0 && ` · ${it.pegs.length} marked`}
          {it.threats.some((t) => !t.dealtWith) && " · △ threatened"}
        </Typography>
      </Box>
    </Box>
  );
}
