import { Box, Link, Typography } from "@mui/material";
import { Link as RouterLink } from "react-router";
import words from "../../api/words";
import { usePlaces } from "../../offline/documents";
import { TaxonLabel } from "../../shared/botany/TaxonLabel";
import { useOwnPlants } from "./useOwnPlants";

interface Props {
  taxa: { id: string; name: string }[];
  /** Where the plant in hand grows. */
  placeId: string | undefined;
  /** The plant in hand, where it was seen before. */
  except?: string;
}

/** Of each name the nearest plant that bears it, those that stand well first: to go and compare. Nothing where there is none. */
export function NearestPlants({ taxa, placeId, except }: Props) {
  const places = usePlaces().data ?? NO_PLACES;
  const own = useOwnPlants(taxa, placeId, places, except);
  if (own.length === 0) return null;
  return (
    <Box sx={{ mt: 1 }}>
      <Typography variant="body2" sx={{ fontWeight: 600 }}>
        To go and compare
      </Typography>
      <Box component="ul" sx={{ listStyle: "none", p: 0, m: 0 }}>
        {own.map((it) => (
          <Typography
            component="li"
            variant="body2"
            key={it.taxon}
            data-kept-back={it.record.isSensitive ? "" : undefined}
            sx={{ py: 0.25 }}
          >
            <Link component={RouterLink} to={`/plants/${it.plantId}`}>
              <TaxonLabel name={it.record.name} />
              {it.record.plantLabel && `, ${it.record.plantLabel}`}
            </Link>
            {`, ${it.record.placeName}`}
            {it.away && ` (${it.away})`}
            {it.record.grade && ` · ${words.grades[it.record.grade].toLowerCase()}`} ·{" "}
            <Link component={RouterLink} to={`/map?place=${it.record.placeId}`}>
              the way there
            </Link>
          </Typography>
        ))}
      </Box>
    </Box>
  );
}

const NO_PLACES: never[] = [];
