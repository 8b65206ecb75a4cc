import { Box, Button, LinearProgress, Link, Typography } from "@mui/material";
import { TextField } from "../../shared/form/TextField";
import { useQueryClient } from "@tanstack/react-query";
import { useRef, useState } from "react";
import { Link as RouterLink } from "react-router";
import type { Problem, Schemas } from "../../api/client";
import { answerOf, api, ProblemError } from "../../api/client";
import { Page, Part } from "../../shared/ui/Page";
import { QuietButton } from "../../shared/ui/QuietButton";
import { Choice } from "../../shared/form/Choice";
import { GridFields, gridOf, noGrid } from "./GridFields";
import { useFloras } from "../../shared/botany/queries";
import { type Answer, sendForm } from "../../shared/form/sendForm";
import { Draft, Columns, ProblemTable } from "./FloraDraft";
import { counted } from "../../shared/ui/counted";

const fields = [
  ["matrix", "Taxa × characters", "The first column is the taxon, every other one a character. CSV or XLSX."],
  ["characters", "Characters", "May be left out: kinds, units and states are then worked out from the cells."],
  ["taxa", "Taxa", "May be left out: family, status, names, habitats, cautions …"],
  ["states", "States", "May be left out: definitions of states and other words for them."],
  ["sdd", "Or an SDD document", "SDD 1.1 in XML, instead of the tables."],
] as const;

type Field = (typeof fields)[number][0];

type Files = Partial<Record<Field, File>>;

type Dash = "absent" | "inapplicable" | "notRecorded";

// What was chosen just now, before the page has it.
interface Given {
  dash?: Dash;
  renamed?: Record<string, string>;
}

const dashes: [Dash, string][] = [
  ["absent", "the plant hasn’t the part"],
  ["inapplicable", "it can’t be asked of it"],
  ["notRecorded", "nobody recorded it"],
];

