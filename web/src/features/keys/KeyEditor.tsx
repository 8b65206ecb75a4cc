import { Box, Button, ButtonBase, Typography } from "@mui/material";
import { useEffect, useRef, useState } from "react";
import { Link as RouterLink, useNavigate, useSearchParams } from "react-router";
import { v7 as uuid } from "uuid";
import { ProblemError, type Problem, type Schemas } from "../../api/client";
import { Page } from "../../shared/ui/Page";
import { core } from "../../core/coreClient";
import { useMending, useSend } from "../../offline/mending";
import { hashesOf, keyKnown, useKeys } from "../../offline/documents";
import { keep, kept, type Command } from "../../offline/store";
import { TextField } from "../../shared/form/TextField";
import { later } from "../../shared/ui/later";
import { NO_SOURCE, type Source } from "../../shared/ui/source";
import { counted } from "../../shared/ui/counted";

const SourceFields = later(async () => (await import("../../shared/ui/SourceFields")).SourceFields);
const CoupletList = later(async () => (await import("../../shared/botany/CoupletList")).CoupletList);

// What is typed is kept on this device until it is saved: one text for a new key, and one for each key that gets a new version.
const draftOf = (from: string | null) => (from ? `keyText:${from}` : "keyText");

// While somebody types, the text is read again after this pause.
const PAUSE_MS = 150;

// Eighteen lines, the frame and the help below, so that nothing moves when the field comes.
const ROOM_PX = 480;

const EXAMPLE = `Key to the shrubs of a hedge

1. Leaves opposite; twigs with corky wings ........ Vellorna alata Hask.
1. Leaves alternate ........ 2
2. Thorns in the leaf axils ........ Tharsina spinosa Hask.
2. Thorns absent; leaf base unequal ........ Carpessa rubra Ormdal`;

/** Key text on one side, what was read from it on the other. */
export function KeyEditor() {
  const [search] = useSearchParams();
  const from = search.get("from");
  const mend = useMending("saveKeys");
  if (mend === undefined) return null;
  // Another key is another text: what was typed for one is never kept as that of the other.
  if (mend) {
    const { text, source } = mend.command;
    return (
      <Editor
        key={mend.id}
        from={`mend-${mend.id}`}
        refused={{ id: mend.id, text, source: source ? { ...NO_SOURCE, ...source } : undefined }}
      />
    );
  }
  return <Editor key={from} from={from} />;
}

