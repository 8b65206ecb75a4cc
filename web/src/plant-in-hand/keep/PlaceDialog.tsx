import { Box, Button, Dialog, DialogActions, DialogContent, DialogTitle, TextField, Typography } from "@mui/material";
import { useQueryClient } from "@tanstack/react-query";
import { useState, type FormEvent } from "react";
import { v7 as uuid } from "uuid";
import type { Problem, Schemas } from "../../api/client";
import { useSend } from "../../offline/mending";
import { type RefusedCommand } from "../../offline/store";

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
    help: "As the flora calls them, with commas: wet wood, hedge.",
  },
  { name: "caution", label: "What to mind there", required: false, help: "Tides, bog, rockfall, livestock." },
] as const;

type Field = (typeof fields)[number]["name"];

interface Props {
  /** The refused place that it is opened with, and what was typed then. */
  mend?: RefusedCommand;
  start?: Schemas["CommandSavePlaceCommand"];
  onClose: (placeId?: string) => void;
}

/** Adds a recording place; ends with its id, or without one when it is put off. */
export function PlaceDialog({ mend, start, onClose }: Props) {
  const client = useQueryClient();
  const send = useSend(mend?.id);
  const [values, setValues] = useState<Record<Field, string>>({
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
  const [errors, setErrors] = useState<Partial<Record<Field, string>>>({});
  const [problem, setProblem] = useState<Problem>();

  const submit = async (event: FormEvent) => {
    event.preventDefault();
    event.stopPropagation();
    const found: Partial<Record<Field, string>> = {};
    for (const field of fields) if (field.required && !values[field.name].trim()) found[field.name] = "Fill this in.";
    const number = (name: Field) => {
      const value = Number(values[name].trim().replace(",", "."));
      if (!found[name] && !Number.isFinite(value)) found[name] = "This isn’t a number.";
      return value;
    };
    const place: Schemas["Place"] = {
      id: start?.placeId ?? uuid(),
      name: values.name.trim(),
      locality: values.locality.trim(),
      latitude: number("latitude"),
      longitude: number("longitude"),
      uncertaintyMetres: number("uncertaintyMetres"),
      caution: values.caution.trim(),
      cell: values.cell.trim().toUpperCase(),
      elevationMetres: values.elevationMetres.trim() ? number("elevationMetres") : null,
      habitats: values.habitats
        .split(/[,;|]/)
        .map((it) => it.trim().toLowerCase())
        .filter(Boolean),
    };
    setErrors(found);
    setProblem(undefined);
    if (Object.keys(found).length > 0) return;
    const { id: placeId, ...rest } = place;
    const sent = await send({ kind: "savePlace", id: uuid(), placeId, ...rest }, { creates: [placeId] });
    if (sent.kind === "refused") {
      const field = fields.find((f) => f.name === sent.problem.field);
      if (field) setErrors({ [field.name]: `${sent.problem.title} ${sent.problem.detail}` });
      else setProblem(sent.problem);
      return;
    }
    // Until the list is fetched again, the new place stands in it from here.
    const places = [...(client.getQueryData<Schemas["Place"][]>(["places"]) ?? []), place];
    client.setQueryData(["places"], places);
    onClose(placeId);
  };

  return (
    <Dialog open onClose={() => onClose()} maxWidth="sm" fullWidth aria-labelledby="new-place">
      <Box component="form" noValidate onSubmit={(event) => void submit(event)}>
        <DialogTitle id="new-place">A new place</DialogTitle>
        <DialogContent>
          {problem && (
            <Typography role="alert" color="error">
              ✕ {problem.title} {problem.detail}
            </Typography>
          )}
          <Box sx={{ display: "grid", gap: 2, pt: 1, gridTemplateColumns: { xs: "1fr", sm: "1fr 1fr" } }}>
            {fields.map((field, i) => (
              <TextField
                key={field.name}
                autoFocus={i === 0}
                required={field.required}
                label={field.label}
                name={field.name}
                value={values[field.name]}
                onChange={(event) => setValues({ ...values, [field.name]: event.target.value })}
                error={Boolean(errors[field.name])}
                helperText={errors[field.name] ? `✕ ${errors[field.name]}` : field.help}
              />
            ))}
          </Box>
        </DialogContent>
        <DialogActions sx={{ px: 3, pb: 2 }}>
          <Button onClick={() => onClose()}>Cancel</Button>
          <Button type="submit" variant="contained">
            Add the place
          </Button>
        </DialogActions>
      </Box>
    </Dialog>
  );
}
