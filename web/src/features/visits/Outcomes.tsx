import { Box, Link, Typography } from "@mui/material";
import { Link as RouterLink } from "react-router";
import type { Schemas } from "../../api/client";
import { spoken } from "../../shared/calendar/day";

import { Part } from "../../shared/ui/Page";

import { TaxonLabel } from "../../shared/botany/TaxonLabel";

// Without its full stop, to stand within a sentence.
const bare = (text: string) => text.replace(/\.$/, "");

// What the last looks have answered, and what has slipped since.
export function Outcomes(props: { plants: Schemas["OpenPlant"][]; populations: Schemas["PopulationDetail"][] }) {
  const { plants, populations } = props;
  const slipped = plants.flatMap((p) => p.outcome.slipped.map((s) => ({ p, s })));
  const missed = populations.flatMap((p) => p.summary.missed.map((text) => ({ p, text })));
  const answered = plants.filter((p) => p.outcome.answered.length > 0);
  return (
    <>
      {(slipped.length > 0 || missed.length > 0) && (
        <Part id="slipped" title="Slipped">
          <Box component="ul" sx={{ listStyle: "none", p: 0, m: 0 }}>
            {slipped.map(({ p, s }) => (
              <Typography
                component="li"
                variant="body2"
                key={p.plantId + s.need.id}
                sx={{ py: 0.25 }}
                data-kept-back={p.isSensitive ? "" : undefined}
              >
                <Link component={RouterLink} to={`/plants/${p.plantId}`}>
                  <TaxonLabel name={p.name} />
                  {p.label && `, ${p.label}`}
                </Link>
                , {p.placeName}: {bare(s.need.text)}; it closed on {spoken(s.closed)} unseen, and opens again on{" "}
                {spoken(s.again)}.
              </Typography>
            ))}
            {missed.map(({ p, text }) => (
              <Typography
                component="li"
                variant="body2"
                key={p.id + text}
                sx={{ py: 0.25 }}
                data-kept-back={p.isSensitive ? "" : undefined}
              >
                <Link component={RouterLink} to={`/populations/${p.id}`}>
                  <TaxonLabel name={p.taxon} />, {p.name}
                </Link>
                , {p.place.name}: {text}
              </Typography>
            ))}
          </Box>
        </Part>
      )}
      {answered.length > 0 && (
        <Part id="answered" title="Answered at the last look">
          <Box component="ul" sx={{ listStyle: "none", p: 0, m: 0 }}>
            {answered.map((p) => (
              <Typography
                component="li"
                variant="body2"
                key={p.plantId}
                sx={{ py: 0.25 }}
                data-kept-back={p.isSensitive ? "" : undefined}
              >
                <Link component={RouterLink} to={`/plants/${p.plantId}`}>
                  <TaxonLabel name={p.name} />
                  {p.label && `, ${p.label}`}
                </Link>
                , {spoken(p.lookedOn)}:{" "}
                <Box component="span" sx={{ color: "signal.support", fontWeight: 700 }}>
                  ●
                </Box>{" "}
                {p.outcome.answered.map((n) => bare(n.text)).join("; ")}.
              </Typography>
            ))}
          </Box>
        </Part>
      )}
    </>
  );
}
