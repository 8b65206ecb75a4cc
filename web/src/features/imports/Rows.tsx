import { Box, Typography } from "@mui/material";
import type { ReactNode } from "react";

interface RowProps {
  /** What stands in the file, with what is said of it. */
  given: ReactNode;
  lines?: number;
  /** What is chosen for it. */
  children: ReactNode;
}

/** A line of what is decided: side by side where there is room, one below the other on a phone. */
export function Row({ given, lines, children }: RowProps) {
  return (
    <Box
      component="li"
      sx={{
        display: "grid",
        gridTemplateColumns: { xs: "minmax(0, 1fr)", sm: "minmax(0, 1fr) minmax(0, 19rem)" },
        columnGap: 2,
        rowGap: 0.5,
        py: 1,
        borderTop: "1px dotted",
        borderColor: "rule",
      }}
    >
      <Box sx={{ overflowWrap: "anywhere" }}>
        {given}
        {lines !== undefined && (
          <Typography variant="body2" color="text.secondary">
            {lines.toLocaleString()} {lines === 1 ? "line" : "lines"}
          </Typography>
        )}
      </Box>
      <Box>{children}</Box>
    </Box>
  );
}

/** Such lines. */
export const Rows = ({ name, children }: { name: string; children: ReactNode }) => (
  <Box component="ul" aria-label={name} sx={{ listStyle: "none", p: 0, m: 0 }}>
    {children}
  </Box>
);
