import { Autocomplete } from "../../shared/form/Autocomplete";
import { useBenchFlora } from "../../shared/botany/useBenchFlora";
import { Box, Button, Link, Typography } from "@mui/material";
import { TextField } from "../../shared/form/TextField";
import { closeSnackbar, enqueueSnackbar, SnackbarProvider } from "notistack";
import { Link as RouterLink, useNavigate } from "react-router";
import type { Schemas } from "../../api/client";
import { Page, Part } from "../../shared/ui/Page";
import { askEither } from "../../offline/hosts";
import { useAllTaxa } from "../../offline/taxa";
import { useKeys } from "../../offline/documents";
import { useHeldShelf } from "../../offline/shelf";
import { useHeldVocabulary } from "../../offline/vocabulary";
import { useLocalWork } from "../../offline/queries";
import type { PlantInHand } from "../../offline/store";
import { KeyDrawing } from "../../shared/botany/KeyDrawing";
import { TaxonLabel } from "../../shared/botany/TaxonLabel";
import { useIsFirstStart } from "../../shared/botany/useIsFirstStart";
import { FirstSteps } from "../../shared/ui/FirstSteps";
import { AtHandLine, OutlookOf, useOutlook } from "../../plant-in-hand/key/Outlook";
import { beginWalk, discardWalk, saveWalk, walkName, WITHOUT_KEY } from "../../plant-in-hand/walks";
import { counted } from "../../shared/ui/counted";

