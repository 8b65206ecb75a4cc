import { Box, Button, MenuItem, TextField, Typography } from "@mui/material";
import type { Schemas } from "../../api/client";
import { TaxonLabel } from "../../shared/botany/TaxonLabel";
import { Part } from "../../shared/ui/Page";
import { Row, Rows } from "./Rows";
import type { Choices } from "./useImport";

interface Props {
  names: Schemas["ImportName"][];
  others: number;
  choices: Choices;
  onChange: (part: Partial<Choices>) => void;
}

const AS_WRITTEN = "=";
const UNDECIDED = "?";

const says: Record<Schemas["NameFit"], string> = {
  several: "△ fits several: choose",
  unknown: "◌ in no flora here",
  doubtful: "◌ with a doubt: kept without a name",
  common: "a common name",
  synonym: "another name",
  accepted: "",
};

/** The names of a file that aren’t plainly those of taxa, the ones to decide on first. */
export function ImportNames({ names, others, choices, onChange }: Props) {
  if (names.length === 0) return null;
  const decided = new Map((choices.names ?? []).map((it) => [it.given, it.meant]));
  const decide = (given: string, meant: string) =>
    onChange({
      names: [
        ...(choices.names ?? []).filter((it) => it.given !== given),
        ...(meant === UNDECIDED ? [] : [{ given, meant }]),
      ],
    });
  return (
    <Part id="names" title="Names">
      <Typography sx={{ maxWidth: 720 }}>
        No name is guessed. One that no flora here has is kept as it is written; one with a doubt is kept as a plant
        without a name.{" "}
        {others > 0 &&
          `${others.toLocaleString()} more ${others === 1 ? "is the name of a taxon" : "are names of taxa"}.`}
      </Typography>
      <Rows name="Names to decide on">
        {names.map(({ name, lines }) => (
          <Row
            key={name.given}
            lines={lines}
            given={
              <>
                {name.given}
                <Typography
                  variant="body2"
                  sx={{ color: name.fit === "several" ? "signal.open" : "text.secondary", fontWeight: 600 }}
                >
                  {says[name.fit]}
                </Typography>
              </>
            }
          >
            <TextField
              select
              fullWidth
              size="small"
              value={decided.get(name.given) ?? UNDECIDED}
              onChange={(event) => decide(name.given, event.target.value)}
              slotProps={{ select: { SelectDisplayProps: { "aria-label": `What ${name.given} is taken for` } } }}
            >
              <MenuItem value={UNDECIDED}>
                {name.fit === "several" ? (
                  "not decided: left out"
                ) : name.meant ? (
                  <TaxonLabel name={name.meant} />
                ) : (
                  "a plant without a name"
                )}
              </MenuItem>
              {name.candidates.map((one) => (
                <MenuItem key={one} value={one}>
                  <TaxonLabel name={one} />
                </MenuItem>
              ))}
              {(name.fit === "several" || name.fit === "synonym" || name.fit === "common") && (
                <MenuItem value={AS_WRITTEN}>as it is written</MenuItem>
              )}
              <MenuItem value="">left out</MenuItem>
            </TextField>
            {!decided.has(name.given) && name.candidates.length > 0 && (
              <Box sx={{ display: "flex", flexWrap: "wrap", alignItems: "center", gap: 0.5, mt: 0.5 }}>
                <Typography variant="body2">Perhaps</Typography>
                {name.candidates.map((one) => (
                  <Button key={one} size="small" onClick={() => decide(name.given, one)}>
                    {one}
                  </Button>
                ))}
              </Box>
            )}
          </Row>
        ))}
      </Rows>
    </Part>
  );
}
