import { Box, Typography } from "@mui/material";
import type { Schemas } from "../../api/client";
import { QuietButton } from "../../shared/ui/QuietButton";

/** What speaks for a taxon and what against it, strongest first. */
export function Reasons(props: {
  reasons: Schemas["SiftReason"][];
  prior: string[];
  characters: Schemas["Character"][];
  name: string;
  onLook: (character: string) => void;
}) {
  const { reasons, prior, characters, name, onLook } = props;
  const most = Math.max(1, ...reasons.map((r) => Math.abs(r.logOdds)));
  return (
    <Box sx={{ pl: 0.5, pb: 0.5 }}>
      <Box
        component={reasons.length > 0 ? "ul" : "div"}
        aria-label={reasons.length > 0 ? `Why: ${name}` : undefined}
        sx={{ listStyle: "none", p: 0, m: 0 }}
      >
        {reasons.map((reason) => {
          const character = characters.find((c) => c.id === reason.character);
          const against = reason.logOdds < 0;
          return (
            <Box
              component="li"
              key={reason.character + reason.seen}
              sx={{
                display: "grid",
                gridTemplateColumns: "84px minmax(0, 1fr)",
                columnGap: 1.5,
                alignItems: "center",
                py: 0.25,
              }}
            >
              {/* From the middle: to the right what speaks for it, to the left what speaks against it. */}
              <Box aria-hidden="true" sx={{ position: "relative", height: 12, borderLeft: 0 }}>
                <Box
                  sx={{
                    position: "absolute",
                    left: "50%",
                    top: -4,
                    bottom: -4,
                    borderLeft: 1,
                    borderColor: "text.primary",
                  }}
                />
                <Box
                  sx={{
                    position: "absolute",
                    top: 2,
                    height: 8,
                    bgcolor: against ? "signal.conflict" : "signal.support",
                    width: `${(50 * Math.abs(reason.logOdds)) / most}%`,
                    ...(against ? { right: "50%" } : { left: "50%" }),
                  }}
                />
              </Box>
              <Typography variant="body2">
                <Box component="span" sx={{ color: against ? "signal.conflict" : "signal.support", fontWeight: 700 }}>
                  {reason.fit === "conflicts" && "✕ "}
                  {reason.inWords}
                </Box>{" "}
                <QuietButton
                  name={`${character?.name ?? reason.character}: look again`}
                  onClick={() => onLook(reason.character)}
                >
                  {character?.name ?? reason.character}
                </QuietButton>
                {reason.seen}; described: {reason.described || "nothing"}
                {reason.note && ` (${reason.note})`}
              </Typography>
            </Box>
          );
        })}
      </Box>
      {prior.map((sentence) => (
        <Typography key={sentence} variant="body2" color="text.secondary">
          ◌ {sentence}
        </Typography>
      ))}
    </Box>
  );
}
