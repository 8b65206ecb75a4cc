import { Box, Button, MenuItem, Typography } from "@mui/material";
import { useQueries, useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { plantServed, usePlaces, usePlants } from "../../offline/documents";
import { askEither } from "../../offline/hosts";
import { TaxonLabel } from "../../shared/botany/TaxonLabel";
import { useBenchFlora } from "../../shared/botany/useBenchFlora";
import { TextField } from "../../shared/form/TextField";
import { useHere } from "../../shared/place/here";
import { Part } from "../../shared/ui/Page";
import { GradientShown } from "./GradientShown";

/** The marked plants of a place between two parents that stand there too. */
export function MarkedGradient() {
  const here = useHere();
  const places = usePlaces().data ?? [];
  const [chosen, setPlace] = useState<string>();
  const place = chosen ?? here.placeId;
  const [parents, setParents] = useState<{ first: string; second: string }>();
  const { plants, hasNextPage, fetchNextPage, isError, isPlaceholderData } = usePlants({ place, text: "" });
  const { flora, version, host, failure } = useBenchFlora(undefined);
  const named = (plants ?? []).filter((it) => it.placeId === place && it.names.length > 0);
  const floraId = flora?.id ?? "";
  // First which parents stand there, by the names alone; then what was measured on the plants of the two.
  const pairs = useQuery({
    // Plants of the place before, shown while these are fetched, say nothing of this one.
    enabled: version !== undefined && place !== "" && plants !== undefined && !isPlaceholderData,
    queryKey: ["parent-pairs", version, place, named.map((it) => it.id + it.names.join()).join()],
    queryFn: () =>
      askEither(
        "standGradient",
        { floraId, plants: named.map(({ label, names }) => ({ label, names })), first: "", second: "" },
        host,
      ),
  }).data?.pairs;
  const enough = pairs?.filter((it) => it.isEnough) ?? [];
  const tooFew = pairs?.filter((it) => !it.isEnough) ?? [];
  const genus = parents?.first.split(" ")[0];
  const wanted =
    genus === undefined ? [] : named.filter((it) => it.names.every((name) => name.split(" ")[0] === genus));
  const sheets = useQueries({ queries: wanted.map((it) => plantServed(it.id)) });
  const isAway = sheets.some((it) => it.isError && it.data === undefined);
  const measured = useQuery({
    enabled: version !== undefined && parents !== undefined && sheets.every((it) => it.data !== undefined),
    queryKey: ["stand-gradient", version, place, parents, sheets.map((it) => it.dataUpdatedAt).join()],
    queryFn: () =>
      askEither(
        "standGradient",
        {
          floraId,
          plants: wanted.map(({ label, names }, i) => ({ label, names, sheet: sheets[i]?.data?.observations ?? [] })),
          first: parents?.first ?? "",
          second: parents?.second ?? "",
        },
        host,
      ),
  });
  return (
    <Part id="marked" title="Marked plants of a place">
      <Box sx={{ display: "grid", columnGap: 4, gridTemplateColumns: { md: "4fr 7fr" } }}>
        <Box>
          <TextField
            select
            label="Place"
            value={places.some((it) => it.id === place) ? place : ""}
            onChange={(event) => {
              setPlace(event.target.value);
              setParents(undefined);
            }}
            sx={{ maxWidth: 360, mb: 1.5 }}
          >
            {places.map((it) => (
              <MenuItem key={it.id} value={it.id}>
                {it.name}
              </MenuItem>
            ))}
          </TextField>
          {failure && <Typography role="alert">{failure}</Typography>}
          {!place && <Typography>Choose the place where both parents stand.</Typography>}
          {isError && !plants && (
            <Typography role="alert">
              The plants of this place aren’t on this device; they come once the server answers.
            </Typography>
          )}
          {place && !hasNextPage && pairs?.length === 0 && (
            <Typography sx={{ maxWidth: 720 }}>
              No two species of a genus are marked here. Mark and measure at least three plants of each parent, and
              those in question.
            </Typography>
          )}
          <Box role="group" aria-label="Parents" sx={{ display: "flex", flexDirection: "column", gap: 1 }}>
            {enough.map((it) => {
              const isChosen = parents?.first === it.first && parents.second === it.second;
              return (
                <Button
                  key={`${it.first} ${it.second}`}
                  aria-pressed={isChosen}
                  variant={isChosen ? "contained" : "outlined"}
                  onClick={() => setParents({ first: it.first, second: it.second })}
                  sx={{ justifyContent: "flex-start", textAlign: "left", minHeight: 48 }}
                >
                  <span>
                    <TaxonLabel name={it.first} /> and <TaxonLabel name={it.second} />: {it.inWords}
                  </span>
                </Button>
              );
            })}
          </Box>
          {tooFew.length > 0 && (
            <Typography variant="body2" sx={{ mt: 1 }}>
              Too few plants of each to compare by:{" "}
              {tooFew.map((it, i) => (
                <span key={`${it.first} ${it.second}`}>
                  {i > 0 && "; "}
                  <TaxonLabel name={it.first} /> and <TaxonLabel name={it.second} /> ({it.ofFirst} and {it.ofSecond})
                </span>
              ))}
              .
            </Typography>
          )}
          {hasNextPage && place && (
            <Button onClick={() => void fetchNextPage()} sx={{ mt: 1 }}>
              More plants
            </Button>
          )}
          {isAway && (
            <Typography role="alert">
              What was measured on some plants isn’t on this device; they are compared once it is.
            </Typography>
          )}
          {measured.isError && <Typography role="alert">✕ {measured.error.message}</Typography>}
        </Box>
        {parents && measured.data?.gradient && (
          <Box sx={{ minWidth: 0 }}>
            <GradientShown gradient={measured.data.gradient} notes={measured.data.notes} parents={parents} />
          </Box>
        )}
      </Box>
    </Part>
  );
}
