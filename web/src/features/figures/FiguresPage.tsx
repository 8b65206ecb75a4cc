import { Box, Button, Link, MenuItem, Typography } from "@mui/material";
import { TextField } from "../../shared/form/TextField";
import { useMutation } from "@tanstack/react-query";
import { useState } from "react";
import { Link as RouterLink } from "react-router";
import type { Schemas } from "../../api/client";
import { core } from "../../core/coreClient";
import { useAsked } from "../../offline/flora";
import { Page, Part } from "../../shared/ui/Page";
import { Arranged } from "../../shared/figures/Arranged";
import { AccumulationCurve, Estimates } from "../../shared/figures/drawings";
import { EXAMPLE } from "./example";
import { ownFinds } from "./ownRecords";
import { Likenesses, Methods, SampleTable } from "../../shared/figures/tables";

type Request = Schemas["CommunityTableRequest"];

const kinds: { kind: Request["kind"]; says: string }[] = [
  { kind: "individuals", says: "individuals, counted" },
  { kind: "incidence", says: "found or not" },
  { kind: "cover", says: "cover, or another measure" },
];

const layouts: { layout: Request["layout"]; says: string }[] = [
  { layout: "samplesInRows", says: "a plot a row, a taxon a column" },
  { layout: "taxaInRows", says: "a taxon a row, a plot a column" },
  { layout: "finds", says: "a find a row: plot, taxon, value" },
];

/** Figures of plots or lists: how many taxa, how evenly, how many more there are, how alike the plots are. */
export function FiguresPage() {
  const [typed, setTyped] = useState<Request>({ text: "", layout: "samplesInRows", kind: "individuals" });
  const change = (part: Partial<Request>) => setTyped((before) => ({ ...before, ...part }));
  const own = useMutation({
    mutationFn: ownFinds,
    onSuccess: ({ text }) => setTyped({ text, layout: "finds", kind: "incidence" }),
  });
  const isEmpty = typed.text.trim() === "";
  const asked = useAsked(isEmpty ? undefined : typed, core.communityTable);
  const answer = isEmpty ? undefined : asked.answer;
  const figures = answer?.figures;
  return (
    <Page title="Figures of a survey">
      <Typography sx={{ maxWidth: 720, mb: 2 }}>
        Paste a table of plots (or lists, or places) and taxa as it stands in a sheet. Every figure says by which
        formula it is worked out; one that isn’t for such values isn’t given. For plants between two kinds there is{" "}
        <Link component={RouterLink} to="/figures/parents">
          a line from parent to parent
        </Link>
        .
      </Typography>
      <Box sx={{ display: "grid", gridTemplateColumns: { md: "minmax(0, 7fr) minmax(0, 5fr)" }, gap: 2 }}>
        <Box>
          <TextField
            label="Table, with its first line of names"
            multiline
            minRows={5}
            maxRows={10}
            fullWidth
            value={typed.text}
            onChange={(event) => change({ text: event.target.value })}
            error={(answer?.problems.length ?? 0) > 0}
            slotProps={{
              htmlInput: { spellCheck: false, wrap: "off", style: { fontFamily: "monospace", fontSize: "0.875rem" } },
            }}
          />
          {isEmpty && (
            <Box sx={{ display: "flex", flexWrap: "wrap", gap: 1, mt: 1 }}>
              <Button variant="contained" disabled={own.isPending} onClick={() => own.mutate()}>
                Take the records kept here
              </Button>
              <Button onClick={() => change({ text: EXAMPLE })}>Put an example in</Button>
            </Box>
          )}
          {own.isError && <Typography role="alert">✕ {own.error.message}</Typography>}
          {own.data && typed.text === own.data.text && (
            <Typography variant="body2" sx={{ mt: 0.5 }}>
              {own.data.records} records by place and year
              {own.data.unnamed > 0 && `; ${own.data.unnamed} that name no single taxon are left out`}. Records aren’t
              complete lists: what isn’t among them may have grown there all the same.
            </Typography>
          )}
        </Box>
        <Box sx={{ display: "grid", gap: 2, alignContent: "start" }}>
          <TextField
            select
            label="What the values are"
            value={typed.kind}
            onChange={(event) => change({ kind: event.target.value as Request["kind"] })}
          >
            {kinds.map((it) => (
              <MenuItem key={it.kind} value={it.kind}>
                {it.says}
              </MenuItem>
            ))}
          </TextField>
          <TextField
            select
            label="What its rows are"
            value={typed.layout}
            onChange={(event) => change({ layout: event.target.value as Request["layout"] })}
          >
            {layouts.map((it) => (
              <MenuItem key={it.layout} value={it.layout}>
                {it.says}
              </MenuItem>
            ))}
          </TextField>
        </Box>
      </Box>
      {answer && answer.problems.length > 0 && (
        <Box role="alert">
          <Box component="ul" sx={{ pl: 2.5, my: 1 }}>
            {answer.problems.map((it, i) => (
              <li key={i}>
                Line {it.line}, cell {it.column}: {it.message}
              </li>
            ))}
          </Box>
        </Box>
      )}
      {figures && (
        <>
          <Box sx={{ display: "grid", gridTemplateColumns: { md: "1fr 1fr" }, columnGap: 4, mt: 2 }}>
            <Part id="how-many" title="How many taxa there are">
              <Estimates pooled={figures.pooled} />
            </Part>
            <Part id="more-plots" title="What each plot adds">
              <AccumulationCurve points={figures.accumulation} />
            </Part>
          </Box>
          <Part id="plots" title="Plot by plot">
            <SampleTable figures={figures} />
          </Part>
          <Part id="alike" title="How alike they are">
            <Likenesses figures={figures} />
          </Part>
          {answer.arrangement && (
            <Part id="arranged" title="How they lie to each other">
              <Arranged arrangement={answer.arrangement} onDistance={(distance) => change({ distance })} />
            </Part>
          )}
          <Part id="methods" title="How it is worked out">
            <Methods methods={[...figures.methods, ...(answer.arrangement?.methods ?? [])]} />
          </Part>
        </>
      )}
    </Page>
  );
}
