import { Autocomplete } from "../../shared/form/Autocomplete";
import { Box, Typography } from "@mui/material";
import { Choice } from "../../shared/form/Choice";
import { TextField } from "../../shared/form/TextField";
import type { Schemas } from "../../api/client";

import type { ConfirmSettings, PlantInHand } from "../../offline/store";

import { TaxonLabel } from "../../shared/botany/TaxonLabel";

const rules = [
  ["confirmed-list", "Confirmed list"],
  ["quick-list", "Quick list"],
] as const;

const planted = [
  ["no", "No sign of it"],
  ["yes", "Yes"],
  ["unsaid", "Can’t say"],
] as const;

export function Naming(props: {
  walk: PlantInHand;
  taxa: Schemas["Taxon"][];
  taxon?: string;
  guessed: boolean;
  onName: (taxon: string) => void;
}) {
  const { walk, taxa, taxon, guessed, onName } = props;
  const name = taxa.find((t) => t.id === taxon);
  return (
    <Box sx={{ display: "flex", flexWrap: "wrap", alignItems: "center", gap: 2, mb: 1.5 }}>
      <Box sx={{ flex: "1 1 20rem" }}>
        {name ? (
          <Typography variant="h1" component="h2">
            Is it really <TaxonLabel name={name.name} />?
          </Typography>
        ) : (
          <Typography variant="h1" component="h2">
            Which name is to be checked?
          </Typography>
        )}
        <Typography variant="body2" color="text.secondary">
          {name
            ? [name.commonName, guessed ? "the name on the shortlist" : "the name that leads by what was seen"]
                .filter(Boolean)
                .join(" · ")
            : (walk.observations ?? []).length === 0
              ? "Nothing has been seen of this plant yet. Name a guess: it says what would confirm it."
              : "Making the list ready …"}
        </Typography>
      </Box>
      <Autocomplete
        key={taxon ?? ""}
        options={taxa}
        getOptionLabel={(t) => t.name}
        renderOption={(optionProps, t) => (
          <li {...optionProps} key={t.id}>
            <span>
              <TaxonLabel name={t.name} /> {t.commonName}
            </span>
          </li>
        )}
        value={null}
        onChange={(_, t) => t && onName(t.id)}
        sx={{ width: { xs: "100%", sm: 280 } }}
        renderInput={(params) => <TextField {...params} label={name ? "Another name" : "Name a taxon"} />}
      />
    </Box>
  );
}

export function Choices({
  settings,
  survey,
  onSet,
}: {
  settings: ConfirmSettings;
  /** The survey that the plant's place and day belong to, where it agreed on rules. */
  survey?: { name: string; rules: string };
  onSet: (part: Partial<ConfirmSettings>) => void;
}) {
  return (
    <Box sx={{ display: "grid", gap: 1.5, mt: 2, justifyItems: "start" }}>
      <Box>
        <Typography variant="body2">Grades by the rules of the</Typography>
        <Choice
          label="Grades by the rules of the"
          choices={rules}
          value={settings.rules === "quick-list" ? "quick-list" : "confirmed-list"}
          onChoose={(it) => it && onSet({ rules: it })}
        />
        <Typography variant="body2" color="text.secondary">
          {settings.rules === "quick-list"
            ? "For lists made in passing: one sure character is enough where it leaves no other name."
            : "For records that must stand alone: several organs, two times of the plant’s year, every look-alike excluded."}
        </Typography>
        {survey && (
          <Typography variant="body2">
            {survey.rules === settings.rules ? "✓ As the survey" : "△ Not as the survey"} “{survey.name}” agreed.
          </Typography>
        )}
      </Box>
      <Box>
        <Typography variant="body2">Was this plant planted?</Typography>
        <Choice
          label="Was this plant planted?"
          choices={planted}
          value={settings.planted === undefined ? "unsaid" : settings.planted ? "yes" : "no"}
          onChoose={(said) => said && onSet({ planted: said === "unsaid" ? undefined : said === "yes" })}
        />
      </Box>
    </Box>
  );
}
