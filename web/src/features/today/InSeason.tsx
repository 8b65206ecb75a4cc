import { Box, Link, Typography } from "@mui/material";
import { Link as RouterLink } from "react-router";
import type { Schemas } from "../../api/client";
import { LineFigure } from "../../shared/botany/LineFigure";
import { TaxonLabel } from "../../shared/botany/TaxonLabel";
import { Part } from "../../shared/ui/Page";

interface Props {
  places: Schemas["PlaceInSeason"][];
  figureOf: (it: Schemas["FigureAsked"]) => Schemas["TaxonFigure"] | undefined;
}

/** So many of a place are drawn. */
export const MOST_DRAWN = 4;

// What flowers, fruits and can be named at each of one's places today, by the flora shifted to this year.
export function InSeason({ places, figureOf }: Props) {
  if (places.length === 0) return <Box />;
  return (
    <Part id="in-season" title="In season at your places">
      {places.map((place) => {
        const drawn = place.inFlower.slice(0, MOST_DRAWN);
        return (
          <Box key={place.placeId} sx={{ py: 0.75, borderTop: "1px dotted", borderColor: "rule" }}>
            <Link
              component={RouterLink}
              to={`/seasons?place=${place.placeId}`}
              sx={{ fontSize: "1.0625rem", fontWeight: 600 }}
            >
              {place.name}
            </Link>
            {drawn.length > 0 && (
              <Box sx={{ display: "flex", gap: 0.75, my: 0.5 }}>
                {drawn.map((it) => (
                  <LineFigure key={it.id} figure={figureOf({ name: it.name, character: "" })} />
                ))}
              </Box>
            )}
            <Typography variant="body2">
              {place.inFlower.length > 0 && (
                <>
                  In flower: <Names taxa={place.inFlower} />.{" "}
                </>
              )}
              {place.inFruit.length > 0 && (
                <>
                  In fruit: <Names taxa={place.inFruit} />.{" "}
                </>
              )}
              {place.inFlower.length + place.inFruit.length === 0 && "Neither flower nor fruit. "}
              {place.nameable > 0
                ? `${place.nameable} of ${place.listed} on its list can be named by what they show now.`
                : "Nothing on its list can be named by what it shows now."}
            </Typography>
          </Box>
        );
      })}
    </Part>
  );
}

function Names({ taxa }: { taxa: Schemas["NamedTaxon"][] }) {
  return (
    <>
      {taxa.slice(0, MOST_DRAWN).map((it, i) => (
        <span key={it.id}>
          {i > 0 && ", "}
          <TaxonLabel name={it.name} />
        </span>
      ))}
      {taxa.length > MOST_DRAWN && ` and ${taxa.length - MOST_DRAWN} more`}
    </>
  );
}
