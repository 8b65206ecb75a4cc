import { useBenchFlora } from "../../shared/botany/useBenchFlora";
import { Box, Link, Typography } from "@mui/material";
import { useMemo } from "react";
import { Link as RouterLink } from "react-router";
import type { Schemas } from "../../api/client";
import words from "../../api/words";
import { Part } from "../../shared/ui/Page";
import { core } from "../../core/coreClient";
import { useAllTaxa, useAsked } from "../../offline/flora";

import { useFirsts } from "../../offline/queries";
import { TaxonLabel } from "../../shared/botany/TaxonLabel";

// What flowers, fruits and can be named at each of one's places today, by the flora shifted to this year.
export function InSeason({ day, places }: { day: string; places: Schemas["Place"][] }) {
  const { flora, version } = useBenchFlora(undefined);
  const firsts = useFirsts();
  const question = useMemo(
    (): Schemas["SeasonRequest"] | undefined =>
      flora && version
        ? { floraId: flora.id, date: day, taxa: null, cell: null, from: null, to: null, firsts: firsts.data ?? [] }
        : undefined,
    [flora, version, day, firsts.data],
  );
  const { answer } = useAsked(question, core.year);
  const { data: described } = useCells(flora?.id, version);
  if (!answer || places.length === 0) return <Box />;
  return (
    <Part id="in-season" title="In season at your places">
      {places.map((place) => {
        const here = answer.rows.filter((r) => !place.cell || described?.get(r.taxon)?.includes(place.cell));
        const doing = (phases: string[]) =>
          here.filter((r) => r.year.phases.some((p) => p.now && phases.includes(p.phase)));
        const [flowers, fruits] = [doing(words.yearRows.flower), doing(words.yearRows.fruit)];
        const named = here.filter((r) => r.year.nameableNow);
        return (
          <Box key={place.id} sx={{ py: 0.75, borderTop: "1px dotted", borderColor: "rule" }}>
            <Link
              component={RouterLink}
              to={`/seasons?place=${place.id}`}
              sx={{ fontSize: "1.0625rem", fontWeight: 600 }}
            >
              {place.name}
            </Link>
            <Typography variant="body2">
              {flowers.length > 0 && (
                <>
                  In flower: <Names rows={flowers} />.{" "}
                </>
              )}
              {fruits.length > 0 && (
                <>
                  In fruit: <Names rows={fruits} />.{" "}
                </>
              )}
              {flowers.length + fruits.length === 0 && "Neither flower nor fruit. "}
              {named.length > 0
                ? `${named.length} of ${here.length} on its list can be named by what they show now.`
                : "Nothing on its list can be named by what it shows now."}
            </Typography>
          </Box>
        );
      })}
    </Part>
  );
}

const MOST_NAMES = 4;

function Names({ rows }: { rows: Schemas["NamedSeasonRow"][] }) {
  return (
    <>
      {rows.slice(0, MOST_NAMES).map((row, i) => (
        <span key={row.taxon}>
          {i > 0 && ", "}
          <TaxonLabel name={row.name} />
        </span>
      ))}
      {rows.length > MOST_NAMES && ` and ${rows.length - MOST_NAMES} more`}
    </>
  );
}

// The grid cells that each taxon is recorded in.
function useCells(floraId: string | undefined, version: string | undefined) {
  const taxa = useAllTaxa(floraId, version);
  return { data: useMemo(() => new Map(taxa.map((t) => [t.id, t.facts?.cells ?? []])), [taxa]) };
}
