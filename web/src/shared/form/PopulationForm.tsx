import { Autocomplete } from "./Autocomplete";
import { useBenchFlora } from "../botany/useBenchFlora";
import { Box, Button, TextField, Typography } from "@mui/material";
import { v7 as uuid } from "uuid";
import { useFields } from "./useFields";
import { useAllTaxa } from "../../offline/taxa";
import type { Schemas } from "../../api/client";
import { useSend } from "../../offline/mending";
import type { Command } from "../../offline/store";

/** A new population: a patch of one taxon with its bounds. */
export function PopulationForm(props: {
  placeId: string;
  /** What was typed when it was refused. */
  start?: Schemas["CommandSavePopulationCommand"];
  mends?: string;
  onDone: (id?: string) => void;
}) {
  const { placeId, start, mends, onDone } = props;
  const send = useSend(mends);
  const { asked } = useBenchFlora(undefined);
  const taxa = useAllTaxa(asked);
  const { values, field, set, refuse, submit, elsewhere } = useFields({
    name: start?.name ?? "",
    taxon: start?.taxon ?? "",
    bounds: start?.bounds ?? "",
  });
  const keep = submit(async (typed) => {
    const id = start?.populationId ?? uuid();
    const command: Command = {
      kind: "savePopulation",
      id: uuid(),
      populationId: id,
      placeId,
      name: typed.name.trim(),
      taxon: typed.taxon.trim(),
      bounds: typed.bounds.trim(),
    };
    const sent = await send(command, { creates: [id] });
    if (sent.kind === "refused") refuse(sent.problem);
    else onDone(id);
  });
  const ofTaxon = field("taxon", { required: "Name the taxon." });
  return (
    <Box
      component="form"
      noValidate
      onSubmit={(event) => void keep(event)}
      sx={{ display: "grid", gap: 2, maxWidth: 620 }}
    >
      <TextField label="What it is called" {...field("name", { required: "Write what the population is called." })} />
      <Autocomplete
        freeSolo
        options={taxa.map((t) => t.name)}
        inputValue={values.taxon}
        onInputChange={(_, taxon) => set({ taxon })}
        renderInput={(params) => (
          <TextField
            {...params}
            required
            label="Taxon"
            inputRef={ofTaxon.inputRef}
            error={ofTaxon.error}
            helperText={ofTaxon.helperText}
          />
        )}
      />
      <TextField label="What is counted, and where it ends" {...field("bounds")} />
      {elsewhere && (
        <Typography role="alert" color="error">
          ✕ {elsewhere}
        </Typography>
      )}
      <Box sx={{ display: "flex", gap: 1.5 }}>
        <Button type="submit" variant="contained">
          Keep the population
        </Button>
        <Button onClick={() => onDone()}>Cancel</Button>
      </Box>
    </Box>
  );
}
