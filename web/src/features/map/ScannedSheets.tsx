import { Box, Button, Checkbox, FormControlLabel, Link } from "@mui/material";
import { useQuery, useQueryClient } from "@tanstack/react-query";
import { useMemo, useState } from "react";
import { answerOf, api } from "../../api/client";
import { later } from "../../shared/ui/later";
import { QuietButton } from "../../shared/ui/QuietButton";

const BringSheet = later(async () => (await import("./BringSheet")).BringSheet);

const LIST = ["map-sheets"];
const SHOWN = "garten.map-sheets";

const shownBefore = () => (localStorage.getItem(SHOWN) ?? "").split(" ").filter(Boolean);

/** Scanned maps, and which of them lie under the drawn one on this device. */
export function useScannedSheets() {
  const all = useQuery({
    queryKey: LIST,
    queryFn: () => answerOf((signal) => api.GET("/api/v1/map/sheets", { signal })),
    retry: false,
  }).data;
  const [shown, setShown] = useState(shownBefore);
  const onMap = useMemo(() => (all ?? []).filter((it) => shown.includes(it.id)), [all, shown]);
  return {
    all: all ?? [],
    shown: onMap,
    show: (id: string, isOn: boolean) => {
      const next = isOn ? [...shown, id] : shown.filter((it) => it !== id);
      localStorage.setItem(SHOWN, next.join(" "));
      setShown(next);
    },
  };
}

/** Lays scanned maps under the drawn one, and brings them. */
export function ScannedSheets({ sheets }: { sheets: ReturnType<typeof useScannedSheets> }) {
  const client = useQueryClient();
  const [isOpen, setOpen] = useState(false);
  const take = async (id: string) => {
    await answerOf((signal) => api.DELETE("/api/v1/map/sheets/{id}", { params: { path: { id } }, signal })).catch(
      () => undefined,
    );
    await client.invalidateQueries({ queryKey: LIST });
  };
  return (
    <Box component="details" sx={{ mt: 1 }}>
      <Box component="summary" sx={{ py: 1, cursor: "pointer" }}>
        Scanned sheets under the map{sheets.shown.length > 0 && `: ${sheets.shown.length} shown`}
      </Box>
      {sheets.all.map((it) => (
        <Box key={it.id} sx={{ display: "flex", flexWrap: "wrap", alignItems: "center" }}>
          <FormControlLabel
            control={
              <Checkbox
                checked={sheets.shown.some((one) => one.id === it.id)}
                onChange={(_, on) => sheets.show(it.id, on)}
              />
            }
            label={it.name}
          />
          <Link href={`/api/v1/map/sheets/${it.id}`} download sx={{ mx: 1 }}>
            the picture
          </Link>
          <QuietButton name={`Take away ${it.name}`} onClick={() => void take(it.id)}>
            Take away
          </QuietButton>
        </Box>
      ))}
      {isOpen ? (
        <BringSheet
          onDone={(id) => {
            setOpen(false);
            if (id) sheets.show(id, true);
            void client.invalidateQueries({ queryKey: LIST });
          }}
        />
      ) : (
        <Button onClick={() => setOpen(true)}>Bring a scanned sheet</Button>
      )}
    </Box>
  );
}
