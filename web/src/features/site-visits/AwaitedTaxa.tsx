import { Box, ButtonBase, Typography } from "@mui/material";
import { memo } from "react";
import type { Schemas } from "../../api/client";
import { TaxonLabel } from "../../shared/botany/TaxonLabel";
import { Part } from "../../shared/ui/Page";

interface Props {
  id: string;
  title: string;
  awaited: Schemas["Awaited"][];
  /** Lists it; nothing where the visit is closed. */
  onList?: (name: string) => void;
}

/** Taxa that may be found yet: a tap lists one. */
export const AwaitedTaxa = memo(function AwaitedTaxa({ id, title, awaited, onList }: Props) {
  if (awaited.length === 0) return null;
  return (
    <Part id={id} title={title}>
      <Box component="ul" sx={{ listStyle: "none", p: 0, m: 0, display: "flex", flexWrap: "wrap", gap: 0.75 }}>
        {awaited.map((it) => {
          const said = [it.years.join(", "), it.canBeTold === false ? "shows nothing now" : it.shows].filter(Boolean);
          const label = (
            <>
              <TaxonLabel name={it.name} />
              <Typography component="span" variant="body2" color="text.secondary" sx={{ ml: 1 }}>
                {said.join(" · ")}
              </Typography>
            </>
          );
          return (
            <Box component="li" key={it.name} sx={{ flex: "1 1 100%" }}>
              {onList ? (
                <ButtonBase
                  onClick={() => onList(it.name)}
                  sx={{
                    width: "100%",
                    minHeight: 44,
                    justifyContent: "flex-start",
                    textAlign: "left",
                    fontSize: "1rem",
                    borderTop: "1px dotted",
                    borderColor: "rule",
                  }}
                >
                  <Box component="span" aria-hidden="true" sx={{ mr: 1 }}>
                    +
                  </Box>
                  <span>{label}</span>
                </ButtonBase>
              ) : (
                <Box sx={{ borderTop: "1px dotted", borderColor: "rule", py: 0.5 }}>{label}</Box>
              )}
            </Box>
          );
        })}
      </Box>
    </Part>
  );
});