export function BenchStart() {
  const keys = useKeys();
  const { walks } = useLocalWork();
  const navigate = useNavigate();
  const start = (key: { hash: string; title: string }) =>
    void beginWalk(key).then((id) => navigate(`/bench/${id}`), sayThatItFailed);
  const unfinished = walks.filter((walk) => !walk.sending);
  const entries = (keys.data ?? []).filter((key) => key.enteredFrom.length === 0);
  const { outlook, atHand, change } = useOutlook(keys.data && entries.map((key) => key.hash));
  const better = (hash: string) => outlook?.get(outlook.get(hash)?.better ?? "");
  const isFirstStart = useIsFirstStart();
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
      {isFirstStart ? <FirstSteps /> : <WithoutKey />}
      {!isFirstStart && (
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
      )}
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

const ALL_KEYS: string[] = [];

/** Two ways in without a key: whatever can be seen, or a guess. */
function WithoutKey() {
  const navigate = useNavigate();
  // The core takes one thing after the other: who begins with a key doesn't wait for the flora.
  const keys = useHeldShelf(ALL_KEYS);
  // Keys are read by it: there before one is begun.
  useHeldVocabulary(keys.isFetched);
  const { flora, floras, host, asked } = useBenchFlora(undefined, undefined, keys.isFetched);
  const taxa = useAllTaxa(asked);
  const begin = async (inQuestion?: string[]) => {
    const id = await beginWalk(WITHOUT_KEY, undefined, [], inQuestion, flora?.id);
    void navigate(`/bench/${id}/${inQuestion ? "contrast" : "sift"}`);
  };
  const guess = async (taxon: Schemas["Taxon"]) => {
    if (!flora) return;
    const { toContrast } = await askEither("near", { floraId: flora.id, taxon: taxon.id }, host);
    await begin([taxon.id, ...toContrast]);
  };
  if (floras.length === 0)
    return (
      <Part id="without-key" title="Begin with what you see">
        <Typography variant="body2">
          Naming by characters needs a flora:{" "}
          <Link component={RouterLink} to="/flora/bring">
            bring one as a table
          </Link>
          , or make one of a key on its page.
        </Typography>
      </Part>
    );
  return (
    <Part id="without-key" title="Begin with what you see">
      <Box sx={{ display: "grid", gap: 2, gridTemplateColumns: { xs: "1fr", md: "1fr 1fr" }, alignItems: "start" }}>
        <Box>
          <Button
            variant="contained"
            onClick={() => void begin()}
            sx={{ minHeight: 56, width: { xs: "100%", sm: "auto" } }}
          >
            Identify by characters
          </Button>
          <Typography variant="body2" sx={{ mt: 0.5 }}>
            Any character, in any order; the list says what is best to check next.
          </Typography>
        </Box>
        <Box>
          <Autocomplete
            options={taxa}
            getOptionLabel={(t) => t.name}
            renderOption={(optionProps, t) => (
              <li {...optionProps} key={t.id}>
                <span>
                  <TaxonLabel name={t.name} /> {t.commonName}
                </span>
              </li>
            )}
            filterOptions={(options, { inputValue }) => {
              const text = inputValue.trim().toLowerCase();
              return options
                .filter((t) =>
                  `${t.name} ${t.commonName} ${t.facts?.synonyms.join(" ") ?? ""}`.toLowerCase().includes(text),
                )
                .slice(0, MOST_OPTIONS);
            }}
            disabled={taxa.length === 0}
            value={null}
            onChange={(_, taxon) => taxon && void guess(taxon)}
            renderInput={(params) => <TextField {...params} label="Name a guess" />}
          />
          <Typography variant="body2" sx={{ mt: 0.5 }}>
            It is held against what it may be confused with.
          </Typography>
        </Box>
      </Box>
    </Part>
  );
}

const sayThatItFailed = () =>
  enqueueSnackbar(
    "The device didn’t keep it, so nothing was begun. Tap once more; if it stays so, load the page anew.",
    {
      variant: "error",
    },
  );

const MOST_OPTIONS = 50;

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
  const sizes = `${counted(summary.couplets, "couplet")}, ${counted(summary.taxa, "taxon", "taxa")}`;
  const on = summary.handsOverTo.length > 0 ? `, goes on in ${summary.handsOverTo.join(" and ")}` : "";
  return (
    <Box component="li" sx={rowStyle}>
      <KeyDrawing
        title={summary.title}
        nodes={summary.shape}
        blocked={outlook?.blocked.filter((it) => it.keyVersion === summary.hash).map((it) => it.couplet)}
      />
      <Box sx={{ flex: "1 1 14rem" }}>
        <Typography variant="h2" component="h3">
          {summary.title}
        </Typography>
        <Typography variant="body2" color="text.secondary">
          {summary.notes.length > 0 && <>{summary.notes.join(" ")} </>}
          {sizes}
          {on}.
        </Typography>
        {/* What can't be answered today comes a moment later; its line is kept. */}
        <Box sx={{ minHeight: 23 }}>
          {outlook && <OutlookOf it={outlook} better={better} onBetter={() => onBetter?.()} />}
        </Box>
      </Box>
      <Button
        variant="contained"
        aria-label={`Follow ${summary.title}`}
        onClick={() => void beginWalk(summary).then((id) => navigate(`/bench/${id}`), sayThatItFailed)}
      >
        Follow
      </Button>
    </Box>
  );
}

function UnfinishedWalk({ walk }: { walk: PlantInHand }) {
  const navigate = useNavigate();
  const where = !walk.start
    ? `${(walk.observations ?? []).length} seen`
    : walk.answers.length === 0
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
        <Typography variant="h3">{walkName(walk)}</Typography>
        <Typography variant="body2" color={walk.problem ? "error" : "text.secondary"}>
          {walk.problem
            ? `✕ Not kept: ${walk.problem.title} ${walk.problem.detail}`
            : `${walk.title ? `${walk.title}: ` : ""}${where}.`}
        </Typography>
      </Box>
      <Button
        variant="contained"
        onClick={() => void navigate(`/bench/${walk.id}${walk.start ? "" : "/sift"}`)}
        aria-label={`Go on: ${walkName(walk)}`}
      >
        Go on
      </Button>
      <Button onClick={() => void discard()} aria-label={`Throw away: ${walkName(walk)}`}>
        Throw away
      </Button>
    </Box>
  );
}
