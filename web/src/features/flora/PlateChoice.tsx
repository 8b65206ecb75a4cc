import { bark } from "../../plates/details";
import type { Traits } from "../../plates/traits";
import { twig, twigDetail } from "../../plates/twig";
import { Box, Button } from "@mui/material";
import { useState } from "react";
import type { Schemas } from "../../api/client";

import { Plate } from "../../plates/drawn";

import type { Variation } from "../../plates/traits";

// What is left to look at when the leaves are down.
const winterParts = [
  twig,
  (traits: Traits) => twigDetail(traits, "tip"),
  (traits: Traits) => twigDetail(traits, "node"),
  (traits: Traits) => twigDetail(traits, "foot"),
  bark,
];

const variations: [Variation, string][] = [
  ["typical", "Typical"],
  ["small", "Small"],
  ["large", "Large"],
  ["shade", "Shade leaf"],
];

/** The plate, and which plant of the taxon it shows. */
export function PlateChoice({ page }: { page: Schemas["TaxonPage"] }) {
  const [variation, setVariation] = useState<Variation>("typical");
  const [winter, setWinter] = useState(false);
  const hasTwig = page.description.some((cell) => cell.character === "bud-arrangement");
  const hasShade = page.description.some((cell) => cell.shade);
  const { taxon } = page;
  return (
    <>
      <Box sx={{ border: 1, borderColor: "rule", bgcolor: "background.paper" }}>
        <Plate
          name={taxon.name}
          description={page.description}
          variation={variation}
          only={winter ? winterParts : undefined}
        />
      </Box>
      <Box
        role="group"
        aria-label="Which plant is drawn"
        sx={{ display: "flex", flexWrap: "wrap", gap: 1, mt: 1, mb: 2 }}
      >
        {variations
          .filter(([it]) => it !== "shade" || hasShade)
          .map(([it, words]) => (
            <Button
              key={it}
              aria-pressed={!winter && variation === it}
              variant={!winter && variation === it ? "contained" : "outlined"}
              onClick={() => {
                setWinter(false);
                setVariation(it);
              }}
            >
              {words}
            </Button>
          ))}
        {hasTwig && (
          <Button aria-pressed={winter} variant={winter ? "contained" : "outlined"} onClick={() => setWinter(true)}>
            Winter twig
          </Button>
        )}
      </Box>
    </>
  );
}
