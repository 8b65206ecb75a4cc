import { Box, Button, Typography } from "@mui/material";
import { useState } from "react";
import type { Schemas } from "../../api/client";
import { later } from "../../shared/ui/later";

const TeachDialog = later(async () => (await import("./TeachDialog")).TeachDialog, true);

type Taught = Schemas["TaughtTerm"];

interface Props {
  /** The key that they are words of. */
  hash: string;
  /** Whether the core holds the key and the vocabulary, so that it can be asked. */
  isHeld: boolean;
  words: Schemas["UnknownWord"][];
  onTeach: (taught: Taught) => void;
}

/** Words that the grammar doesn’t know, those that most hangs on first; each can be taught. */
export function UnknownWords({ hash, isHeld, words, onTeach }: Props) {
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
          hash={hash}
          isHeld={isHeld}
          word={word}
          onClose={() => setWord(undefined)}
          onTeach={(taught) => {
            setWord(undefined);
            onTeach(taught);
          }}
        />
      )}
    </Box>
  );
}
