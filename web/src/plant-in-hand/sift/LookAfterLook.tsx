import { Box, Button, ButtonBase, Typography } from "@mui/material";
import { useState } from "react";
import type { Schemas } from "../../api/client";
import words from "../../api/words";
import type { PlantInHand, SiftSettings } from "../../offline/store";
import { StateFigure } from "../../plates/drawn";
import { TaxonLabel } from "../../shared/botany/TaxonLabel";
import { later } from "../../shared/ui/later";
import { newLook, plainManner, withLook } from "../sheet/sheet";
import { NOT_ON_LIST } from "./useSift";

interface Props {
  walk: PlantInHand;
  settings: SiftSettings;
  answer: Schemas["SiftResponse"];
  characters: Schemas["Character"][];
  nameOf: (id: string) => string;
  onChange: (walk: PlantInHand) => void;
  onList: () => void;
  onCheck: () => void;
}

const MeasureField = later(async () => (await import("../sheet/MeasureField")).MeasureField);

const mayLack: string[] = words.organsThatMayLack;
const takes: string[] = words.handlingThatTakes;

/** One look after the other, each filling the screen of a phone: a tap records it and brings the next. */
export function LookAfterLook(props: Props) {
  const { walk, settings, answer, characters, nameOf, onChange, onList, onCheck } = props;
  // What was before each step of this sitting, to go back to.
  const [before, setBefore] = useState<PlantInHand[]>([]);
  const find = (id: string) => characters.find((it) => it.id === id);
  // What can be told by a tap comes before what has to be measured.
  const look = answer.tellingLooks.find((it) => (find(it.character)?.states.length ?? 0) > 0) ?? answer.tellingLooks[0];
  const character = look && find(look.character);
  const step = (next: PlantInHand) => {
    setBefore([...before, walk]);
    onChange(next);
    window.scrollTo(0, 0);
  };
  const record = (part: Partial<Schemas["Observation"]>) => {
    if (character) step(withLook(walk, newLook(walk, character.id, part)));
  };
  const setSettings = (part: Partial<SiftSettings>) => step({ ...walk, sift: { ...settings, ...part } });
  const back = () => {
    const last = before.at(-1);
    if (!last) return;
    setBefore(before.slice(0, -1));
    onChange(last);
  };
  const leads = answer.call === "ahead" || answer.call === "farAhead";
  const leader = answer.standing.find((it) => it.taxon !== NOT_ON_LIST);
  const likely = answer.standing.filter((it) => it.taxon !== NOT_ON_LIST).slice(0, Math.max(1, answer.leaders));
  return (
    <Box sx={{ display: "grid", gridTemplateRows: "auto 1fr auto", minHeight: "calc(100dvh - 180px)" }}>
      <Box aria-live="polite" sx={{ display: "flex", alignItems: "center", gap: 1, minHeight: 48 }}>
        <Typography component="h2" variant="h2" sx={{ flex: 1, minWidth: 0 }}>
          {answer.call === "nothing" && `${answer.listed} taxa on the list`}
          {leads && leader && (
            <>
              <TaxonLabel name={nameOf(leader.taxon)} />, {answer.inWords}
            </>
          )}
          {answer.call !== "nothing" &&
            !leads &&
            (answer.call === "oneOf"
              ? `${answer.leaders} likely: ${likely.map((it) => nameOf(it.taxon)).join(", ")}`
              : answer.inWords.charAt(0).toUpperCase() + answer.inWords.slice(1))}
        </Typography>
        <Button onClick={onList} sx={{ flex: "none" }}>
          List
        </Button>
      </Box>
      <Box>
        {leads && leader && (
          <Button variant="contained" fullWidth onClick={onCheck} sx={{ minHeight: 56, mb: 1 }}>
            Check this name
          </Button>
        )}
        {character && look ? (
          <Box component="section" aria-label={`Best to check next: ${character.name}`}>
            <Typography variant="caption" color="text.secondary" component="p">
              Best to check next
              {character.tool !== "eye" && ` · ${words.tools[character.tool]}`}
            </Typography>
            <Typography variant="h1" component="h3" sx={{ mb: 0.5 }}>
              {character.name}
            </Typography>
            {takes.includes(character.handling) && (
              <Typography variant="caption" sx={{ color: "signal.caution", display: "block" }}>
                △ Takes from the plant: only where law and the landowner allow it.
              </Typography>
            )}
            {character.states.length > 0 ? (
              <Box
                role="group"
                aria-label={`States of ${character.name}`}
                sx={{ display: "grid", gridTemplateColumns: "1fr 1fr", gap: 1, mt: 0.5 }}
              >
                {character.states.map((state) => (
                  <ButtonBase
                    key={state.id}
                    onClick={() => record({ states: [state.id] })}
                    sx={{
                      border: 1,
                      borderColor: "text.primary",
                      bgcolor: "background.paper",
                      minHeight: 104,
                      p: 0.5,
                      flexDirection: "column",
                      fontSize: "1rem",
                      lineHeight: 1.2,
                      "&:active": { bgcolor: "signal.chosenWash" },
                    }}
                  >
                    <StateFigure character={character} state={state.id} size={68} />
                    <span>{state.name}</span>
                  </ButtonBase>
                ))}
              </Box>
            ) : (
              <MeasureField
                key={character.id}
                character={character}
                readings={[]}
                onRecord={(readings) => record({ readings, tool: (walk.manner ?? plainManner).tool })}
                onStrike={() => undefined}
              />
            )}
          </Box>
        ) : (
          <Typography>
            Nothing that can be checked today tells the candidates further apart. The list says what would, and when.
          </Typography>
        )}
      </Box>
      <Box
        sx={{
          position: "sticky",
          bottom: "calc(58px + env(safe-area-inset-bottom))",
          bgcolor: "background.default",
          display: "grid",
          gridTemplateColumns: "1fr 1fr 1.4fr",
          gap: 1,
          py: 1,
        }}
      >
        <Button disabled={before.length === 0} onClick={back}>
          Back
        </Button>
        <Button disabled={!look} onClick={() => look && setSettings({ skip: [...settings.skip, look.character] })}>
          Can’t tell
        </Button>
        <Button
          disabled={!character || !mayLack.includes(character.organ)}
          onClick={() => character && setSettings({ missing: [...settings.missing, character.organ] })}
          sx={{ lineHeight: 1.15 }}
        >
          {character && mayLack.includes(character.organ)
            ? `No ${words.organs[character.organ].toLowerCase()} on this plant`
            : "Not on this plant"}
        </Button>
      </Box>
    </Box>
  );
}
