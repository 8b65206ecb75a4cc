import { Box, Button, Link, Typography } from "@mui/material";
import { closeSnackbar, enqueueSnackbar, SnackbarProvider } from "notistack";
import { Link as RouterLink, useNavigate } from "react-router";
import type { Schemas } from "../../api/client";
import { Page, Part } from "../../app/Page";
import { useKeys, useLocalWork } from "../../offline/queries";
import type { Walk } from "../../offline/store";
import { AtHandLine, OutlookOf, useOutlook } from "./Outlook";
import { beginWalk, discardWalk, saveWalk } from "./walks";

export function BenchStart() {
  const keys = useKeys();
  const { walks } = useLocalWork();
  const { outlook, atHand, change } = useOutlook();
  const navigate = useNavigate();
  const blockedShare = (it: Schemas["KeyOutlook"]) => it.taxaBlocked / Math.max(1, it.taxa);
  // Of the keys that stand by themselves, one of which fewer taxa lie behind what can't be seen today.
  const better = (hash: string) => {
    const own = outlook?.get(hash);
    if (!own || own.blocked.length === 0) return undefined;
    const others = entries.flatMap((key) => (key.hash !== hash ? (outlook?.get(key.hash) ?? []) : []));
    const best = others.sort((a, b) => blockedShare(a) - blockedShare(b))[0];
    return best && blockedShare(best) < blockedShare(own) / 2 ? best : undefined;
  };
  const start = (key: { hash: string; title: string }) => void beginWalk(key).then((id) => navigate(`/bench/${id}`));
  const unfinished = walks.filter((walk) => !walk.sending);
  const entries = (keys.data ?? []).filter((key) => key.enteredFrom.length === 0);
  const others = (keys.data ?? []).filter((key) => key.enteredFrom.length > 0);
  return (
    <Page title="A plant in hand">
      <SnackbarProvider anchorOrigin={{ vertical: "bottom", horizontal: "center" }} />
      {unfinished.length > 0 && (
        <Part id="unfinished" title="Go on where you stopped">
          <Box component="ul" sx={{ listStyle: "none", p: 0, m: 0 }}>
            {unfinished.map((walk) => (
              <UnfinishedWalk key={walk.id} walk={walk} />
            ))}
          </Box>
        </Part>
      )}
      <Part id="begin" title="Begin with a key">
        {keys.isError && (
          <Typography>The keys can’t be fetched just now. They appear here as soon as the server answers.</Typography>
        )}
        {keys.data?.length === 0 && (
          <Typography>
            There is no key yet.{" "}
            <Link component={RouterLink} to="/keys/new">
              Paste one out of a book
            </Link>{" "}
            and follow it here.
          </Typography>
        )}
        {entries.length > 0 && <AtHandLine atHand={atHand} onChange={change} />}
        <Box component="ul" sx={{ listStyle: "none", p: 0, m: 0 }}>
          {entries.map((key) => {
            const other = better(key.hash);
            return (
              <KeyEntry
                key={key.hash}
                summary={key}
                outlook={outlook?.get(key.hash)}
                better={other}
                onBetter={() => other && start({ hash: other.keyVersion, title: other.keyTitle })}
              />
            );
          })}
        </Box>
      </Part>
      {others.length > 0 && (
        <Part id="go-straight" title="Or go straight to a part">
          <Box component="ul" sx={{ listStyle: "none", p: 0, m: 0 }}>
            {others.map((key) => (
              <KeyEntry key={key.hash} summary={key} outlook={outlook?.get(key.hash)} />
            ))}
          </Box>
        </Part>
      )}
      <Typography variant="body2">
        <Link component={RouterLink} to="/keys/new">
          Paste another key
        </Link>
      </Typography>
    </Page>
  );
}

const rowStyle = {
  display: "flex",
  flexWrap: "wrap",
  alignItems: "center",
  gap: { xs: 1, md: 2 },
  py: 1,
  borderBottom: "1px dotted",
  borderColor: "rule",
} as const;

function KeyEntry(props: {
  summary: Schemas["KeySummary"];
  outlook?: Schemas["KeyOutlook"];
  better?: Schemas["KeyOutlook"];
  onBetter?: () => void;
}) {
  const { summary, outlook, better, onBetter } = props;
  const navigate = useNavigate();
  const sizes = `${summary.couplets} couplets, ${summary.taxa} taxa`;
  const on = summary.handsOverTo.length > 0 ? `, goes on in ${summary.handsOverTo.join(" and ")}` : "";
  return (
    <Box component="li" sx={rowStyle}>
      <Box sx={{ flex: "1 1 18rem" }}>
        <Typography variant="h2" component="h3">
          {summary.title}
        </Typography>
        <Typography variant="body2" color="text.secondary">
          {summary.notes.length > 0 && <>{summary.notes.join(" ")} </>}
          {sizes}
          {on}.
        </Typography>
        {outlook && <OutlookOf it={outlook} better={better} onBetter={() => onBetter?.()} />}
      </Box>
      <Button
        variant="contained"
        aria-label={`Follow ${summary.title}`}
        onClick={() => void beginWalk(summary).then((id) => navigate(`/bench/${id}`))}
      >
        Follow
      </Button>
    </Box>
  );
}

function UnfinishedWalk({ walk }: { walk: Walk }) {
  const navigate = useNavigate();
  const where =
    walk.answers.length === 0
      ? "no couplet answered yet"
      : `${walk.answers.length} answered, last couplet ${walk.answers.at(-1)?.couplet}`;
  const discard = async () => {
    const gone = await discardWalk(walk.id);
    enqueueSnackbar("The walk was thrown away.", {
      action: (bar) => (
        <Button
          sx={{ color: "inherit", borderColor: "currentColor" }}
          onClick={() => {
            if (gone) void saveWalk(gone);
            closeSnackbar(bar);
          }}
        >
          Bring it back
        </Button>
      ),
      autoHideDuration: 15_000,
    });
  };
  return (
    <Box component="li" sx={rowStyle}>
      <Box sx={{ flex: "1 1 18rem" }}>
        <Typography variant="h3">
          {walk.plant
            ? `${walk.plant.label || "A plant"} at ${walk.plant.placeName}, again`
            : walk.form.label || walk.title}
        </Typography>
        <Typography variant="body2" color={walk.problem ? "error" : "text.secondary"}>
          {walk.problem ? `✕ Not kept: ${walk.problem.title} ${walk.problem.detail}` : `${walk.title}: ${where}.`}
        </Typography>
      </Box>
      <Button
        variant="contained"
        onClick={() => void navigate(`/bench/${walk.id}`)}
        aria-label={`Go on: ${walk.form.label || walk.title}`}
      >
        Go on
      </Button>
      <Button onClick={() => void discard()} aria-label={`Throw away: ${walk.form.label || walk.title}`}>
        Throw away
      </Button>
    </Box>
  );
}
