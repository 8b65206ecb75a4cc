import { Box, Button, Link, MenuItem, Typography } from "@mui/material";
import { TextField } from "../../shared/form/TextField";
import { useState } from "react";
import { Link as RouterLink } from "react-router";
import { useQueryClient } from "@tanstack/react-query";
import { v7 as uuid } from "uuid";
import type { Schemas } from "../../api/client";
import { send } from "../../offline/outbox";
import { useVocabulary } from "../../offline/vocabulary";
import { Page } from "../../shared/ui/Page";
import { DefinePart } from "./DefinePart";
import { DefineQuality } from "./DefineQuality";
import { DefineState } from "./DefineState";
import { MergeTerms } from "./MergeTerms";

const kinds = {
  state: "A state of a quality that is there: another colour, another kind of hairs",
  quality: "A quality, with its states",
  part: "A part of plants",
  merge: "Nothing new: two of these are the same, and are merged",
} as const;

type What = keyof typeof kinds;

/** A curator adds a part, a quality or a state. */
export function DefinePage() {
  const held = useVocabulary();
  const client = useQueryClient();
  const [what, setWhat] = useState<What>("state");
  const [said, setSaid] = useState<{ text: string; isWrong: boolean }>();
  const define = async (
    entry: Pick<Schemas["CommandDefineTermCommand"], "part" | "quality">,
    name: string,
    done = `“${name}” is part of the vocabulary from now on.`,
  ) => {
    const sent = await send({ kind: "defineTerm", id: uuid(), ...entry });
    if (sent.kind === "refused") {
      setSaid({ text: `${sent.problem.title} ${sent.problem.detail}`, isWrong: true });
      return false;
    }
    setSaid({
      text: sent.kind === "waiting" ? `“${name}” waits on this device until there is signal.` : done,
      isWrong: false,
    });
    await client.invalidateQueries({ queryKey: ["vocabulary"] });
    return true;
  };
  const vocabulary = held.data?.vocabulary;
  return (
    <Page
      title="Define something"
      aside={
        <Link component={RouterLink} to="/glossary">
          To parts and qualities
        </Link>
      }
    >
      <Typography sx={{ maxWidth: 760, mb: 2 }}>
        What you define can be recorded, described and weighed at once, by everybody. Nothing that was published before
        is read otherwise by it.
      </Typography>
      <TextField
        select
        label="What is it"
        value={what}
        onChange={(event) => {
          setWhat(event.target.value as What);
          setSaid(undefined);
        }}
        sx={{ maxWidth: 620, mb: 2 }}
      >
        {Object.entries(kinds).map(([kind, text]) => (
          <MenuItem key={kind} value={kind}>
            {text}
          </MenuItem>
        ))}
      </TextField>
      <Typography
        role={said?.isWrong ? "alert" : "status"}
        sx={{ minHeight: "1.6em", fontWeight: 700, color: said?.isWrong ? "error.main" : "signal.support" }}
      >
        {said && `${said.isWrong ? "✕" : "✓"} ${said.text}`}
      </Typography>
      {held.isError && <Typography role="alert">The vocabulary can’t be fetched just now.</Typography>}
      {vocabulary && what === "part" && (
        <DefinePart vocabulary={vocabulary} onDefine={(part) => define({ part, quality: null }, part.nouns[0] ?? "")} />
      )}
      {vocabulary && what === "quality" && (
        <DefineQuality onDefine={(quality) => define({ part: null, quality }, quality.name)} />
      )}
      {vocabulary && what === "state" && (
        <DefineState vocabulary={vocabulary} onDefine={(quality, name) => define({ part: null, quality }, name)} />
      )}
      {vocabulary && what === "merge" && (
        <MergeTerms vocabulary={vocabulary} onMerge={(entry, name) => define(entry, name, `“${name}” is merged.`)} />
      )}
      <Box sx={{ mt: 3 }}>
        <Button component={RouterLink} to="/glossary">
          Back
        </Button>
      </Box>
    </Page>
  );
}