/** Bringing a flora: choose files, see how they are read, mend, keep as a draft, publish. */
export function BringFlora() {
  const client = useQueryClient();
  const floras = useFloras();
  const [name, setName] = useState("");
  const [files, setFiles] = useState<Files>({});
  const [renamed, setRenamed] = useState<Record<string, string>>({});
  const [dash, setDash] = useState<Dash>();
  const [grid, setGrid] = useState(noGrid);
  const [check, setCheck] = useState<Schemas["FloraCheck"]>();
  const [sent, setSent] = useState<number>();
  const [problem, setProblem] = useState("");
  const [draft, setDraft] = useState<Schemas["FloraImport"]>();
  const [published, setPublished] = useState<Schemas["FloraVersion"]>();
  const running = useRef<AbortController>(undefined);

  const formOf = (given?: Given) => {
    const form = new FormData();
    form.set("name", name);
    const meant = given?.dash ?? dash;
    if (meant) form.set("dash", meant);
    const declared = gridOf(grid);
    if (declared) form.set("grid", declared);
    const headings = given?.renamed ?? renamed;
    if (Object.keys(headings).length > 0) form.set("columns", JSON.stringify(headings));
    for (const [field] of fields) {
      const file = files[field];
      if (file) form.set(field, file);
    }
    return form;
  };
  const run = async <T,>(path: string, onAnswer: (answer: Answer<T>) => void, given?: Given) => {
    running.current?.abort();
    const controller = new AbortController();
    running.current = controller;
    setProblem("");
    setSent(0);
    try {
      onAnswer(await sendForm<T>(path, formOf(given), setSent, controller.signal));
    } catch (error) {
      if (!(error instanceof DOMException)) setProblem(error instanceof Error ? error.message : String(error));
    } finally {
      if (running.current === controller) setSent(undefined);
    }
  };
  const doCheck = (given?: Given) =>
    run<Schemas["FloraCheck"] & Problem>(
      "/api/v1/floras/check",
      ({ status, body }) => {
        if (status === 200) setCheck(body);
        else setProblem(`${body.title} ${body.detail}`);
      },
      given,
    );
  // A problem names a column as it is headed now; a new heading belongs to the one in the file.
  const takeOffer = (column: string, heading: string) => {
    const original = Object.keys(renamed).find((it) => renamed[it] === column) ?? column;
    const next = { ...renamed, [original]: heading };
    setRenamed(next);
    void doCheck({ renamed: next });
  };
  const asksForDash = check?.problems.find((p) => p.code === "cell.dash");
  const doKeep = () =>
    run<Schemas["FloraImport"] & Schemas["FloraRefusal"]>("/api/v1/floras", ({ status, body }) => {
      if (status === 200) {
        setDraft(body);
        void client.invalidateQueries({ queryKey: ["floras"] });
      } else {
        setProblem(`${body.title} ${body.detail}`);
        if (body.problems) setCheck((before) => before && { ...before, problems: body.problems });
      }
    });
  const choose = (field: Field, file: File | undefined) => {
    setFiles((before) => ({ ...before, [field]: file }));
    setCheck(undefined);
    setDraft(undefined);
    setPublished(undefined);
    if (field === "matrix") {
      setRenamed({});
      setDash(undefined);
    }
    if (file && !name) setName(file.name.replace(/\.[^.]+$/, "").replace(/[_-]+/g, " "));
  };
  const publish = async (id: string) => {
    try {
      setPublished(
        await answerOf((signal) => api.POST("/api/v1/floras/{id}/publish", { params: { path: { id } }, signal })),
      );
      setDraft(undefined);
      void client.invalidateQueries();
    } catch (error) {
      setProblem(
        error instanceof ProblemError
          ? `${error.problem.title} ${error.problem.detail}`
          : "The server doesn’t answer. The draft is kept; try again.",
      );
    }
  };
  const errors = check?.problems.filter((p) => p.severity === "error").length ?? 0;
  const ready = (files.matrix ?? files.sdd) !== undefined;
  const drafts = (floras.data ?? []).filter((f) => f.draft);
  return (
    <Page
      title="Bring a flora"
      aside={
        <Link component={RouterLink} to="/flora">
          To the flora
        </Link>
      }
    >
      <Typography sx={{ maxWidth: "62ch", mb: 2 }}>
        A plain trait table is enough: one row per taxon, one column per character. Nothing of it is used until you
        publish it.
      </Typography>
      <Part id="files" title="1 · Files">
        <TextField
          label="Name of the flora"
          value={name}
          onChange={(event) => setName(event.target.value)}
          sx={{ maxWidth: 420, mb: 1.5 }}
        />
        {fields.map(([field, label, what]) => (
          <Box
            key={field}
            sx={{
              display: "flex",
              gap: 1.5,
              alignItems: "center",
              flexWrap: "wrap",
              py: 0.5,
              borderTop: "1px dotted",
              borderColor: "rule",
            }}
          >
            <Box
              component="label"
              sx={{
                position: "relative",
                display: "inline-flex",
                alignItems: "center",
                minHeight: 44,
                minWidth: 190,
                px: 2,
                border: field === "matrix" ? 2 : 1,
                borderColor: field === "matrix" ? "primary.main" : "text.primary",
                fontWeight: 600,
                "&:focus-within": { outline: "3px solid", outlineColor: "primary.main", outlineOffset: 2 },
              }}
            >
              {label}
              <Box
                component="input"
                type="file"
                name={field}
                aria-label={`File: ${label}`}
                accept={field === "sdd" ? ".xml" : ".csv,.tsv,.txt,.xlsx"}
                onChange={(event) => choose(field, (event.target as HTMLInputElement).files?.[0])}
                sx={{ position: "absolute", opacity: 0, inset: 0, width: "100%", cursor: "pointer" }}
              />
            </Box>
            <Typography variant="body2" sx={{ flex: "1 1 14rem" }}>
              {files[field] ? (
                <strong>✓ {files[field].name}</strong>
              ) : (
                <Box component="span" sx={{ color: "text.secondary" }}>
                  {what}
                </Box>
              )}
            </Typography>
            {files[field] && (
              <QuietButton name={`Take away: ${label}`} onClick={() => choose(field, undefined)}>
                Take away
              </QuietButton>
            )}
          </Box>
        ))}
        <GridFields value={grid} onChange={setGrid} />
        <Box sx={{ display: "flex", gap: 1.5, mt: 1.5, flexWrap: "wrap" }}>
          <Button variant="contained" disabled={!ready || sent !== undefined} onClick={() => void doCheck()}>
            See how they are read
          </Button>
          {sent !== undefined && <Button onClick={() => running.current?.abort()}>Stop</Button>}
        </Box>
        {sent !== undefined && (
          <Box role="status" sx={{ mt: 1 }}>
            <LinearProgress
              variant={sent < 1 ? "determinate" : "indeterminate"}
              value={sent * 100}
              aria-label="Progress"
            />
            <Typography variant="body2">
              {sent < 1 ? `Sending, ${Math.round(sent * 100)} %` : "Reading the tables …"}
            </Typography>
          </Box>
        )}
        {problem && (
          <Typography role="alert" color="error" sx={{ mt: 1 }}>
            ✕ {problem}
          </Typography>
        )}
      </Part>
      {check && (
        <>
          <Part
            id="reading"
            title={`2 · ${counted(check.taxa, "taxon", "taxa")}, ${counted(check.characters, "character")}`}
          >
            {check.columns.length > 0 && <Columns columns={check.columns} renamed={renamed} onChange={setRenamed} />}
            {Object.keys(renamed).length > 0 && (
              <Button sx={{ mt: 1 }} disabled={sent !== undefined} onClick={() => void doCheck()}>
                Read again with these headings
              </Button>
            )}
          </Part>
          <Part
            id="problems"
            title={
              check.problems.length === 0
                ? "3 · Nothing is wrong"
                : `3 · ${errors} in the way, ${check.problems.length - errors} to look at`
            }
          >
            {(asksForDash ?? dash) && (
              <Box sx={{ bgcolor: "signal.openWash", px: 1.5, py: 1, mb: 1.5 }}>
                <Typography variant="body2" sx={{ mb: 1 }}>
                  <strong>? What does a dash mean in this table?</strong> {asksForDash?.message}
                </Typography>
                <Choice
                  label="A dash means"
                  choices={dashes}
                  value={dash}
                  onChoose={(meant) => {
                    if (!meant) return;
                    setDash(meant);
                    void doCheck({ dash: meant });
                  }}
                />
              </Box>
            )}
            <ProblemTable problems={check.problems} onOffer={takeOffer} />
            <Button
              variant="contained"
              disabled={errors > 0 || !name.trim() || sent !== undefined}
              onClick={() => void doKeep()}
              sx={{ mt: 1 }}
            >
              Keep it as a draft
            </Button>
          </Part>
        </>
      )}
      {draft && (
        <Typography role="status" sx={{ mb: 2 }}>
          <strong>✓ Kept as a draft:</strong> {counted(draft.taxa, "taxon", "taxa")},{" "}
          {counted(draft.characters, "character")}. It becomes version {draft.version} when it is published.
        </Typography>
      )}
      {published && (
        <Typography role="status" sx={{ mb: 2 }}>
          <strong>✓ Published as version {published.version}.</strong>{" "}
          <Link component={RouterLink} to={`/flora/${published.id}`}>
            Open it
          </Link>
        </Typography>
      )}
      {drafts.length > 0 && (
        <Part id="drafts" title="Drafts">
          {drafts.map((flora) => (
            <Draft
              key={flora.id}
              flora={flora}
              onPublish={() => void publish(flora.id)}
              onChange={() => void client.invalidateQueries({ queryKey: ["floras"] })}
            />
          ))}
        </Part>
      )}
      {(floras.data ?? []).some((f) => f.version > 0) && (
        <Part id="published" title="Take a flora with you">
          {(floras.data ?? [])
            .filter((f) => f.version > 0)
            .map((flora) => (
              <Typography key={flora.id} variant="body2">
                {flora.name}, version {flora.version}:{" "}
                {flora.source && !flora.source.mayBeExported ? (
                  `its text isn’t handed on (${flora.source.inWords}).`
                ) : (
                  <>
                    <Link href={`/api/v1/floras/${flora.id}/sdd`}>SDD document</Link>,{" "}
                    <Link href={`/api/v1/floras/${flora.id}/pack`}>JSON</Link>
                  </>
                )}
              </Typography>
            ))}
        </Part>
      )}
    </Page>
  );
}
