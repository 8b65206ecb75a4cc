import { MenuItem, TextField, Typography } from "@mui/material";
import type { Schemas } from "../../api/client";
import { Part } from "../../shared/ui/Page";
import { Row, Rows } from "./Rows";
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
      <Rows name="Places of the file">
        {places.map((it) => (
          <Row
            key={it.given}
            lines={it.lines}
            given={
              <>
                {it.given}
                {!it.hasPosition && (
                  <Typography variant="body2" sx={{ color: "signal.conflict", fontWeight: 600 }}>
                    ✕ without any position
                  </Typography>
                )}
              </>
            }
          >
            <TextField
              select
              fullWidth
              size="small"
              value={it.placeId ?? NEW}
              onChange={(event) => choose(it.given, event.target.value === NEW ? "" : event.target.value)}
              slotProps={{ select: { SelectDisplayProps: { "aria-label": `Which place ${it.given} is` } } }}
            >
              <MenuItem value={NEW}>a new place</MenuItem>
              {known.map((place) => (
                <MenuItem key={place.id} value={place.id}>
                  {place.name}
                </MenuItem>
              ))}
            </TextField>
          </Row>
        ))}
      </Rows>
    </Part>
  );
}
