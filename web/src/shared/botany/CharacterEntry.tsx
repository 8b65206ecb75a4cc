import { Box, Typography } from "@mui/material";
import type { Schemas } from "../../api/client";
import words from "../../api/words";
import { StateFigure } from "../../plates/drawn";

type Character = Schemas["Character"];

const takes: string[] = words.handlingThatTakes;

/** How a character is looked at: tool, handling, from where to where, and what it is misjudged by. */
export function HowToLook({ character }: { character: Character }) {
  const careful = takes.includes(character.handling);
  return (
    <>
      {character.definition && <Typography>{character.definition}</Typography>}
      <Typography variant="body2" color="text.secondary">
        {words.withTool[character.tool]}; {words.handlingOfLook[character.handling]}
        {character.effortSeconds > 0 &&
          `; about ${character.effortSeconds < 60 ? `${character.effortSeconds} s` : `${Math.round(character.effortSeconds / 60)} min`}`}
        {character.measuredFrom && `; measured ${character.measuredFrom}`}.
      </Typography>
      {character.trap && (
        <Typography variant="body2">
          <strong>▵ Mind:</strong> {character.trap}
        </Typography>
      )}
      {careful && (
        <Typography variant="body2" sx={{ color: "signal.caution" }}>
          Not on plants that are protected or not yours. Local law comes first.
        </Typography>
      )}
    </>
  );
}

/** The states of a character, drawn, with their definitions and other words for them. */
export function StateRows({
  character,
  marked = [],
  taxa,
}: {
  character: Character;
  marked?: string[];
  taxa?: (state: string) => React.ReactNode;
}) {
  return (
    <Box
      component="ul"
      sx={{
        listStyle: "none",
        p: 0,
        m: 0,
        display: "grid",
        gridTemplateColumns: { xs: "1fr", sm: "1fr 1fr" },
        columnGap: 3,
      }}
    >
      {character.states.map((state) => {
        const synonyms = state.terms.filter((term) => term.toLowerCase() !== state.name.toLowerCase());
        return (
          <Box
            component="li"
            key={state.id}
            sx={{
              display: "flex",
              gap: 1.5,
              alignItems: "flex-start",
              py: 1,
              borderTop: "1px dotted",
              borderColor: "rule",
              bgcolor: marked.includes(state.id) ? "signal.chosenWash" : undefined,
            }}
          >
            <StateFigure character={character} state={state.id} size={72} />
            <Box sx={{ minWidth: 0 }}>
              <Typography sx={{ fontWeight: 600 }}>{state.name}</Typography>
              {state.definition && <Typography variant="body2">{state.definition}</Typography>}
              {synonyms.length > 0 && (
                <Typography variant="body2" color="text.secondary">
                  also: {synonyms.join(", ")}
                </Typography>
              )}
              {taxa?.(state.id)}
            </Box>
          </Box>
        );
      })}
    </Box>
  );
}
