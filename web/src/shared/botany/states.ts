import type { Schemas } from "../../api/client";

/** How a plant was found, in words. */
export const stateNames: Record<Schemas["PlantState"], string> = {
  alive: "alive",
  browsed: "browsed",
  cut: "cut",
  dead: "dead",
  notRefound: "not refound",
};
