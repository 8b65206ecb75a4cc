import { Box, Button, Link, Typography } from "@mui/material";
import { useState } from "react";
import { Link as RouterLink, useParams } from "react-router";
import type { Schemas } from "../../api/client";
import { useFigures } from "../../offline/figures";
import { usePlaces, usePlants } from "../../offline/documents";
import { PaperOfPlace } from "./PaperOfPlace";
import { GroundCaution } from "../../shared/botany/Cautions";
import { LineFigure } from "../../shared/botany/LineFigure";
import { useFlora } from "../../shared/botany/queries";
import { NamesLabel } from "../../shared/botany/TaxonLabel";
import { spoken } from "../../shared/calendar/day";
import { choosePlace, useHere } from "../../shared/place/here";
import { later } from "../../shared/ui/later";
import { twoColumns } from "../../shared/ui/twoColumns";
import { Page, Part } from "../../shared/ui/Page";
import { WaitingNote } from "../../shared/ui/WaitingNote";

const PlaceDialog = later(async () => (await import("../../plant-in-hand/keep/PlaceDialog")).PlaceDialog, true);
const MergeDialog = later(async () => (await import("./MergeDialog")).MergeDialog, true);
const MergedHere = later(async () => (await import("./MergeDialog")).MergedHere, true);

/** The places where one records; or one of them with the plants that are marked there. */
export function PlacesPage() {
  const { placeId } = useParams();
  const places = usePlaces();
  const [adding, setAdding] = useState(false);
  const [changing, setChanging] = useState(false);
  const [merging, setMerging] = useState(false);
  const all = places.data ?? [];
  const shown = placeId ? all.filter((it) => it.id === placeId) : all.filter((it) => !it.isAtRest);
  const atRest = placeId ? [] : all.filter((it) => it.isAtRest);
  const only = placeId ? shown[0] : undefined;
  return (
    <Page
      title={only ? only.name : "Places"}
      aside={
        <>
          {only && <Button onClick={() => setChanging(true)}>Change it</Button>}
          {only && all.length > 1 && <Button onClick={() => setMerging(true)}>Merge it …</Button>}
          <Button variant={only ? "outlined" : "contained"} onClick={() => setAdding(true)}>
            Add a place
          </Button>
        </>
      }
    >
      {places.isError && !places.data && (
        <Typography role="alert">The places can’t be fetched just now; they appear when the server answers.</Typography>
      )}
      {placeId && places.data && !only && <Typography>There is no such place on this server or device.</Typography>}
      {!placeId && places.data?.length === 0 && (
        <Typography>
          There is no place yet. Add the one where you look at plants: its elevation shifts the seasons to it, its
          habitats weigh what is plausible there.
        </Typography>
      )}
      <Box component="ul" sx={only ? { listStyle: "none", p: 0, m: 0 } : twoColumns}>
        {shown.map((it) => (
          <PlaceEntry key={it.id} place={it} isAlone={only !== undefined} />
        ))}
      </Box>
      {atRest.length > 0 && (
        <Part id="at-rest" title="Laid to rest">
          <Box component="ul" sx={twoColumns}>
            {atRest.map((it) => (
              <PlaceEntry key={it.id} place={it} isAlone={false} />
            ))}
          </Box>
        </Part>
      )}
      {only?.merged && <MergedHere place={only} />}
      {only && <PlantsAt place={only} />}
      {only && (
        <Part id="paper" title="On paper">
          <PaperOfPlace placeId={only.id} />
        </Part>
      )}
      {changing && only && <PlaceDialog place={only} onClose={() => setChanging(false)} />}
      {merging && only && (
        <MergeDialog place={only} others={all.filter((it) => it.id !== only.id)} onClose={() => setMerging(false)} />
      )}
      {adding && <PlaceDialog onClose={() => setAdding(false)} />}
    </Page>
  );
}

function PlaceEntry({ place, isAlone }: { place: Schemas["Place"]; isAlone: boolean }) {
  const here = useHere();
  const isHere = here.placeId === place.id;
  const facts = [
    place.isAtRest && "laid to rest",
    place.locality,
    place.cell && `grid cell ${place.cell}`,
    typeof place.elevationMetres === "number" && `${place.elevationMetres} m above the sea`,
    place.habitats?.join(", "),
  ].filter(Boolean);
  return (
    <Box component="li" sx={{ borderTop: 1, borderColor: "rule", py: 1.25 }}>
      {!isAlone && (
        <Typography variant="h2">
          <Link component={RouterLink} to={`/places/${place.id}`}>
            {place.name}
          </Link>
        </Typography>
      )}
      <Typography variant="body2" color="text.secondary">
        {facts.join(" · ")}
      </Typography>
      <GroundCaution text={place.caution} />
      <WaitingNote id={place.id} />
      <Box sx={{ display: "flex", flexWrap: "wrap", alignItems: "center", columnGap: 2 }}>
        <Button
          aria-pressed={isHere}
          onClick={() => choosePlace(isHere ? "" : place.id)}
          sx={{ bgcolor: isHere ? "signal.chosenWash" : undefined, my: 0.75 }}
        >
          {isHere ? "✓ You are here" : "I am here"}
        </Button>
        <Link component={RouterLink} to={`/site-visits?place=${place.id}`} sx={{ py: 1.25 }}>
          Visits
        </Link>
        <Link component={RouterLink} to={`/map?place=${place.id}`} sx={{ py: 1.25 }}>
          Map
        </Link>
        <Link component={RouterLink} to={`/seasons?place=${place.id}`} sx={{ py: 1.25 }}>
          What can be seen now
        </Link>
        <Link component={RouterLink} to={`/records?place=${place.id}`} sx={{ py: 1.25 }}>
          Records
        </Link>
      </Box>
    </Box>
  );
}

function PlantsAt({ place }: { place: Schemas["Place"] }) {
  const plants = usePlants({ place: place.id, text: "" });
  const { flora } = useFlora(undefined);
  const own = plants.plants ?? [];
  const figureOf = useFigures(
    flora?.id,
    own.flatMap((it) => (it.names[0] ? [{ name: it.names[0], character: "" }] : [])),
  );
  return (
    <Part id="plants-here" title="Marked plants here">
      <Box component="ul" sx={twoColumns}>
        {own.map((it) => (
          <Box
            component="li"
            key={it.id}
            data-kept-back={it.isSensitive ? "" : undefined}
            sx={{ display: "flex", gap: 1.25, py: 0.75, borderTop: "1px dotted", borderColor: "rule" }}
          >
            <LineFigure figure={it.names[0] ? figureOf({ name: it.names[0], character: "" }) : undefined} />
            <Box>
              <Link component={RouterLink} to={`/plants/${it.id}`}>
                {it.names.length > 0 ? <NamesLabel names={it.names} /> : "without a name yet"}
                {it.label && `, ${it.label}`}
              </Link>
              <Typography variant="body2" color="text.secondary">
                {it.lastSeen ? `last seen on ${spoken(it.lastSeen)}` : "not seen since it was marked"}
              </Typography>
            </Box>
          </Box>
        ))}
      </Box>
      {plants.plants && own.length === 0 && <Typography>No plant is marked here yet.</Typography>}
      {plants.hasNextPage && <Button onClick={() => void plants.fetchNextPage()}>More plants</Button>}
    </Part>
  );
}
