import words from "../../api/words";

import { Box, Typography } from "@mui/material";
import type { Schemas } from "../../api/client";
import { signed, spoken } from "../../shared/calendar/day";

import { TaxonLabel } from "../../shared/botany/TaxonLabel";

// The sum, part by part, so that it can be done again by hand.
export function Arithmetic({ answer, place }: { answer: Schemas["SeasonResponse"]; place?: Schemas["Place"] }) {
  const { spring, ripeFruit, autumn, lead, firsts } = answer;
  return (
    <Box sx={{ display: "grid", gap: 3, gridTemplateColumns: { xs: "1fr", md: "1fr 1fr" } }}>
      <Box>
        {!place ? (
          <Typography variant="body2">Choose a place: height, latitude and longitude shift its seasons.</Typography>
        ) : !spring ? (
          <Typography variant="body2">The height of the place isn’t known, so nothing can be shifted to it.</Typography>
        ) : (
          <>
            {spring.parts
              .filter((part) => !part.isOfYear)
              .map((part) => (
                <Typography key={part.reason} variant="body2">
                  {part.reason}: <strong>{signed(part.days)} days</strong>
                </Typography>
              ))}
            <Typography variant="body2">
              Up to young fruit × {spring.coefficient}, ripe fruit × {ripeFruit?.coefficient}, autumn ×{" "}
              {autumn?.coefficient}
              {lead.firsts > 0 && `; and the year ${signed(lead.days)}`}:{" "}
              <strong>
                {signed(spring.days)}, {signed(ripeFruit?.days ?? 0)}, {signed(autumn?.days ?? 0)} days
              </strong>
              .
            </Typography>
            {[...new Set(spring.warnings)].map((warning) => (
              <Typography key={warning} variant="body2" role="note" sx={{ color: "signal.caution", fontWeight: 600 }}>
                △ {warning}
              </Typography>
            ))}
            <Typography variant="caption" color="text.secondary">
              4 days per degree of latitude, per 5° of longitude and per 122 m of height (Hopkins 1918).
            </Typography>
          </>
        )}
      </Box>
      <Box>
        {lead.firsts === 0 ? (
          <Typography variant="body2">
            No firsts this year: note “not yet” on a visit and “yes” within ten days, and the year’s lead or lag
            follows.
          </Typography>
        ) : (
          <>
            <Typography variant="body2">
              This year is <strong>{lead.inWords}</strong> by {lead.firsts} firsts: their median, drawn towards 0 by{" "}
              {lead.firsts}/({lead.firsts} + 3).
            </Typography>
            {firsts.map((f) => (
              <Typography key={f.taxon + f.phase + f.seen} variant="body2" color="text.secondary">
                <TaxonLabel name={f.taxon} />, {words.phases[f.phase]}: {spoken(f.seen)}, expected {spoken(f.expected)}{" "}
                ({signed(f.days)})
              </Typography>
            ))}
          </>
        )}
      </Box>
    </Box>
  );
}
