import { leadLetter } from "./leads";
import { Box, Button, Typography } from "@mui/material";
import { useState } from "react";
import type { Schemas } from "../../api/client";
import { TaxonLabel } from "./TaxonLabel";

// A key may have ten thousand couplets; a page of them at a time keeps the browser quick.
const PAGE = 60;

/** The couplets of a key with where each lead goes. */
export function CoupletList({ keyRead, headingId }: { keyRead: Schemas["Key"]; headingId: string }) {
  const [shown, setShown] = useState(PAGE);
  const { couplets } = keyRead;
  return (
    <>
      <Box component="ol" aria-labelledby={headingId} sx={{ listStyle: "none", p: 0, m: 0 }}>
        {couplets.slice(0, shown).map((couplet, i) => (
          <Box
            component="li"
            key={`${couplet.label}-${i}`}
            sx={{ display: "flex", borderTop: "1px dotted", borderColor: "rule", py: 0.75 }}
          >
            <Typography component="span" sx={{ width: 44, flex: "none", fontWeight: 700 }}>
              {couplet.label}
            </Typography>
            <Box component="ul" sx={{ listStyle: "none", p: 0, m: 0, flex: 1, minWidth: 0 }}>
              {couplet.leads.map((lead, l) => (
                <Box
                  component="li"
                  key={l}
                  sx={{
                    display: "grid",
                    gridTemplateColumns: "1.4em minmax(0, 1fr) minmax(0, auto)",
                    gap: 1,
                    py: 0.25,
                  }}
                >
                  <Typography component="span" variant="body2" color="text.secondary">
                    {leadLetter(l)}
                  </Typography>
                  <Typography component="span" variant="body2" sx={{ overflowWrap: "anywhere" }}>
                    {lead.statements.join("; ")}
                  </Typography>
                  <Typography
                    component="span"
                    variant="body2"
                    sx={{ textAlign: "right", maxWidth: { xs: 150, sm: 260 }, overflowWrap: "anywhere" }}
                  >
                    <Destination to={lead.destination} />
                  </Typography>
                </Box>
              ))}
            </Box>
          </Box>
        ))}
      </Box>
      {couplets.length > shown && (
        <Button onClick={() => setShown(shown + PAGE)}>Show more couplets ({couplets.length - shown} to come)</Button>
      )}
    </>
  );
}

/** A page as a number, a figure as it is named. */
export const pageLabel = (page: string) => (/^\d/.test(page) ? `p. ${page}` : page);

function Destination({ to }: { to: Schemas["Lead"]["destination"] }) {
  if (!to) {
    return (
      <Box component="span" sx={{ color: "signal.conflict", fontWeight: 700 }}>
        ✕ goes nowhere
      </Box>
    );
  }
  return (
    <>
      <span aria-hidden="true">→ </span>
      {to.kind === "couplet" && <strong>{to.target}</strong>}
      {to.kind === "key" && <span>{to.target}</span>}
      {to.kind === "taxon" && (
        <TaxonLabel
          name={to.taxon?.name ?? to.target}
          authorship={to.taxon?.authorship}
          scientific={to.taxon?.isScientific ?? false}
        />
      )}
      {to.taxon?.doubt && <> ({to.taxon.doubt})</>}
      {to.others?.map((other) => (
        <span key={other.name}>
          {" "}
          or <TaxonLabel name={other.name} authorship={other.authorship} scientific={other.isScientific} />
        </span>
      ))}
      {to.taxon?.commonName && <> ({to.taxon.commonName})</>}
      {to.synonyms && to.synonyms.length > 0 && <> [= {to.synonyms.join(", ")}]</>}
      {to.note && (
        <Box component="span" sx={{ color: "text.secondary" }}>
          {" "}
          ({to.note})
        </Box>
      )}
      {to.page && <>, {pageLabel(to.page)}</>}
    </>
  );
}
