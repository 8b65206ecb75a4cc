import { Box, Typography } from "@mui/material";
import type { Schemas } from "../../api/client";
import { CautionMarks } from "../../shared/botany/Cautions";
import { TaxonLabel } from "../../shared/botany/TaxonLabel";
import { visuallyHidden } from "../../shared/ui/visuallyHidden";

interface Props {
  standing: Schemas["RemainingTaxon"][];
  taxa: Map<string, Schemas["Taxon"]>;
  /** All ends of the keys with their probabilities; left out where nothing is weighed. */
  ends?: Schemas["WeighedEnd"][];
}

// A longer list is cut; the count says how many there are.
const MOST_SHOWN = 60;

/** The taxa that the answers leave standing. */
export function RemainingTaxa({ standing, taxa, ends = [] }: Props) {
  const weighed = ends.length > 0;
  const byName = new Map(ends.map((e) => [e.name, e]));
  const ordered = weighed
    ? [...standing].sort((a, b) => (byName.get(b.name)?.share ?? 0) - (byName.get(a.name)?.share ?? 0))
    : standing;
  const off = weighed ? ends.filter((e) => e.isLikelyOffTrail) : [];
  return (
    <Box>
      <Typography variant="h2" id="standing" aria-live="polite">
        {standing.length === 1 ? "One taxon stands" : `${standing.length} taxa stand`}
      </Typography>
      {off.length > 0 && (
        <Box sx={{ my: 1, borderLeft: "4px solid", borderColor: "signal.conflict", pl: 1 }}>
          <Typography variant="h3">Off the trail, but likely by the evidence</Typography>
          {off.slice(0, 5).map((end) => (
            <Box key={end.name} sx={{ py: 0.25 }}>
              <TaxonLabel name={end.name} scientific />
              <Share share={end.share} words={end.shareInWords} />
            </Box>
          ))}
        </Box>
      )}
      <Box component="ul" sx={{ listStyle: "none", p: 0, m: 0, mt: 0.5 }}>
        {ordered.slice(0, MOST_SHOWN).map((it) => {
          const end = weighed ? byName.get(it.name) : undefined;
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
              {end && <Share share={end.share} words={end.shareInWords} />}
              <Typography variant="caption" sx={{ display: "block", color: "text.secondary" }}>
                {end?.isProvisional && "weighed by the key’s own words (provisional) · "}
                {end && end.items.some((i) => i.fit === "conflicts") && (
                  <Box component="span" sx={{ color: "signal.conflict", fontWeight: 700 }}>
                    ✕ {end.items.filter((i) => i.fit === "conflicts").length} in conflict ·{" "}
                  </Box>
                )}
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

function Share({ share, words }: { share: number; words: string }) {
  return (
    <Box sx={{ display: "flex", alignItems: "center", gap: 1 }}>
      <Box aria-hidden="true" sx={{ flex: 1, height: 7, border: 1, borderColor: "rule" }}>
        <Box sx={{ height: "100%", width: `${share * 100}%`, bgcolor: "primary.main" }} />
      </Box>
      <Typography component="span" variant="body2" sx={{ minWidth: 64, textAlign: "right" }}>
        {words}
      </Typography>
    </Box>
  );
}
