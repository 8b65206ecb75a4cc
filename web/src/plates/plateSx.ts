import type { Theme } from "@mui/material";

/** What the drawings take from the theme: the ground they stand on, and how far washes are darkened. */
export const plateSx = {
  color: "text.primary",
  "--plate-ground": (theme: Theme) => theme.palette.background.paper,
  "--plate-shade": (theme: Theme) => theme.palette.background.paper,
  "--plate-shading": (theme: Theme) => (theme.palette.mode === "dark" ? "52%" : "0%"),
};
