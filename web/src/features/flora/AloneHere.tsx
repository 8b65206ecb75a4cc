import { useBenchFlora } from "../../shared/botany/useBenchFlora";

import { useHere } from "../../shared/place/here";
import { Box, MenuItem, Typography } from "@mui/material";
import { TextField } from "../../shared/form/TextField";
import { useMemo, useState } from "react";
import type { Schemas } from "../../api/client";
import { Part } from "../../shared/ui/Page";

import { useAskedEither } from "../../offline/hosts";
import { usePlaces } from "../../offline/documents";

import { StateFigure } from "../../plates/drawn";

import { siftPlace } from "../../plant-in-hand/sift/useSift";

/** States by which it is known at once: in the whole flora, and on the list of the place last recorded at. */
export function AloneHere({ flora, taxon }: { flora: string; taxon: string }) {
  const { flora: held, version, host, characters } = useBenchFlora(flora);
  const places = usePlaces().data ?? NO_PLACES;
  const here = useHere();
  const [placeId, setPlaceId] = useState(here.placeId);
  const place = places.find((p) => p.id === placeId);
  const question = useMemo(
    (): Schemas["GiveawayRequest"] | undefined =>
      held && version
        ? { floraId: held.id, at: siftPlace(place), narrowing: place ? { recordedHere: true } : null }
        : undefined,
    [held, version, place],
  );
  const { answer, of } = useAskedEither("giveaways", question, host);
  if (!answer) return null;
  const isCurrent = of === question;
  const own = answer.giveaways.filter((it) => it.taxon === taxon);
  return (
    <Part id="alone" title="Alone in">
      <TextField
        select
        size="small"
        label="List of"
        value={place?.id ?? ""}
        onChange={(event) => setPlaceId(event.target.value)}
        slotProps={{ select: { displayEmpty: true }, inputLabel: { shrink: true } }}
        sx={{ mb: 1 }}
      >
        <MenuItem value="">the whole flora</MenuItem>
        {places.map((it) => (
          <MenuItem key={it.id} value={it.id}>
            {it.name}
          </MenuItem>
        ))}
      </TextField>
      {!isCurrent ? (
        <Typography variant="body2">Looking through the list …</Typography>
      ) : own.length === 0 ? (
        <Typography variant="body2">
          Nothing that no other of {answer.listed} taxa shows; it wants a comparison.
        </Typography>
      ) : (
        own.map((it) => {
          const character = characters.find((c) => c.id === it.character);
          return (
            <Box key={it.character + it.state} sx={{ display: "flex", gap: 1, alignItems: "center" }}>
              {character && <StateFigure character={character} state={it.state} size={40} />}
              <Typography variant="body2">
                ◆ {it.text}, alone among {answer.listed}
              </Typography>
            </Box>
          );
        })
      )}
    </Part>
  );
}

const NO_PLACES: Schemas["Place"][] = [];
