import { useBenchFlora } from "../botany/useBenchFlora";
import { Autocomplete, Box, Button, TextField, Typography } from "@mui/material";
import { useState, type FormEvent } from "react";
import { v7 as uuid } from "uuid";
import { useProblem } from "./useProblem";
import { useAllTaxa } from "../../offline/flora";
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
  const { flora, version } = useBenchFlora(undefined);
  const taxa = useAllTaxa(flora?.id, version);
  const [name, setName] = useState(start?.name ?? "");
  const [taxon, setTaxon] = useState(start?.taxon ?? "");
  const [bounds, setBounds] = useState(start?.bounds ?? "");
  const { at, elsewhere, miss, setProblem } = useProblem(["name", "taxon", "bounds"]);
  const submit = async (event: FormEvent) => {
    event.preventDefault();
    if (!name.trim()) return miss("name", "Write what the population is called.");
    if (!taxon.trim()) return miss("taxon", "Name the taxon.");
    const id = start?.populationId ?? uuid();
    const command: Command = {
      kind: "savePopulation",
      id: uuid(),
      populationId: id,
      placeId,
      name: name.trim(),
      taxon: taxon.trim(),
      bounds: bounds.trim(),
    };
    const sent = await send(command, { creates: [id] });
    if (sent.kind === "refused") setProblem(sent.problem);
    else onDone(id);
  };
  return (
    <Box
      component="form"
      noValidate
      onSubmit={(event) => void submit(event)}
      sx={{ display: "grid", gap: 2, maxWidth: 620 }}
    >
      <TextField
        required
        label="What it is called"
        value={name}
        onChange={(e) => setName(e.target.value)}
        {...at("name")}
      />
      <Autocomplete
        freeSolo
        options={taxa.map((t) => t.name)}
        inputValue={taxon}
        onInputChange={(_, value) => setTaxon(value)}
        renderInput={(params) => <TextField {...params} required label="Taxon" {...at("taxon")} />}
      />
      <TextField
        label="What is counted, and where it ends"
        value={bounds}
        onChange={(e) => setBounds(e.target.value)}
        {...at("bounds")}
      />
      {elsewhere && (
        <Typography role="alert" color="error">
          {elsewhere}
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
