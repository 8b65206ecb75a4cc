import { Box, Button, Typography } from "@mui/material";
import { useState } from "react";
import { Link as RouterLink, useNavigate } from "react-router";
import { v7 as uuid } from "uuid";
import { spoken } from "../../shared/calendar/day";
import { Page, Part } from "../../shared/ui/Page";
import { QuietButton } from "../../shared/ui/QuietButton";
import type { Kind } from "../../offline/mending";
import { discardRefused, sendAgain, tryNow } from "../../offline/outbox";
import { usePlaces, usePlant, usePopulations } from "../../offline/documents";
import { useLocalWork } from "../../offline/queries";
import { rescue, store, type Command, type QueuedCommand, type RefusedCommand } from "../../offline/store";
import { PlaceDialog } from "../../plant-in-hand/keep/PlaceDialog";
import { TermForm } from "./TermForm";
import { isoDay, takeAway } from "../../shared/ui/takeAway";

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
      Take away as a file
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

const names: Record<Kind, string> = {
  recordDetermination: "A plant’s name",
  visitPlant: "A visit to a plant",
  tagPlant: "A plant’s tag",
  savePlace: "A place",
  savePopulation: "A population",
  countPopulation: "A count",
  noteThreat: "A threat",
  saveKeys: "A key",
  teachTerm: "A word for a state",
  correctStatement: "How a statement is read",
};

function whatItIs(command: Command): string {
  switch (command.kind) {
    case "recordDetermination":
      return `${names[command.kind]}: ${command.names.join(" or ")}`;
    case "tagPlant":
      return `${names[command.kind]}: ${command.label}`;
    case "savePlace":
    case "savePopulation":
      return `${names[command.kind]}: ${command.name}`;
    case "countPopulation":
      return `${names[command.kind]}: ${command.number} ${command.unit}`;
    default:
      return command.kind ? names[command.kind] : "A change";
  }
}

const quoted = (text: string | undefined) => (text ? `“${text}”.` : "");

// What was typed, in a line.
function said(command: Command): string {
  switch (command.kind) {
    case "recordDetermination":
      return [`Seen on ${spoken(command.eventDate)}.`, quoted(command.note)].filter(Boolean).join(" ");
    case "visitPlant":
      return [`On ${spoken(command.date)}.`, quoted(command.note)].filter(Boolean).join(" ");
    case "countPopulation":
      return [`Counted on ${spoken(command.date)}.`, quoted(command.note)].filter(Boolean).join(" ");
    case "tagPlant":
      return `Tagged on ${spoken(command.taggedOn)}.`;
    case "noteThreat":
    case "correctStatement":
      return `“${command.text}”.`;
    case "teachTerm":
      return `“${command.term}” for ${command.state}.`;
    case "savePopulation":
      return [`${command.taxon}.`, quoted(command.bounds)].filter(Boolean).join(" ");
    case "savePlace":
      return quoted(command.locality);
    default:
      return "";
  }
}

// The plant, population or place that it is about, as far as this device knows it.
function useWhere(command: Command): string {
  const plant = usePlant(command.kind === "visitPlant" ? command.plantId : undefined);
  const populations = usePopulations();
  const places = usePlaces();
  if ("populationId" in command && command.kind !== "tagPlant" && command.kind !== "savePopulation")
    return populations.data?.find((p) => p.id === command.populationId)?.name ?? "";
  if (command.kind === "visitPlant") return plant.data?.label ?? "";
  if ("placeId" in command && command.kind !== "savePlace")
    return places.data?.find((p) => p.id === command.placeId)?.name ?? "";
  return "";
}

// The address of its own form with what was typed; undefined where it is mended in place.
async function formOf(it: RefusedCommand): Promise<string | undefined> {
  const { command, id } = it;
  switch (command.kind) {
    case "visitPlant":
      return `/plants/${command.plantId}/visit?mend=${id}`;
    case "countPopulation":
    case "noteThreat":
      return `/populations/${command.populationId}?mend=${id}`;
    case "tagPlant":
      return typeof command.version === "number" ? `/plants/${command.plantId}?mend=${id}` : `/plants?mend=${id}`;
    case "savePopulation":
      return `/plants?mend=${id}`;
    case "saveKeys":
      return `/keys/new?mend=${id}`;
    case "recordDetermination": {
      const db = await store();
      const walkId = it.walkId ?? uuid();
      // The plant in hand is still here, or is made of what was sent.
      if (!(await db.get("walks", walkId))) {
        await db.put("walks", {
          id: walkId,
          start: command.startKey,
          title: "",
          answers: command.answers,
          observations: command.observations ?? [],
          hand: command.hand ?? [],
          inQuestion: undefined,
          form: {
            placeId: command.placeId,
            date: command.eventDate,
            recorder: command.recorder.name,
            label: command.plantLabel,
            note: command.note,
          },
          problem: it.problem,
          updatedAt: Date.now(),
        });
        await db.put("refused", { ...it, walkId });
      }
      return `/bench/${walkId}${command.startKey ? "" : command.confirming ? "/confirm" : "/sift"}`;
    }
    default:
      return undefined;
  }
}
