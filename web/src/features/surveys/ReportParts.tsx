import { Box, Button, Typography } from "@mui/material";
import { TextField } from "../../shared/form/TextField";
import { useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { v7 as uuid } from "uuid";
import type { Schemas } from "../../api/client";
import { send } from "../../offline/outbox";
import { TaxonLabel } from "../../shared/botany/TaxonLabel";
import { QuietButton } from "../../shared/ui/QuietButton";

const MOST_SHOWN = 25;

/** What a section says; each sentence can be put into one's own words, and back. */
export function ReportSentences({ surveyId, sentences }: { surveyId: string; sentences: Schemas["ReportSentence"][] }) {
  return sentences.map((it) => <Sentence key={it.key} surveyId={surveyId} sentence={it} />);
}

function Sentence({ surveyId, sentence }: { surveyId: string; sentence: Schemas["ReportSentence"] }) {
  const client = useQueryClient();
  const [typed, setTyped] = useState<string>();
  const [says, setSays] = useState("");
  const write = async (text: string) => {
    const sent = await send({ kind: "writeSurveyText", id: uuid(), surveyId, key: sentence.key, text: text.trim() });
    if (sent.kind === "refused") return setSays(`✕ ${sent.problem.title} ${sent.problem.detail}`);
    setSays(sent.kind === "waiting" ? "◌ It waits to be sent, and stands here then." : "");
    setTyped(undefined);
    void client.invalidateQueries({ queryKey: ["survey-report", surveyId] });
  };
  if (typed !== undefined)
    return (
      <Box
        component="form"
        noValidate
        onSubmit={(event) => {
          event.preventDefault();
          void write(typed);
        }}
        sx={{ my: 1, maxWidth: 720 }}
      >
        <TextField
          label="In your own words"
          multiline
          fullWidth
          autoFocus
          value={typed}
          onChange={(event) => setTyped(event.target.value)}
        />
        <Box sx={{ display: "flex", flexWrap: "wrap", gap: 1, mt: 1 }}>
          <Button type="submit" variant="contained">
            Keep the sentence
          </Button>
          {sentence.own && <Button onClick={() => void write("")}>As it is made from the data</Button>}
          <Button onClick={() => setTyped(undefined)}>Leave it</Button>
        </Box>
        <Typography role="status">{says}</Typography>
      </Box>
    );
  return (
    <Box
      sx={{
        display: "flex",
        gap: 1,
        alignItems: "baseline",
        maxWidth: 860,
        ...(sentence.own ? { borderLeft: 3, borderColor: "text.secondary", pl: 1 } : {}),
      }}
    >
      <Typography sx={{ flex: 1, my: 0.5, color: sentence.text ? undefined : "text.secondary" }}>
        {sentence.text || "(Nothing is written here yet; it is left out of the report.)"}
      </Typography>
      <Box sx={{ "@media print": { display: "none" } }}>
        <QuietButton
          name={`Change the sentence: ${sentence.text.slice(0, 40) || sentence.key}`}
          onClick={() => setTyped(sentence.text)}
        >
          Change
        </QuietButton>
      </Box>
      {says && <Typography role="status">{says}</Typography>}
    </Box>
  );
}

const cell = {
  px: 1,
  py: 0.5,
  borderBottom: "1px dotted",
  borderColor: "rule",
  textAlign: "left",
  verticalAlign: "top",
} as const;

/** The tables of a section; long ones open on demand, and print whole. */
export const ReportTables = ({ tables }: { tables: Schemas["ReportTable"][] }) =>
  tables.map((it) => <Table key={it.title} table={it} />);

function Table({ table }: { table: Schemas["ReportTable"] }) {
  const [isAll, setAll] = useState(false);
  const isLong = table.rows.length > MOST_SHOWN;
  return (
    <>
      <Box sx={{ overflowX: "auto", mt: 1 }} tabIndex={0} role="region" aria-label={table.title}>
        <Box component="table" sx={{ borderCollapse: "collapse", "& th, & td": cell }}>
          <Box component="caption" sx={{ textAlign: "left", fontWeight: 700, py: 0.5 }}>
            {table.title}
          </Box>
          <thead>
            <tr>
              {table.columns.map((it) => (
                <th scope="col" key={it}>
                  {it}
                </th>
              ))}
            </tr>
          </thead>
          <tbody>
            {table.rows.map((row, i) => (
              <Box
                component="tr"
                key={i}
                sx={
                  !isAll && i >= MOST_SHOWN ? { display: "none", "@media print": { display: "table-row" } } : undefined
                }
              >
                {row.map((text, column) => (
                  <td key={column}>{table.names.includes(column) ? <TaxonLabel name={text} /> : text}</td>
                ))}
              </Box>
            ))}
          </tbody>
        </Box>
      </Box>
      {isLong && (
        <Button onClick={() => setAll(!isAll)} sx={{ "@media print": { display: "none" } }}>
          {isAll ? "Fewer rows" : `All ${table.rows.length} rows`}
        </Button>
      )}
    </>
  );
}
