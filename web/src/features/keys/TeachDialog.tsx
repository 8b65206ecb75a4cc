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
import { StateFigure } from "../../plates/drawn";

// More offers than this are read by nobody; another letter shortens them.
const MOST_OFFERED = 6;

type Taught = Schemas["TaughtTerm"];

interface Props {
  hash: string;
  isHeld: boolean;
  word: string;
  onClose: () => void;
  onTeach: (taught: Taught) => void;
}

/** What a word means, chosen among characters and states; what that changes is shown before it is taught. */
export function TeachDialog({ hash, isHeld, word, onClose, onTeach }: Props) {
  const [text, setText] = useState("");
  const [chosen, setChosen] = useState<Schemas["OfferedCharacter"]>();
  const term = useMemo(
    () => chosen && { term: word, character: chosen.character.id, state: chosen.state, book: "" },
    [chosen, word],
  );
  const question = useMemo(() => (isHeld && text.trim() ? { text: text.trim() } : undefined), [isHeld, text]);
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
        {!isHeld && text.trim() && <Typography role="status">Making the vocabulary ready …</Typography>}
        {chosen && term && <BeforeTeaching hash={hash} term={term} inWords={chosen.inWords} onTeach={onTeach} />}
        <Box component="ul" aria-label="What it may mean" sx={{ listStyle: "none", p: 0, m: 0 }}>
          {offers.map((offer) => (
            <li key={`${offer.character.id}=${offer.state}`}>
              <ButtonBase
                onClick={() => setChosen(offer)}
                aria-pressed={offer === chosen}
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

interface BeforeProps {
  hash: string;
  term: Taught;
  inWords: string;
  onTeach: (taught: Taught) => void;
}

/** What a word changes, before it is taught: for all texts, or for those of one book. */
function BeforeTeaching({ hash, term, inWords, onTeach }: BeforeProps) {
  const question = useMemo(() => ({ term, hash }), [term, hash]);
  const { answer, of, failure } = useAsked(question, core.teachingPreview);
  const preview = of === question ? answer : undefined;
  return (
    <Box role="group" aria-label="What it changes" sx={{ borderLeft: 4, borderColor: "signal.open", pl: 1.25 }}>
      <Typography sx={{ fontWeight: 700 }}>
        “{term.term}” → {inWords}
      </Typography>
      {failure && <Typography role="alert">✕ {failure}</Typography>}
      {!preview && !failure && <Typography role="status">Looking through the keys for what it changes …</Typography>}
      {preview && (
        <>
          {preview.known && <Typography color="signal.conflict">△ It is known already: {preview.known}.</Typography>}
          <Typography>
            {preview.count === 0
              ? "It changes no statement that is here."
              : `It changes ${preview.count} ${preview.count === 1 ? "statement" : "statements"}${preview.losing > 0 ? `; ${preview.losing} of them lose what they say now` : ""}.`}
          </Typography>
          <Box component="ul" sx={{ pl: 2.5, my: 0.5, maxHeight: 180, overflowY: "auto" }}>
            {preview.changed.map((it) => (
              <li key={it.title + it.couplet + it.text}>
                <Typography variant="body2">
                  {it.text} <span aria-hidden>→</span> <strong>{it.after || "text"}</strong>
                  {it.before && ` (now: ${it.before})`}
                </Typography>
              </li>
            ))}
          </Box>
          <Box sx={{ display: "flex", flexWrap: "wrap", gap: 1, my: 1 }}>
            <Button variant="contained" onClick={() => onTeach(term)}>
              Teach it for all texts
            </Button>
            {preview.book && (
              <Button onClick={() => onTeach({ ...term, book: preview.book })}>Only for “{preview.book}”</Button>
            )}
          </Box>
        </>
      )}
    </Box>
  );
}
