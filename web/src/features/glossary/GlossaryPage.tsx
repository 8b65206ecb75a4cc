import { Box, Button, ButtonBase, Link, Typography } from "@mui/material";
import { TextField } from "../../shared/form/TextField";
import { useMemo, useState } from "react";
import { Link as RouterLink, useSearchParams } from "react-router";
import type { Schemas } from "../../api/client";
import words from "../../api/words";
import { core } from "../../core/coreClient";
import { useAsked } from "../../offline/flora";
import { useVocabulary } from "../../offline/vocabulary";
import { PlantFigure } from "../../plant-in-hand/PlantFigure";
import { PartPicker } from "../../plant-in-hand/sheet/PartPicker";
import { StateFigure } from "../../plates/drawn";
import { Page } from "../../shared/ui/Page";
import { QualityEntry } from "./QualityEntry";

const MOST_FOUND = 10;

type Organ = Schemas["Organ"];

// What stands before the quality in the id of a character: the part, with its owner where it has one.
const partOf = (character: string) => character.split(".")[0] ?? "";

const organs = (Object.keys(words.organs) as Organ[]).map((organ) => ({
  organ,
  seen: 0,
  conflict: false,
  asked: false,
  absent: false,
}));

/** The parts of plants, on a drawn plant, what can be said of each, and every word for it. */
export function GlossaryPage() {
  const held = useVocabulary();
  const [organ, setOrgan] = useState<Organ>("leaf");
  const [params] = useSearchParams();
  const [text, setText] = useState(params.get("find") ?? "");
  const [chosen, setChosen] = useState<{ character: Schemas["Character"]; state?: string }>();
  const question = useMemo(() => (held.data && text.trim() ? { text: text.trim() } : undefined), [held.data, text]);
  const { answer } = useAsked(question, core.findCharacter);
  const found = question && answer ? answer.slice(0, MOST_FOUND) : [];
  const vocabulary = held.data?.vocabulary;
  return (
    <Page
      title="Parts and qualities"
      aside={
        <Box sx={{ display: "flex", gap: 1, flexWrap: "wrap" }}>
          <Button component={RouterLink} to="/glossary/all">
            All qualities drawn
          </Button>
          <Button component={RouterLink} to="/glossary/define">
            Define something
          </Button>
        </Box>
      }
    >
      <Typography sx={{ maxWidth: 760 }}>
        Any quality of any part can be looked at, described and weighed.{" "}
        {vocabulary && (
          <>
            {vocabulary.parts.length} parts, {vocabulary.qualities.length} qualities,{" "}
            {vocabulary.qualities.reduce((sum, q) => sum + q.states.length, 0)} states.{" "}
          </>
        )}
        <Link component={RouterLink} to="/flora">
          The characters of a flora
        </Link>{" "}
        stand with it.
      </Typography>
      {held.isError && <Typography role="alert">The vocabulary can’t be fetched just now.</Typography>}
      <TextField
        label="Find any term, of any part"
        placeholder="petiole glabrous"
        value={text}
        onChange={(event) => setText(event.target.value)}
        sx={{ maxWidth: 520, my: 2 }}
      />
      {question && answer && (
        <Typography role="status" variant="body2" color="text.secondary">
          {found.length === 0 ? "No part and quality of this name is known." : `The likeliest of what it may mean:`}
        </Typography>
      )}
      {found.length > 0 && (
        <Box component="ul" sx={{ listStyle: "none", p: 0, m: 0, mb: 2, display: "flex", flexWrap: "wrap", gap: 0.75 }}>
          {found.map((it) => (
            <li key={it.character.id + it.state}>
              <ButtonBase
                onClick={() => setChosen({ character: it.character, state: it.state })}
                sx={{ border: 1, borderColor: "text.secondary", minHeight: 48, px: 1, gap: 1, fontSize: "1rem" }}
              >
                {it.state && <StateFigure character={it.character} state={it.state} size={40} />}
                {it.inWords}
              </ButtonBase>
            </li>
          ))}
        </Box>
      )}
      <Box sx={{ display: "grid", gridTemplateColumns: { xs: "1fr", md: "290px 1fr" }, gap: 3, alignItems: "start" }}>
        <PlantFigure
          isPlain
          organs={organs}
          chosen={organ}
          onChoose={(next) => {
            setOrgan(next);
            setChosen(undefined);
          }}
        />
        <Box sx={{ minWidth: 0 }}>
          <Typography variant="h2" sx={{ mb: 1 }}>
            {words.organs[organ]}
          </Typography>
          {vocabulary && (
            <PartPicker
              key={organ}
              organ={organ}
              vocabulary={vocabulary}
              label="Choose a part:"
              onPick={(character) => setChosen({ character })}
            />
          )}
          {chosen && vocabulary && (
            <>
              <QualityEntry character={chosen.character} marked={chosen.state} vocabulary={vocabulary} />
              <Link component={RouterLink} to={`/glossary/all?part=${encodeURIComponent(partOf(chosen.character.id))}`}>
                All qualities of this part, drawn
              </Link>
            </>
          )}
        </Box>
      </Box>
    </Page>
  );
}
