import { Box, Button, Link, Typography } from "@mui/material";
import { useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { Link as RouterLink, useNavigate, useParams } from "react-router";
import { answerOf, api, ProblemError } from "../../api/client";
import { iso, spoken } from "../../shared/calendar/day";
import { Page, Part } from "../../shared/ui/Page";
import { beginWalk, WITHOUT_KEY } from "../../plant-in-hand/walks";
import { useKey, useWaitingKeys } from "../../offline/documents";
import { CoupletList } from "../../shared/botany/CoupletList";
import { KeyMeter } from "./KeyMeter";
import { StatementList } from "./StatementList";

export function KeyPage() {
  const { hash = "" } = useParams();
  const navigate = useNavigate();
  const found = useKey(hash);
  const isWaiting = useWaitingKeys().includes(hash);
  if (found.isError) {
    return (
      <Page title="This key can’t be shown">
        <Typography role="alert">
          {found.error instanceof ProblemError
            ? found.error.problem.detail
            : "The server doesn’t answer just now; the key appears as soon as it does."}
        </Typography>
      </Page>
    );
  }
  if (!found.data)
    return (
      <Page title="Key">
        <Typography role="status">Fetching the key …</Typography>
      </Page>
    );
  const { key, title, version, versions, sourceText, source } = found.data;
  const newest = versions[0];
  return (
    <Page
      title={title}
      aside={
        <Box sx={{ display: "flex", gap: 1.5, flexWrap: "wrap" }}>
          <Button
            variant="contained"
            onClick={() => void beginWalk({ hash, title }).then((id) => navigate(`/bench/${id}`))}
          >
            Follow this key
          </Button>
          {!isWaiting && <SiftButton hash={hash} />}
          <Button component={RouterLink} to={`/keys/new?from=${hash}`}>
            Edit as a new version
          </Button>
        </Box>
      }
    >
      {isWaiting && (
        <Typography role="note" sx={{ bgcolor: "signal.openWash", px: 1, py: 0.75, mb: 1 }}>
          ◌ Kept on this device and waiting to be sent. It can be followed already.
        </Typography>
      )}
      <Typography variant="body2" color="text.secondary" sx={{ mb: 2 }}>
        {key.notes.join(" ")} {key.layout}, {key.couplets.length} couplets. Version {version}
        {newest && newest.hash !== hash && (
          <>
            ; the newest is{" "}
            <Link component={RouterLink} to={`/keys/${newest.hash}`}>
              version {newest.version}
            </Link>
          </>
        )}
        .
        <br />
        {source ? `From ${source.inWords}. ` : "Nothing is said of where its text is from. "}
        {source?.onlyHere && "Only this device sees it. "}
        {source?.mayBeExported ? (
          <Link href={`/api/v1/keys/${hash}/text`}>Take it along as a text file</Link>
        ) : (
          "Its text isn’t handed on."
        )}
      </Typography>
      <KeyMeter hash={hash} />
      <Part id="couplets" title="Couplets">
        <CoupletList keyRead={key} headingId="couplets" />
      </Part>
      <Part id="statements" title="How its statements are read">
        <StatementList hash={hash} />
      </Part>
      {versions.length > 1 && (
        <Part id="versions" title="Versions">
          {versions.map((it) => (
            <Typography key={it.hash} variant="body2">
              <Link component={RouterLink} to={`/keys/${it.hash}`} aria-current={it.hash === hash ? "page" : undefined}>
                Version {it.version}
              </Link>
              , saved {spoken(iso(new Date(it.addedAt)))}
            </Typography>
          ))}
        </Part>
      )}
      <Part id="source" title="As it was typed">
        <Box
          component="pre"
          tabIndex={0}
          aria-labelledby="source"
          sx={{ overflowX: "auto", fontSize: "0.85rem", m: 0, maxHeight: 420 }}
        >
          {sourceText}
        </Box>
      </Part>
    </Page>
  );
}

/** Its taxa as a list to sift: described by its own statements, what isn’t read included. */
function SiftButton({ hash }: { hash: string }) {
  const navigate = useNavigate();
  const client = useQueryClient();
  const [failure, setFailure] = useState("");
  const sift = async () => {
    try {
      const { floraId } = await answerOf((signal) =>
        api.POST("/api/v1/keys/{hash}/flora", { params: { path: { hash } }, signal }),
      );
      await client.invalidateQueries({ queryKey: ["floras"] });
      const id = await beginWalk(WITHOUT_KEY, undefined, [], undefined, floraId);
      void navigate(`/bench/${id}/sift`);
    } catch (error) {
      setFailure(
        error instanceof ProblemError
          ? error.problem.detail
          : "The server doesn’t answer just now; a list is made of the key as soon as it does.",
      );
    }
  };
  return (
    <>
      <Button onClick={() => void sift()}>Identify by characters</Button>
      {failure && (
        <Typography role="alert" color="error">
          ✕ {failure}
        </Typography>
      )}
    </>
  );
}
