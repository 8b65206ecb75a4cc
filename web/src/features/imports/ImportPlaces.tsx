import { Box, MenuItem, TextField, Typography } from "@mui/material";
import type { Schemas } from "../../api/client";
import { Part } from "../../shared/ui/Page";
import type { Choices } from "./useImport";

interface Props {
  places: Schemas["ImportPlace"][];
  known: Schemas["Place"][];
  choices: Choices;
  onChange: (part: Partial<Choices>) => void;
}

const NEW = "new";

/** The places of a file: those that are known by name or id, and new ones. */
export function ImportPlaces({ places, known, choices, onChange }: Props) {
  if (places.length === 0) return null;
  const choose = (given: string, placeId: string) =>
    onChange({
      places: [...(choices.places ?? []).filter((it) => it.given !== given), ...(placeId ? [{ given, placeId }] : [])],
    });
  return (
    <Part id="places" title="Places">
      <Box component="table" sx={{ borderCollapse: "collapse", "& td, & th": { textAlign: "left", py: 0.5, pr: 2 } }}>
        <thead>
          <tr>
            <th scope="col">As it is written</th>
            <th scope="col">Lines</th>
            <th scope="col">Is</th>
          </tr>
        </thead>
        <tbody>
          {places.map((it) => (
            <tr key={it.given}>
              <Box component="th" scope="row" sx={{ fontWeight: 400, overflowWrap: "anywhere", maxWidth: 340 }}>
                {it.given}
                {!it.hasPosition && (
                  <Typography variant="body2" sx={{ color: "signal.conflict", fontWeight: 600 }}>
                    ✕ without any position
                  </Typography>
                )}
              </Box>
              <td>{it.lines.toLocaleString()}</td>
              <td>
                <TextField
                  select
                  size="small"
                  value={it.placeId ?? NEW}
                  onChange={(event) => choose(it.given, event.target.value === NEW ? "" : event.target.value)}
                  slotProps={{ select: { SelectDisplayProps: { "aria-label": `Which place ${it.given} is` } } }}
                  sx={{ width: 240, maxWidth: "100%" }}
                >
                  <MenuItem value={NEW}>a new place</MenuItem>
                  {known.map((place) => (
                    <MenuItem key={place.id} value={place.id}>
                      {place.name}
                    </MenuItem>
                  ))}
                </TextField>
              </td>
            </tr>
          ))}
        </tbody>
      </Box>
    </Part>
  );
}
