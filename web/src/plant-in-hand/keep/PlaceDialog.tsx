import {
  Box,
  Button,
  Checkbox,
  Dialog,
  DialogActions,
  DialogContent,
  DialogTitle,
  FormControlLabel,
  TextField,
  Typography,
} from "@mui/material";
import { useQueryClient } from "@tanstack/react-query";
import { useState, type FormEvent } from "react";
import { v7 as uuid } from "uuid";
import type { Schemas } from "../../api/client";
import { useSend } from "../../offline/mending";
import { type RefusedCommand } from "../../offline/store";
import { isNumber, numberOf, useFields } from "../../shared/form/useFields";

const fields = [
  { name: "name", label: "Name", required: true, help: "As you call it." },
  { name: "locality", label: "Where it is", required: false, help: "In words: parish, hill, side of the stream." },
  { name: "latitude", label: "Latitude", required: true, help: "Decimal degrees, WGS 84; south negative." },
  { name: "longitude", label: "Longitude", required: true, help: "Decimal degrees, WGS 84; west negative." },
  {
    name: "uncertaintyMetres",
    label: "Uncertainty in metres",
    required: true,
    help: "Radius of the circle that holds the place.",
  },
  { name: "cell", label: "Grid cell", required: false, help: "Of the flora’s map, such as B2." },
  { name: "elevationMetres", label: "Elevation in metres", required: false, help: "Above the sea." },
  {
    name: "habitats",
    label: "Habitats",
    required: false,
    help: "As the flora calls them, with commas: wet wood, hedge. Street and garden weigh what is planted.",
  },
  { name: "caution", label: "What to mind there", required: false, help: "Tides, bog, rockfall, livestock." },
] as const;

type Field = (typeof fields)[number]["name"];

const numbers = new Set<Field>(["latitude", "longitude", "uncertaintyMetres", "elevationMetres"]);

interface Props {
  /** The refused place that it is opened with, and what was typed then. */
  mend?: RefusedCommand;
  start?: Schemas["CommandSavePlaceCommand"];
  /** The place that is changed; nothing to add one. */
  place?: Schemas["Place"];
  onClose: (placeId?: string) => void;
}

/** Adds a recording place, or changes one; ends with its id, or without one when it is put off. */
export function PlaceDialog({ mend, start: typedBefore, place: known, onClose }: Props) {
  const client = useQueryClient();
  const start = typedBefore ?? (known && { ...known, placeId: known.id });
  const [isAtRest, setAtRest] = useState(start?.isAtRest ?? false);
  const send = useSend(mend?.id);
  const { field, refuse, submit, elsewhere } = useFields<Record<Field, string>>({
    name: start?.name ?? "",
    locality: start?.locality ?? "",
    latitude: start?.latitude.toString() ?? "",
    longitude: start?.longitude.toString() ?? "",
    uncertaintyMetres: start?.uncertaintyMetres.toString() ?? "",
    cell: start?.cell ?? "",
    elevationMetres: start?.elevationMetres?.toString() ?? "",
    habitats: start?.habitats?.join(", ") ?? "",
    caution: start?.caution ?? "",
  });
  const add = submit(async (typed) => {
    const place = {
      id: start?.placeId ?? uuid(),
      name: typed.name.trim(),
      locality: typed.locality.trim(),
      latitude: numberOf(typed.latitude) ?? 0,
      longitude: numberOf(typed.longitude) ?? 0,
      uncertaintyMetres: numberOf(typed.uncertaintyMetres) ?? 0,
      caution: typed.caution.trim(),
      cell: typed.cell.trim().toUpperCase(),
      elevationMetres: numberOf(typed.elevationMetres) ?? null,
      habitats: typed.habitats
        .split(/[,;|]/)
        .map((it) => it.trim().toLowerCase())
        .filter(Boolean),
      version: known?.version ?? start?.version ?? null,
      isAtRest,
    };
    const { id: placeId, ...rest } = place;
    const sent = await send(
      { kind: "savePlace", id: uuid(), placeId, ...rest },
      place.version === null ? { creates: [placeId] } : {},
    );
    if (sent.kind === "refused") return refuse(sent.problem);
    if (place.version !== null) {
      // What stands there has the place's name.
      await client.invalidateQueries();
      return onClose(placeId);
    }
    // Until the list is fetched again, the new place stands in it from here.
    const added = { ...place, version: 1 };
    const places = [...(client.getQueryData<Schemas["Place"][]>(["places"]) ?? []), added];
    client.setQueryData(["places"], places);
    onClose(placeId);
  });
  const isChange = (known ?? typedBefore)?.version != null;
  // The form that the dialog is opened from isn't sent with it.
  const onSubmit = (event: FormEvent) => {
    event.stopPropagation();
    void add(event);
  };

  return (
    <Dialog open onClose={() => onClose()} maxWidth="sm" fullWidth aria-labelledby="new-place">
      <Box component="form" noValidate onSubmit={onSubmit}>
        <DialogTitle id="new-place">{isChange ? start?.name : "A new place"}</DialogTitle>
        <DialogContent>
          {elsewhere && (
            <Typography role="alert" color="error">
              ✕ {elsewhere}
            </Typography>
          )}
          <Box sx={{ display: "grid", gap: 2, pt: 1, gridTemplateColumns: { xs: "1fr", sm: "1fr 1fr" } }}>
            {fields.map(({ name, label, required, help }, i) => (
              <TextField
                key={name}
                autoFocus={i === 0}
                label={label}
                {...field(name, {
                  required: required ? "Fill this in." : undefined,
                  check: numbers.has(name) ? isNumber("This isn’t a number.") : undefined,
                  help,
                })}
              />
            ))}
            {isChange && (
              <FormControlLabel
                sx={{ gridColumn: "1 / -1" }}
                control={<Checkbox checked={isAtRest} onChange={(event) => setAtRest(event.target.checked)} />}
                label="Laid to rest: what was recorded stays, and it isn’t offered any more where one chooses a place"
              />
            )}
          </Box>
        </DialogContent>
        <DialogActions sx={{ px: 3, pb: 2 }}>
          <Button onClick={() => onClose()}>Cancel</Button>
          <Button type="submit" variant="contained">
            {isChange ? "Keep the change" : "Add the place"}
          </Button>
        </DialogActions>
      </Box>
    </Dialog>
  );
}
