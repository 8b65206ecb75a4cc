import { Box, Button, TextField, Typography } from "@mui/material";
import { useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { v7 as uuid } from "uuid";
import type { Schemas } from "../../api/client";
import { useSend } from "../../offline/mending";
import { personOf } from "../../offline/people";
import { usePeople } from "../../offline/queries";
import { spoken } from "../../shared/calendar/day";
import { lastRecorder } from "../../shared/form/last";
import { useImports } from "./useImport";

const sum = ({ found, plants, absent }: Schemas["ImportTally"]) => (found + plants + absent).toLocaleString();

/** What was taken in from files; each can be taken back as a whole. */
export function TakenInList() {
  const list = useImports();
  const [asked, setAsked] = useState<string>();
  if (list.isError) return <Typography>Out of reach: files are taken in on the server.</Typography>;
  if (!list.data) return null;
  if (list.data.length === 0) return <Typography color="text.secondary">Nothing yet.</Typography>;
  return (
    <Box component="ul" sx={{ listStyle: "none", p: 0, m: 0, maxWidth: 880 }}>
      {list.data.map((it) => (
        <Box component="li" key={it.id} sx={{ py: 1, borderTop: "1px dotted", borderColor: "rule" }}>
          <Box sx={{ display: "flex", flexWrap: "wrap", alignItems: "baseline", columnGap: 2 }}>
            <Typography sx={{ flex: "1 1 20rem", textDecoration: it.takenBackAt ? "line-through" : "none" }}>
              <strong>{it.fileName}</strong>, {sum(it.tally)} records, by {it.by} on {spoken(it.at.slice(0, 10))}
            </Typography>
            {!it.takenBackAt && asked !== it.id && <Button onClick={() => setAsked(it.id)}>Take it back</Button>}
          </Box>
          {it.takenBackAt && (
            <Typography variant="body2">
              Taken back by {it.takenBackBy} on {spoken(it.takenBackAt.slice(0, 10))}
              {it.reason && `: “${it.reason}”`}. Its rows stay, out of lists, map and exports.
            </Typography>
          )}
          {asked === it.id && <TakeBack id={it.id} onDone={() => setAsked(undefined)} />}
        </Box>
      ))}
    </Box>
  );
}

function TakeBack({ id, onDone }: { id: string; onDone: () => void }) {
  const client = useQueryClient();
  const people = usePeople();
  const send = useSend();
  const [reason, setReason] = useState("");
  const [failure, setFailure] = useState("");
  const takeBack = async () => {
    const by = await personOf(lastRecorder() || "unnamed", people.data);
    const sent = await send({ kind: "takeBack", id: uuid(), importId: id, reason: reason.trim(), by });
    if (sent.kind === "refused") return setFailure(`${sent.problem.title} ${sent.problem.detail}`);
    await client.invalidateQueries();
    onDone();
  };
  return (
    <Box sx={{ my: 1 }}>
      <Typography>
        All that it brought leaves lists, map and exports. What was recorded since at its places stays.
      </Typography>
      <Box sx={{ display: "flex", flexWrap: "wrap", gap: 1, mt: 1 }}>
        <TextField
          label="Why"
          value={reason}
          onChange={(event) => setReason(event.target.value)}
          sx={{ flex: "1 1 16rem" }}
        />
        <Button variant="contained" onClick={() => void takeBack()} sx={{ minHeight: 48 }}>
          Take it back
        </Button>
        <Button onClick={onDone}>Leave it in</Button>
      </Box>
      {failure && (
        <Typography role="alert" color="error">
          ✕ {failure}
        </Typography>
      )}
    </Box>
  );
}
