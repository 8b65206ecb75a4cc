import { Box, Button, Link, Typography } from "@mui/material";
import { useState } from "react";
import { Link as RouterLink, useNavigate } from "react-router";
import { useMending } from "../../offline/mending";
import { useSurveys } from "../../offline/surveys";
import { day } from "../../shared/calendar/day";
import { later } from "../../shared/ui/later";
import { Page, Part } from "../../shared/ui/Page";
import { WaitingNote } from "../../shared/ui/WaitingNote";

const SurveyForm = later(async () => (await import("./SurveyForm")).SurveyForm);
const counted = (count: number, one: string, many: string) => `${count} ${count === 1 ? one : many}`;

/** Surveys: what visits and plots add up to. */
export function SurveysPage() {
  const { surveys, isError } = useSurveys();
  const navigate = useNavigate();
  const mend = useMending("saveSurvey");
  const [isBeginning, setBeginning] = useState(false);
  const refused = mend && mend.command.version === null ? mend : undefined;
  return (
    <Page
      title="Surveys"
      aside={
        <Button variant="contained" onClick={() => setBeginning(true)} sx={{ minHeight: 48 }}>
          Begin a survey
        </Button>
      }
    >
      {(isBeginning || refused) && (
        <Part id="begin" title="A survey">
          <SurveyForm
            refused={refused}
            onDone={(id) => void navigate(`/surveys/${id}`)}
            onCancel={() => setBeginning(false)}
          />
        </Part>
      )}
      {isError && !surveys && (
        <Typography role="alert">
          The surveys can’t be fetched just now; they appear when the server answers.
        </Typography>
      )}
      {surveys?.length === 0 && !isBeginning && (
        <Typography sx={{ maxWidth: 640 }}>
          No survey yet. A survey has a question, places and days; every visit to these places within its days belongs
          to it, and plots can be laid in them. Its figures and its report follow from what was recorded.
        </Typography>
      )}
      <Box component="ul" sx={{ listStyle: "none", p: 0, m: 0 }}>
        {surveys?.map((it) => (
          <Box component="li" key={it.id} sx={{ py: 1.25, borderTop: "1px dotted", borderColor: "rule" }}>
            <Link component={RouterLink} to={`/surveys/${it.id}`} sx={{ fontWeight: 600, fontSize: "1.1rem", py: 0.5 }}>
              {it.name}
            </Link>{" "}
            <WaitingNote id={it.id} />
            <Typography variant="body2">
              {[
                `${day(it.from)} to ${day(it.to)}`,
                it.leader,
                it.places.join(", "),
                counted(it.visits, "visit", "visits"),
                it.plots > 0 && counted(it.plots, "plot", "plots"),
                it.records > 0 && counted(it.records, "recording", "recordings"),
              ]
                .filter(Boolean)
                .join(" · ")}
            </Typography>
          </Box>
        ))}
      </Box>
    </Page>
  );
}
