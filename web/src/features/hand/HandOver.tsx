import { Box, Button, Checkbox, FormControlLabel, TextField, Typography } from "@mui/material";
import { useQuery } from "@tanstack/react-query";
import { useRef, useState } from "react";
import { handOver, HandOverError, takeIn } from "../../offline/handover";
import { sentCommands } from "../../offline/outbox";
import { Part } from "../../shared/ui/Page";
import { takeAway } from "../../shared/ui/takeAway";

const name = () => `garten-waiting-${new Date().toISOString().slice(0, 10)}.json`;

/** What waits on this device as one file, and such a file taken in: from device to device where there is no network. */
export function HandOver({ waiting }: { waiting: number }) {
  const [phrase, setPhrase] = useState("");
  const [isWithSent, setWithSent] = useState(false);
  const sent = useQuery({ queryKey: ["waiting", "sent"], queryFn: sentCommands }).data?.length ?? 0;
  const [said, setSaid] = useState("");
  const [failure, setFailure] = useState("");
  const file = useRef<HTMLInputElement>(null);
  const carry = (work: () => Promise<string>) => {
    setSaid("");
    setFailure("");
    work().then(setSaid, (error: unknown) =>
      setFailure(
        error instanceof HandOverError ? error.message : "It couldn’t be done: this browser or its store refused it.",
      ),
    );
  };
  const save = () =>
    carry(async () => {
      const { text, count } = await handOver(phrase, isWithSent);
      takeAway(name(), text);
      return `${count === 1 ? "1 change is" : `${count} changes are`} in the file${phrase ? ", locked" : ""}. They stay here too.`;
    });
  const take = (chosen: File) =>
    carry(async () => {
      const { taken, known } = await takeIn(await chosen.text(), phrase);
      if (file.current) file.current.value = "";
      return `${taken === 1 ? "1 change was" : `${taken} changes were`} taken in${known ? `; ${known} waited here already` : ""}. What the server has already it takes once.`;
    });
  return (
    <Part id="hand-over" title="Hand over without a network">
      <Typography sx={{ maxWidth: 720, mb: 1 }}>
        What waits on this device as one file: a copy after a day out, or for another device that comes to the server
        sooner. However often it is taken in, each change counts once.
      </Typography>
      <Box sx={{ display: "flex", flexWrap: "wrap", gap: 1.5, alignItems: "center" }}>
        <TextField
          type="password"
          label="Pass-phrase, if it is to be locked"
          autoComplete="off"
          value={phrase}
          onChange={(event) => setPhrase(event.target.value)}
          sx={{ width: 300, maxWidth: "100%" }}
        />
        <Button variant="contained" disabled={waiting === 0 && !(isWithSent && sent > 0)} onClick={save}>
          Save what waits as a file
        </Button>
        {sent > 0 && (
          <FormControlLabel
            control={<Checkbox checked={isWithSent} onChange={(_, on) => setWithSent(on)} />}
            label={`with ${sent === 1 ? "the one" : `the ${sent}`} that this device has sent already`}
          />
        )}
        <Button onClick={() => file.current?.click()}>Take in a file</Button>
        <input
          ref={file}
          type="file"
          hidden
          accept=".json,application/json"
          onChange={(event) => event.target.files?.[0] && take(event.target.files[0])}
        />
      </Box>
      {said && (
        <Typography role="status" sx={{ mt: 1 }}>
          ✓ {said}
        </Typography>
      )}
      {failure && (
        <Typography role="alert" color="error" sx={{ mt: 1 }}>
          ✕ {failure}
        </Typography>
      )}
    </Part>
  );
}
