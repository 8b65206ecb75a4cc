import { Box, Typography } from "@mui/material";
import type { Schemas } from "../../api/client";

import { QuietButton } from "../../shared/ui/QuietButton";

import { NamesLabel, TaxonLabel } from "../../shared/botany/TaxonLabel";

import { NOT_ON_LIST } from "./useSift";

/** How the list stands, in words; the first thing to be read. */
export function Call({ answer, nameOf }: { answer: Schemas["SiftResponse"]; nameOf: (id: string) => string }) {
  const named = answer.standing.filter((it) => it.taxon !== NOT_ON_LIST);
  const leaders = named.slice(0, answer.leaders).map((it) => nameOf(it.taxon));
  const narrowed = answer.listed < answer.all ? ` on the narrowed list (${answer.listed} of ${answer.all})` : "";
  return (
    <Box aria-live="polite" sx={{ mb: 0.5 }}>
      <Typography variant="h1" component="h2">
        {answer.call === "nothing" && `Nothing seen yet: ${answer.listed} taxa${narrowed || " on the list"}`}
        {(answer.call === "farAhead" || answer.call === "ahead") && (
          <>
            <TaxonLabel name={leaders[0] ?? ""} />, {answer.inWords}
          </>
        )}
        {answer.call === "oneOf" &&
          (answer.leaders === 1 ? <TaxonLabel name={leaders[0] ?? ""} /> : cap(answer.inWords))}
        {(answer.call === "open" || answer.call === "notOnList") && cap(answer.inWords)}
        {answer.call === "noneFits" && (answer.listed === 0 ? "The list is empty" : "None of the list fits")}
      </Typography>
      {answer.call === "oneOf" && answer.leaders > 1 && (
        <Typography>
          <NamesLabel names={leaders} />
          {narrowed}
        </Typography>
      )}
      {answer.call === "noneFits" && answer.listed > 0 && (
        <Typography>
          The nearest are <NamesLabel names={leaders} />; each conflicts with what was seen. Look again, or take it for
          a plant that isn’t on this list{narrowed}.
        </Typography>
      )}
      {answer.call === "noneFits" && answer.listed === 0 && (
        <Typography>Lift a narrowing to see taxa again.</Typography>
      )}
      {answer.call === "notOnList" && (
        <Typography>
          What was seen fits no taxon well enough; nearest of the list{narrowed}:{" "}
          <NamesLabel names={named.slice(0, 2).map((it) => nameOf(it.taxon))} />.
        </Typography>
      )}
      {answer.listed === 1 && (
        <Typography variant="body2">
          The list holds this one taxon: that it is left says nothing yet. What is seen can only speak for it or against
          it.
        </Typography>
      )}
    </Box>
  );
}

const cap = (words: string) => words.charAt(0).toUpperCase() + words.slice(1);

export function GiveawayNote(props: {
  it: Schemas["Giveaway"];
  name: string;
  listed: number;
  seen: boolean;
  onLook: () => void;
}) {
  const { it, name, listed, seen, onLook } = props;
  return (
    <Box
      sx={{
        display: "flex",
        flexWrap: "wrap",
        alignItems: "center",
        columnGap: 1,
        bgcolor: "signal.chosenWash",
        px: 1.25,
        mb: 0.75,
      }}
    >
      <Typography variant="body2" sx={{ flex: "1 1 14rem", py: 0.5 }}>
        <strong>
          {seen ? "◆ Seen, and" : "◇"} diagnostic here, alone on this list of {listed}:
        </strong>{" "}
        {it.text} → <TaxonLabel name={name} />
      </Typography>
      {!seen && (
        <QuietButton name={`Look for it: ${it.text}`} onClick={onLook}>
          Look for it
        </QuietButton>
      )}
    </Box>
  );
}

export const onePerTaxon = (giveaways: Schemas["Giveaway"][]) =>
  giveaways.filter((it, i) => giveaways.findIndex((other) => other.taxon === it.taxon) === i);
