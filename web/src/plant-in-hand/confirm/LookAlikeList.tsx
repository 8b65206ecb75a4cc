import { Box, Typography } from "@mui/material";
import type { Schemas } from "../../api/client";
import { QuietButton } from "../../shared/ui/QuietButton";
import { TaxonLabel } from "../../shared/botany/TaxonLabel";

interface Props {
  alikes: Schemas["LookAlikeCheck"][];
  nameOf: (id: string) => string;
  onLook: (character: string) => void;
}

/** What the name is taken for: excluded and by what, or open and what would tell. */
export function LookAlikeList({ alikes, nameOf, onLook }: Props) {
  if (alikes.length === 0) return <Typography variant="body2">Nothing on the list comes near it.</Typography>;
  const sorted = [...alikes].sort((a, b) => Number(a.isExcluded) - Number(b.isExcluded));
  return (
    <Box component="ul" aria-label="Look-alikes" sx={{ listStyle: "none", p: 0, m: 0 }}>
      {sorted.map((it) => (
        <Box component="li" key={it.taxon} sx={{ py: 0.5, borderTop: "1px dotted", borderColor: "rule" }}>
          <Typography variant="body2" component="div">
            <Box
              component="span"
              sx={{
                color: it.isExcluded ? "signal.support" : "signal.open",
                fontWeight: 700,
                display: "inline-block",
                minWidth: "6.2rem",
              }}
            >
              <span aria-hidden="true">{it.isExcluded ? "● " : "○ "}</span>
              {it.isExcluded ? "excluded" : "open"}
            </Box>
            <strong>
              <TaxonLabel name={nameOf(it.taxon)} />
            </strong>
            {it.isExcluded && it.by.length > 0 && <>: {it.by.join("; ")}</>}
          </Typography>
          {!it.isExcluded &&
            (it.missing ? (
              <Typography variant="body2" component="div">
                {it.missingText}{" "}
                {it.when === "now" ? (
                  <QuietButton name={`Look now: ${it.missingText}`} onClick={() => onLook(it.missing)}>
                    Look now
                  </QuietButton>
                ) : (
                  <Box component="span" sx={{ color: "signal.absent" }}>
                    ◌ {it.when}
                  </Box>
                )}
              </Typography>
            ) : (
              <Typography variant="body2">Nothing more that can be seen outdoors tells the two apart.</Typography>
            ))}
        </Box>
      ))}
    </Box>
  );
}
