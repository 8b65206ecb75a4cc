/** How high the map is; its room is kept while it is fetched. */
export const SHEET_HEIGHT = { xs: 420, md: "min(70vh, 620px)" };
