import { Box, Button, Link, Typography } from "@mui/material";
import { useMemo, useState } from "react";
import { Link as RouterLink } from "react-router";
import type { Schemas } from "../../api/client";
import { today } from "../../api/today";
import { core } from "../../core/coreClient";
import { useAsked } from "../../offline/flora";
import { day } from "../../shared/calendar/day";
import { useOpenDocuments } from "../../shared/calendar/questions";

const FIRST_DAYS = 6;
const MOST_ERRANDS = 8;

/** The fewest days for what the survey wants and what is open of the plants at its places, in one plan. */
export function SurveyPlan({ whole }: { whole: Schemas["SurveyWhole"] }) {
  const { plants, populations, isLoaded, isAway } = useOpenDocuments();
  const [isAll, setAll] = useState(false);
  const request = useMemo(
    () => (isLoaded ? { survey: whole, date: today(), plants, populations } : undefined),
    [isLoaded, whole, plants, populations],
  );
  const plan = useAsked(request, core.surveyPlan).answer;
  if (isAway)
    return <Typography role="alert">What is open of plants isn’t on this device; the plan needs it.</Typography>;
  if (!plan) return <Typography role="status">Finding the fewest days …</Typography>;
  if (plan.days.length === 0 && plan.missed.length === 0)
    return <Typography>Nothing is left to be done before the survey ends.</Typography>;
  const shown = isAll ? plan.days : plan.days.slice(0, FIRST_DAYS);
  return (
    <>
      <Typography>
        {plan.days.length} {plan.days.length === 1 ? "day does" : "days do"} all that can be done
        {plan.isOptimal ? "; no fewer will." : "; perhaps fewer would."}
      </Typography>
      <Box component="ol" aria-label="Days" sx={{ listStyle: "none", p: 0, my: 1 }}>
        {shown.map((it) => (
          <Box
            component="li"
            key={`${it.placeId} ${it.date}`}
            sx={{ py: 1, borderTop: "1px dotted", borderColor: "rule" }}
          >
            <Box sx={{ display: "flex", flexWrap: "wrap", columnGap: 1.5, alignItems: "baseline" }}>
              <strong>{day(it.date)}</strong>
              <Link component={RouterLink} to={`/site-visits?place=${it.placeId}`} sx={{ py: 0.5 }}>
                {it.placeName}
              </Link>
              {it.earliest !== it.latest && (
                <Typography variant="body2" color="text.secondary">
                  any day from {day(it.earliest)} to {day(it.latest)}
                </Typography>
              )}
            </Box>
            <Errands survey={whole.survey.id} errands={it.errands} />
          </Box>
        ))}
      </Box>
      {plan.days.length > FIRST_DAYS && (
        <Button onClick={() => setAll(!isAll)}>{isAll ? "Fewer" : `All ${plan.days.length} days`}</Button>
      )}
      {plan.missed.length > 0 && (
        <>
          <Typography sx={{ mt: 1 }}>✕ Can’t be done any more before the survey ends, or not outdoors:</Typography>
          <Errands survey={whole.survey.id} errands={plan.missed} />
        </>
      )}
    </>
  );
}

function Errands({ survey, errands }: { survey: string; errands: Schemas["SurveyErrand"][] }) {
  const [isAll, setAll] = useState(false);
  const shown = isAll ? errands : errands.slice(0, MOST_ERRANDS);
  const to = (it: Schemas["SurveyErrand"]) =>
    it.plotId
      ? `/surveys/${survey}/plots/${it.plotId}`
      : it.subjectId && (it.isOfPopulation ? `/populations/${it.subjectId}` : `/plants/${it.subjectId}`);
  return (
    <Box component="ul" sx={{ m: 0, pl: 2.5 }}>
      {shown.map((it, i) => {
        const link = to(it);
        return (
          <li key={i}>
            {link ? (
              <Link component={RouterLink} to={link}>
                {it.what}
              </Link>
            ) : (
              it.what
            )}
            {it.text && `: ${it.text}`}
          </li>
        );
      })}
      {errands.length > MOST_ERRANDS && (
        <li style={{ listStyle: "none" }}>
          <Button size="small" onClick={() => setAll(!isAll)}>
            {isAll ? "Fewer" : `${errands.length - MOST_ERRANDS} more`}
          </Button>
        </li>
      )}
    </Box>
  );
}
