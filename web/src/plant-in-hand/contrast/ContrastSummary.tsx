import { Box, Button, Typography } from "@mui/material";
import { useState } from "react";
import type { Schemas } from "../../api/client";

import { NamesLabel } from "../../shared/botany/TaxonLabel";

interface SummaryProps {
  answer: Schemas["ContrastResult"];
  nameOf: (id: string) => string;
  characters: Schemas["Character"][];
  couplet?: string;
  onLook: (character: string) => void;
}

/** The difference that counts, before all rows: of two taxa one sentence, of more the fewest looks for all and the best for each pair. */
export function Summary({ answer, nameOf, characters, couplet, onLook }: SummaryProps) {
  const [pairs, setPairs] = useState(false);
  const word = (id: string) => characters.find((c) => c.id === id)?.name ?? id;
  const [only] = answer.pairs;
  const { smallest, smallestNow } = answer;
  const openToday = smallestNow.unseparated - smallest.unseparated;
  const note = [
    !smallest.isOptimal && "Perhaps fewer would do.",
    smallest.unseparated > 0 &&
      `${smallest.unseparated} ${smallest.unseparated === 1 ? "pair is" : "pairs are"} separated by nothing.`,
    openToday > 0
      ? `By what can be seen today ${openToday} ${openToday === 1 ? "pair stays" : "pairs stay"} open.`
      : smallestNow.characters.length > 0 &&
        smallestNow.characters.join() !== smallest.characters.join() &&
        `Today: ${smallestNow.characters.map(word).join(", ")}.`,
  ]
    .filter(Boolean)
    .join(" ");
  return (
    <Box sx={{ mb: 1.5 }}>
      {couplet && (
        <Typography variant="body2" color="text.secondary">
          What lies on either side of couplet {couplet}, the likeliest of each lead
        </Typography>
      )}
      {answer.taxa.length === 2 && only ? (
        only.character ? (
          <>
            <Typography variant="h1" component="h2">
              <NamesLabel names={answer.taxa.map(nameOf)} />: {word(only.character)}
            </Typography>
            <Typography
              component="div"
              sx={{ display: "flex", flexWrap: "wrap", alignItems: "center", columnGap: 1.5, rowGap: 0.5, mt: 0.5 }}
            >
              <span>
                {cap(only.text)}. {only.certainty}
              </span>
              {only.canBeSeen ? (
                <Button onClick={() => onLook(only.character)}>Look at it now</Button>
              ) : (
                <Box component="span" sx={{ color: "signal.absent" }}>
                  ◌ Not to be seen today: {answer.rows.find((row) => row.character === only.character)?.when}.
                </Box>
              )}
            </Typography>
          </>
        ) : (
          <Typography variant="h1" component="h2">
            Nothing in this flora separates <NamesLabel names={answer.taxa.map(nameOf)} />
          </Typography>
        )
      ) : (
        <>
          <Typography variant="h1" component="h2">
            {smallest.characters.length === 0
              ? "Nothing in this flora separates these"
              : `${numbers[smallest.characters.length] ?? smallest.characters.length} ${smallest.characters.length === 1 ? "look separates" : "looks separate"} ${smallest.unseparated === 0 ? `all ${answer.taxa.length}` : "what can be separated"}`}
          </Typography>
          <Box sx={{ display: "flex", flexWrap: "wrap", gap: 1, my: 0.75, alignItems: "center" }}>
            {smallest.characters.map((id) => {
              const row = answer.rows.find((r) => r.character === id);
              return (
                <Button key={id} onClick={() => onLook(id)} variant={row?.group === "later" ? "outlined" : "contained"}>
                  {row?.group === "later" ? "◌ " : row?.group === "seen" ? "● " : ""}
                  {word(id)}
                </Button>
              );
            })}
            {note && <Typography variant="body2">{note}</Typography>}
            <Button onClick={() => setPairs(!pairs)} aria-expanded={pairs}>
              {pairs ? "Hide the pairs" : `The best look for each of the ${answer.pairs.length} pairs`}
            </Button>
          </Box>
          {pairs && (
            <Box component="ul" sx={{ m: 0, mt: 0.5, pl: 2.5 }}>
              {answer.pairs.map((pair) => (
                <Typography component="li" variant="body2" key={pair.first + pair.second}>
                  <NamesLabel names={[nameOf(pair.first), nameOf(pair.second)]} />:{" "}
                  {pair.character ? (
                    <>
                      {pair.text}. {pair.certainty} {!pair.canBeSeen && "◌ not today"}
                    </>
                  ) : (
                    "nothing in this flora separates them"
                  )}
                </Typography>
              ))}
            </Box>
          )}
        </>
      )}
    </Box>
  );
}

const cap = (words: string) => words.charAt(0).toUpperCase() + words.slice(1);

const numbers = ["No", "One", "Two", "Three", "Four", "Five", "Six", "Seven", "Eight"];
