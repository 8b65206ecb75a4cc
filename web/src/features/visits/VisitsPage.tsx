import { Box, Button, Link, Typography } from "@mui/material";
import { useQuery } from "@tanstack/react-query";
import { useMemo } from "react";
import { Link as RouterLink } from "react-router";
import { answerOf, api, type Schemas } from "../../api/client";
import { Page, Part } from "../../app/Page";
import { core } from "../../core/coreClient";
import { useAsked } from "../../core/flora";
import { orKept } from "../../offline/queries";
import { today } from "../bench/walks";
import { gradeNames } from "../confirm/GradeShoot";
import { dayOfYear, YearBand } from "../confirm/YearBand";
import { CautionMarks, GroundCaution } from "../taxa/Cautions";
import { TaxonLabel } from "../taxa/TaxonLabel";

const needId = (plant: Schemas["OpenPlant"], need: Schemas["OpenNeed"]) => `${plant.plantId} ${need.id}`;

const dated = (day: string) => new Date(`${day}T12:00`);
const spoken = new Intl.DateTimeFormat("en-GB", { day: "numeric", month: "long", year: "numeric" });
const DAY_MS = 86_400_000;
// A window that closes within so many days is worth a word.
const SOON_DAYS = 14;
const ALL_YEAR_DAYS = 364;

/** What is still to be seen of one's plants, in as few days as will do: those that close first at the front. */
export function VisitsPage() {
  const from = today();
  const open = useQuery({
    queryKey: ["open-plants"],
    queryFn: () =>
      orKept<Schemas["OpenPlant"][]>("open-plants", () =>
        answerOf((signal) => api.GET("/api/v1/seasons/open", { signal })),
      ),
  });
  const plants = open.data ?? NONE;
  const question = useMemo(
    (): Schemas["VisitsRequest"] | undefined =>
      plants.length === 0
        ? undefined
        : {
            from,
            needs: plants.flatMap((plant) =>
              plant.needs.map((need) => ({ id: needId(plant, need), place: plant.placeId, windows: need.windows })),
            ),
          },
    [plants, from],
  );
  const { answer, failure } = useAsked(question, core.planVisits);
  const questions = plants.reduce((n, plant) => n + plant.needs.length, 0);
  return (
    <Page
      title="Visits"
      aside={
        answer &&
        answer.visits.length > 0 && (
          <Button component="a" href={`/api/v1/seasons/visits.ics?from=${from}`} download>
            Take away as a calendar
          </Button>
        )
      }
    >
      {open.isError && !open.data && (
        <Typography role="alert">
          The server doesn’t answer just now; what is open appears as soon as it does.
        </Typography>
      )}
      {failure && <Typography role="alert">{failure}</Typography>}
      {open.data?.length === 0 && (
        <Typography>
          Nothing is open. Take a plant to{" "}
          <Link component={RouterLink} to="/">
            the Bench
          </Link>
          , and under Confirm keep its name: what it still lacks appears here with the days on which it can be seen.
        </Typography>
      )}
      {question && !answer && !failure && <Typography role="status">Finding the fewest days …</Typography>}
      {answer && question && (
        <>
          <Typography sx={{ mb: 2 }}>
            {questions} open {questions === 1 ? "question" : "questions"} about {plants.length}{" "}
            {plants.length === 1 ? "plant" : "plants"}:{" "}
            <strong>
              {answer.visits.length} {answer.visits.length === 1 ? "day answers" : "days answer"} all that can be
            </strong>
            {answer.optimal ? "; no fewer will do." : "; perhaps fewer would do."}
          </Typography>
          <Box component="ol" aria-label="Visits" sx={{ listStyle: "none", p: 0, m: 0 }}>
            {answer.visits.map((visit) => (
              <Visit key={visit.place + visit.date} visit={visit} plants={plants} from={from} />
            ))}
          </Box>
          {answer.unanswerable.length > 0 && (
            <Part title="Not to be answered outdoors" id="unanswerable">
              <Box component="ul" sx={{ m: 0, pl: 2.5 }}>
                {plants.flatMap((plant) =>
                  plant.needs
                    .filter((need) => answer.unanswerable.includes(needId(plant, need)))
                    .map((need) => (
                      <Typography component="li" variant="body2" key={needId(plant, need)}>
                        <TaxonLabel name={plant.name} />
                        {plant.label && `, ${plant.label}`}, {plant.placeName}: {need.text}
                      </Typography>
                    )),
                )}
              </Box>
            </Part>
          )}
        </>
      )}
    </Page>
  );
}

const NONE: Schemas["OpenPlant"][] = [];

function Visit(props: { visit: Schemas["RequestedVisit"]; plants: Schemas["OpenPlant"][]; from: string }) {
  const { visit, plants, from } = props;
  const here = plants.filter(
    (p) => p.placeId === visit.place && p.needs.some((n) => visit.needs.includes(needId(p, n))),
  );
  const place = here[0];
  const left = Math.round((dated(visit.latest).getTime() - dated(from).getTime()) / DAY_MS);
  const isOpen = visit.earliest === from;
  return (
    <Box
      component="li"
      sx={{
        display: "grid",
        gridTemplateColumns: { xs: "minmax(0, 1fr)", sm: "15rem minmax(0, 1fr)" },
        columnGap: 3,
        borderTop: 1,
        borderColor: "rule",
        py: 1.5,
      }}
    >
      <Box>
        <Typography variant="h2">{isOpen ? "Now" : `About ${spoken.format(dated(visit.date))}`}</Typography>
        <Typography>{place?.placeName}</Typography>
        <Typography
          variant="body2"
          sx={left <= SOON_DAYS ? { color: "signal.conflict", fontWeight: 700 } : { color: "text.secondary" }}
        >
          {left <= SOON_DAYS && <span aria-hidden="true">▲ </span>}
          {isOpen && left >= ALL_YEAR_DAYS
            ? "at any time of the year"
            : left === 0
              ? "today is the last day"
              : `${isOpen ? "until" : `from ${spoken.format(dated(visit.earliest))} to`} ${spoken.format(dated(visit.latest))}`}
        </Typography>
        <Box sx={{ mt: 0.5 }}>
          <YearBand windows={[{ from: dayOf(visit.earliest), to: dayOf(visit.latest) }]} today={dated(from)} />
        </Box>
      </Box>
      <Box>
        <GroundCaution text={place?.placeCaution ?? ""} />
        <Box component="ul" sx={{ listStyle: "none", p: 0, m: 0 }}>
          {here.map((plant) => (
            <Box component="li" key={plant.plantId} sx={{ pb: 0.75 }}>
              <Typography component="div">
                <Link component={RouterLink} to={`/plants/${plant.plantId}`}>
                  <TaxonLabel name={plant.name} />
                  {plant.label && `, ${plant.label}`}
                </Link>{" "}
                <Typography component="span" variant="body2" color="text.secondary">
                  {gradeNames[plant.grade].toLowerCase()}
                </Typography>{" "}
                <CautionMarks cautions={[...new Set(plant.cautions.flatMap((c) => c.cautions))]} />
              </Typography>
              {plant.needs
                .filter((need) => visit.needs.includes(needId(plant, need)))
                .map((need) => (
                  <Typography key={need.id} variant="body2" sx={{ pl: 2 }}>
                    <Box component="span" aria-hidden="true" sx={{ color: "signal.open" }}>
                      ○{" "}
                    </Box>
                    {need.text}
                  </Typography>
                ))}
            </Box>
          ))}
        </Box>
      </Box>
    </Box>
  );
}

const dayOf = (date: string) => dayOfYear(dated(date));
