import { Box, Link, Typography } from "@mui/material";
import type { Schemas } from "../../api/client";
import { Proposals } from "./Proposals";
import { UnknownWords } from "./UnknownWords";
import { useHeldForReading } from "../../offline/keyReadings";
import { useKeyReading, useTeaching } from "./useKeyReading";

const kinds = [
  ["taken", "are weighed", "signal.support"],
  ["proposed", "have readings to choose from", "signal.open"],
  ["text", "stay text and are weighed by hand", "text.secondary"],
] as const;

/** How much of a key is weighed, what is to be chosen, and the words that would open most. */
export function KeyMeter({ hash }: { hash: string }) {
  const reading = useKeyReading(hash);
  // Made ready once the reading is there: a word may be taught next.
  const isHeld = useHeldForReading(hash, reading !== undefined);
  const { refused, set, teach } = useTeaching();
  if (!reading) return null;
  return (
    <>
      {!reading.isWhole && <Typography role="status">Reading on … so far its first couplets:</Typography>}
      <Meter meter={reading.meter} />
      {refused && (
        <Typography role="alert" color="error">
          ✕ {refused}
        </Typography>
      )}
      <ToLookAt problems={reading.problems} />
      <Proposals statements={reading.statements} onDecide={set} />
      <UnknownWords hash={hash} isHeld={isHeld} words={reading.words} onTeach={teach} />
    </>
  );
}

function ToLookAt({ problems }: { problems: Schemas["CoupletProblem"][] }) {
  if (problems.length === 0) return null;
  return (
    <Box
      component="section"
      aria-labelledby="to-look-at"
      sx={{ borderLeft: 4, borderColor: "signal.open", pl: 1.5, mb: 2 }}
    >
      <Typography component="h2" variant="h3" id="to-look-at">
        △ To look at
      </Typography>
      {problems.map((it) => (
        <Typography key={it.couplet + it.lead + it.message} variant="body2">
          <strong>
            Couplet {it.couplet}
            {it.lead > 0 && `, lead ${it.lead}`}
          </strong>
          : {it.message}
        </Typography>
      ))}
    </Box>
  );
}

function Meter({ meter }: { meter: Schemas["KeyMeter"] }) {
  const shares = kinds.filter(([kind]) => meter[kind] > 0);
  return (
    <Box sx={{ mb: 2 }}>
      <Box
        aria-hidden
        sx={{ display: "flex", height: 14, border: 1, borderColor: "text.secondary", overflow: "hidden" }}
      >
        {shares.map(([kind, , color]) => (
          <Box
            key={kind}
            sx={{
              flexGrow: meter[kind],
              bgcolor: kind === "text" ? "transparent" : color,
              // Told apart without colour too.
              backgroundImage:
                kind === "proposed"
                  ? "repeating-linear-gradient(45deg, transparent 0 4px, rgba(255,255,255,.45) 4px 8px)"
                  : undefined,
            }}
          />
        ))}
      </Box>
      <Typography sx={{ mt: 0.75 }}>
        Of {meter.statements} statements{" "}
        {shares.map(([kind, words], i) => (
          <span key={kind}>
            {i > 0 && ", "}
            <strong>{meter[kind]}</strong> {words}
          </span>
        ))}
        . <Link href="#statements">See every one</Link>
      </Typography>
    </Box>
  );
}
