import { TextField } from "@mui/material";
import { useQuery } from "@tanstack/react-query";
import { useEffect, useRef, useState } from "react";
import type { Schemas } from "../../api/client";
import { core } from "../../core/coreClient";
import { useFlora } from "../botany/queries";

interface Props {
  label: string;
  /** The position that stands there now, with how certain it is; nothing while it is none. */
  onTake: (site: Schemas["PlantSite"] | undefined) => void;
}

/** A position as it is written: a reference of the flora’s grid, as fine as one has it, or latitude and longitude. */
export function PositionText({ label, onTake }: Props) {
  const { flora } = useFlora(undefined);
  const [text, setText] = useState("");
  const { data } = useQuery({
    enabled: text.trim() !== "",
    queryKey: ["position-text", text, flora?.id],
    staleTime: Infinity,
    queryFn: () => core.positionText({ text, grid: flora?.grid ?? null }),
  });
  const told = text.trim() ? data : undefined;
  const take = useRef(onTake);
  useEffect(() => {
    take.current = onTake;
  });
  // What stands in the field counts, also where it was read before; while nothing does, none of what stood there before.
  const site = told?.site ?? undefined;
  useEffect(() => take.current(site), [site]);
  return (
    <TextField
      label={label}
      value={text}
      onChange={(event) => setText(event.target.value)}
      error={Boolean(told?.wrong)}
      helperText={
        told?.wrong
          ? `✕ ${told.wrong}`
          : (told?.says ?? (flora?.grid ? "A square (B2, B2 34 71), or latitude, longitude" : "Latitude, longitude"))
      }
    />
  );
}
