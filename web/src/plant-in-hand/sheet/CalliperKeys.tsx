import { Button, Typography } from "@mui/material";
import { useState } from "react";
import { keysOfCalliper, moodOfCalliper, useCalliper } from "../../shared/form/calliper";

// Half a hand: what nothing is known of is taken to be so large.
const USUAL_MM = 40;
const WIDEST_MM = 300;

/** The simulated calliper: what is between its jaws is measured, and typed where a real one would type it. */
export function CalliperKeys(props: { name: string; about?: number; onKeys: (keys: string) => void }) {
  const { name, about, onKeys } = props;
  const mood = moodOfCalliper(useCalliper());
  const [says, setSays] = useState("");
  if (!mood) return null;
  const close = async () => {
    setSays("Measuring …");
    const keys = await keysOfCalliper(about && about < WIDEST_MM ? about : USUAL_MM, mood);
    setSays(keys ? "" : "The calliper types nothing: read its scale.");
    if (keys) onKeys(keys);
  };
  return (
    <>
      <Button aria-label={`Close the calliper: ${name}`} onClick={() => void close()}>
        Close the calliper
      </Button>
      <Typography variant="body2" role="status" sx={{ alignSelf: "center" }}>
        {says}
      </Typography>
    </>
  );
}
