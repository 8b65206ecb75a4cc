import { Box, Button, Link, Typography } from "@mui/material";
import { useState, type ReactNode } from "react";
import { Link as RouterLink } from "react-router";
import { api, ask } from "../../api/client";

/** What somebody does first who has neither a key nor a flora here: three ways to a name. */
export function FirstSteps() {
  return (
    <Box component="section" aria-labelledby="first-steps" sx={{ mb: 3 }}>
      <Typography id="first-steps" variant="h2" sx={{ mb: 1.5 }}>
        Three ways to a first name
      </Typography>
      <Box
        component="ol"
        sx={{
          listStyle: "none",
          p: 0,
          m: 0,
          display: "grid",
          gap: 2,
          gridTemplateColumns: { xs: "1fr", md: "repeat(3, minmax(0, 1fr))" },
        }}
      >
        <Step
          sign="M30 8v14M30 22C30 32 14 32 14 44M30 22c0 10 16 10 16 22M9 50h10M41 50h10"
          title="Paste a key and use it"
          text="Copy a key out of a book or a report as text. It is read as it stands, and followed with the plant in hand: a name in under a minute."
        >
          <Button variant="contained" component={RouterLink} to="/keys/new">
            Paste a key
          </Button>
        </Step>
        <Step
          sign="M10 12h40v36H10zM10 22h40M10 32h40M10 42h40M24 12v36M37 12v36"
          title="Bring a flora"
          text="A table with a line for each taxon: then plants are named by whatever can be seen, in any order, and seasons are worked out."
        >
          <Button component={RouterLink} to="/flora/bring">
            Bring a table
          </Button>
          <Typography variant="body2" sx={{ mt: 0.5 }}>
            To fill in, with all characters that ship:{" "}
            <Link href="/api/v1/floras/template.csv" download>
              as CSV
            </Link>{" "}
            or{" "}
            <Link href="/api/v1/floras/template.xlsx" download>
              as XLSX
            </Link>
            .
          </Typography>
        </Step>
        <Step
          sign="M8 42c6-4 10 2 16-2s10 2 16-2 8 2 12-1M14 36c2-14 10-20 18-18s12 8 14 16M30 18v-8l7 3-7 3"
          title="Look at the island of Torvane"
          text="A made-up island with its flora, keys, plants and two years of visits, in a database of its own. Nothing of it comes among what is yours."
        >
          <Sandbox />
        </Step>
      </Box>
      <Typography variant="body2" sx={{ mt: 2 }}>
        <Link component={RouterLink} to="/glossary">
          The glossary
        </Link>{" "}
        is there already: parts, qualities and states, drawn.
      </Typography>
    </Box>
  );
}

function Step({ sign, title, text, children }: { sign: string; title: string; text: string; children: ReactNode }) {
  return (
    <Box component="li" sx={{ border: 1, borderColor: "rule", bgcolor: "background.paper", p: 2 }}>
      <Box
        component="svg"
        viewBox="0 0 60 56"
        aria-hidden="true"
        sx={{ width: 60, height: 56, fill: "none", stroke: "currentColor", strokeWidth: 2, strokeLinecap: "round" }}
      >
        <path d={sign} />
      </Box>
      <Typography variant="h2" component="h3">
        {title}
      </Typography>
      <Typography sx={{ mb: 1 }}>{text}</Typography>
      {children}
    </Box>
  );
}

function Sandbox() {
  const [state, setState] = useState<"closed" | "opening" | { address: string } | { problem: string }>("closed");
  const open = async () => {
    setState("opening");
    const outcome = await ask((signal) => api.POST("/api/v1/sandbox", { signal }));
    setState(
      outcome.kind === "answer"
        ? { address: outcome.value.address }
        : { problem: outcome.kind === "problem" ? outcome.problem.detail : "The server doesn’t answer just now." },
    );
  };
  const end = async () => {
    await ask((signal) => api.DELETE("/api/v1/sandbox", { signal }));
    setState("closed");
  };
  if (typeof state === "object" && "address" in state)
    return (
      <Box sx={{ display: "flex", flexWrap: "wrap", gap: 1 }}>
        <Button variant="contained" component="a" href={state.address} target="_blank" rel="noopener">
          Go to Torvane
        </Button>
        <Button onClick={() => void end()}>End it and throw it away</Button>
      </Box>
    );
  return (
    <>
      <Button disabled={state === "opening"} onClick={() => void open()}>
        {state === "opening" ? "Making the island ready …" : "Open the sandbox"}
      </Button>
      {typeof state === "object" && (
        <Typography role="alert" variant="body2" color="error" sx={{ mt: 0.5 }}>
          ✕ {state.problem}
        </Typography>
      )}
    </>
  );
}
