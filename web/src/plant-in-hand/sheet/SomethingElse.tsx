import { Box, Button, ButtonBase, TextField, Typography } from "@mui/material";
import { useId, useMemo, useState } from "react";
import type { Schemas } from "../../api/client";
import { core } from "../../core/coreClient";
import { useAsked } from "../../offline/flora";
import { useVocabulary } from "../../offline/vocabulary";
import { StateFigure } from "../../plates/drawn";
import { PartPicker } from "./PartPicker";
import { ReadLooks } from "./ReadLooks";
import type { Character, Observation } from "./sheet";

// More offers than this are read by nobody; another letter shortens them.
const MOST_OFFERED = 8;

// A comma or more between words: more than one look is typed.
const SEVERAL = /[,;]\s*\p{L}/u;

/** A look to be recorded. */
export interface NewLook {
  character: Character;
  part: Partial<Observation>;
  /** How old the part was, where the words say it. */
  age?: Schemas["PartAge"];
}

interface Props {
  organ: Schemas["Organ"];
  /** Shows a character on the sheet, to be looked at. */
  onPick: (character: Character) => void;
  /** Records looks at once. */
  onRecord: (looks: NewLook[]) => void;
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
    () => (vocabulary.data && text.trim() ? { text: text.trim(), unit: "mm" } : undefined),
    [vocabulary.data, text],
  );
  const { answer, failure } = useAsked(question, core.findCharacter);
  const reading = useAsked(question, core.readLooks);
  // What was typed meanwhile isn't what was read.
  const read = question && reading.of === question ? reading.answer : undefined;
  const looks = read?.looks ?? [];
  // Several looks at once are read as sentences, not offered one by one.
  const isOne = !SEVERAL.test(text);
  const offers =
    question && answer && (isOne || looks.length === 0)
      ? answer
          .filter((offer) => !looks.some((look) => look.character.id === offer.character.id && offer.isWhole))
          .slice(0, MOST_OFFERED)
      : [];
  const take = (offer: Schemas["OfferedCharacter"]) => {
    onPick(offer.character);
    if (offer.isWhole) {
      onRecord([
        { character: offer.character, part: { states: offer.state ? [offer.state] : [], readings: offer.readings } },
      ]);
      setSaid(`✓ ${offer.inWords}`);
    } else setSaid(`↑ ${offer.inWords}: it stands at the top of the list, say there what it is like.`);
    setText("");
  };
  const record = (taken: Schemas["TypedLook"][]) => {
    taken.forEach((look) => onPick(look.character));
    onRecord(taken.map(({ character, states, readings, age }) => ({ character, part: { states, readings }, age })));
    setSaid(taken.map((look) => `✓ ${look.inWords}`).join(" · "));
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
        label="Type what you see, or the beginnings of the words"
        placeholder="lvs glabrous beneath, petiole 12 14 15 mm"
        value={text}
        autoFocus
        onChange={(event) => {
          setText(event.target.value);
          setSaid("");
        }}
        onKeyDown={(event) => {
          const [first] = offers;
          if (event.key !== "Enter") return;
          if (looks.length > 0) {
            event.preventDefault();
            record(looks);
          } else if (first && !first.question) {
            event.preventDefault();
            take(first);
          }
        }}
        slotProps={{ htmlInput: { autoCapitalize: "none", spellCheck: false, enterKeyHint: "done" } }}
        sx={{ maxWidth: 560 }}
      />
      <Typography role="status" sx={{ fontWeight: 700, minHeight: "1.5em" }}>
        {failure ??
          (question && answer && read && offers.length === 0 && looks.length === 0
            ? "No part and quality of this name is known."
            : said)}
      </Typography>
      {read && (looks.length > 0 || !isOne) && <ReadLooks read={read} onRecord={record} />}
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
            setSaid(`↑ ${character.name}: it stands at the top of the list, say there what it is like.`);
          }}
        />
      )}
    </Box>
  );
}
