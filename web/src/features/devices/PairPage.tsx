import { Box, Button, Link, TextField, Typography } from "@mui/material";
import { useQuery, useQueryClient } from "@tanstack/react-query";
import { useState, type FormEvent } from "react";
import { Link as RouterLink, useLocation } from "react-router";
import { api, ask, type Problem, type Schemas } from "../../api/client";
import { RECORDER } from "../../shared/form/last";
import { Page } from "../../shared/ui/Page";

const OUT_OF_REACH = "The server doesn’t answer. Try again when you are in its network.";

/** Pairs this device with the server: the code is shown on the server's own page of devices, or comes with the picture that was read. */
export function PairPage() {
  const { hash } = useLocation();
  // Another picture that is read begins it anew.
  return <Pairing key={hash} offered={hash.slice(1)} />;
}

function Pairing({ offered }: { offered: string }) {
  const client = useQueryClient();
  const [code, setCode] = useState(offered);
  const [name, setName] = useState(nameHere());
  const [problem, setProblem] = useState<Pick<Problem, "title" | "detail" | "field">>();
  const [isSending, setSending] = useState(false);
  const [paired, setPaired] = useState<Schemas["DeviceHere"]>();
  const here = useQuery({
    queryKey: ["device-here"],
    queryFn: async () => {
      const outcome = await ask((signal) => api.GET("/api/v1/devices/here", { signal }));
      return outcome.kind === "answer" ? outcome.value : null;
    },
  }).data;
  const known = paired ?? here;
  const pair = async (event: FormEvent) => {
    event.preventDefault();
    setSending(true);
    setProblem(undefined);
    const outcome = await ask((signal) => api.POST("/api/v1/devices/pair", { body: { code, name }, signal }));
    setSending(false);
    if (outcome.kind === "answer") {
      setPaired(outcome.value);
      const person = outcome.value.person?.name;
      if (person) localStorage.setItem(RECORDER, person);
      // All that couldn't be had before.
      return client.invalidateQueries();
    }
    setProblem(
      outcome.kind === "problem" ? outcome.problem : { title: "Out of reach.", detail: OUT_OF_REACH, field: "" },
    );
  };
  return (
    <Page title="Pair this device">
      {known?.person ? (
        <Typography role="status" sx={{ maxWidth: 720 }}>
          <strong>
            ✓ “{known.name}” is paired: the device of {known.person.name}.
          </strong>{" "}
          What is kept on it is sent by itself when the server is in reach. Next,{" "}
          <Link component={RouterLink} to="/along">
            take along what you need where there is no signal
          </Link>
          .
        </Typography>
      ) : known?.isHere ? (
        <Typography sx={{ maxWidth: 720 }}>
          This is the server’s own machine: nothing has to be paired here.{" "}
          <Link component={RouterLink} to="/devices">
            Codes for other devices
          </Link>
        </Typography>
      ) : (
        <Box component="form" noValidate onSubmit={(event) => void pair(event)} sx={{ maxWidth: 460 }}>
          <Typography sx={{ mb: 2 }}>
            On the machine that Garten runs on, open Records, Devices, and have a code shown. It is good once, for ten
            minutes.
          </Typography>
          <TextField
            label="Code"
            fullWidth
            required
            autoFocus={code === ""}
            autoComplete="one-time-code"
            value={code}
            onChange={(event) => setCode(event.target.value)}
            error={problem?.field === "code"}
            helperText={
              problem?.field === "code" ? `✕ ${problem.title} ${problem.detail}` : "Eight letters and figures."
            }
            slotProps={{ htmlInput: { autoCapitalize: "characters", spellCheck: false } }}
            sx={{ mb: 2 }}
          />
          <TextField
            label="What you call this device"
            fullWidth
            required
            value={name}
            onChange={(event) => setName(event.target.value)}
            error={problem?.field === "name"}
            helperText={problem?.field === "name" ? `✕ ${problem.title} ${problem.detail}` : " "}
            sx={{ mb: 1 }}
          />
          {problem && problem.field !== "code" && problem.field !== "name" && (
            <Typography role="alert" sx={{ mb: 1 }}>
              ✕ {problem.title} {problem.detail}
            </Typography>
          )}
          <Button type="submit" variant="contained" disabled={isSending || code.trim() === "" || name.trim() === ""}>
            Pair it
          </Button>
        </Box>
      )}
    </Page>
  );
}

const nameHere = () => (/Android|iPhone|Mobile/.test(navigator.userAgent) ? "Phone" : "Laptop");
