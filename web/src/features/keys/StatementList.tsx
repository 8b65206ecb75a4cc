import { leadLetter } from "../../shared/botany/leads";
import { Box, Button, Typography } from "@mui/material";
import { useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import type { Schemas } from "../../api/client";
import { useComposed } from "../../offline/vocabulary";
import { later } from "../../shared/ui/later";
import { QuietButton } from "../../shared/ui/QuietButton";
import { useKeyReading, useKeyCharacters, useTeaching } from "./useKeyReading";

const CorrectDialog = later(async () => (await import("./CorrectDialog")).CorrectDialog, true);

type Reading = Schemas["StatementReading"];

// A key may have very many statements; a page of them at a time keeps the browser quick.
const PAGE = 80;

/** Text and reading of every statement side by side. */
export function StatementList({ hash }: { hash: string }) {
  const found = useKeyReading(hash);
  const client = useQueryClient();
  const [shown, setShown] = useState(PAGE);
  const [editing, setEditing] = useState<Reading>();
  const characters = useKeyCharacters(editing && hash);
  const { refused, set } = useTeaching();
  const composed = useComposed(editing?.claims.map((claim) => claim.character) ?? NONE);
  if (!found) return <Typography role="status">Reading the statements …</Typography>;
  return (
    <>
      {refused && (
        <Typography role="alert" color="error">
          ✕ {refused}
        </Typography>
      )}
      <Typography variant="body2" sx={{ mb: 1 }}>
        <Mark kind="noun">part</Mark> <Mark kind="state">what it is like</Mark> <Mark kind="quantity">measure</Mark>{" "}
        <Mark kind="modality">how often</Mark> <Mark kind="negation">not</Mark> · in grey: stays text
      </Typography>
      <Box component="ol" sx={{ listStyle: "none", p: 0, m: 0 }}>
        {found.statements.slice(0, shown).map((it) => (
          <Line
            key={`${it.couplet}.${it.lead}.${it.index}`}
            it={it}
            onAccept={() => set(it.reading.text, it.reading.claims)}
            onCorrect={() => setEditing(it.reading)}
          />
        ))}
      </Box>
      {found.statements.length > shown && <Button onClick={() => setShown(shown + PAGE)}>Show more</Button>}
      {editing && characters && (
        <CorrectDialog
          reading={editing}
          inWords={found.statements.find((it) => it.reading === editing)?.inWords ?? ""}
          characters={[...composed, ...characters]}
          onClose={(changed) => {
            setEditing(undefined);
            if (changed) void client.invalidateQueries({ queryKey: ["shelf"] });
          }}
        />
      )}
    </>
  );
}

const NONE: string[] = [];

interface LineProps {
  it: Schemas["ReadStatement"];
  onAccept: () => void;
  onCorrect: () => void;
}

function Line({ it, onAccept, onCorrect }: LineProps) {
  const { reading } = it;
  return (
    <Box
      component="li"
      sx={{
        display: "grid",
        gridTemplateColumns: { xs: "3.2em 1fr", md: "3.2em 1fr 1fr auto" },
        columnGap: 1.5,
        alignItems: "center",
        borderTop: it.index === 0 ? "1px dotted" : undefined,
        borderColor: "rule",
      }}
    >
      <Typography variant="body2" component="span" sx={{ fontWeight: 700 }}>
        {it.index === 0 && it.couplet + leadLetter(it.lead)}
      </Typography>
      <Typography variant="body2" component="span">
        <Marked reading={reading} />
      </Typography>
      <Typography variant="body2" component="span" color="text.secondary" sx={{ gridColumn: { xs: 2, md: "auto" } }}>
        {reading.isCorrected && <strong>✓ looked over · </strong>}
        {it.inWords || "¶ stays text"}
      </Typography>
      <Box sx={{ display: "flex", gridColumn: { xs: 2, md: "auto" }, justifySelf: { md: "end" } }}>
        {reading.claims.length > 0 && !reading.isCorrected && (
          <QuietButton onClick={onAccept} name={`Accept: ${reading.text}`}>
            Accept
          </QuietButton>
        )}
        <QuietButton onClick={onCorrect} name={`Correct: ${reading.text}`}>
          Correct
        </QuietButton>
      </Box>
    </Box>
  );
}

const looks = {
  noun: { borderBottom: "3px double" },
  state: { bgcolor: "signal.chosenWash" },
  quantity: { borderBottom: "2px solid" },
  modality: { bgcolor: "signal.openWash" },
  negation: { color: "signal.conflict", fontWeight: 700 },
} as const;

const Mark = ({ kind, children }: { kind: Schemas["StatementPartKind"]; children: string }) => (
  <Box component="span" sx={{ ...looks[kind], borderColor: "text.secondary" }}>
    {children}
  </Box>
);

function Marked({ reading }: { reading: Reading }) {
  const pieces = [];
  let at = 0;
  // Clauses that aren't weighed are grey, within those that are the words have their marks.
  const unread = reading.isCorrected ? [] : (reading.clauses ?? []).filter((c) => c.kind !== "taken");
  const plain = (from: number, to: number) => {
    let place = from;
    for (const clause of reading.claims.length > 0 ? unread : []) {
      const [start, end] = [Math.max(place, clause.at), Math.min(to, clause.at + clause.length)];
      if (start >= end) continue;
      pieces.push(reading.text.slice(place, start));
      pieces.push(
        <Box component="span" key={`u${start}`} sx={{ color: "text.secondary" }}>
          {reading.text.slice(start, end)}
        </Box>,
      );
      place = end;
    }
    pieces.push(reading.text.slice(place, to));
  };
  for (const part of reading.parts) {
    if (part.at < at) continue;
    plain(at, part.at);
    pieces.push(
      <Mark key={part.at} kind={part.kind}>
        {reading.text.slice(part.at, part.at + part.length)}
      </Mark>,
    );
    at = part.at + part.length;
  }
  plain(at, reading.text.length);
  return (
    <Box component="span" sx={{ color: reading.claims.length > 0 ? undefined : "text.secondary" }}>
      {pieces}
    </Box>
  );
}
