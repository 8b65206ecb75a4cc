import { Box, Typography } from "@mui/material";
import { NavLink } from "react-router";
import { useLocalWork } from "../offline/queries";

const modes = [
  { to: "", name: "Key" },
  { to: "/sift", name: "By characters" },
  { to: "/contrast", name: "Contrast" },
  { to: "/confirm", name: "Check the name" },
];

/** Three ways to take one plant, and what stands for its name: its sheet goes along. Says so where the server refused its name. */
export function ModeBar({ walkId }: { walkId: string }) {
  const { refused } = useLocalWork();
  const why = refused.find((it) => it.walkId === walkId);
  return (
    <Box>
      <Modes walkId={walkId} />
      {why && (
        <Typography role="note" variant="body2" sx={{ color: "signal.conflict", maxWidth: "26rem", mt: 0.5 }}>
          ✕ {why.command.kind === "recordDetermination" && `Refused as ${why.command.names.join(" or ")}: `}
          {why.problem.title} {why.problem.detail}
        </Typography>
      )}
    </Box>
  );
}

function Modes({ walkId }: { walkId: string }) {
  return (
    <Box
      component="nav"
      aria-label="Ways to name the plant"
      sx={{ display: "flex", flexWrap: "wrap", border: 1, borderColor: "text.primary" }}
    >
      {modes.map((mode) => (
        <Box
          key={mode.name}
          component={NavLink}
          to={`/bench/${walkId}${mode.to}`}
          end
          replace
          sx={{
            color: "text.primary",
            textDecoration: "none",
            px: { xs: 0.75, sm: 2 },
            fontSize: { xs: "0.9375rem", sm: "1rem" },
            flex: { xs: "1 0 auto", sm: "none" },
            justifyContent: "center",
            minHeight: 44,
            display: "flex",
            alignItems: "center",
            fontWeight: 600,
            "&:not(:first-of-type)": { borderLeft: 1, borderColor: "text.primary" },
            "&:hover": { bgcolor: "signal.chosenWash" },
            "&.active": { bgcolor: "primary.main", color: "primary.contrastText" },
          }}
        >
          {mode.name}
        </Box>
      ))}
    </Box>
  );
}
