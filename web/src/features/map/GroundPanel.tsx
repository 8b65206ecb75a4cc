import { Box, Button, Link, Typography } from "@mui/material";
import { Link as RouterLink } from "react-router";
import type { Schemas } from "../../api/client";
import words from "../../api/words";
import { GroundCaution } from "../../shared/botany/Cautions";
import { locale, spoken } from "../../shared/calendar/day";
import { WaitingNote } from "../../shared/ui/WaitingNote";

interface Props {
  place: Schemas["Place"];
  ground: Schemas["PlaceGround"] | undefined;
  onChange: () => void;
}

/** What the ground of a place is like, and what leave there is to record. */
export function GroundPanel({ place, ground, onChange }: Props) {
  const it = ground?.ground;
  const hazards = [place.caution, ...(it?.hazards.map((hazard) => hazard.name) ?? [])].filter(Boolean).join(" · ");
  return (
    <Box sx={{ mb: 2 }}>
      <GroundCaution text={hazards} />
      <WaitingNote id={place.id} />
      {typeof ground?.squareMetres === "number" && (
        <Typography>{area(ground.squareMetres)} within its boundary.</Typography>
      )}
      {!it && <Typography>Its boundary and parts aren’t drawn yet: the circle is what is known.</Typography>}
      {it?.leave && (
        <Typography>
          Leave:{" "}
          {[it.leave.from, words.allowed[it.leave.allows], it.leave.until && `until ${spoken(it.leave.until)}`]
            .filter(Boolean)
            .join(", ")}
          . {it.leave.passingOn}
        </Typography>
      )}
      {it?.tell && <Typography>Of an invasive plant that is new here tell: {it.tell}.</Typography>}
      {it && it.entrances.length > 0 && (
        <Typography>Ways in: {it.entrances.map((way) => way.name).join(", ")}.</Typography>
      )}
      {it && it.parts.length > 0 && (
        <Box component="ul" aria-label="Parts" sx={{ my: 0.5, pl: 2.5 }}>
          {it.parts.map((part) => (
            <li key={part.name}>
              <strong>{part.name}</strong>{" "}
              {[
                part.habitat,
                part.substrate,
                part.moisture,
                part.light,
                part.aspect && `facing ${part.aspect}`,
                typeof part.slopeDegrees === "number" && `${part.slopeDegrees}° steep`,
              ]
                .filter(Boolean)
                .join(", ")}
            </li>
          ))}
        </Box>
      )}
      <Box sx={{ display: "flex", flexWrap: "wrap", columnGap: 2, alignItems: "center" }}>
        <Button onClick={onChange}>{it ? "Change boundary and parts" : "Draw its boundary"}</Button>
        <Link component={RouterLink} to={`/site-visits?place=${place.id}`} sx={{ py: 1.25 }}>
          Visits
        </Link>
        <Link component={RouterLink} to={`/places/${place.id}`} sx={{ py: 1.25 }}>
          Marked plants
        </Link>
        <Typography component="span" variant="body2">
          As a file:{" "}
          {files.map(([ending, says]) => (
            <Link key={ending} href={`/api/v1/places.${ending}?place=${place.id}`} download sx={{ py: 1.25, mr: 1 }}>
              {says}
            </Link>
          ))}
        </Typography>
      </Box>
    </Box>
  );
}

const files = [
  ["geojson", "GeoJSON"],
  ["gpx", "GPX"],
  ["kml", "KML"],
] as const;

const HECTARE = 10_000;

/** An area as one says it: in hectares from one on. */
export const area = (squareMetres: number) =>
  squareMetres < HECTARE
    ? `${squareMetres.toLocaleString([...locale], { maximumFractionDigits: 0 })} m²`
    : `${(squareMetres / HECTARE).toLocaleString([...locale], { maximumFractionDigits: 1 })} ha`;
