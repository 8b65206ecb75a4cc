/** A choice in the frame: the browser's own, so that it is there with the first line and a phone shows its wheel. */
export const plainSelect = {
  font: "inherit",
  fontSize: "0.9375rem",
  color: "text.primary",
  bgcolor: "background.default",
  border: 0,
  minHeight: 44,
  px: 0.5,
  maxWidth: "100%",
  textOverflow: "ellipsis",
  cursor: "pointer",
  "& option": { bgcolor: "background.paper", color: "text.primary" },
} as const;
