import { Box, Button, Link, TextField, Typography } from "@mui/material";
import { useState } from "react";
import { Link as RouterLink } from "react-router";
import { core } from "../../core/coreClient";
import { useAsked } from "../../offline/flora";
import { later } from "../../shared/ui/later";
import { Page, Part } from "../../shared/ui/Page";
import { PARENTS } from "./example";
import { GradientShown } from "./GradientShown";

const MarkedGradient = later(async () => (await import("./MarkedGradient")).MarkedGradient);

/** Plants of a stand between two parents that were measured at the same place: marked ones, or those of a table. */
export function GradientPage() {
  const [text, setText] = useState("");
  const isEmpty = text.trim() === "";
  const asked = useAsked(isEmpty ? undefined : { text }, core.gradient);
  const answer = isEmpty ? undefined : asked.answer;
  return (
    <Page title="Between two parents">
      <Typography sx={{ maxWidth: 720, mb: 2 }}>
        Measure plants of both parents here, and those in question in the same characters. Each plant is a point on the
        line from the one to the other, with how far that can be trusted. Other figures of plots and lists are{" "}
        <Link component={RouterLink} to="/figures">
          on their page
        </Link>
        .
      </Typography>
      {isEmpty && <MarkedGradient />}
      <Part id="table" title="Out of a table">
        <TextField
          label="Table: plant, group (first, second or stand), measures"
          multiline
          minRows={5}
          maxRows={10}
          fullWidth
          value={text}
          onChange={(event) => setText(event.target.value)}
          error={(answer?.problems.length ?? 0) > 0}
          slotProps={{
            htmlInput: { spellCheck: false, wrap: "off", style: { fontFamily: "monospace", fontSize: "0.875rem" } },
          }}
        />
        {isEmpty && (
          <Button sx={{ mt: 1 }} onClick={() => setText(PARENTS)}>
            Put an example in
          </Button>
        )}
        {answer && answer.problems.length > 0 && (
          <Box role="alert" sx={{ mt: 1 }}>
            {answer.problems.slice(0, 8).map((it) => (
              <Typography key={`${it.line} ${it.column}`} color="error">
                ✕ Line {it.line}, cell {it.column}: {it.message}
              </Typography>
            ))}
          </Box>
        )}
      </Part>
      {answer?.gradient && <GradientShown gradient={answer.gradient} />}
    </Page>
  );
}
