import { Box, Typography } from "@mui/material";
import type { Schemas } from "../../api/client";
import { CautionMarks } from "../taxa/Cautions";
import { TaxonLabel } from "../taxa/TaxonLabel";

interface Props {
  standing: Schemas["StandingTaxon"][];
  taxa: Map<string, Schemas["Taxon"]>;
}

// A longer list is cut; the count says how many there are.
const MOST_SHOWN = 60;

/** The taxa that the answers leave standing. */
export function StandingList({ standing, taxa }: Props) {
  return (
    <Box component="section" aria-labelledby="standing">
      <Typography variant="h2" id="standing" aria-live="polite">
        {standing.length === 1 ? "One taxon stands" : `${standing.length} taxa stand`}
      </Typography>
      <Box component="ul" sx={{ listStyle: "none", p: 0, m: 0, mt: 0.5 }}>
        {standing.slice(0, MOST_SHOWN).map((it) => {
          const taxon = it.taxonId ? taxa.get(it.taxonId) : undefined;
          return (
            <Box component="li" key={it.name} sx={{ py: 0.5, borderBottom: "1px dotted", borderColor: "rule" }}>
              <Typography component="span" sx={{ fontSize: "1rem" }}>
                {it.reached && (
                  <Box
                    component="span"
                    sx={{ color: "signal.support", fontWeight: 700, mr: 0.5 }}
                    title="The trail has come to it"
                  >
                    ●
                    <Box component="span" sx={visuallyHidden}>
                      {" "}
                      reached:{" "}
                    </Box>
                  </Box>
                )}
                <TaxonLabel name={it.name} scientific={it.taxon?.isScientific ?? false} />
              </Typography>
              <Typography variant="caption" sx={{ display: "block", color: "text.secondary" }}>
                {taxon ? <CautionMarks cautions={taxon.cautions} /> : null}
                {taxon?.commonName}
                {!it.taxon && "a key that isn’t here; the trail ends with this group"}
              </Typography>
            </Box>
          );
        })}
      </Box>
      {standing.length > MOST_SHOWN && <Typography variant="body2">and {standing.length - MOST_SHOWN} more</Typography>}
    </Box>
  );
}

export const visuallyHidden = {
  position: "absolute",
  width: 1,
  height: 1,
  overflow: "hidden",
  clipPath: "inset(50%)",
  whiteSpace: "nowrap",
} as const;
