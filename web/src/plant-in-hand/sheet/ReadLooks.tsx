import { Box, Button, Typography } from "@mui/material";
import type { Schemas } from "../../api/client";
import { StateFigure } from "../../plates/drawn";

type TypedLook = Schemas["TypedLook"];

interface Props {
  read: Schemas["TypedLooks"];
  /** Records looks at once. */
  onRecord: (looks: TypedLook[]) => void;
}

/** What was typed, as it is read: to be seen before it counts. */
export function ReadLooks({ read, onRecord }: Props) {
  const { looks, open } = read;
  return (
    <Box role="group" aria-label="Read as" sx={{ maxWidth: 560, display: "grid", gap: 0.75 }}>
      {looks.length > 0 && (
        <>
          <Box
            component="ul"
            sx={{ listStyle: "none", p: 0, m: 0, borderLeft: 4, borderColor: "signal.support", pl: 1.25 }}
          >
            {looks.map((look) => (
              <Box
                component="li"
                key={look.character.id + look.age}
                sx={{ display: "flex", alignItems: "center", gap: 1, minHeight: 44 }}
              >
                {look.states.length === 1 && look.states[0] && (
                  <StateFigure character={look.character} state={look.states[0]} size={36} />
                )}
                <Typography>{look.inWords}</Typography>
              </Box>
            ))}
          </Box>
          <Button variant="contained" onClick={() => onRecord(looks)} sx={{ justifySelf: "start", minHeight: 48 }}>
            {looks.length === 1 ? "Record this observation" : `Record these ${looks.length} observations`}
          </Button>
        </>
      )}
      {open.map((piece) => (
        <Box key={piece.text}>
          <Typography variant="body2" color="text.secondary">
            {piece.choices.length > 0 ? "? Did you mean, by" : "Not read, and not recorded:"} “{piece.text}”
          </Typography>
          {piece.choices.map((look) => (
            <Button key={look.character.id + look.inWords} onClick={() => onRecord([look])} sx={{ textAlign: "left" }}>
              + {look.inWords}
            </Button>
          ))}
        </Box>
      ))}
    </Box>
  );
}
