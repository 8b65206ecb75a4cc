import { Box, Button, Typography } from "@mui/material";
import { useState } from "react";
import type { Schemas } from "../../api/client";
import words from "../../api/words";
import { Choice, DefineForm, entries, Field, HowSeen, idOf, list } from "./fields";

interface Props {
  onDefine: (quality: Schemas["Quality"]) => Promise<boolean>;
}

type Quality = Schemas["Quality"];

const empty = {
  name: "",
  definition: "",
  trap: "",
  kind: "categorical" as Quality["kind"],
  applies: "any",
  reliability: words.reliabilities[1]?.value ?? "",
  tool: "eye" as Quality["tool"],
  handling: "look" as Quality["handling"],
};

interface Row {
  name: string;
  terms: string;
  definition: string;
}

const noRow: Row = { name: "", terms: "", definition: "" };

/** A quality with its states. */
export function DefineQuality({ onDefine }: Props) {
  const [draft, setDraft] = useState(empty);
  const [rows, setRows] = useState<Row[]>([noRow, noRow]);
  const [problem, setProblem] = useState("");
  const set = (part: Partial<typeof empty>) => setDraft({ ...draft, ...part });
  const hasStates = draft.kind === "categorical" || draft.kind === "ordered";
  const change = (at: number, part: Partial<Row>) =>
    setRows(rows.map((row, i) => (i === at ? { ...row, ...part } : row)));
  const submit = async () => {
    const states = hasStates ? rows.filter((row) => row.name.trim()) : [];
    if (!draft.name.trim()) return setProblem("Give the quality a name.");
    if (!draft.definition.trim() || !draft.trap.trim())
      return setProblem("Say what it is, and what it is easily misjudged by.");
    if (hasStates && states.length < rows.slice(0, 2).length) return setProblem("A quality needs two states.");
    if (states.some((row) => !row.definition.trim())) return setProblem("Say of each state what it means.");
    setProblem("");
    const done = await onDefine({
      id: idOf(draft.name),
      name: draft.name.trim(),
      kind: draft.kind,
      applies: [draft.applies],
      unit: draft.kind === "length" ? "mm" : "",
      measures: [],
      reliability: Number(draft.reliability),
      detection: 1,
      effortSeconds: words.usualEffort,
      tool: draft.tool,
      handling: draft.handling,
      several: false,
      definition: draft.definition.trim(),
      trap: draft.trap.trim(),
      states: states.map((row) => ({
        id: idOf(row.name),
        name: row.name.trim(),
        broader: "",
        near: "",
        terms: list(`${row.name}, ${row.terms}`),
        definition: row.definition.trim(),
        replacedBy: null,
        drawnAs: null,
        picture: null,
      })),
      replacedBy: null,
    });
    if (done) {
      setDraft(empty);
      setRows([noRow, noRow]);
    }
  };
  return (
    <DefineForm problem={problem} onSubmit={submit}>
      <Field label="Name of the quality" value={draft.name} onChange={(name) => set({ name })} />
      <Field label="What it is" value={draft.definition} onChange={(definition) => set({ definition })} lines={2} />
      <Field
        label="What it is misjudged by"
        value={draft.trap}
        onChange={(trap) => set({ trap })}
        lines={2}
        help="Where a careful observer goes wrong."
      />
      <Choice
        label="Values"
        value={draft.kind}
        options={entries(words.characterKinds)}
        onChange={(kind) => set({ kind })}
      />
      <Choice
        label="Parts that usually have it"
        value={draft.applies}
        options={[["any", "any part"], ...entries(words.partClasses)]}
        onChange={(applies) => set({ applies })}
      />
      <Choice
        label="How surely a careful observer gets it right"
        value={draft.reliability}
        options={words.reliabilities.map((it) => [it.value, it.words] as const)}
        onChange={(reliability) => set({ reliability })}
      />
      <HowSeen of={draft} onChange={set} />
      {hasStates &&
        rows.map((row, i) => (
          <Box
            key={i}
            component="fieldset"
            sx={{ display: "grid", gap: 1, border: 1, borderColor: "rule", p: 1.5, m: 0 }}
          >
            <Typography component="legend">State {i + 1}</Typography>
            <Field label={`Name of state ${i + 1}`} value={row.name} onChange={(name) => change(i, { name })} />
            <Field
              label={`Other words for state ${i + 1}`}
              value={row.terms}
              onChange={(terms) => change(i, { terms })}
            />
            <Field
              label={`What state ${i + 1} means`}
              value={row.definition}
              onChange={(definition) => change(i, { definition })}
            />
          </Box>
        ))}
      {hasStates && (
        <Button sx={{ justifySelf: "start" }} onClick={() => setRows([...rows, noRow])}>
          One more state
        </Button>
      )}
    </DefineForm>
  );
}
