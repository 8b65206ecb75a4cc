import { Box, Button, MenuItem } from "@mui/material";
import { TextField } from "../../shared/form/TextField";
import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import type { Schemas } from "../../api/client";
import words from "../../api/words";
import { core } from "../../core/coreClient";
import { useGrounds } from "../../offline/grounds";

const NONE: Schemas["Compartment"][] = [];
const sideOf = (placeId: string) => Number(localStorage.getItem(`garten.squares:${placeId}`) ?? 0);

/** The parts of a place, or the squares that it is walked by on this device. */
export function useCompartments(place: Schemas["Place"]) {
  const [side, setSide] = useState(() => sideOf(place.id));
  const ground = useGrounds().data?.find((it) => it.placeId === place.id);
  const { data, isError } = useQuery({
    queryKey: ["compartments", place.id, side, ground?.version],
    queryFn: () =>
      core.compartments({
        place: { latitude: place.latitude, longitude: place.longitude },
        placeMetres: place.uncertaintyMetres,
        ground: ground?.ground ?? null,
        sideMetres: side || null,
      }),
    retry: false,
  });
  const all = data ?? NONE;
  return {
    all,
    side,
    isTooMany: isError && side > 0,
    setSide: (next: number) => {
      localStorage.setItem(`garten.squares:${place.id}`, String(next));
      setSide(next);
    },
    /** The circle that holds a compartment; nothing where it isn’t drawn. */
    siteOf: (name: string): Schemas["PlantSite"] | undefined => {
      const it = all.find((one) => one.name === name);
      return it && { latitude: it.latitude, longitude: it.longitude, uncertaintyMetres: it.uncertaintyMetres };
    },
  };
}

interface Props {
  compartments: ReturnType<typeof useCompartments>;
  value: string;
  onChange: (name: string) => void;
  /** Those that lines name already. */
  used: string[];
}

/** Which part or square the lines that follow are of; one tap goes to the next. */
export function Compartments({ compartments, value, onChange, used }: Props) {
  const { all, side, setSide, isTooMany } = compartments;
  const at = all.findIndex((it) => it.name === value);
  const next = all[at + 1];
  // Of many squares only those that were begun are offered by name.
  const offered = [...new Set([...used, ...(side ? [] : all.map((it) => it.name))])];
  return (
    <Box sx={{ flex: "1 1 100%" }}>
      <Box sx={{ display: "flex", flexWrap: "wrap", gap: 1, alignItems: "flex-start" }}>
        <TextField
          size="small"
          label="Part of the place"
          value={value}
          onChange={(event) => onChange(event.target.value)}
          helperText={
            isTooMany
              ? "These would be too many squares: take larger ones."
              : at >= 0
                ? `Lines are of this ${side ? "square" : "part"}: its circle of ± ${all[at]?.uncertaintyMetres} m.`
                : "Square, ride, bank: it holds for the lines that follow."
          }
          error={isTooMany}
          sx={{ width: { xs: "100%", sm: 240 } }}
        />
        <TextField
          select
          size="small"
          label="By"
          value={String(side || "")}
          onChange={(event) => setSide(Number(event.target.value))}
          slotProps={{ inputLabel: { shrink: true }, select: { displayEmpty: true } }}
          sx={{ width: 172 }}
        >
          <MenuItem value="">its parts</MenuItem>
          {words.squareSides.map((it) => (
            <MenuItem key={it} value={String(it)}>
              squares, {it} m
            </MenuItem>
          ))}
        </TextField>
        {next && (
          <Button onClick={() => onChange(next.name)} sx={{ minHeight: 44 }}>
            {at < 0 ? "Begin at" : "Next:"} {next.name}
          </Button>
        )}
      </Box>
      {offered.length > 0 && (
        <Box sx={{ display: "flex", flexWrap: "wrap", gap: 0.75, mt: 0.5 }}>
          {offered.map((it) => (
            <Button key={it} aria-pressed={it === value} onClick={() => onChange(it === value ? "" : it)}>
              {it === value ? `✓ ${it}` : it}
            </Button>
          ))}
        </Box>
      )}
    </Box>
  );
}
