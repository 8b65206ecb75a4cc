import { Box, Button, Checkbox, FormControlLabel, MenuItem, TextField, Typography } from "@mui/material";
import { useState } from "react";
import { v7 as uuid } from "uuid";
import type { Schemas } from "../../api/client";
import { useSend } from "../../offline/mending";
import type { Command } from "../../offline/store";
import { isNumber, numberOf, useFields } from "../../shared/form/useFields";

type Save = Extract<Command, { kind?: "savePlot" }>;

interface Props {
  survey: Schemas["Survey"];
  plot?: Schemas["Plot"];
  refused?: { id: string; command: Save };
  onDone: () => void;
  onCancel: () => void;
}

const number = { check: isNumber("Write a number.") };
const asText = (value: number | null | undefined) => (typeof value === "number" ? String(value) : "");

/** A plot: where it lies, how it is found again, what it is compared under. */
export function PlotForm({ survey, plot, refused, onDone, onCancel }: Props) {
  const send = useSend(refused?.id);
  const from = refused?.command ?? plot;
  const finding = from?.finding;
  const { values, field, set, refuse, elsewhere, submit } = useFields(
    {
      label: from?.label ?? "",
      placeId: from?.placeId ?? survey.places[0]?.id ?? "",
      latitude: asText(from?.site?.latitude),
      longitude: asText(from?.site?.longitude),
      uncertainty: from?.site ? asText(from.site.uncertaintyMetres) : "5",
      part: from?.part ?? "",
      group: from?.group ?? "",
      squareMetres: asText(from?.squareMetres),
      firstMark: finding?.marks[0]?.what ?? "",
      firstMetres: asText(finding?.marks[0]?.metres),
      firstBearing: asText(finding?.marks[0]?.bearingDegrees),
      secondMark: finding?.marks[1]?.what ?? "",
      secondMetres: asText(finding?.marks[1]?.metres),
      secondBearing: asText(finding?.marks[1]?.bearingDegrees),
      declination: asText(finding?.declinationDegrees),
      buried: finding?.buried ?? "",
      photograph: finding?.photograph ?? "",
    },
    { site: "latitude", finding: "firstMark" },
  );
  const [isPermanent, setPermanent] = useState(from?.isPermanent ?? false);
  const keep = async (it: typeof values) => {
    const [latitude, longitude] = [numberOf(it.latitude), numberOf(it.longitude)];
    const marks = [
      {
        what: it.firstMark.trim(),
        metres: numberOf(it.firstMetres) ?? 0,
        bearingDegrees: numberOf(it.firstBearing) ?? null,
      },
      {
        what: it.secondMark.trim(),
        metres: numberOf(it.secondMetres) ?? 0,
        bearingDegrees: numberOf(it.secondBearing) ?? null,
      },
    ].filter((mark) => mark.what);
    const sent = await send({
      kind: "savePlot",
      id: uuid(),
      plotId: refused?.command.plotId ?? plot?.id ?? uuid(),
      surveyId: survey.id,
      placeId: it.placeId,
      label: it.label.trim(),
      isPermanent,
      placing: from?.placing ?? "chosen",
      seed: from?.seed ?? null,
      site:
        latitude !== undefined && longitude !== undefined
          ? { latitude, longitude, uncertaintyMetres: numberOf(it.uncertainty) ?? 0 }
          : null,
      part: it.part.trim(),
      group: it.group.trim(),
      squareMetres: numberOf(it.squareMetres) ?? null,
      finding: {
        marks,
        declinationDegrees: numberOf(it.declination) ?? null,
        buried: it.buried.trim(),
        photograph: it.photograph.trim(),
      },
      version: plot?.version ?? null,
    });
    if (sent.kind === "refused") return refuse(sent.problem);
    onDone();
  };
  return (
    <Box
      component="form"
      noValidate
      onSubmit={(event) => void submit(keep)(event)}
      sx={{
        display: "grid",
        gap: 2,
        gridTemplateColumns: { xs: "1fr 1fr", sm: "repeat(4, 1fr)" },
        maxWidth: 880,
        mb: 2,
      }}
    >
      <TextField label="Label" {...field("label", { required: "Give the plot a label." })} />
      <TextField select label="Place" value={values.placeId} onChange={(event) => set({ placeId: event.target.value })}>
        {survey.places.map((it) => (
          <MenuItem key={it.id} value={it.id}>
            {it.name}
          </MenuItem>
        ))}
      </TextField>
      <TextField label="Part of the place" {...field("part")} />
      <TextField label="Compared under" {...field("group", { help: "grazed, mown …" })} />
      <TextField label="Latitude" {...field("latitude", number)} />
      <TextField label="Longitude" {...field("longitude", number)} />
      <TextField label="± metres" {...field("uncertainty", number)} />
      <TextField label="Size in m², if another" {...field("squareMetres", number)} />
      <FormControlLabel
        label="Permanent: it is found and recorded again"
        sx={{ gridColumn: "1 / -1" }}
        control={<Checkbox checked={isPermanent} onChange={(_, isOn) => setPermanent(isOn)} />}
      />
      {isPermanent && (
        <>
          <TextField label="First mark" {...field("firstMark")} sx={{ gridColumn: { sm: "span 2" } }} />
          <TextField label="Metres from it" {...field("firstMetres", number)} />
          <TextField label="Bearing, °" {...field("firstBearing", number)} />
          <TextField label="Second mark" {...field("secondMark")} sx={{ gridColumn: { sm: "span 2" } }} />
          <TextField label="Metres from it" {...field("secondMetres", number)} />
          <TextField label="Bearing, °" {...field("secondBearing", number)} />
          <TextField label="Declination, ° east" {...field("declination", number)} />
          <TextField
            label="Buried, where permitted"
            {...field("buried", { help: "No metal where it is mown." })}
            sx={{ gridColumn: { sm: "span 3" } }}
          />
          <TextField label="Photographed from" {...field("photograph")} sx={{ gridColumn: "1 / -1" }} />
        </>
      )}
      {elsewhere && (
        <Typography role="alert" color="error" sx={{ gridColumn: "1 / -1" }}>
          ✕ {elsewhere}
        </Typography>
      )}
      <Box sx={{ display: "flex", gap: 1.5, gridColumn: "1 / -1" }}>
        <Button type="submit" variant="contained" sx={{ minHeight: 48 }}>
          Keep the plot
        </Button>
        <Button onClick={onCancel}>Leave it</Button>
      </Box>
    </Box>
  );
}
