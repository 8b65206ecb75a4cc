import { Box, Button, Typography } from "@mui/material";
import { useState } from "react";
import { Link as RouterLink, useNavigate } from "react-router";
import { v7 as uuid } from "uuid";
import { spoken } from "../../shared/calendar/day";
import { later } from "../../shared/ui/later";
import { Page, Part } from "../../shared/ui/Page";
import { QuietButton } from "../../shared/ui/QuietButton";

import { discardRefused, sendAgain, tryNow } from "../../offline/outbox";
import { useLocalWork } from "../../offline/queries";
import { rescue, type QueuedCommand, type RefusedCommand } from "../../offline/store";
import { isoDay, takeAway } from "../../shared/ui/takeAway";
import { whatItIs, said, useWhere, formOf } from "./commandWords";

const PlaceDialog = later(async () => (await import("../../plant-in-hand/keep/PlaceDialog")).PlaceDialog, true);
const TermForm = later(async () => (await import("./TermForm")).TermForm);
const HandOver = later(async () => (await import("./HandOver")).HandOver);
/** What the server refused, or fails at again and again: each with its reason, to be mended, sent again, taken away or discarded. */
export function HandPage() {
  const { refused, stuck, outbox, loaded } = useLocalWork();
  const [gone, setGone] = useState<RefusedCommand[]>([]);
  const discard = async (it: RefusedCommand) => {
    await discardRefused(it.id, true);
    setGone((all) => [...all, it]);
  };
  const restore = async (it: RefusedCommand) => {
    await discardRefused(it.id, false);
    setGone((all) => all.filter((other) => other.id !== it.id));
  };
  return (
    <Page
      title="Needs your hand"
      aside={
        <Button onClick={() => void rescue().then((text) => takeAway("garten-device.json", text))}>
          Take all that is on this device away
        </Button>
      }
    >
      {loaded && refused.length + stuck.length === 0 && (
        <Typography>
          Nothing. What the server refuses appears here with its reason, and stays until you have mended, sent, taken
          away or discarded it.
          {outbox.length > 0 && ` ${outbox.length} waiting to be sent.`}
        </Typography>
      )}
      {gone.map((it) => (
        <Box key={it.id} role="status" sx={{ bgcolor: "signal.openWash", px: 1.5, py: 0.5, mb: 1 }}>
          <Typography component="span" variant="body2">
            Discarded: {whatItIs(it.command)}.{" "}
          </Typography>
          <QuietButton name={`Undo: ${whatItIs(it.command)}`} onClick={() => void restore(it)}>
            Undo
          </QuietButton>
        </Box>
      ))}
      {refused.length > 0 && (
        <Part id="refused" title="Refused">
          {refused.map((it) => (
            <Refused key={it.id} it={it} onDiscard={() => void discard(it)} />
          ))}
        </Part>
      )}
      {stuck.length > 0 && (
        <Part id="stuck" title="The server fails at these">
          {stuck.map((it) => (
            <Stuck key={it.id} it={it} />
          ))}
        </Part>
      )}
      <HandOver waiting={outbox.length + stuck.length + refused.length} />
    </Page>
  );
}

function Refused({ it, onDiscard }: { it: RefusedCommand; onDiscard: () => void }) {
  const navigate = useNavigate();
  const [mending, setMending] = useState(false);
  const [again, setAgain] = useState("");
  const where = useWhere(it.command);
  const open = async () => {
    const address = await formOf(it);
    if (address) void navigate(address);
    else setMending(true);
  };
  const sendIt = async () => {
    const sent = await sendAgain(it, { ...it.command, id: uuid() });
    if (sent.kind === "refused") setAgain(`${sent.problem.title} ${sent.problem.detail}`);
  };
  return (
    <Box
      component="article"
      aria-label={whatItIs(it.command)}
      sx={{ py: 1, borderTop: "1px dotted", borderColor: "rule" }}
    >
      <Typography variant="h3" sx={{ overflowWrap: "anywhere" }}>
        {whatItIs(it.command)}
        {where && `, ${where}`}
      </Typography>
      <Typography variant="body2" sx={{ color: "signal.conflict" }}>
        ✕ {it.problem.title} {it.problem.detail}
      </Typography>
      <Typography variant="body2" color="text.secondary">
        {said(it.command)} Refused on {spoken(isoDay(it.at))}.
      </Typography>
      {again && (
        <Typography role="alert" variant="body2" color="error">
          ✕ {again}
        </Typography>
      )}
      <Box sx={{ display: "flex", gap: 1, flexWrap: "wrap", mt: 0.5 }}>
        <Button variant="contained" onClick={() => void open()}>
          Open and mend
        </Button>
        <Button onClick={() => void sendIt()}>Send again as it is</Button>
        <TakeAwayButton it={it} />
        <Button onClick={onDiscard}>Discard</Button>
      </Box>
      {mending && it.command.kind === "savePlace" && (
        <PlaceDialog mend={it} start={it.command} onClose={() => setMending(false)} />
      )}
      {mending && it.command.kind === "teachTerm" && (
        <TermForm mend={it} start={it.command} onDone={() => setMending(false)} />
      )}
      {mending && it.command.kind === "correctStatement" && (
        <Typography variant="body2" sx={{ mt: 1 }}>
          Read it anew under Keys, where the statement stands: “{it.command.text}”.{" "}
          <Button component={RouterLink} to="/keys">
            To the keys
          </Button>
        </Typography>
      )}
    </Box>
  );
}

function TakeAwayButton({ it }: { it: RefusedCommand | QueuedCommand }) {
  const { command, problem } = it;
  return (
    <Button onClick={() => takeAway(`garten-${command.kind}.json`, JSON.stringify({ command, problem }, null, 2))}>
      Export as a file
    </Button>
  );
}

function Stuck({ it }: { it: QueuedCommand }) {
  return (
    <Box
      component="article"
      aria-label={whatItIs(it.command)}
      sx={{ py: 1, borderTop: "1px dotted", borderColor: "rule" }}
    >
      <Typography variant="h3" sx={{ overflowWrap: "anywhere" }}>
        {whatItIs(it.command)}
      </Typography>
      <Typography variant="body2" sx={{ color: "signal.caution" }}>
        △ The server failed {it.failures} times: {it.problem?.title} {it.problem?.detail}
      </Typography>
      <Typography variant="body2" color="text.secondary">
        {said(it.command)} It stays here and is tried every hour; what doesn’t depend on it goes on.
      </Typography>
      <Box sx={{ display: "flex", gap: 1, flexWrap: "wrap", mt: 0.5 }}>
        <Button variant="contained" onClick={() => it.seq !== undefined && void tryNow(it.seq)}>
          Try now
        </Button>
        <TakeAwayButton it={it} />
      </Box>
    </Box>
  );
}
