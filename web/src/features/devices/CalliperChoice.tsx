import { FormControlLabel, Radio, RadioGroup, Typography } from "@mui/material";
import { useQuery } from "@tanstack/react-query";
import { chooseCalliper, useCalliper, type Calliper } from "../../shared/form/calliper";
import { standInsServed } from "../../shared/place/receiver";
import { Part } from "../../shared/ui/Page";

const names: Record<string, string> = {
  well: "A simulated calliper that works",
  late: "A simulated one that is late: its digits come seconds after",
  wrong: "A simulated one that errs: in inches, or twice in a row",
  silent: "A simulated one that types nothing",
};

/** What readings come from besides fingers. */
export function CalliperChoice() {
  const calliper = useCalliper();
  const moods = useQuery(standInsServed).data ?? [];
  return (
    <Part id="calliper" title="What measures">
      <Typography sx={{ maxWidth: 720 }}>
        A calliper or a balance that types as a keyboard does writes into the field that one is in; its Enter records
        the reading. Nothing has to be set for it.
      </Typography>
      {moods.length > 0 && (
        <RadioGroup
          aria-label="What measures"
          value={calliper}
          onChange={(event) => chooseCalliper(event.target.value as Calliper)}
        >
          <FormControlLabel value="keyboard" control={<Radio />} label="One of your own, or none" />
          {moods.map((mood) => (
            <FormControlLabel key={mood} value={`simulated:${mood}`} control={<Radio />} label={names[mood] ?? mood} />
          ))}
        </RadioGroup>
      )}
    </Part>
  );
}
