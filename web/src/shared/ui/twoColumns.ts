/** A list whose lines stand in two columns where the page has room for them. */
export const twoColumns = {
  listStyle: "none",
  p: 0,
  m: 0,
  display: "grid",
  columnGap: 4,
  gridTemplateColumns: { xs: "minmax(0, 1fr)", md: "repeat(2, minmax(0, 1fr))" },
} as const;
