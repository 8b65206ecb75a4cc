import words from "../../api/words";
import { leadLetter } from "../../shared/botany/leads";
import {
  Box,
  Button,
  Dialog,
  DialogActions,
  DialogContent,
  DialogTitle,
  MenuItem,
  TextField,
  Typography,
} from "@mui/material";
import { useQueryClient } from "@tanstack/react-query";
import { useEffect, useState } from "react";
import { v7 as uuid } from "uuid";
import type { Schemas } from "../../api/client";
import { core, fillShelf } from "../../core/coreClient";
import { useSend } from "../../offline/mending";
import { useShelf } from "../../offline/queries";
import { QuietButton } from "../../shared/ui/QuietButton";

type Reading = Schemas["StatementReading"];
type Character = Schemas["Character"];

// A key may have very many statements; a page of couplets at a time keeps the browser quick.
const PAGE = 40;

/** Text and reading of every statement side by side; each can be corrected, and words can be taught. */
export function StatementList({ hash }: { hash: string }) {
  const [wanted] = useState([hash]);
  const shelf = useShelf(wanted);
  const client = useQueryClient();
  const [couplets, setCouplets] = useState<Schemas["CoupletReadings"][]>();
  const [shown, setShown] = useState(PAGE);
  const [editing, setEditing] = useState<Reading>();
  const [refused, setRefused] = useState("");
  const send = useSend();
  // What is accepted stays as it is read now, whatever the grammar or the glossary make of it later.
  const accept = async (reading: Reading) => {
    const { text, claims } = reading;
    const sent = await send({ kind: "correctStatement", id: uuid(), text, claims });
    setRefused(sent.kind === "refused" ? `${sent.problem.title} ${sent.problem.detail}` : "");
    void client.invalidateQueries({ queryKey: ["shelf"] });
  };
  useEffect(() => {
    if (!shelf.data) return;
    let current = true;
    void fillShelf(shelf.data)
      .then(() => core.statements({ hash }))
      .then((found) => current && setCouplets(found));
    return () => {
      current = false;
    };
  }, [shelf.data, hash]);
  if (!shelf.data || !couplets) return <Typography role="status">Reading the statements …</Typography>;
  const characters = shelf.data.table.characters;
  const all = couplets.flatMap((c) => c.leads.flat());
  const read = all.filter((r) => r.claims.length > 0).length;
  return (
    <>
      <Typography variant="body2" sx={{ mb: 1 }}>
        {read} of {all.length} statements are read; the others stay text and are weighed by hand. Parts:{" "}
        <Mark kind="noun">organ</Mark> <Mark kind="state">state</Mark> <Mark kind="quantity">measure</Mark>{" "}
        <Mark kind="modality">how often</Mark> <Mark kind="negation">not</Mark>
      </Typography>
      {refused && (
        <Typography role="alert" color="error">
          ✕ {refused}
        </Typography>
      )}
      <Box component="ol" sx={{ listStyle: "none", p: 0, m: 0 }}>
        {couplets.slice(0, shown).map((couplet) =>
          couplet.leads.map((lead, l) =>
            lead.map((reading, s) => (
              <Box
                component="li"
                key={`${couplet.couplet}.${l}.${s}`}
                sx={{
                  display: "grid",
                  gridTemplateColumns: { xs: "3.2em 1fr", md: "3.2em 1fr 1fr auto" },
                  columnGap: 1.5,
                  alignItems: "center",
                  borderTop: s === 0 ? "1px dotted" : undefined,
                  borderColor: "rule",
                }}
              >
                <Typography variant="body2" component="span" sx={{ fontWeight: 700 }}>
                  {s === 0 && couplet.couplet + leadLetter(l)}
                </Typography>
                <Typography variant="body2" component="span">
                  <Marked reading={reading} />
                </Typography>
                <Typography
                  variant="body2"
                  component="span"
                  color="text.secondary"
                  sx={{ gridColumn: { xs: 2, md: "auto" } }}
                >
                  {reading.isCorrected && <strong>✓ looked over · </strong>}
                  {inWords(reading.claims, characters) || "¶ stays text"}
                </Typography>
                <Box sx={{ display: "flex", gridColumn: { xs: 2, md: "auto" }, justifySelf: { md: "end" } }}>
                  {reading.claims.length > 0 && !reading.isCorrected && (
                    <QuietButton onClick={() => void accept(reading)} name={`Accept: ${reading.text}`}>
                      Accept
                    </QuietButton>
                  )}
                  <QuietButton onClick={() => setEditing(reading)} name={`Correct: ${reading.text}`}>
                    Correct
                  </QuietButton>
                </Box>
              </Box>
            )),
          ),
        )}
      </Box>
      {couplets.length > shown && <Button onClick={() => setShown(shown + PAGE)}>Show more</Button>}
      {editing && (
        <CorrectDialog
          reading={editing}
          characters={characters}
          onClose={(changed) => {
            setEditing(undefined);
            if (changed) void client.invalidateQueries({ queryKey: ["shelf"] });
          }}
        />
      )}
    </>
  );
}

