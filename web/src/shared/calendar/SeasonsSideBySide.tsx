import { Box, Typography } from "@mui/material";

import type { Schemas } from "../../api/client";
import words from "../../api/words";

import { day as dayInWords } from "./day";

import { type Look } from "./PlantYears";

interface TableProps {
  looks: Look[];
  plant: Schemas["PlantDetail"];
  characters: Schemas["Character"][];
}

/** The sheet with its seasons side by side: a column for each day, a row for each character; what has changed is marked. */
export function SeasonsSideBySide({ plant, looks: held, characters }: TableProps) {
  const days = [...new Set([...held.map(({ look }) => look.date), ...plant.visits.map((v) => v.date)])].sort();
  const organs = [...new Set(characters.map((c) => c.organ))];
  if (held.length === 0)
    return (
      <Typography>
        Nothing was looked at by itself yet. Visit it, and tap an organ of the drawn plant to note what you see.
      </Typography>
    );
  const cell = {
    p: 0.75,
    textAlign: "left",
    verticalAlign: "top",
    borderTop: "1px dotted",
    borderColor: "rule",
  } as const;
  return (
    <Box sx={{ overflowX: "auto" }} tabIndex={0} role="region" aria-label="Seasons side by side">
      <Box component="table" sx={{ borderCollapse: "collapse", minWidth: 200 + days.length * 130 }}>
        <thead>
          <tr>
            <Box component="th" scope="col" sx={{ ...cell, borderTop: 0 }}>
              <Typography variant="caption">Character</Typography>
            </Box>
            {days.map((day) => {
              const visit = plant.visits.find((v) => v.date === day);
              return (
                <Box component="th" scope="col" key={day} sx={{ ...cell, borderTop: 0, minWidth: 110 }}>
                  <Typography variant="h3" component="span">
                    {dayInWords(day)}
                  </Typography>
                  {visit && (
                    <Typography variant="caption" component="div">
                      {[words.plantStates[visit.state], ...visit.phases.map(phaseInWords)].join("; ")}
                    </Typography>
                  )}
                </Box>
              );
            })}
          </tr>
        </thead>
        {organs.map((organ) => {
          const own = characters.filter((c) => c.organ === organ && held.some(({ look }) => look.character === c.id));
          if (own.length === 0) return null;
          return (
            <tbody key={organ}>
              <tr>
                <Box component="th" scope="rowgroup" colSpan={days.length + 1} sx={{ ...cell, borderTop: 1, pt: 1 }}>
                  <Typography variant="h3" component="span">
                    {words.organs[organ]}
                  </Typography>
                </Box>
              </tr>
              {own.map((character) => {
                const looks = held.filter(({ look }) => look.character === character.id);
                const isChanged =
                  new Set(
                    looks
                      .filter(({ look }) => look.states.length > 0)
                      .map(({ look }) => [...look.states].sort().join()),
                  ).size > 1;
                return (
                  <tr key={character.id}>
                    <Box component="th" scope="row" sx={{ ...cell, fontWeight: 400 }}>
                      <Typography variant="body2" component="span">
                        {character.name}
                        {isChanged && (
                          <Box component="span" sx={{ color: "signal.open", fontWeight: 700 }}>
                            {" "}
                            ◐ changed
                          </Box>
                        )}
                      </Typography>
                    </Box>
                    {days.map((day) => (
                      <Box component="td" key={day} sx={cell}>
                        {looks
                          .filter(({ look }) => look.date === day)
                          .map(({ look, inWords }) => (
                            <Typography variant="body2" key={look.id}>
                              <strong>{inWords.seen}</strong>
                              <Box
                                component="span"
                                sx={{ color: "text.secondary", display: "block", fontSize: "0.8125rem" }}
                              >
                                {[inWords.isPlain ? "" : inWords.manner, look.note].filter(Boolean).join(". ")}
                              </Box>
                            </Typography>
                          ))}
                      </Box>
                    ))}
                  </tr>
                );
              })}
            </tbody>
          );
        })}
      </Box>
    </Box>
  );
}

/** "no flower yet", "flower", "flower over", "no flower this year". */
const phaseInWords = (note: Schemas["PhaseNote"]) => words.phaseStages[note.phase][note.stage];
