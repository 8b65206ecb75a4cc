import { Box, Button, Checkbox, FormControlLabel, MenuItem, TextField, Typography } from "@mui/material";
import { useState, type FormEvent } from "react";
import type { Schemas } from "../../api/client";
import words from "../../api/words";
import { useProblem } from "../../shared/form/useProblem";
import { useSend } from "../../offline/mending";
import { Choice } from "../../shared/form/Choice";
import { PositionText } from "../../shared/form/PositionText";
import { lineCommand } from "./useVisitCommands";

type Details = Schemas["LineDetails"];

interface Props {
  visit: Schemas["SiteVisit"];
  recorder: Schemas["PersonReference"];
  /** What stands there now. */
  from: {
    taxon: string;
    unnamed: string;
    plantId: string | null;
    compartment: string;
    details: Details;
    site: Schemas["PlantSite"] | null;
  };
  /** The line that it takes the place of; nothing for a new one. */
  supersedes?: string;
  /** The refused command that it is opened with. */
  mends?: string;
  onDone: () => void;
}

const entries = <K extends string>(all: Record<K, string>) => Object.entries(all) as [K, string][];

const units = [
  ["individuals", "individuals"],
  ["shoots", "shoots"],
  ["stems", "stems"],
] as const;

/** Everything that can be noted of a line besides its name. */
export function LineForm({ visit, recorder, from, supersedes, mends, onDone }: Props) {
  const send = useSend(mends);
  const [taxon, setTaxon] = useState(from.taxon);
  const [compartment, setCompartment] = useState(from.compartment);
  const [site, setSite] = useState(from.site);
  const [details, setDetails] = useState<Details>(from.details);
  const [count, setCount] = useState(from.details.count?.toString() ?? "");
  const [associates, setAssociates] = useState(from.details.associates?.join(", ") ?? "");
  const { at, elsewhere, miss, setProblem } = useProblem(["taxon", "compartment", "details"]);
  const set = (part: Partial<Details>) => setDetails((before) => ({ ...before, ...part }));
  const submit = async (event: FormEvent) => {
    event.preventDefault();
    const number = count.trim() ? Number(count) : null;
    if (number !== null && !Number.isInteger(number)) return miss("details", "A count is a whole number.");
    if (!taxon.trim() && !from.unnamed) return miss("taxon", "Write a name.");
    const sent = await send(
      lineCommand(visit, recorder, {
        taxon: taxon.trim(),
        unnamed: from.unnamed,
        plantId: from.plantId ?? undefined,
        compartment: compartment.trim(),
        supersedes,
        site,
        details: {
          ...details,
          count: number,
          unit: number === null ? null : (details.unit ?? "individuals"),
          isLocal: details.abundance ? (details.isLocal ?? false) : false,
          associates: associates
            .split(",")
            .map((it) => it.trim())
            .filter(Boolean),
        },
      }),
    );
    if (sent.kind === "refused") return setProblem(sent.problem);
    onDone();
  };
  return (
    <Box component="form" noValidate onSubmit={(event) => void submit(event)} sx={{ display: "grid", gap: 1.5, py: 1 }}>
      <Box sx={{ display: "flex", flexWrap: "wrap", gap: 1.5 }}>
        {!from.plantId && (
          <TextField
            required
            label="Name"
            value={taxon}
            onChange={(event) => setTaxon(event.target.value)}
            sx={{ flex: "1 1 14rem" }}
            {...at("taxon")}
          />
        )}
        <TextField
          label="Part of the place"
          value={compartment}
          onChange={(event) => setCompartment(event.target.value)}
          sx={{ flex: "1 1 10rem" }}
          {...at("compartment")}
        />
      </Box>
      <PositionText
        label={
          from.site
            ? `Where, if not ${from.site.latitude}, ${from.site.longitude} (± ${from.site.uncertaintyMetres} m)`
            : "Where, as it is written"
        }
        onTake={(it) => setSite(it ?? from.site)}
      />
      <Box sx={{ display: "flex", flexWrap: "wrap", gap: 1, alignItems: "center" }}>
        <Choice
          label="Abundance"
          choices={entries(words.abundances)}
          value={details.abundance ?? undefined}
          canBeNone
          onChoose={(abundance) => set({ abundance: abundance ?? null })}
        />
        <FormControlLabel
          control={<Checkbox checked={details.isLocal ?? false} onChange={(_, on) => set({ isLocal: on })} />}
          label="locally"
          disabled={!details.abundance}
        />
      </Box>
      <Choice
        label="Grows"
        choices={entries(words.growths)}
        value={details.growth ?? undefined}
        canBeNone
        onChoose={(growth) => set({ growth: growth ?? null })}
      />
      <Box sx={{ display: "grid", gap: 1.5, gridTemplateColumns: { xs: "1fr 1fr", sm: "7rem 9rem 1fr 1fr" } }}>
        <TextField
          label="Count"
          value={count}
          onChange={(event) => setCount(event.target.value)}
          slotProps={{ htmlInput: { inputMode: "numeric" } }}
          {...at("details")}
        />
        <TextField
          select
          label="of"
          value={details.unit ?? "individuals"}
          onChange={(event) => set({ unit: event.target.value as Schemas["CountUnit"] })}
        >
          {units.map(([id, name]) => (
            <MenuItem key={id} value={id}>
              {name}
            </MenuItem>
          ))}
        </TextField>
        <TextField
          select
          label="Doing"
          value={details.phase ?? ""}
          onChange={(event) => set({ phase: (event.target.value || null) as Schemas["Phenophase"] | null })}
        >
          <MenuItem value="">not said</MenuItem>
          {entries(words.doing).map(([id, name]) => (
            <MenuItem key={id} value={id}>
              {name}
            </MenuItem>
          ))}
        </TextField>
        <TextField
          select
          label="Sex"
          value={details.sex === "unsaid" ? "" : (details.sex ?? "")}
          onChange={(event) => set({ sex: (event.target.value || "unsaid") as Schemas["PartSex"] })}
        >
          <MenuItem value="">not said</MenuItem>
          {entries(words.sexes).map(([id, name]) => (
            <MenuItem key={id} value={id}>
              {name}
            </MenuItem>
          ))}
        </TextField>
      </Box>
      {details.growth && details.growth !== "wild" && (
        <TextField
          label="Why is that thought? (in rows, a garden beside it …)"
          value={details.growthReason ?? ""}
          onChange={(event) => set({ growthReason: event.target.value })}
        />
      )}
      <TextField
        label="Grows with (names, with commas)"
        value={associates}
        onChange={(event) => setAssociates(event.target.value)}
      />
      <TextField
        label="Note"
        multiline
        value={details.note ?? ""}
        onChange={(event) => set({ note: event.target.value })}
      />
      <TextField
        label="Named by, if not by who found it"
        value={details.determiner ?? ""}
        onChange={(event) => set({ determiner: event.target.value })}
      />
      {elsewhere && (
        <Typography role="alert" color="error">
          {elsewhere}
        </Typography>
      )}
      <Box sx={{ display: "flex", gap: 1.5 }}>
        <Button type="submit" variant="contained" sx={{ minHeight: 48 }}>
          Keep it
        </Button>
        <Button onClick={onDone}>Leave it as it was</Button>
      </Box>
    </Box>
  );
}
