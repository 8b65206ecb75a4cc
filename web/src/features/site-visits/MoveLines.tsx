import { Box, Button, Checkbox, FormControlLabel, Typography } from "@mui/material";
import { useState } from "react";
import { useNavigate } from "react-router";
import { v7 as uuid } from "uuid";
import type { Schemas } from "../../api/client";
import { send } from "../../offline/outbox";
import { personOf } from "../../offline/people";
import { usePeople } from "../../offline/queries";
import { TaxonLabel } from "../../shared/botany/TaxonLabel";
import { Part } from "../../shared/ui/Page";
import { lineCommand, siteOf, withdraw } from "./useVisitCommands";
import { VisitForm } from "./VisitForm";

interface Props {
  visit: Schemas["SiteVisit"];
  onDone: () => void;
}

/** Splits a visit: the lines that are chosen go to a visit of another place or day, and leave this one. */
export function MoveLines({ visit, onDone }: Props) {
  const navigate = useNavigate();
  const people = usePeople();
  const [chosen, setChosen] = useState<ReadonlySet<string>>(new Set());
  const [isAsked, setAsked] = useState(false);
  const [failure, setFailure] = useState("");
  const records = visit.records;
  const set = (ids: string[], on: boolean) =>
    setChosen((before) => new Set(on ? [...before, ...ids] : [...before].filter((id) => !ids.includes(id))));
  const parts = [...new Set(records.flatMap((it) => it.lines.map((line) => line.compartment)).filter(Boolean))];
  const lines = records.filter((it) => chosen.has(it.id)).flatMap((it) => it.lines);
  const move = async (to: Schemas["SiteVisit"]) => {
    for (const line of lines) {
      const recorder = await personOf(line.recorder, people.data);
      const sent = await send({
        ...lineCommand(to, recorder, {
          taxon: line.plantId ? "" : line.name,
          unnamed: line.plantId ? line.unnamed || line.name : line.unnamed,
          plantId: line.plantId ?? undefined,
          compartment: line.compartment,
          details: line.details,
          site: siteOf(line),
        }),
        at: line.at,
      });
      // It leaves the old list once it stands on the new one.
      if (sent.kind === "refused") return setFailure(`${sent.problem.title} ${sent.problem.detail}`);
      await withdraw(visit, line.id);
    }
    void navigate(`/site-visits/${to.id}`);
  };
  return (
    <Part id="split" title="Move lines to another visit">
      {!isAsked && (
        <>
          <Typography variant="body2">
            Choose what was seen elsewhere or on another day. It goes to a visit of its own and leaves this one.
          </Typography>
          <Box sx={{ display: "flex", flexWrap: "wrap", gap: 0.75, my: 0.5 }}>
            {parts.map((part) => (
              <Button
                key={part}
                onClick={() =>
                  set(
                    records.filter((it) => it.lines.some((line) => line.compartment === part)).map((it) => it.id),
                    true,
                  )
                }
              >
                All of {part}
              </Button>
            ))}
          </Box>
          <Box sx={{ display: "grid", gridTemplateColumns: { sm: "1fr 1fr" } }}>
            {records.map((it) => (
              <FormControlLabel
                key={it.id}
                control={<Checkbox checked={chosen.has(it.id)} onChange={(_, on) => set([it.id], on)} />}
                label={
                  <>
                    <TaxonLabel name={it.called} />{" "}
                    <Typography component="span" variant="body2" color="text.secondary">
                      {[it.lines[0]?.compartment, it.lines[0]?.at].filter(Boolean).join(", ")}
                    </Typography>
                  </>
                }
              />
            ))}
          </Box>
          <Box sx={{ display: "flex", gap: 1.5, mt: 1 }}>
            <Button variant="contained" disabled={chosen.size === 0} onClick={() => setAsked(true)}>
              {chosen.size === 1 ? "Move this one" : `Move these ${chosen.size}`}
            </Button>
            <Button onClick={onDone}>Leave them here</Button>
          </Box>
        </>
      )}
      {isAsked && (
        <VisitForm
          visit={visit}
          make={(typed) => ({
            kind: "saveSiteVisit",
            id: uuid(),
            siteVisitId: uuid(),
            ...typed,
            pauses: [],
            version: null,
          })}
          submitName="Move them there"
          onDone={(command) => {
            if (command.siteVisitId)
              void move({ ...visit, id: command.siteVisitId, date: command.date, closing: null });
          }}
          onCancel={() => setAsked(false)}
        />
      )}
      {failure && (
        <Typography role="alert" color="error">
          ✕ {failure}
        </Typography>
      )}
    </Part>
  );
}