function Editor({ from, refused }: { from: string | null; refused?: { id: string; text: string; source?: Source } }) {
  const send = useSend(refused?.id);
  const navigate = useNavigate();
  const keys = useKeys();
  const [text, setText] = useState<string>();
  const [reading, setReading] = useState<Schemas["KeyReading"]>();
  const [readText, setReadText] = useState<string>();
  const [failure, setFailure] = useState<string>();
  const [refusal, setRefusal] = useState<Problem>();
  const [state, setState] = useState<"editing" | "saving">("editing");
  const [source, setSource] = useState<Source>(refused?.source ?? NO_SOURCE);
  const field = useRef<HTMLTextAreaElement>(null);
  const asked = useRef(0);

  const begun = useRef<string>(undefined);
  const refusedText = refused?.text;

  // Starts with what was typed here last, or with the text of a saved key.
  useEffect(() => {
    let current = true;
    const load = async () => {
      const draft = await kept<string>(draftOf(from));
      if (refusedText !== undefined) return draft ?? refusedText;
      if (from) {
        try {
          const known = await keyKnown(from);
          // A new version is from where the last one was, until something else is said.
          if (current && known.source) setSource(known.source);
          return draft ?? known.sourceText;
        } catch (error) {
          if (draft) return draft;
          // Another text in its place would be saved as a version of the wrong key.
          throw new Error(
            error instanceof ProblemError
              ? `${error.problem.title} ${error.problem.detail}`
              : "The text of this key is kept by the server, and the server doesn’t answer now. Come back to this page when it does.",
            { cause: error },
          );
        }
      }
      return draft ?? "";
    };
    load().then(
      (loaded) => {
        if (!current) return;
        // The text area's own line ends are single characters.
        const lines = loaded.replace(/\r\n?/g, "\n");
        begun.current = lines;
        setText(lines);
      },
      (error: Error) => current && setFailure(error.message),
    );
    return () => {
      current = false;
    };
  }, [from, refusedText]);

  useEffect(() => {
    if (text === undefined) return;
    const ask = ++asked.current;
    const timer = setTimeout(() => {
      if (text !== begun.current) {
        begun.current = undefined;
        void keep(draftOf(from), text);
      }
      core.readKeyText({ text }).then(
        (answer) => {
          if (ask !== asked.current) return;
          setReading(answer);
          setReadText(text);
        },
        (error: Error) => setFailure(error.message),
      );
    }, PAUSE_MS);
    return () => clearTimeout(timer);
  }, [text, from]);

  const empty = !text?.trim();
  const problems = empty ? [] : (reading?.problems ?? []);
  const errors = problems.filter((p) => p.severity === "error").length;
  const untitled = reading?.keys.some((k) => !k.title) ?? false;
  const sound = !empty && readText === text && errors === 0 && !untitled && (reading?.keys.length ?? 0) > 0;

  const save = async () => {
    if (text === undefined) return;
    setState("saving");
    setRefusal(undefined);
    const { book, page, licence, onlyHere } = source;
    const isSaid = book.trim() !== "" || page.trim() !== "" || licence !== "unsaid" || onlyHere;
    const command: Command = {
      kind: "saveKeys",
      id: uuid(),
      text,
      ...(isSaid && { source: { book: book.trim(), page: page.trim(), licence, onlyHere } }),
    };
    // What is named by these keys waits for them.
    const creates = await hashesOf(command);
    const sent = await send(command, { creates });
    if (sent.kind === "refused") {
      setRefusal(sent.problem);
      setState("editing");
      return;
    }
    await keep(draftOf(from), undefined);
    if (sent.kind === "waiting") void navigate(creates[0] ? `/keys/${creates[0]}` : "/keys");
    else void navigate(sent.result.keys?.[0] ? `/keys/${sent.result.keys[0].hash}` : "/keys");
  };

  const goTo = (problem: Schemas["KeyProblem"]) => {
    const area = field.current;
    if (!area || text === undefined) return;
    const lines = text.split("\n");
    const at = startOf(text, problem.line);
    const start = at + problem.column - 1;
    area.focus();
    area.setSelectionRange(start, at + (lines[problem.line - 1]?.length ?? 0));
    area.scrollTop = Math.max(0, (problem.line - 4) * parseFloat(getComputedStyle(area).lineHeight));
  };

  // One tap on an offered reading writes it into the text, where the old words still stand.
  const change = (choice: Schemas["KeyTextChange"]) => {
    if (text === undefined) return;
    const at = startOf(text, choice.line) + choice.column - 1;
    if (text.slice(at, at + choice.old.length) !== choice.old) return;
    setText(text.slice(0, at) + choice.new + text.slice(at + choice.old.length));
  };

  return (
    <Page
      title={refused ? "A key that was refused" : from ? "A new version of a key" : "Paste a key"}
      aside={
        <>
          <Typography variant="body2" color="text.secondary" id="save-why" role="status">
            {verdict()}
          </Typography>
          <Button component={RouterLink} to="/keys">
            Cancel
          </Button>
          <Button
            variant="contained"
            disabled={!sound || state === "saving"}
            onClick={() => void save()}
            aria-describedby="save-why"
          >
            {state === "saving" ? "Saving …" : "Save"}
          </Button>
        </>
      }
    >
      {(refusal ?? failure) && (
        <Typography role="alert" color="error" sx={{ mb: 1 }}>
          ✕ {refusal ? `${refusal.title} ${refusal.detail}` : failure}
        </Typography>
      )}
      <Box
        sx={{
          display: "grid",
          gap: 3,
          gridTemplateColumns: { xs: "1fr", md: "minmax(0, 1fr) minmax(0, 1fr)" },
          alignItems: "start",
        }}
      >
        <Box>
          <TextField
            label="Key text"
            multiline
            minRows={18}
            maxRows={26}
            value={text ?? ""}
            // What is typed before the kept text has come would be lost under it.
            disabled={text === undefined}
            onChange={(event) => setText(event.target.value)}
            inputRef={field}
            placeholder={EXAMPLE}
            slotProps={{
              htmlInput: { spellCheck: false, wrap: "off", sx: { fontSize: "0.95rem", overflowX: "auto" } },
              inputLabel: { shrink: true },
            }}
            sx={{ minHeight: ROOM_PX }}
            helperText="As it stands in the book: bracketed or indented, several keys under their titles, dot leaders or not."
          />
          {text !== undefined && empty && (
            <Button sx={{ mt: 1 }} onClick={() => setText(EXAMPLE)}>
              Try it with an example
            </Button>
          )}
          {!empty && (
            <Box sx={{ mt: 2 }}>
              <SourceFields source={source} onChange={setSource} />
            </Box>
          )}
        </Box>
        <Box>
          {problems.length > 0 && <ProblemList problems={problems} onGo={goTo} onChange={change} />}
          {empty && (
            <Typography color="text.secondary">
              What is read from the text appears here while you type: titles, couplets, and where each lead goes.
            </Typography>
          )}
          {!empty &&
            reading?.keys.map((key, i) => (
              <Box key={i} component="section" aria-labelledby={`key-${i}`} sx={{ mb: 3 }}>
                <Typography variant="h2" id={`key-${i}`}>
                  {key.title || "(no title yet)"}
                </Typography>
                <Typography variant="body2" color="text.secondary" sx={{ mb: 0.5 }}>
                  {key.layout}, {counted(key.couplets.length, "couplet")}, {counted(countTaxa(key), "taxon", "taxa")}.{" "}
                  {key.notes.join(" ")}
                  {savedAs(key.title) && <strong> {savedAs(key.title)}</strong>}
                </Typography>
                <CoupletList keyRead={key} headingId={`key-${i}`} />
              </Box>
            ))}
        </Box>
      </Box>
    </Page>
  );

  // A key of this title is there already: nobody should be surprised to have made a version of it.
  function savedAs(title: string) {
    const same = keys.data?.find((it) => it.title.toLowerCase() === title.toLowerCase());
    return same ? `Will be saved as version ${same.version + 1} of the key of this title.` : "";
  }

  function verdict() {
    if (empty) return "";
    if (readText !== text) return "Reading …";
    if (errors > 0) return `✕ ${errors} ${errors === 1 ? "problem" : "problems"} to mend before it can be saved`;
    if (untitled) return "✕ Each key needs a title before it can be saved";
    return problems.length > 0 ? `✓ Sound; ${problems.length} to look at` : "✓ Sound";
  }
}

