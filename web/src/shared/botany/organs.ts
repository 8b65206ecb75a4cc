import type { Schemas } from "../../api/client";

type Organ = Schemas["Organ"];

export const organNames: Record<Organ, string> = {
  habit: "Whole plant",
  bark: "Bark",
  twig: "Twig",
  bud: "Bud",
  leaf: "Leaf",
  stem: "Stem",
  inflorescence: "Inflorescence",
  flower: "Flower",
  fruit: "Fruit",
  underground: "Underground",
  site: "Site",
};
