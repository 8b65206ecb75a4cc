import { Box, Button, Typography } from "@mui/material";
import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { answerOf, api } from "../../api/client";
import { moodOf, standInsServed, useChosenReceiver } from "../../shared/place/receiver";

interface Props {
  placeId: string;
  /** For when, as YYYY-MM-DDTHH:mm. */
  at: string;
  onTake: (weather: string) => void;
}

// Whoever stands in the rain doesn’t wait longer.
const PATIENCE_MS = 8_000;

/** Asks the weather service, where there is one. What a person would doubt is shown and not filled in by itself. */
export function WeatherAsked({ placeId, at, onTake }: Props) {
  const moods = useQuery(standInsServed).data ?? [];
  const mood = moodOf(useChosenReceiver());
  const [state, setState] = useState<{ says: string; doubted?: string }>();
  if (moods.length === 0 || !placeId || !/T\d\d:\d\d$/.test(at)) return null;
  const ask = async () => {
    setState({ says: "Asking …" });
    try {
      const { inWords, doubt } = await answerOf(() =>
        api.GET("/api/v1/stand-ins/weather", {
          params: { query: { place: placeId, at, mood } },
          signal: AbortSignal.timeout(PATIENCE_MS),
        }),
      );
      if (!doubt) onTake(inWords);
      setState(doubt ? { says: `△ ${doubt} It says: ${inWords}.`, doubted: inWords } : undefined);
    } catch {
      setState({ says: "The weather service doesn’t answer. Write down what you see." });
    }
  };
  return (
    <Box sx={{ display: "flex", flexWrap: "wrap", alignItems: "center", columnGap: 1 }}>
      <Button onClick={() => void ask()}>Ask the weather service</Button>
      <Typography variant="body2" role="status">
        {state?.says}
      </Typography>
      {state?.doubted && (
        <Button
          onClick={() => {
            onTake(state.doubted ?? "");
            setState(undefined);
          }}
        >
          Take it all the same
        </Button>
      )}
    </Box>
  );
}
