import { Box, Button, Checkbox, FormControlLabel, MenuItem, TextField, Typography } from "@mui/material";
import { useMutation } from "@tanstack/react-query";
import { useState } from "react";
import { v7 as uuid } from "uuid";
import type { Schemas } from "../../api/client";
import words from "../../api/words";
import { core } from "../../core/coreClient";
import { useGrounds } from "../../offline/grounds";
import { send } from "../../offline/outbox";
import { numberOf } from "../../shared/form/useFields";

type Placing = Schemas["PlotPlacing"];

// A receiver of positions brings one this near to a spot.
const NEAR_METRES = 5;

const freshSeed = () => crypto.getRandomValues(new Uint16Array(1))[0] ?? 1;

/** Spots for plots by chance: the same again for the same seed. */
export function PlotLaying({
  whole,
  onDone,
  onCancel,
}: {
  whole: Schemas["SurveyWhole"];
  onDone: () => void;
  onCancel: () => void;
}) {
  const { survey, plots } = whole;
  const grounds = useGrounds().data;
  const [typed, setTyped] = useState(() => ({
    placeId: survey.places[0]?.id ?? "",
    placing: "random" as Placing,
    count: "10",
    apart: "10",
    seed: String(freshSeed()),
    prefix: "P",
    isPermanent: false,
  }));
  const change = (part: Partial<typeof typed>) => setTyped((before) => ({ ...before, ...part }));
  const ground = grounds?.find((it) => it.placeId === typed.placeId)?.ground;
  const lay = useMutation({
    mutationFn: async () => {
      const seed = numberOf(typed.seed) ?? 0;
      const spots = await core.layPlots({
        ground: ground ?? { outline: [], parts: [], entrances: [], hazards: [], leave: null },
        placing: typed.placing,
        count: numberOf(typed.count) ?? 0,
        apartMetres: numberOf(typed.apart) ?? 0,
        seed,
      });
      const taken = new Set(plots.map((it) => it.label));
      let last = 0;
      const next = () => {
        do last++;
        while (taken.has(`${typed.prefix}${last}`));
        return `${typed.prefix}${last}`;
      };
      for (const { at, part } of spots) {
        const sent = await send({
          kind: "savePlot",
          id: uuid(),
          plotId: uuid(),
          surveyId: survey.id,
          placeId: typed.placeId,
          label: next(),
          isPermanent: typed.isPermanent,
          placing: typed.placing,
          seed,
          site: { ...at, uncertaintyMetres: NEAR_METRES },
          part,
          group: typed.placing === "stratified" ? part : "",
          squareMetres: null,
          finding: null,
          version: null,
        });
        if (sent.kind === "refused") throw new Error(`${sent.problem.title} ${sent.problem.detail}`);
      }
    },
    onSuccess: onDone,
  });
  return (
    <Box
      component="form"
      noValidate
      onSubmit={(event) => {
        event.preventDefault();
        lay.mutate();
      }}
      sx={{
        display: "grid",
        gap: 2,
        gridTemplateColumns: { xs: "1fr 1fr", sm: "repeat(4, 1fr)" },
        maxWidth: 880,
        mb: 2,
      }}
    >
      <TextField
        select
        label="Place"
        value={typed.placeId}
        onChange={(event) => change({ placeId: event.target.value })}
      >
        {survey.places.map((it) => (
          <MenuItem key={it.id} value={it.id}>
            {it.name}
          </MenuItem>
        ))}
      </TextField>
      <TextField
        select
        label="How"
        value={typed.placing}
        onChange={(event) => change({ placing: event.target.value as Placing })}
      >
        {Object.entries(words.plotPlacings)
          .filter(([placing]) => placing !== "chosen")
          .map(([placing, says]) => (
            <MenuItem key={placing} value={placing}>
              {says}
            </MenuItem>
          ))}
      </TextField>
      <TextField label="How many" value={typed.count} onChange={(event) => change({ count: event.target.value })} />
      <TextField
        label="Apart at least, m"
        value={typed.apart}
        onChange={(event) => change({ apart: event.target.value })}
      />
      <TextField
        label="Seed"
        value={typed.seed}
        onChange={(event) => change({ seed: event.target.value })}
        helperText="Kept with each plot."
      />
      <TextField
        label="Labels begin with"
        value={typed.prefix}
        onChange={(event) => change({ prefix: event.target.value })}
      />
      <FormControlLabel
        label="Permanent"
        control={<Checkbox checked={typed.isPermanent} onChange={(_, isOn) => change({ isPermanent: isOn })} />}
      />
      {lay.isError && (
        <Typography role="alert" color="error" sx={{ gridColumn: "1 / -1" }}>
          ✕ {lay.error.message}
        </Typography>
      )}
      <Typography variant="body2" sx={{ gridColumn: "1 / -1" }}>
        Throwing isn’t chance, and neither is what looks typical: who goes to a spot lays the plot there, whatever
        grows.
      </Typography>
      <Box sx={{ display: "flex", gap: 1.5, gridColumn: "1 / -1" }}>
        <Button type="submit" variant="contained" disabled={lay.isPending} sx={{ minHeight: 48 }}>
          Lay them
        </Button>
        <Button onClick={onCancel}>Leave it</Button>
      </Box>
    </Box>
  );
}
