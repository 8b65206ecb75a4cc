import { Box, ButtonBase, Typography } from "@mui/material";
import { useState } from "react";
import type { Schemas } from "../../api/client";
import words from "../../api/words";
import { QuietButton } from "../../shared/ui/QuietButton";
import { visuallyHidden } from "../../shared/ui/visuallyHidden";
import { later } from "../../shared/ui/later";

const SplitTwig = later(async () => (await import("./SplitTwig")).SplitTwig);

const MOST_AT_FIRST = 3;

const takes: string[] = words.handlingThatTakes;

interface Props {
  now: Schemas["TellingLook"][];
  later: Schemas["LaterLook"][];
  characters: Schemas["Character"][];
  onLook: (character: string) => void;
  onSkip: (character: string) => void;
  /** Records a state of a character at once. */
  onState: (character: string, state: string) => void;
}

/** What to look at next, most told for the effort first, and what to come back for. */
export function TellingLooks({ now, later, characters, onLook, onSkip, onState }: Props) {
  const [more, setMore] = useState(false);
  const find = (id: string) => characters.find((c) => c.id === id);
  return (
    <Box>
      <Typography variant="h2" id="next">
        {now.length > 0 ? "Best to check next" : "Nothing more to check now"}
      </Typography>
      {now.length === 0 && (
        <Typography variant="body2">
          {later.length > 0
            ? "What would still tell can’t be seen today; it stands below with its time."
            : "Nothing that can be checked today tells the candidates further apart."}
        </Typography>
      )}
      <Box component="ol" sx={{ listStyle: "none", p: 0, m: 0 }}>
        {now.slice(0, more ? undefined : MOST_AT_FIRST).map((look, i) => {
          const character = find(look.character);
          const name = character?.name ?? look.character;
          return (
            <Box
              component="li"
              key={look.character}
              sx={{ borderTop: i > 0 ? "1px dotted" : undefined, borderColor: "rule", py: 0.75 }}
            >
              <Box
                sx={{
                  p: 1,
                  border: i === 0 ? 2 : 1,
                  borderColor: i === 0 ? "text.primary" : "rule",
                  bgcolor: "background.paper",
                }}
              >
                <ButtonBase
                  onClick={() => onLook(look.character)}
                  sx={{
                    display: "flex",
                    width: "100%",
                    minHeight: 44,
                    textAlign: "left",
                    alignItems: "baseline",
                    gap: 1,
                    "&:hover": { bgcolor: "signal.chosenWash" },
                  }}
                >
                  <Typography component="span" variant="h3" sx={{ flex: 1, fontSize: i === 0 ? "1.1rem" : undefined }}>
                    <Box component="span" sx={visuallyHidden}>
                      Look at{" "}
                    </Box>
                    {name}
                  </Typography>
                  <Typography component="span" variant="caption" color="text.secondary" sx={{ whiteSpace: "nowrap" }}>
                    {look.effortSeconds} s{character && character.tool !== "eye" && ` · ${words.tools[character.tool]}`}
                  </Typography>
                </ButtonBase>
                <SplitTwig look={look} character={character} onState={(state) => onState(look.character, state)} />
                <Typography component="span" variant="body2" sx={{ display: "block" }}>
                  {look.inWords}
                </Typography>
                {character && takes.includes(character.handling) && (
                  <Typography component="span" variant="caption" sx={{ color: "signal.caution", display: "block" }}>
                    △ Takes from the plant: only where law and the landowner allow it.
                  </Typography>
                )}
              </Box>
              {i === 0 && (
                <QuietButton name={`Can’t be told on this plant: ${name}`} onClick={() => onSkip(look.character)}>
                  Can’t be told on this plant
                </QuietButton>
              )}
            </Box>
          );
        })}
      </Box>
      {now.length > MOST_AT_FIRST && (
        <QuietButton name={more ? "Fewer" : "More to check"} expanded={more} onClick={() => setMore(!more)}>
          {more ? "Fewer" : "More to check"}
        </QuietButton>
      )}
      {later.length > 0 && (
        <Box component="section" aria-labelledby="later" sx={{ mt: 1.5 }}>
          <Typography variant="h3" id="later">
            ◌ Would tell more, but not now
          </Typography>
          <Box component="ul" sx={{ m: 0, pl: 2.25 }}>
            {later.map((look) => (
              <Typography component="li" variant="body2" key={look.character}>
                <strong>{find(look.character)?.name ?? look.character}</strong>: {look.inWords}
              </Typography>
            ))}
          </Box>
        </Box>
      )}
    </Box>
  );
}
