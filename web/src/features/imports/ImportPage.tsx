import { Box, Button, Link, TextField, Typography } from "@mui/material";
import { useRef, useState } from "react";
import { Link as RouterLink } from "react-router";
import type { Problem } from "../../api/client";
import { sendForm } from "../../shared/form/sendForm";
import { later } from "../../shared/ui/later";
import { Page, Part } from "../../shared/ui/Page";
import { TakenInList } from "./TakenInList";
import type { Draft } from "./useImport";

const ImportDraftView = later(async () => (await import("./ImportDraftView")).ImportDraftView);
/** Records out of a file: looked at first, taken in as a whole, and taken back as a whole. */
export function ImportPage() {
  const [draft, setDraft] = useState<Draft>();
  const [sent, setSent] = useState<number>();
  const [failure, setFailure] = useState("");
  const [text, setText] = useState("");
  const [taken, setTaken] = useState("");
  const file = useRef<HTMLInputElement>(null);
  const bring = async (brought: File | undefined) => {
    if (!brought) return;
    const form = new FormData();
    form.set("file", brought);
    setFailure("");
    setTaken("");
    setSent(0);
    try {
      const { status, body } = await sendForm<Draft & Problem>(
        "/api/v1/imports",
        form,
        setSent,
        new AbortController().signal,
      );
      if (status === 200) setDraft(body);
      else setFailure(`${body.title} ${body.detail}`);
    } catch (error) {
      setFailure(error instanceof Error ? error.message : String(error));
    } finally {
      setSent(undefined);
      if (file.current) file.current.value = "";
    }
  };
  return (
    <Page title="Bring records">
      {draft ? (
        <ImportDraftView
          key={draft.id}
          draft={draft}
          onDone={(said) => {
            setDraft(undefined);
            setText("");
            setTaken(said);
          }}
        />
      ) : (
        <>
          {taken && (
            <Typography role="status" sx={{ mb: 2 }}>
              <Box component="strong" sx={{ color: "signal.support" }}>
                ✓ {taken}
              </Box>{" "}
              <Link component={RouterLink} to="/site-visits">
                The visits
              </Link>{" "}
              ·{" "}
              <Link component={RouterLink} to="/records?place=">
                All records
              </Link>
            </Typography>
          )}
          <Typography sx={{ maxWidth: 720, mb: 2 }}>
            Old notebooks, tables, lists of others: a CSV table, a workbook (XLSX), a Darwin Core Archive, or names one
            a line. You see what becomes of each line before any is kept, and what was taken in can be taken back as a
            whole.
          </Typography>
          <Box
            sx={{ display: "grid", gridTemplateColumns: { md: "minmax(0, 1fr) minmax(0, 2fr)" }, gap: 3, mb: 2 }}
            onDragOver={(event) => event.preventDefault()}
            onDrop={(event) => {
              event.preventDefault();
              void bring(event.dataTransfer.files[0]);
            }}
          >
            <Box>
              <Button
                variant="contained"
                disabled={sent !== undefined}
                onClick={() => file.current?.click()}
                sx={{ minHeight: 48 }}
              >
                Choose a file
              </Button>
              <input
                ref={file}
                type="file"
                hidden
                aria-label="File of records"
                accept=".csv,.tsv,.txt,.xlsx,.zip"
                onChange={(event) => void bring(event.target.files?.[0])}
              />
              <Typography variant="body2" color="text.secondary" sx={{ mt: 1 }}>
                Or drop it here. Up to half a gigabyte.
              </Typography>
            </Box>
            <Box>
              <TextField
                label="Or paste a table with its headings, or names one a line"
                multiline
                minRows={4}
                maxRows={12}
                fullWidth
                value={text}
                onChange={(event) => setText(event.target.value)}
                slotProps={{
                  htmlInput: {
                    spellCheck: false,
                    wrap: "off",
                    style: { fontFamily: "monospace", fontSize: "0.875rem" },
                  },
                }}
              />
              <Button
                sx={{ mt: 1 }}
                disabled={text.trim() === "" || sent !== undefined}
                onClick={() => void bring(new File([text], "pasted.txt", { type: "text/plain" }))}
              >
                Look at what is pasted
              </Button>
            </Box>
          </Box>
          {sent !== undefined && (
            <Typography role="status">{sent < 1 ? "The file is being sent …" : "The file is being read …"}</Typography>
          )}
          {failure && (
            <Typography role="alert" color="error">
              ✕ {failure}
            </Typography>
          )}
        </>
      )}
      <Part id="taken" title="Taken in">
        <TakenInList />
      </Part>
    </Page>
  );
}
