import type { Schemas } from "../../api/client";

/** How much of a taxon a plot holds, as it is written. */
export const amountOf = (it: Schemas["PlotFind"]): string =>
  `${plain(it)}${typeof it.nest === "number" ? ` #${it.nest}` : ""}`;

const plain = (it: Schemas["PlotFind"]): string =>
  it.class ||
  (typeof it.percent === "number" && `${it.percent} %`) ||
  (typeof it.count === "number" && String(it.count)) ||
  (typeof it.firstHits === "number" && `${it.firstHits}${typeof it.hits === "number" ? `/${it.hits}` : ""}`) ||
  "✓";
