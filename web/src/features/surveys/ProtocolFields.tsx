import { MenuItem, TextField, Typography } from "@mui/material";
import type { ReactNode } from "react";
import type { Schemas } from "../../api/client";
import words from "../../api/words";
import { isNumber, numberOf } from "../../shared/form/useFields";

type Protocol = Schemas["SurveyProtocol"];

/** A protocol as it is typed. */
export interface TypedProtocol {
  kind: Protocol["kind"];
  shape: Protocol["shape"];
  squareMetres: string;
  nestSizes: string;
  pins: string;
  scale: Protocol["scale"];
  rooting: Protocol["rooting"];
  edge: Protocol["edge"];
  layers: string;
  seasonFrom: string;
  seasonTo: string;
  leastMinutes: string;
  twiceOneIn: string;
  agreed: string;
}

const asText = (value: number | undefined) => (value ? String(value) : "");

export const typedOf = (it: Protocol | undefined): TypedProtocol => ({
  kind: it?.kind ?? "quadrat",
  shape: it?.shape ?? "square",
  squareMetres: it ? asText(it.squareMetres) : "4",
  nestSizes: it?.nestSizes?.join(", ") ?? "",
  pins: asText(it?.pins),
  scale: it?.scale ?? "percent",
  rooting: it?.rooting ?? "rooted",
  edge: it?.edge ?? "twoSides",
  layers: it?.layers.join(", ") ?? "",
  seasonFrom: it?.seasonFrom ?? "",
  seasonTo: it?.seasonTo ?? "",
  leastMinutes: asText(it?.leastMinutes),
  twiceOneIn: it ? asText(it.twiceOneIn) : "10",
  agreed: it?.note ?? "",
});

export const protocolOf = (it: TypedProtocol): Protocol => ({
  kind: it.kind,
  shape: it.kind === "pointTransect" ? "line" : it.shape,
  squareMetres: it.kind === "pointTransect" ? 0 : (numberOf(it.squareMetres) ?? 0),
  pins: numberOf(it.pins) ?? 0,
  scale: it.scale,
  rooting: it.rooting,
  edge: it.edge,
  layers: it.layers
    .split(",")
    .map((layer) => layer.trim())
    .filter(Boolean),
  seasonFrom: it.seasonFrom.trim(),
  seasonTo: it.seasonTo.trim(),
  leastMinutes: numberOf(it.leastMinutes) ?? 0,
  twiceOneIn: numberOf(it.twiceOneIn) ?? 0,
  note: it.agreed.trim(),
  nestSizes: it.kind === "nestedQuadrat" && it.nestSizes.trim() ? sizesOf(it.nestSizes) : null,
});

const sizesOf = (text: string) => text.split(/[,;]/).map((size) => numberOf(size.trim()) ?? 0);

interface Props {
  values: TypedProtocol;
  field: (
    name: keyof TypedProtocol,
    rules?: { check?: (text: string) => string | undefined; help?: ReactNode },
  ) => object;
  set: (part: Partial<TypedProtocol>) => void;
  /** Whether there is a protocol already: then a change is a new version of it. */
  isChange: boolean;
}

const number = { check: isNumber("Write a number.") };

/** How plots are laid and recorded: what a report has to say of them. */
export function ProtocolFields({ values, field, set, isChange }: Props) {
  const choice = <N extends "kind" | "shape" | "scale" | "rooting" | "edge">(
    name: N,
    label: string,
    offered: Record<string, string>,
  ) => (
    <TextField
      select
      label={label}
      value={values[name]}
      onChange={(event) => set({ [name]: event.target.value } as Partial<TypedProtocol>)}
      sx={{ gridColumn: { xs: "1 / -1", sm: "span 2" } }}
    >
      {Object.entries(offered).map(([value, says]) => (
        <MenuItem key={value} value={value}>
          {says}
        </MenuItem>
      ))}
    </TextField>
  );
  const outlines = Object.fromEntries(Object.entries(words.plotShapes).filter(([shape]) => shape !== "line"));
  const isLine = values.kind === "pointTransect";
  return (
    <>
      {isChange && (
        <Typography variant="body2" sx={{ gridColumn: "1 / -1" }}>
          What is changed here is a new version of the protocol: each recording says by which one it was made.
        </Typography>
      )}
      {choice("kind", "Plots are", words.plotKinds)}
      {!isLine && choice("shape", "Outline", outlines)}
      {!isLine && <TextField label="Size in m²" {...field("squareMetres", number)} inputMode="decimal" />}
      {values.kind === "nestedQuadrat" && (
        <TextField
          label="Sizes of its squares in m², the smallest first"
          placeholder="0.25, 1, 4"
          {...field("nestSizes", { help: "The last is the plot’s own size." })}
          sx={{ gridColumn: { xs: "1 / -1", sm: "span 2" } }}
        />
      )}
      {(isLine || values.scale === "hits") && <TextField label="Pins or cells" {...field("pins", number)} />}
      {choice("scale", "Of each taxon is noted", words.plotScales)}
      {choice("rooting", "A plant is within", words.rootingRules)}
      {choice("edge", "Plants on the edge", words.edgeRules)}
      <TextField
        label="Layers, with commas, from above"
        {...field("layers", { help: "None: all as one." })}
        sx={{ gridColumn: { xs: "1 / -1", sm: "span 2" } }}
      />
      <TextField label="Season from (MM-DD)" {...field("seasonFrom")} placeholder="05-20" />
      <TextField label="Season to (MM-DD)" {...field("seasonTo")} placeholder="07-31" />
      <TextField label="Least minutes at a plot" {...field("leastMinutes", number)} />
      <TextField
        label="Recorded twice: one in"
        {...field("twiceOneIn", { ...number, help: "By somebody who hasn’t seen the first." })}
      />
      <TextField label="What else is agreed" multiline {...field("agreed")} sx={{ gridColumn: "1 / -1" }} />
    </>
  );
}
