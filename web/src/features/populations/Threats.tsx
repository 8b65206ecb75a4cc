import { Box, Typography } from "@mui/material";
import { useState } from "react";
import type { Schemas } from "../../api/client";
import { spoken } from "../../shared/calendar/day";
import { QuietButton } from "../../shared/ui/QuietButton";
import { later } from "../../shared/ui/later";

import { Callout } from "../../shared/botany/Cautions";

import { useDays } from "../../shared/calendar/questions";

const ThreatFields = later(async () => (await import("./ThreatForm")).ThreatFields);

export function ThreatLine({ threat, population }: { threat: Schemas["Threat"]; population: string }) {
  const [closing, setClosing] = useState(false);
  const far = useDays(threat.actBy ? [threat.actBy] : []).get(threat.actBy ?? "");
  return (
    <Callout tone="caution">
      <Typography variant="body2">
        <strong>△ {threat.text}</strong>
        {threat.actBy && (
          <Box component="span" sx={{ fontWeight: far?.isSoon ? 700 : 400 }}>
            {" "}
            Act by {spoken(threat.actBy)}
            {far &&
              (far.ahead < 0 ? ": that day has passed." : far.ahead === 0 ? ": today." : `: ${far.ahead} days left.`)}
          </Box>
        )}{" "}
        <QuietButton name={`Dealt with: ${threat.text}`} onClick={() => setClosing(!closing)} expanded={closing}>
          Dealt with
        </QuietButton>
      </Typography>
      {closing && (
        <ThreatFields population={population} closes={threat.id} mend={null} onDone={() => setClosing(false)} />
      )}
    </Callout>
  );
}