// Where a line begins.
function startOf(text: string, line: number): number {
  return text
    .split("\n")
    .slice(0, line - 1)
    .reduce((at, it) => at + it.length + 1, 0);
}

function countTaxa(key: Schemas["Key"]): number {
  return new Set(
    key.couplets
      .flatMap((c) =>
        c.leads.flatMap((l) => [l.destination?.taxon?.name, ...(l.destination?.others ?? []).map((t) => t.name)]),
      )
      .filter(Boolean),
  ).size;
}

// A longer list is shown in part: mending the first ones mends many of the rest.
const MOST_PROBLEMS = 40;

function ProblemList({
  problems,
  onGo,
  onChange,
}: {
  problems: Schemas["KeyProblem"][];
  onGo: (problem: Schemas["KeyProblem"]) => void;
  onChange: (change: Schemas["KeyTextChange"]) => void;
}) {
  return (
    <Box component="section" aria-labelledby="problems" sx={{ mb: 3 }}>
      <Typography variant="h2" id="problems">
        To look at
      </Typography>
      <Box component="ul" sx={{ listStyle: "none", p: 0, m: 0 }}>
        {problems.slice(0, MOST_PROBLEMS).map((problem, i) => {
          const error = problem.severity === "error";
          return (
            <Box component="li" key={i} sx={{ borderBottom: "1px dotted", borderColor: "rule" }}>
              <ButtonBase
                onClick={() => onGo(problem)}
                sx={{
                  display: "flex",
                  gap: 1.25,
                  width: "100%",
                  textAlign: "left",
                  justifyContent: "flex-start",
                  alignItems: "baseline",
                  minHeight: 44,
                  py: 0.75,
                }}
              >
                <Box
                  component="span"
                  sx={{
                    flex: "none",
                    width: 108,
                    color: error ? "signal.conflict" : "signal.open",
                    fontWeight: 700,
                    fontSize: "0.9rem",
                  }}
                >
                  {error ? "✕" : "△"} {problem.line}:{problem.column}
                </Box>
                <Typography component="span" variant="body2">
                  {problem.message}
                </Typography>
              </ButtonBase>
              {problem.choices?.map((choice, nth) => (
                <Button
                  key={choice.label}
                  size="small"
                  sx={{ mr: 1, mb: 1, ml: nth === 0 ? { sm: "118px" } : 0 }}
                  onClick={() => onChange(choice)}
                  aria-label={`${choice.label}: write “${choice.new}” in line ${choice.line}`}
                >
                  {choice.label}
                </Button>
              ))}
            </Box>
          );
        })}
      </Box>
      {problems.length > MOST_PROBLEMS && (
        <Typography variant="body2">and {problems.length - MOST_PROBLEMS} more</Typography>
      )}
    </Box>
  );
}
