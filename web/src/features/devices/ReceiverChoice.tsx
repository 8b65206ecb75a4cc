import { Button, FormControlLabel, Radio, RadioGroup, Typography } from "@mui/material";
import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import {
  canUseCable,
  chooseCable,
  chooseReceiver,
  standInsServed,
  useChosenReceiver,
  type Receiver,
} from "../../shared/place/receiver";
import { Part } from "../../shared/ui/Page";

const names: Record<string, string> = {
  well: "A simulated receiver that works",
  late: "A simulated one that is late: its positions are half a minute old",
  wrong: "A simulated one that errs: it jumps, and says 0° 0° at times",
  silent: "A simulated one that says nothing",
};

/** What tells this device where it is. */
export function ReceiverChoice() {
  const chosen = useChosenReceiver();
  const moods = useQuery(standInsServed).data ?? [];
  const [failure, setFailure] = useState("");
  const current = chosen ?? (moods[0] ? `simulated:${moods[0]}` : "device");
  const all: [Receiver, string][] = [
    ["device", "This device’s own receiver"],
    ...moods.map((mood): [Receiver, string] => [`simulated:${mood}`, names[mood] ?? mood]),
    ...(canUseCable() ? [["cable", "A receiver on a cable (NMEA 0183)"] as [Receiver, string]] : []),
  ];
  const choose = (it: Receiver) => {
    setFailure("");
    if (it !== "cable") return chooseReceiver(it);
    chooseCable().catch(() => setFailure("No port was chosen."));
  };
  return (
    <Part id="receiver" title="What tells where you are">
      <Typography sx={{ maxWidth: 720 }}>
        Positions of lines, marked plants and tracks come from it, on this device.
        {moods.length > 0 &&
          " The simulated ones walk over the place that you visit; the weather service and the atlas work as they do."}
      </Typography>
      <RadioGroup
        aria-label="What tells where you are"
        value={current}
        onChange={(event) => choose(event.target.value as Receiver)}
      >
        {all.map(([value, name]) => (
          <FormControlLabel key={value} value={value} control={<Radio />} label={name} />
        ))}
      </RadioGroup>
      {current === "cable" && <Button onClick={() => choose("cable")}>Choose its port</Button>}
      {failure && (
        <Typography role="alert" color="error">
          ✕ {failure}
        </Typography>
      )}
    </Part>
  );
}
