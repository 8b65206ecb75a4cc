import {
  Box,
  Button,
  ButtonBase,
  Dialog,
  DialogActions,
  DialogContent,
  DialogTitle,
  TextField,
  Typography,
} from "@mui/material";
import { useMemo, useState } from "react";
import type { Schemas } from "../../api/client";
import { core } from "../../core/coreClient";
import { useAsked } from "../../offline/flora";
import { StateFigure } from "../../plates/StateFigure";

// More offers than this are read by nobody; another letter shortens them.
const MOST_OFFERED = 6;

interface Props {
  words: Schemas["UnknownWord"][];
  onTeach: (term: string, character: string, state: string) => void;
}

/** Words that the grammar doesn’t know, those that most hangs on first; each can be taught. */
export function UnknownWords({ words, onTeach }: Props) {
  const [word, setWord] = useState<string>();
  if (words.length === 0) return null;
  return (
    <Box sx={{ mb: 3 }}>
      <Typography component="h2" variant="h3" id="unknown-words" sx={{ mb: 0.5 }}>
        Words that would open most
      </Typography>
      <Typography variant="body2" color="text.secondary" sx={{ mb: 1 }}>
        Each stands in clauses of which everything else is known. Teach what it means, and all of them are read.
      </Typography>
      <Box role="group" aria-labelledby="unknown-words" sx={{ display: "flex", flexWrap: "wrap", gap: 1 }}>
        {words.map((it) => (
          <Button key={it.word} variant="outlined" onClick={() => setWord(it.word)}>
            {it.word} · {it.clauses}
          </Button>
        ))}
      </Box>
      {word && (
        <TeachDialog
          word={word}
          onClose={() => setWord(undefined)}
          onTeach={(character, state) => {
            setWord(undefined);
            onTeach(word, character, state);
          }}
        />
      )}
    </Box>
  );
}

interface TeachProps {
  word: string;
  onClose: () => void;
  onTeach: (character: string, state: string) => void;
}

function TeachDialog({ word, onClose, onTeach }: TeachProps) {
  const [text, setText] = useState("");
  const question = useMemo(() => (text.trim() ? { text: text.trim() } : undefined), [text]);
  const { answer, failure } = useAsked(question, core.findCharacter);
  const offers = (question && answer ? answer : []).filter((it) => it.state).slice(0, MOST_OFFERED);
  return (
    <Dialog open onClose={onClose} aria-labelledby="teach-title" fullWidth maxWidth="sm">
      <DialogTitle id="teach-title">What does “{word}” mean?</DialogTitle>
      <DialogContent sx={{ display: "grid", gap: 1 }}>
        <TextField
          label="Part and what it is like"
          value={text}
          onChange={(event) => setText(event.target.value)}
          helperText="“stem hairy”, “leaf margin wavy”: choose below what the word says. It holds of every part that can be so."
          sx={{ mt: 1 }}
        />
        {failure && <Typography role="alert">✕ {failure}</Typography>}
        <Box component="ul" aria-label="What it may mean" sx={{ listStyle: "none", p: 0, m: 0 }}>
          {offers.map((offer) => (
            <li key={`${offer.character.id}=${offer.state}`}>
              <ButtonBase
                onClick={() => onTeach(offer.character.id, offer.state)}
                sx={{
                  width: "100%",
                  minHeight: 44,
                  gap: 1.5,
                  justifyContent: "flex-start",
                  textAlign: "left",
                  fontSize: "1rem",
                }}
              >
                <StateFigure character={offer.character} state={offer.state} />
                {offer.inWords}
              </ButtonBase>
            </li>
          ))}
        </Box>
      </DialogContent>
      <DialogActions>
        <Button onClick={onClose}>Cancel</Button>
      </DialogActions>
    </Dialog>
  );
}
