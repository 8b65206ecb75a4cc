import { Box, Button, Typography } from "@mui/material";
import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { answerOf, api, type Schemas } from "../../api/client";
import { moodOf, standInsServed, useChosenReceiver } from "../../shared/place/receiver";
import { useHere } from "../../shared/place/here";
import { GridMap } from "./GridMap";

interface Props {
  floraId: string;
  page: Schemas["TaxonPage"];
}

const PATIENCE_MS = 8_000;

/** Asks an atlas, where there is one, in which squares the taxon was recorded and when, and says what a person would doubt of it. */
export function AtlasAsked({ floraId, page }: Props) {
  const moods = useQuery(standInsServed).data ?? [];
  const mood = moodOf(useChosenReceiver());
  const { placeId } = useHere();
  const [answer, setAnswer] = useState<Schemas["AtlasAnswer"]>();
  const [says, setSays] = useState("");
  // Where a sensitive taxon grows is asked of nobody.
  if (moods.length === 0 || page.taxon.facts?.isSensitive) return null;
  const ask = async () => {
    setSays("Asking …");
    setAnswer(undefined);
    try {
      const query = { flora: floraId, taxon: page.taxon.id, place: placeId || undefined, mood };
      setAnswer(
        await answerOf(() =>
          api.GET("/api/v1/stand-ins/atlas", { params: { query }, signal: AbortSignal.timeout(PATIENCE_MS) }),
        ),
      );
      setSays("");
    } catch {
      setSays("The atlas doesn’t answer. What the flora knows stands above.");
    }
  };
  const { record } = answer ?? {};
  return (
    <Box sx={{ mt: 1 }}>
      <Button onClick={() => void ask()}>Ask the atlas</Button>
      <Box role="status">
        {says && <Typography variant="body2">{says}</Typography>}
        {answer && record && (
          <>
            {answer.doubts.map((it) => (
              <Typography key={it}>△ {it}</Typography>
            ))}
            {answer.here && <Typography sx={{ fontWeight: 600 }}>{answer.here}</Typography>}
            <GridMap floraId={floraId} cells={record.squares.map((it) => it.cell)} all={page.cells} kept={false} />
            <Typography variant="body2" color="text.secondary">
              By the atlas:{" "}
              {record.squares
                .map((it) => `${it.cell} ${it.first === it.last ? it.first : `${it.first}–${it.last}`} (${it.records})`)
                .join(", ") || "no square"}
              .
            </Typography>
            {answer.beyond.length > 0 && (
              <Typography variant="body2">In the atlas and not in the flora: {answer.beyond.join(", ")}.</Typography>
            )}
            {answer.missing.length > 0 && (
              <Typography variant="body2">In the flora and not in the atlas: {answer.missing.join(", ")}.</Typography>
            )}
          </>
        )}
      </Box>
    </Box>
  );
}
