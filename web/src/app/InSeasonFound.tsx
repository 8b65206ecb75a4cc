import { Box, Link, Typography } from "@mui/material";
import { useMemo } from "react";
import { Link as RouterLink } from "react-router";
import { usePlaces } from "../offline/documents";
import { useAskedEither } from "../offline/hosts";
import { useFirsts } from "../offline/queries";
import { useFigures } from "../offline/figures";
import { LineFigure } from "../shared/botany/LineFigure";
import { TaxonLabel } from "../shared/botany/TaxonLabel";
import { useBenchFlora } from "../shared/botany/useBenchFlora";
import { today } from "../shared/calendar/day";
import { useHere } from "../shared/place/here";

// More of them are read on the page of the seasons.
const MOST_SHOWN = 10;

// What stands for all of a flora where no place is chosen.
const NO_PLACE = "00000000-0000-0000-0000-000000000000";

/** What is in flower or in fruit now: at the place where one is, else in all of the flora. */
export function InSeasonFound({ doing, onClose }: { doing: "flower" | "fruit"; onClose: () => void }) {
  const { flora, version, host, failure } = useBenchFlora(undefined);
  const places = usePlaces().data;
  const firsts = useFirsts().data;
  const { placeId } = useHere();
  const place = places?.find((it) => it.id === placeId);
  const question = useMemo(
    () =>
      flora && version && places
        ? {
            floraId: flora.id,
            date: today(),
            places: [{ id: place?.id ?? NO_PLACE, name: place?.name ?? "", cell: place?.cell ?? "" }],
            firsts: firsts ?? [],
          }
        : undefined,
    [flora, version, places, place, firsts],
  );
  const { answer, failure: wrong } = useAskedEither("inSeason", question, host);
  const found = answer?.[0]?.[doing === "flower" ? "inFlower" : "inFruit"];
  const shown = found?.slice(0, MOST_SHOWN) ?? [];
  const figureOf = useFigures(
    flora?.id,
    shown.map((it) => ({ name: it.name, character: "" })),
  );
  return (
    <Box component="section" aria-label={`In ${doing} now`} sx={{ borderTop: 1, borderColor: "rule", py: 0.5 }}>
      <Typography variant="h3" color="text.secondary">
        In {doing} now, {place ? `at ${place.name}` : flora ? `in the flora of ${flora.name}` : "anywhere"}
      </Typography>
      {!found && (
        <Typography variant="body2" sx={{ py: 1, px: 1 }}>
          {failure ?? wrong ?? "Looking it up …"}
        </Typography>
      )}
      {found && (
        <Box sx={{ display: "grid", gridTemplateColumns: { xs: "1fr", sm: "1fr 1fr" } }}>
          {shown.map((it) => (
            <Link
              key={it.id}
              component={RouterLink}
              to={`/flora/${flora?.id}/taxa/${it.id}`}
              onClick={onClose}
              sx={{ px: 1, minHeight: 62, display: "flex", alignItems: "center", gap: 1.5, color: "text.primary" }}
            >
              <LineFigure figure={figureOf({ name: it.name, character: "" })} />
              <TaxonLabel name={it.name} />
            </Link>
          ))}
        </Box>
      )}
      {found && (
        <Link
          component={RouterLink}
          to={`/seasons${placeId ? `?place=${placeId}` : ""}`}
          onClick={onClose}
          sx={{ px: 1, minHeight: 44, display: "flex", alignItems: "center" }}
        >
          {found.length === 0
            ? `Nothing has ${doing === "flower" ? "flowers" : "fruit"} by its season: the whole year`
            : found.length > MOST_SHOWN
              ? `All ${found.length} through the year`
              : "Through the year"}
        </Link>
      )}
    </Box>
  );
}
