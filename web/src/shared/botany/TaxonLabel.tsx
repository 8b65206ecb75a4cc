import { Box } from "@mui/material";
import { Fragment } from "react";
import { serif } from "../../theme/theme";

// Words of a scientific name that stand upright: ranks, qualifiers and the hybrid sign.
const upright = new Set([
  "subsp.",
  "var.",
  "f.",
  "agg.",
  "sp.",
  "spp.",
  "sect.",
  "cv.",
  "×",
  "s.l.",
  "s.str.",
  "group",
]);

interface Props {
  name: string;
  authorship?: string;
  scientific?: boolean;
}

/** A name as botany sets it: the binomial in italics, ranks and authors upright. */
export function TaxonLabel({ name, authorship, scientific = true }: Props) {
  return (
    <Box component="span" sx={{ fontFamily: serif }}>
      {scientific
        ? name.split(" ").map((word, i) => (
            <Fragment key={i}>
              {i > 0 && " "}
              {upright.has(word) || word.startsWith("'") ? word : <em>{word}</em>}
            </Fragment>
          ))
        : name}
      {authorship && (
        <Box component="span" sx={{ color: "text.secondary", fontSize: "0.9em" }}>
          {" "}
          {authorship}
        </Box>
      )}
    </Box>
  );
}

/** The names of a determination: one, or all that are still open. */
export function NamesLabel({ names }: { names: string[] }) {
  return (
    <>
      {names.map((name, i) => (
        <Fragment key={name}>
          {i > 0 && (i === names.length - 1 ? " or " : ", ")}
          <TaxonLabel name={name} scientific={/^(× )?[A-Z]\S* \S/.test(name) || !name.includes(" ")} />
        </Fragment>
      ))}
    </>
  );
}
