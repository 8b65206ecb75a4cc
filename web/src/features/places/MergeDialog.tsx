import { Box, Button, Dialog, DialogActions, DialogContent, DialogTitle, Typography } from "@mui/material";
import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { useNavigate } from "react-router";
import { v7 as uuid } from "uuid";
import { answerOf, api, type Schemas } from "../../api/client";
import { useSend } from "../../offline/mending";
import { Autocomplete } from "../../shared/form/Autocomplete";
import { TextField } from "../../shared/form/TextField";

/** Makes a place a part of another one, once it has been said what that does. */
export function MergeDialog(props: { place: Schemas["Place"]; others: Schemas["Place"][]; onClose: () => void }) {
  const { place, others, onClose } = props;
  const navigate = useNavigate();
  const send = useSend();
  const [into, setInto] = useState<Schemas["Place"] | null>(null);
  const [failure, setFailure] = useState("");
  const outlook = useQuery({
    queryKey: ["merging", place.id, into?.id],
    enabled: into !== null,
    queryFn: ({ signal }) =>
      answerOf(() =>
        api.GET("/api/v1/places/{id}/merging", {
          params: { path: { id: place.id }, query: { into: into?.id ?? "" } },
          signal,
        }),
      ),
  });
  const merge = async () => {
    if (!into) return;
    const { id: placeId, version } = place;
    const sent = await send({ kind: "mergePlace", id: uuid(), placeId, intoId: into.id, version });
    if (sent.kind === "refused") return setFailure(`${sent.problem.title} ${sent.problem.detail}`);
    onClose();
    void navigate(`/places/${into.id}`, { replace: true });
  };
  return (
    <Dialog open onClose={onClose} maxWidth="sm" fullWidth aria-labelledby="merge-title">
      <DialogTitle id="merge-title">“{place.name}” is a part of another place</DialogTitle>
      <DialogContent>
        <Typography sx={{ mb: 2 }}>
          What was recorded here stands at the other place from then on. This one is no longer offered; its id and its
          name lead on to the other. It can be taken back.
        </Typography>
        <Autocomplete
          options={others}
          getOptionLabel={(it) => (it.locality ? `${it.name}, ${it.locality}` : it.name)}
          value={into}
          onChange={(_, chosen) => setInto(chosen)}
          renderInput={(params) => (
            <TextField
              {...params}
              label="The place that stays"
              error={failure !== ""}
              helperText={failure && `✕ ${failure}`}
            />
          )}
        />
        <Box role="status" sx={{ mt: 2 }}>
          {outlook.data && <Typography sx={{ mb: 1 }}>{outlook.data.moves}</Typography>}
          {outlook.isError && into && (
            <Typography>What would move can’t be told just now: the server doesn’t answer.</Typography>
          )}
        </Box>
        {outlook.data?.doubts.map((it) => (
          <Typography key={it} sx={{ mb: 1 }}>
            △ {it}
          </Typography>
        ))}
      </DialogContent>
      <DialogActions sx={{ px: 3, pb: 2 }}>
        <Button onClick={onClose}>Cancel</Button>
        <Button variant="contained" disabled={!into || outlook.isLoading} onClick={() => void merge()}>
          Make them one
        </Button>
      </DialogActions>
    </Dialog>
  );
}

/** What was merged into a place, each to be taken back. */
export function MergedHere({ place }: { place: Schemas["Place"] }) {
  const send = useSend();
  const [failure, setFailure] = useState("");
  if (!place.merged?.length) return null;
  const separate = async (placeId: string) => {
    const sent = await send({ kind: "mergePlace", id: uuid(), placeId, intoId: null });
    setFailure(sent.kind === "refused" ? `${sent.problem.title} ${sent.problem.detail}` : "");
  };
  return (
    <Box component="ul" aria-label="Merged into this place" sx={{ listStyle: "none", p: 0, m: 0 }}>
      {place.merged.map((it) => (
        <Box component="li" key={it.id} sx={{ display: "flex", flexWrap: "wrap", alignItems: "center", columnGap: 1 }}>
          <Typography variant="body2">“{it.name}” was merged into it.</Typography>
          <Button aria-label={`Separate again: ${it.name}`} onClick={() => void separate(it.id)}>
            Separate again
          </Button>
        </Box>
      ))}
      {failure && (
        <Typography role="alert" color="error">
          ✕ {failure}
        </Typography>
      )}
    </Box>
  );
}
