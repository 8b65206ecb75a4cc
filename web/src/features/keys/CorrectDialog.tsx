import {
  Box,
  Button,
  Dialog,
  DialogActions,
  DialogContent,
  DialogTitle,
  MenuItem,
  TextField,
  Typography,
} from "@mui/material";
import { useState } from "react";
import { v7 as uuid } from "uuid";
import type { Schemas } from "../../api/client";
import words from "../../api/words";
import { useSend } from "../../offline/mending";

type Reading = Schemas["StatementReading"];
type Character = Schemas["Character"];

interface Props {
  reading: Reading;
  inWords: string;
  characters: Character[];
  onClose: (changed: boolean) => void;
}

/** What a statement says, set by hand: in just these words, or for a word everywhere. */
export function CorrectDialog({ reading, inWords, characters, onClose }: Props) {
  const stated = characters.filter((c) => c.states.length > 0);
  const [character, setCharacter] = useState(reading.claims.find((c) => c.states.length > 0)?.character ?? "");
  const [states, setStates] = useState<string[]>(reading.claims.find((c) => c.states.length > 0)?.states ?? []);
  const [term, setTerm] = useState("");
  const [problem, setProblem] = useState("");
  const send = useSend();
  const chosen = stated.find((c) => c.id === character);
  const finish = async (command: Schemas["Command"]) => {
    const sent = await send(command);
    if (sent.kind === "refused") setProblem(`${sent.problem.title} ${sent.problem.detail}`);
    else onClose(true);
  };
  const correct = (claims: Schemas["StatementClaim"][]) =>
    finish({ kind: "correctStatement", id: uuid(), text: reading.text, claims });
  const quantities = reading.claims.filter((c) => c.range);
  return (
    <Dialog open onClose={() => onClose(false)} aria-labelledby="correct-title" fullWidth maxWidth="sm">
      <DialogTitle id="correct-title">“{reading.text}”</DialogTitle>
      <DialogContent sx={{ display: "grid", gap: 1.5 }}>
        <Typography variant="body2">
          Read as: {inWords || "text only"}. What is set here holds wherever the statement stands in just these words.
        </Typography>
        <TextField
          select
          label="Character"
          value={character}
          onChange={(event) => {
            setCharacter(event.target.value);
            setStates([]);
          }}
          sx={{ mt: 1 }}
        >
          {stated.map((c) => (
            <MenuItem key={c.id} value={c.id}>
              {c.name}
            </MenuItem>
          ))}
        </TextField>
        {chosen && (
          <Box
            role="group"
            aria-label={`States of ${chosen.name}`}
            sx={{ display: "flex", flexWrap: "wrap", gap: 0.75 }}
          >
            {chosen.states.map((state) => {
              const on = states.includes(state.id);
              return (
                <Button
                  key={state.id}
                  aria-pressed={on}
                  variant={on ? "contained" : "outlined"}
                  onClick={() => setStates(on ? states.filter((s) => s !== state.id) : [...states, state.id])}
                >
                  {on && "✓ "}
                  {state.name}
                </Button>
              );
            })}
          </Box>
        )}
        <TextField
          label="Teach a word or phrase for the chosen state"
          value={term}
          onChange={(event) => setTerm(event.target.value)}
          helperText="From then on every statement that uses it is read so."
        />
        {problem && (
          <Typography role="alert" color="error">
            ✕ {problem}
          </Typography>
        )}
      </DialogContent>
      <DialogActions sx={{ flexWrap: "wrap", gap: 1 }}>
        <Button
          disabled={!term.trim() || states.length !== 1}
          onClick={() =>
            states[0] && void finish({ kind: "teachTerm", id: uuid(), character, state: states[0], term: term.trim() })
          }
        >
          Teach it
        </Button>
        <Button onClick={() => void correct([])}>It stays text</Button>
        <Button
          variant="contained"
          disabled={states.length === 0}
          onClick={() =>
            void correct([{ character, states, range: null, modality: words.limits.plainModality }, ...quantities])
          }
        >
          Set this reading
        </Button>
        <Button onClick={() => onClose(false)}>Cancel</Button>
      </DialogActions>
    </Dialog>
  );
}
