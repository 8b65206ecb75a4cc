import { Box, Typography } from "@mui/material";
import type { Schemas } from "../../api/client";
import { TaxonLabel } from "../../shared/botany/TaxonLabel";
import { Part } from "../../shared/ui/Page";

const LISTED: Record<Schemas["Completeness"], string> = {
  complete: "Every taxon that was noticed and could be named is on the list",
  partial: "Some of the taxa that were noticed are not on the list",
  unsaid: "Whether every taxon that was noticed is on the list isn’t known",
};

/** What a closed visit comes to: its effort, how far its list goes, and what was looked for in vain. */
export function VisitSummary({ visit }: { visit: Schemas["SiteVisit"] }) {
  const closing = visit.closing;
  if (!closing) return null;
  const scope = [closing.group, closing.level].filter(Boolean).join(", ");
  return (
    <Part id="summary" title="What the visit says">
      <Typography>
        {[visit.startedAt && closing.endedAt ? `${visit.startedAt} to ${closing.endedAt}` : "", visit.effortInWords]
          .filter(Boolean)
          .join(": ") || "How long was searched isn’t known."}
      </Typography>
      <Typography>
        {LISTED[closing.completeness]}
        {scope && ` (${scope})`}.{closing.completeness !== "complete" && " From what isn’t on it nothing follows."}
      </Typography>
      {closing.sought.length > 0 && (
        <Box component="ul" sx={{ my: 0.5, pl: 2.5 }}>
          {closing.sought.map((it) => (
            <li key={it.taxon + it.area}>
              Looked for in vain: <TaxonLabel name={it.taxon} />
              {it.area && `, ${it.area}`}, {it.minutes} min by {it.observers === 1 ? "one" : it.observers}
              {it.note && `. ${it.note}`}
            </li>
          ))}
        </Box>
      )}
      {closing.note && <Typography>{closing.note}</Typography>}
    </Part>
  );
}
