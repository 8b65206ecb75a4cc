import { Box, Button, Typography } from "@mui/material";
import { useState } from "react";
import type { Schemas } from "../../api/client";
import { leadLetter } from "../../shared/botany/leads";

type Statement = Schemas["ReadStatement"];
type Claim = Schemas["StatementClaim"];

// As many as are gone through at a glance; the next ones follow.
const AT_ONCE = 3;

interface Props {
  statements: Statement[];
  onDecide: (text: string, claims: Claim[]) => void;
}

/** Readings to choose from, those on which most of the key hangs first: a tap each. */
export function Proposals({ statements, onDecide }: Props) {
  const [shown, setShown] = useState(AT_ONCE);
  const open = statements.filter((s) => s.open.length > 0).sort((a, b) => b.helps - a.helps);
  if (open.length === 0) return null;
  return (
    <Box sx={{ mb: 3 }}>
      <Typography component="h2" variant="h3" id="to-choose" sx={{ mb: 0.5 }}>
        To choose: {open.length}
      </Typography>
      <Typography variant="body2" color="text.secondary" sx={{ mb: 1 }}>
        What a statement may mean. Until you choose, it isn’t weighed.
      </Typography>
      <Box component="ul" aria-labelledby="to-choose" sx={{ listStyle: "none", p: 0, m: 0 }}>
        {open.slice(0, shown).map((s) => (
          <Card key={`${s.couplet}.${s.lead}.${s.index}`} statement={s} onDecide={onDecide} />
        ))}
      </Box>
      {open.length > shown && <Button onClick={() => setShown(shown + AT_ONCE)}>Show more to choose</Button>}
    </Box>
  );
}

function Card({ statement, onDecide }: { statement: Statement; onDecide: Props["onDecide"] }) {
  const { reading, open } = statement;
  // A tap per clause; with the last one the statement is set.
  const [decided, setDecided] = useState<Record<number, Claim[]>>({});
  const decide = (at: number, claims: Claim[]) => {
    const next = { ...decided, [at]: claims };
    setDecided(next);
    if (open.every((clause) => next[clause.at]))
      onDecide(reading.text, [...reading.claims, ...Object.values(next).flat()]);
  };
  return (
    <Box component="li" sx={{ borderTop: "1px dotted", borderColor: "rule", py: 1.25, display: "grid", gap: 0.75 }}>
      <Typography>
        <Box component="span" sx={{ fontWeight: 700, mr: 1 }}>
          {statement.couplet + leadLetter(statement.lead)}
        </Box>
        “{reading.text}”
      </Typography>
      {open.map((clause) => (
        <Clause
          key={clause.at}
          words={reading.text.slice(clause.at, clause.at + clause.length)}
          clause={clause}
          decided={decided[clause.at]}
          onDecide={(claims) => decide(clause.at, claims)}
        />
      ))}
    </Box>
  );
}

interface ClauseProps {
  words: string;
  clause: Schemas["OpenClause"];
  decided: Claim[] | undefined;
  onDecide: (claims: Claim[]) => void;
}

function Clause({ words, clause, decided, onDecide }: ClauseProps) {
  return (
    <Box role="group" aria-label={`What “${words}” means`} sx={{ display: "flex", flexWrap: "wrap", gap: 1 }}>
      {clause.choices.map((choice) => (
        <Button
          key={choice.inWords}
          variant={decided === choice.claims ? "contained" : "outlined"}
          aria-pressed={decided === choice.claims}
          onClick={() => onDecide(choice.claims)}
          sx={{ textAlign: "left" }}
        >
          {choice.inWords}?
        </Button>
      ))}
      <Button color="inherit" aria-pressed={decided?.length === 0} onClick={() => onDecide([])}>
        None of these
      </Button>
    </Box>
  );
}
