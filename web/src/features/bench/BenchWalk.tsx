import { Box, Button, Dialog, DialogActions, DialogContent, DialogTitle, Link, Typography } from "@mui/material";
import { useEffect, useMemo, useRef, useState } from "react";
import { Link as RouterLink, useNavigate, useParams } from "react-router";
import { Page } from "../../app/Page";
import { CautionNotes } from "../taxa/Cautions";
import { NamesLabel } from "../taxa/TaxonLabel";
import { CoupletPane } from "./CoupletPane";
import { KeepForm } from "./KeepForm";
import { StandingList } from "./StandingList";
import { TrailRibbon } from "./TrailRibbon";
import { useWalk } from "./useWalk";

/** The Bench: a couplet on the table, the trail and the taxa still standing beside it. */
export function BenchWalk() {
  const { walkId = "" } = useParams();
  return <Walk key={walkId} walkId={walkId} />;
}

function Walk({ walkId }: { walkId: string }) {
  const navigate = useNavigate();
  const bench = useWalk(walkId);
  const { walk, state, reopened, path } = bench;
  const [keeping, setKeeping] = useState(false);
  const [help, setHelp] = useState(false);
  const table = useRef<HTMLDivElement>(null);
  const taxa = useMemo(() => new Map(bench.taxa.map((taxon) => [taxon.id, taxon])), [bench.taxa]);

  const couplet = reopened?.open ?? path;
  const at = couplet && { keyVersion: couplet.keyVersion, couplet: couplet.couplet.label };
  const answer = (lead: number | null) => {
    if (at) bench.answer(at, lead);
  };

  useEffect(() => {
    const onKey = (event: KeyboardEvent) => {
      if (keeping || help || event.ctrlKey || event.altKey || event.metaKey || isTyping(event.target)) return;
      const digit = /^[0-9]$/.test(event.key) ? Number(event.key) : undefined;
      if (digit === 0 && at) answer(null);
      else if (digit !== undefined && couplet && digit <= couplet.couplet.leads.length && digit > 0) answer(digit - 1);
      else if (event.key === "Backspace") bench.stepBack();
      else if (event.key === "?") setHelp(true);
      else return;
      event.preventDefault();
    };
    window.addEventListener("keydown", onKey);
    return () => window.removeEventListener("keydown", onKey);
  });

  // After each answer the eye, and a screen reader, go on at the new couplet.
  const onTable = keeping ? "keep" : at ? at.keyVersion + at.couplet : "end";
  const first = useRef(true);
  const loaded = state !== undefined;
  useEffect(() => {
    if (!loaded) return;
    if (first.current) {
      first.current = false;
      return;
    }
    table.current?.focus({ preventScroll: true });
    if (window.innerWidth < 900) table.current?.scrollIntoView();
  }, [onTable, loaded]);

  if (walk === null) {
    return (
      <Page title="This walk isn’t on this device">
        <Typography>
          It was kept or thrown away.{" "}
          <Link component={RouterLink} to="/">
            Begin another one
          </Link>
          , or look among the{" "}
          <Link component={RouterLink} to="/records">
            records
          </Link>
          .
        </Typography>
      </Page>
    );
  }
  if (bench.failure) {
    return (
      <Page title="The Bench isn’t ready">
        <Typography role="alert">{bench.failure}</Typography>
      </Page>
    );
  }
  if (!walk || !state)
    return (
      <Page title="Bench">
        <Typography role="status">Fetching the key …</Typography>
      </Page>
    );
  if (walk.sending) {
    return (
      <Page title="Kept on this device">
        <Typography>
          This record is sent by itself as soon as the database answers.{" "}
          <Link component={RouterLink} to="/records">
            To the records
          </Link>
        </Typography>
      </Page>
    );
  }

  const names = state.standing.map((s) => s.name);
  const careful = state.standing.flatMap((s) => (s.taxonId ? (taxa.get(s.taxonId) ?? []) : []));
  return (
    <Page
      title={walk.plant ? `${walk.plant.label || "A plant"}, ${walk.plant.placeName}` : "A plant in hand"}
      aside={
        <Button onClick={() => setHelp(true)} aria-keyshortcuts="?">
          Keys <strong style={{ marginLeft: 6 }}>?</strong>
        </Button>
      }
    >
      <Box
        sx={{
          display: "grid",
          gap: { xs: 2.5, md: 3 },
          gridTemplateColumns: { xs: "1fr", md: "minmax(210px, 270px) minmax(0, 1fr) minmax(190px, 250px)" },
          gridTemplateAreas: { xs: '"table" "standing" "trail"', md: '"trail table standing"' },
        }}
      >
        <Box sx={{ gridArea: "trail" }}>
          <Typography variant="h2" sx={{ mb: 0.5 }}>
            Trail
          </Typography>
          <TrailRibbon
            steps={state.steps}
            open={state.open}
            at={at}
            onReopen={(step) => {
              setKeeping(false);
              bench.reopen({ keyVersion: step.keyVersion, couplet: step.couplet });
            }}
            onPath={(name) => {
              setKeeping(false);
              bench.reopen(undefined);
              bench.choosePath(name);
            }}
          />
        </Box>
        <Box ref={table} tabIndex={-1} sx={{ gridArea: "table", outline: "none", scrollMarginTop: 8 }}>
          {keeping ? (
            <KeepForm
              walk={walk}
              state={state}
              onChange={(form) => bench.change({ ...walk, form, problem: undefined })}
              onBack={() => setKeeping(false)}
              onKept={(plantId) => void navigate(`/plants/${plantId}`)}
              onWaiting={() => void navigate("/records")}
              onRefused={(problem) => bench.setWalk({ ...walk, problem })}
            />
          ) : (
            <>
              <CautionNotes taxa={careful} />
              {reopened && (
                <Box
                  sx={{
                    bgcolor: "signal.openWash",
                    px: 1.5,
                    py: 0.75,
                    mb: 1.5,
                    display: "flex",
                    flexWrap: "wrap",
                    alignItems: "center",
                    gap: 1,
                  }}
                >
                  <Typography variant="body2" sx={{ flex: 1 }}>
                    <strong>↺ Open again.</strong> A changed answer takes the trail another way; the answers below are
                    kept in case you change it back.
                  </Typography>
                  <Button onClick={() => bench.reopen(undefined)}>Leave it as it is</Button>
                </Box>
              )}
              {couplet ? (
                <CoupletPane open={couplet} given={reopened?.lead} onAnswer={answer} />
              ) : (
                <End names={names} />
              )}
              <Box sx={{ display: "flex", flexWrap: "wrap", gap: 1.5, mt: 1.5 }}>
                <Button
                  variant={couplet ? "outlined" : "contained"}
                  disabled={walk.answers.length === 0}
                  onClick={() => setKeeping(true)}
                >
                  {couplet ? "Keep it as it stands" : "Keep it"}
                </Button>
                <Button disabled={state.steps.length === 0} onClick={bench.stepBack} aria-keyshortcuts="Backspace">
                  Step back
                </Button>
              </Box>
            </>
          )}
        </Box>
        <Box sx={{ gridArea: "standing" }}>
          <StandingList standing={state.standing} taxa={taxa} />
        </Box>
      </Box>
      <Dialog open={help} onClose={() => setHelp(false)} aria-labelledby="keys-title">
        <DialogTitle id="keys-title">On the keyboard</DialogTitle>
        <DialogContent>
          {[
            ["1 2 3 …", "choose that lead"],
            ["0", "can’t tell: every lead stays open"],
            ["Backspace", "take the last answer back"],
            ["Tab, Enter", "go to any couplet of the trail and open it again"],
            ["?", "this list"],
          ].map(([key, what]) => (
            <Typography key={key}>
              <strong>{key}</strong> {what}
            </Typography>
          ))}
        </DialogContent>
        <DialogActions>
          <Button onClick={() => setHelp(false)}>Close</Button>
        </DialogActions>
      </Dialog>
    </Page>
  );
}

function End({ names }: { names: string[] }) {
  return (
    <Box>
      <Typography variant="body2" color="text.secondary">
        {names.length === 1
          ? "The trail ends here"
          : `Every path has come to its end; ${names.length} taxa are still open`}
      </Typography>
      <Typography variant="h1" component="h2" sx={{ fontSize: "1.9rem", my: 1 }}>
        <NamesLabel names={names} />
      </Typography>
      <Typography>
        {names.length === 1
          ? "A key always ends at some name. Look back along the trail: is there a couplet you would answer otherwise?"
          : "Keep it as an open set, or open the couplet that you couldn’t tell and look again."}
      </Typography>
    </Box>
  );
}

function isTyping(target: EventTarget | null): boolean {
  return (
    target instanceof HTMLElement &&
    (target.isContentEditable ||
      ["INPUT", "TEXTAREA", "SELECT"].includes(target.tagName) ||
      target.closest("[role=listbox], [role=dialog]") !== null)
  );
}
