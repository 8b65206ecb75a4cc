import { Box, MenuItem, Typography } from "@mui/material";
import { TextField } from "../../shared/form/TextField";
import type { Schemas } from "../../api/client";

/** What is typed of a grid; all empty where none is declared. */
export interface GridText {
  latitude: string;
  longitude: string;
  cellMetres: string;
  columns: string;
  rows: string;
  naming: Schemas["GridNaming"];
}

export const noGrid: GridText = {
  latitude: "",
  longitude: "",
  cellMetres: "",
  columns: "",
  rows: "",
  naming: "lettersEastNumbersNorth",
};

const fields = [
  ["latitude", "Latitude of its corner", "south-west corner; north-west where numbers go south"],
  ["longitude", "Longitude of its corner", "decimal degrees, west negative"],
  ["cellMetres", "Cell, metres", "side of a square"],
  ["columns", "Columns", "from west to east"],
  ["rows", "Rows", ""],
] as const;

const namings: [Schemas["GridNaming"], string][] = [
  ["lettersEastNumbersNorth", "B2: letters east, numbers north"],
  ["lettersEastNumbersSouth", "B2: letters east, numbers south"],
  ["numbersEastNumbersNorth", "2-3: numbers east and north"],
];

/** The grid as it is sent; undefined where nothing is typed. What isn’t a number is sent as it is, and refused with its reason. */
export function gridOf(text: GridText): string | undefined {
  if (!fields.some(([name]) => text[name].trim())) return undefined;
  const number = (it: string) => Number(it.trim().replace(",", ".") || "NaN");
  return JSON.stringify({
    ...Object.fromEntries(fields.map(([name]) => [name, Number.isFinite(number(text[name])) ? number(text[name]) : 0])),
    naming: text.naming,
  });
}

/** Declares the grid of a flora: positions of its sensitive taxa leave the program as the middle of a cell. */
export function GridFields({ value, onChange }: { value: GridText; onChange: (next: GridText) => void }) {
  return (
    <Box component="details" sx={{ mt: 1.5 }}>
      <Typography component="summary" sx={{ cursor: "pointer", minHeight: 44, fontWeight: 600 }}>
        Its grid of cells
      </Typography>
      <Typography variant="body2" sx={{ mb: 1.5, maxWidth: "62ch" }}>
        Positions of sensitive taxa leave the program only as the middle of a cell. Without a grid they leave without
        any position. What was declared before stays until another one is.
      </Typography>
      <Box sx={{ display: "grid", gap: 1.5, gridTemplateColumns: { xs: "1fr 1fr", md: "repeat(5, 1fr) 1.6fr" } }}>
        {fields.map(([name, label, help]) => (
          <TextField
            key={name}
            label={label}
            value={value[name]}
            onChange={(event) => onChange({ ...value, [name]: event.target.value })}
            helperText={help}
            slotProps={{ htmlInput: { inputMode: "decimal" } }}
          />
        ))}
        <TextField
          select
          label="Names of cells"
          value={value.naming}
          onChange={(event) => onChange({ ...value, naming: event.target.value as Schemas["GridNaming"] })}
        >
          {namings.map(([naming, words]) => (
            <MenuItem key={naming} value={naming}>
              {words}
            </MenuItem>
          ))}
        </TextField>
      </Box>
    </Box>
  );
}
