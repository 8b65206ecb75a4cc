import { Box } from "@mui/material";
import type { Schemas } from "../../api/client";
import { Figure } from "../../plates/drawn";

const SIDE = 56;

/** The figure at the front of a line of a list; its room is there before it is. */
export function LineFigure({ figure, size = SIDE }: { figure: Schemas["TaxonFigure"] | undefined; size?: number }) {
  return (
    <Box
      sx={{
        flex: "none",
        width: size + 2,
        height: size + 2,
        border: 1,
        borderColor: "rule",
        bgcolor: "background.paper",
      }}
    >
      {figure && <Figure name={figure.name} description={figure.description} organ={figure.organ} size={size} />}
    </Box>
  );
}
