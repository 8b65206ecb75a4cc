import { Box, Button, Typography } from "@mui/material";
import type { Schemas } from "../../api/client";
import { TaxonLabel } from "./TaxonLabel";

interface Props {
  text: string;
  /** What is asked about it. */
  says: string;
  /** The taxa that it may mean. */
  found: Schemas["ShortNamed"][];
  onTake: (name: string) => void;
  /** What else can be done with it. */
  ways: [name: string, act: () => void][];
}

/** A line that was entered and isn't clear: which taxon it means, or what else is to become of it. */
export const UnsettledLine = ({ text, says, found, onTake, ways }: Props) => (
  <Box role="group" aria-label={`Which one is “${text}”?`} sx={{ my: 1 }}>
    <Typography role="status" sx={{ color: "signal.open", fontWeight: 700 }}>
      △ “{text}”: {says}
    </Typography>
    <Box sx={{ display: "flex", flexWrap: "wrap", gap: 0.75 }}>
      {found.map((it) => (
        <Button key={it.taxon} onClick={() => onTake(it.name)} sx={{ minHeight: 44 }}>
          <TaxonLabel name={it.name} />
        </Button>
      ))}
      {ways.map(([name, act]) => (
        <Button key={name} onClick={act} sx={{ minHeight: 44 }}>
          {name}
        </Button>
      ))}
    </Box>
  </Box>
);

/** What is asked about such a line, by what it may mean; undefined where it couldn’t be looked up. */
export const unsettledSays = (found: Schemas["ShortNamed"][] | undefined) =>
  !found
    ? "it couldn’t be looked up."
    : found.length > 1
      ? "several fit. Which one?"
      : found.length === 1
        ? "one fits. Is it this one?"
        : "no taxon of the flora fits.";
