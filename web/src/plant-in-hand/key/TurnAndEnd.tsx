import { Box, Button, Typography } from "@mui/material";

import { NamesLabel, TaxonLabel } from "../../shared/botany/TaxonLabel";

import type { Schemas } from "../../api/client";

/** The couplet most likely answered wrongly, with what to look at again. */
export function WeakestTurn(props: {
  turn: Schemas["WeakTurn"];
  character?: string;
  onLook: () => void;
  onReopen: () => void;
}) {
  const { turn, character, onLook, onReopen } = props;
  return (
    <Box role="note" sx={{ border: 2, borderColor: "signal.conflict", px: 1.5, py: 1, mb: 1.5 }}>
      <Typography variant="body2">
        <Box component="strong" sx={{ color: "signal.conflict" }}>
          ▽ Least certain couplet: {turn.couplet}.
        </Box>{" "}
        By the answers and the evidence the plant left the trail here with a probability of {turn.probabilityInWords},
        perhaps towards <TaxonLabel name={turn.best} />.{character && ` Look again at: ${character}.`}
      </Typography>
      <Box sx={{ display: "flex", gap: 1, mt: 0.75, flexWrap: "wrap" }}>
        {character && <Button onClick={onLook}>Look at {character}</Button>}
        <Button onClick={onReopen}>Open couplet {turn.couplet} again</Button>
      </Box>
    </Box>
  );
}

export function End({ names }: { names: string[] }) {
  return (
    <Box>
      <Typography variant="body2" color="text.secondary">
        {names.length === 1
          ? "The trail ends here"
          : `Every path has come to its end; ${names.length} taxa are still open`}
      </Typography>
      <Typography variant="h1" component="h2" sx={{ fontSize: "1.9rem", my: 1 }}>
        <NamesLabel names={names} />
      </Typography>
      <Typography>
        {names.length === 1
          ? "A key always ends at some name. Look back along the trail: is there a couplet you would answer otherwise?"
          : "Keep it as an open set, or open the couplet that you couldn’t tell and look again."}
      </Typography>
    </Box>
  );
}

/** The looks that tell most of where the plant may have left the trail. They come after the name, so they stand where they move nothing. */
export function TestTheTrail(props: {
  looks: Schemas["TrailLook"][];
  nameOf: (character: string) => string;
  onLook: (character: string) => void;
}) {
  const { looks, nameOf, onLook } = props;
  if (looks.length === 0) return null;
  return (
    <Box role="group" aria-label="Looks that test the trail" sx={{ mt: 2.5 }}>
      <Typography variant="h3" sx={{ mb: 0.5 }}>
        Test the trail
      </Typography>
      {looks.map((look) => (
        <Box key={look.character} sx={{ display: "flex", alignItems: "center", gap: 1.5, flexWrap: "wrap", mb: 0.75 }}>
          <Button variant="outlined" onClick={() => onLook(look.character)} sx={{ minHeight: 48 }}>
            Look at {nameOf(look.character)}
          </Button>
          <Typography variant="body2" color="text.secondary">
            {look.inWords}
          </Typography>
        </Box>
      ))}
    </Box>
  );
}
