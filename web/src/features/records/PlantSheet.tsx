import { Box, Typography } from "@mui/material";
import { useState } from "react";
import type { Schemas } from "../../api/client";
import { Part } from "../../app/Page";
import { useShelf } from "../../offline/queries";
import { holding, mannerInWords } from "../bench/sheet";
import { organNames } from "../bench/PlantFigure";
import { day } from "./RecordList";

/** The evidence sheet of a plant: what was seen of it, organ by organ. */
export function PlantSheet({ observations }: { observations: Schemas["Observation"][] }) {
  const [none] = useState<string[]>([]);
  const shelf = useShelf(none);
  const characters = shelf.data?.table.characters ?? [];
  const held = holding(observations);
  const organs = [...new Set(characters.map((c) => c.organ))];
  return (
    <Box sx={{ mt: 3 }}>
      <Part id="sheet" title="Evidence sheet">
        {held.length === 0 && (
          <Typography>
            Nothing was looked at by itself yet. Determine it again, and tap an organ of the drawn plant to note what
            you see.
          </Typography>
        )}
        {organs.map((organ) => {
          const own = held.filter((o) => characters.find((c) => c.id === o.character)?.organ === organ);
          if (own.length === 0) return null;
          return (
            <Box
              key={organ}
              sx={{
                display: "grid",
                gridTemplateColumns: { xs: "1fr", sm: "9rem 1fr" },
                borderTop: "1px dotted",
                borderColor: "rule",
                py: 0.75,
              }}
            >
              <Typography variant="h3">{organNames[organ]}</Typography>
              <Box component="ul" sx={{ listStyle: "none", m: 0, p: 0 }}>
                {own.map((it) => (
                  <Typography component="li" variant="body2" key={it.id}>
                    {characters.find((c) => c.id === it.character)?.name}: <strong>{seen(it, characters)}</strong>{" "}
                    <Box component="span" sx={{ color: "text.secondary" }}>
                      {mannerInWords(it)}, {day(it.date)}
                      {it.note && `. ${it.note}`}
                    </Box>
                  </Typography>
                ))}
              </Box>
            </Box>
          );
        })}
      </Part>
    </Box>
  );
}

function seen(it: Schemas["Observation"], characters: Schemas["Character"][]): string {
  if (it.outcome === "notFound") return "looked for, not found";
  const character = characters.find((c) => c.id === it.character);
  const states = it.states.map((id) => character?.states.find((s) => s.id === id)?.name ?? id);
  const readings = it.readings.map((r) => `${r.text || r.value}${r.struck ? ` (struck out: ${r.struck})` : ""}`);
  const stand = it.of > 0 ? `, ${it.show} of ${it.of} plants` : "";
  return [...readings, states.join(it.together ? " and " : " or ")].filter(Boolean).join(", ") + stand;
}