function inWords(claims: Schemas["StatementClaim"][], characters: Character[]): string {
  return claims
    .map((claim) => {
      const character = characters.find((c) => c.id === claim.character);
      const states = claim.states.map((id) => character?.states.find((s) => s.id === id)?.name ?? id);
      return `${character?.name ?? claim.character}: ${claim.range ? claim.range.text : states.join(" or ")}`;
    })
    .join("; ");
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
  for (const part of reading.parts) {
    if (part.at < at) continue;
    pieces.push(reading.text.slice(at, part.at));
    pieces.push(
      <Mark key={part.at} kind={part.kind}>
        {reading.text.slice(part.at, part.at + part.length)}
      </Mark>,
    );
    at = part.at + part.length;
  }
  pieces.push(reading.text.slice(at));
  return <>{pieces}</>;
}

function CorrectDialog(props: { reading: Reading; characters: Character[]; onClose: (changed: boolean) => void }) {
  const { reading, characters, onClose } = props;
  const stated = characters.filter((c) => c.states.length > 0);
  const [character, setCharacter] = useState(reading.claims.find((c) => c.states.length > 0)?.character ?? "");
  const [states, setStates] = useState<string[]>(reading.claims.find((c) => c.states.length > 0)?.states ?? []);
  const [term, setTerm] = useState("");
  const [problem, setProblem] = useState("");
  const send = useSend();
  const chosen = stated.find((c) => c.id === character);
  const finish = async (command: Schemas["Command"]) => {
    const sent = await send(command);
    if (sent.kind === "refused") setProblem(`${sent.problem.title} ${sent.problem.detail}`);
    else onClose(true);
  };
  const correct = (claims: Schemas["StatementClaim"][]) =>
    finish({ kind: "correctStatement", id: uuid(), text: reading.text, claims });
  const quantities = reading.claims.filter((c) => c.range);
  return (
    <Dialog open onClose={() => onClose(false)} aria-labelledby="correct-title" fullWidth maxWidth="sm">
      <DialogTitle id="correct-title">“{reading.text}”</DialogTitle>
      <DialogContent sx={{ display: "grid", gap: 1.5 }}>
        <Typography variant="body2">
          Read as: {inWords(reading.claims, characters) || "text only"}. What is set here holds wherever the statement
          stands in just these words.
        </Typography>
        <TextField
          select
          label="Character"
          value={character}
          onChange={(event) => {
            setCharacter(event.target.value);
            setStates([]);
          }}
          sx={{ mt: 1 }}
        >
          {stated.map((c) => (
            <MenuItem key={c.id} value={c.id}>
              {c.name}
            </MenuItem>
          ))}
        </TextField>
        {chosen && (
          <Box
            role="group"
            aria-label={`States of ${chosen.name}`}
            sx={{ display: "flex", flexWrap: "wrap", gap: 0.75 }}
          >
            {chosen.states.map((state) => {
              const on = states.includes(state.id);
              return (
                <Button
                  key={state.id}
                  aria-pressed={on}
                  variant={on ? "contained" : "outlined"}
                  onClick={() => setStates(on ? states.filter((s) => s !== state.id) : [...states, state.id])}
                >
                  {on && "✓ "}
                  {state.name}
                </Button>
              );
            })}
          </Box>
        )}
        <TextField
          label="Teach a word or phrase for the chosen state"
          value={term}
          onChange={(event) => setTerm(event.target.value)}
          helperText="From then on every statement that uses it is read so."
        />
        {problem && (
          <Typography role="alert" color="error">
            ✕ {problem}
          </Typography>
        )}
      </DialogContent>
      <DialogActions sx={{ flexWrap: "wrap", gap: 1 }}>
        <Button
          disabled={!term.trim() || states.length !== 1}
          onClick={() =>
            states[0] && void finish({ kind: "teachTerm", id: uuid(), character, state: states[0], term: term.trim() })
          }
        >
          Teach it
        </Button>
        <Button onClick={() => void correct([])}>It stays text</Button>
        <Button
          variant="contained"
          disabled={states.length === 0}
          onClick={() =>
            void correct([{ character, states, range: null, modality: words.limits.plainModality }, ...quantities])
          }
        >
          Set this reading
        </Button>
        <Button onClick={() => onClose(false)}>Cancel</Button>
      </DialogActions>
    </Dialog>
  );
}
