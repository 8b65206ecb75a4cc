import { Box, Button, ButtonBase, TextField, Typography } from "@mui/material";
import { useId, useMemo, useState } from "react";
import type { Schemas } from "../../api/client";
import { core } from "../../core/coreClient";
import { useAsked } from "../../offline/flora";
import { useVocabulary } from "../../offline/vocabulary";
import { StateFigure } from "../../plates/StateFigure";
import { PartPicker } from "./PartPicker";
import type { Character, Observation } from "./sheet";

// More offers than this are read by nobody; another letter shortens them.
const MOST_OFFERED = 8;

interface Props {
  organ: Schemas["Organ"];
  /** Shows a character on the sheet, to be looked at. */
  onPick: (character: Character) => void;
  /** Records a look at once. */
  onRecord: (character: Character, part: Partial<Observation>) => void;
}

/** Whatever else can be seen of any part: typed in a few words, or picked as part, quality and state. */
export function SomethingElse({ organ, onPick, onRecord }: Props) {
  const [open, setOpen] = useState(false);
  if (!open)
    return (
      <Box sx={{ borderTop: "1px dotted", borderColor: "rule", py: 1.25 }}>
        <Button onClick={() => setOpen(true)}>Something else …</Button>
      </Box>
    );
  return <Open organ={organ} onPick={onPick} onRecord={onRecord} />;
}

function Open({ organ, onPick, onRecord }: Props) {
  const heading = useId();
  const vocabulary = useVocabulary();
  const [text, setText] = useState("");
  const [said, setSaid] = useState("");
  const question = useMemo(
    () => (vocabulary.data && text.trim() ? { text: text.trim() } : undefined),
    [vocabulary.data, text],
  );
  const { answer, failure } = useAsked(question, core.findCharacter);
  const offers = question && answer ? answer.slice(0, MOST_OFFERED) : [];
  const take = (offer: Schemas["OfferedCharacter"]) => {
    onPick(offer.character);
    if (offer.isWhole) {
      onRecord(offer.character, { states: offer.state ? [offer.state] : [], readings: offer.readings });
      setSaid(`✓ ${offer.inWords}`);
    } else setSaid(`↑ ${offer.inWords}: it stands at the top of the sheet, say there what it is like.`);
    setText("");
  };
  return (
    <Box
      component="section"
      aria-labelledby={heading}
      sx={{ borderTop: 2, borderColor: "rule", py: 1.5, display: "grid", gap: 1.25 }}
    >
      <Typography variant="h3" id={heading}>
        Something else
      </Typography>
      {vocabulary.isError && (
        <Typography role="alert">The vocabulary can’t be fetched just now. It is kept here once it was.</Typography>
      )}
      <TextField
        label="Type a few words, or the beginnings of them"
        placeholder="petiole glands 2"
        value={text}
        autoFocus
        onChange={(event) => {
          setText(event.target.value);
          setSaid("");
        }}
        onKeyDown={(event) => {
          const [first] = offers;
          if (event.key === "Enter" && first && !first.question) {
            event.preventDefault();
            take(first);
          }
        }}
        slotProps={{ htmlInput: { autoCapitalize: "none", spellCheck: false, enterKeyHint: "done" } }}
        sx={{ maxWidth: 560 }}
      />
      <Typography role="status" sx={{ fontWeight: 700, minHeight: "1.5em" }}>
        {failure ?? (question && answer && offers.length === 0 ? "No part and quality of this name is known." : said)}
      </Typography>
      {offers.length > 0 && (
        <Box
          component="ul"
          aria-label="What it may mean"
          sx={{ listStyle: "none", p: 0, m: 0, display: "grid", gap: 0.75 }}
        >
          {offers.map((offer) => (
            <li key={offer.character.id + offer.state}>
              <ButtonBase
                onClick={() => take(offer)}
                sx={{
                  border: 1,
                  borderColor: "text.secondary",
                  minHeight: 52,
                  width: "100%",
                  maxWidth: 560,
                  justifyContent: "flex-start",
                  textAlign: "left",
                  gap: 1,
                  px: 1,
                  fontSize: "1rem",
                }}
              >
                {offer.state && <StateFigure character={offer.character} state={offer.state} size={44} />}
                <span>
                  {offer.isWhole ? "+ " : "▸ "}
                  {offer.inWords}
                  {offer.question && (
                    <Typography component="span" variant="body2" sx={{ display: "block", color: "signal.open" }}>
                      ? {offer.question}
                    </Typography>
                  )}
                </span>
              </ButtonBase>
            </li>
          ))}
        </Box>
      )}
      {!text && vocabulary.data && (
        <PartPicker
          organ={organ}
          vocabulary={vocabulary.data.vocabulary}
          onPick={(character) => {
            onPick(character);
            setSaid(`↑ ${character.name}: it stands at the top of the sheet, say there what it is like.`);
          }}
        />
      )}
    </Box>
  );
}
