import { Box, Button, Link, Typography } from "@mui/material";
import { useState } from "react";
import { Link as RouterLink, useNavigate, useSearchParams } from "react-router";
import { v7 as uuid } from "uuid";
import type { Schemas } from "../../api/client";
import { timeNow, today } from "../../api/today";
import { usePlaces } from "../../offline/documents";
import { usePeople } from "../../offline/queries";
import { useSiteVisits } from "../../offline/siteVisits";
import { Callout } from "../../shared/botany/Cautions";
import { dayOrSpan } from "../../shared/calendar/day";
import { lastRecorder } from "../../shared/form/last";
import { beginVisit } from "../../shared/place/beginVisit";
import { useHere } from "../../shared/place/here";
import { beginTrackAsBefore } from "../../shared/place/tracking";
import { later } from "../../shared/ui/later";
import { Page, Part } from "../../shared/ui/Page";
import { WaitingNote } from "../../shared/ui/WaitingNote";

const VisitForm = later(async () => (await import("./VisitForm")).VisitForm);
/** Visits to places: those that are open, and what was found on the others. */
export function SiteVisitsPage() {
  const [search] = useSearchParams();
  const here = useHere();
  const navigate = useNavigate();
  const place = search.get("place") ?? "";
  const places = usePlaces().data ?? [];
  const people = usePeople();
  const { visits, hasNextPage, fetchNextPage, isError } = useSiteVisits(place);
  const [entering, setEntering] = useState<"now" | "afterwards">();
  const [isAsking, setAsking] = useState(false);
  const [failure, setFailure] = useState("");
  const at = places.find((it) => it.id === (place || here.placeId));
  const recorder = lastRecorder();
  const open = visits?.filter((it) => !it.isClosed) ?? [];
  const closed = visits?.filter((it) => it.isClosed) ?? [];
  const still = open.find((it) => it.date === today() && it.people.includes(recorder));
  const begin = async (isSure = false) => {
    if (!at || !recorder) return setEntering("now");
    // Nobody is at two places at once: it is asked before a second one is begun.
    if (still && !isSure) return setAsking(true);
    const begun = await beginVisit({ placeId: at.id, recorder, people: people.data });
    if (begun.failure !== undefined) return setFailure(begun.failure);
    void navigate(`/site-visits/${begun.id}`);
  };
  return (
    <Page
      title={place && at ? `Visits to ${at.name}` : "Visits"}
      aside={
        <Box sx={{ display: "flex", flexWrap: "wrap", gap: 1 }}>
          <Button variant="contained" onClick={() => void begin()} sx={{ minHeight: 48 }}>
            {at ? `Begin a visit to ${at.name}` : "Begin a visit"}
          </Button>
          <Button onClick={() => setEntering("afterwards")}>Enter one afterwards</Button>
        </Box>
      }
    >
      {failure && (
        <Typography role="alert" color="error">
          ✕ {failure}
        </Typography>
      )}
      {isAsking && still && (
        <Callout tone="open" role="alert">
          <Typography>
            △ {recorder} is still on a visit to{" "}
            <Link component={RouterLink} to={`/site-visits/${still.id}`}>
              {still.placeName}
            </Link>
            , since {still.startedAt}. Go on there or end it; or{" "}
          </Typography>
          <Button onClick={() => void begin(true)}>Begin another one all the same</Button>
        </Callout>
      )}
      {entering && (
        <Part id="enter" title={entering === "now" ? "A visit that begins now" : "A visit of another day"}>
          <VisitForm
            make={(typed) => ({
              kind: "saveSiteVisit",
              id: uuid(),
              siteVisitId: uuid(),
              ...typed,
              pauses: [],
              version: null,
            })}
            isNow={entering === "now"}
            submitName={entering === "now" ? "Begin it" : "Open its list"}
            onDone={(command) => {
              const [first] = command.people;
              if (entering === "now" && command.date === today() && first)
                void beginTrackAsBefore({
                  visitId: command.siteVisitId,
                  placeId: command.placeId,
                  recorder: first,
                  day: command.date,
                });
              void navigate(`/site-visits/${command.siteVisitId}`);
            }}
            onCancel={() => setEntering(undefined)}
          />
        </Part>
      )}
      {isError && !visits && (
        <Typography role="alert">The visits can’t be fetched just now; they appear when the server answers.</Typography>
      )}
      {visits?.length === 0 && !entering && (
        <Typography sx={{ maxWidth: 640 }}>
          No visit yet. A visit says who was where, when and for how long; its list holds what grows there, and at its
          end what was looked for in vain. Everything recorded meanwhile hangs on it.
        </Typography>
      )}
      {open.length > 0 && (
        <Part id="open" title="Open">
          <Lines visits={open} />
        </Part>
      )}
      {closed.length > 0 && (
        <Part id="closed" title="Closed">
          <Lines visits={closed} />
        </Part>
      )}
      {hasNextPage && <Button onClick={() => void fetchNextPage()}>Show more</Button>}
    </Page>
  );
}

const counted = (count: number, one: string, many: string) => `${count} ${count === 1 ? one : many}`;

function Lines({ visits }: { visits: Schemas["SiteVisitSummary"][] }) {
  return (
    <Box component="ul" sx={{ listStyle: "none", p: 0, m: 0 }}>
      {visits.map((it) => {
        const said = [
          it.people.join(", "),
          it.purpose,
          it.sought > 0 && `${it.sought} sought in vain`,
          it.unnamed > 0 && `${it.unnamed} without a name yet`,
        ].filter(Boolean);
        return (
          <Box
            component="li"
            key={it.id}
            sx={{
              display: "grid",
              gridTemplateColumns: { xs: "1fr auto", sm: "10rem 1fr 6rem 7rem" },
              columnGap: 2,
              py: 1,
              borderTop: "1px dotted",
              borderColor: "rule",
              alignItems: "baseline",
            }}
          >
            <Typography variant="body2" color="text.secondary">
              {dayOrSpan(it.date, it.until)}
              {it.startedAt && `, ${it.startedAt}`}
            </Typography>
            <Box sx={{ gridColumn: { xs: "1 / -1", sm: "auto" }, gridRow: { xs: 2, sm: "auto" } }}>
              <Link component={RouterLink} to={`/site-visits/${it.id}`} sx={{ fontWeight: 600, py: 0.5 }}>
                {it.placeName}
              </Link>{" "}
              <Typography component="span" variant="body2">
                {said.join(" · ")}
              </Typography>{" "}
              {it.safety && !it.isClosed && (
                <Typography component="span" variant="body2" sx={{ fontWeight: 700 }}>
                  {it.date < today() || it.safety.backBy < timeNow()
                    ? `✕ overdue: ${it.safety.contact} expected you by ${it.safety.backBy}`
                    : `back by ${it.safety.backBy}`}
                </Typography>
              )}{" "}
              <WaitingNote id={it.id} />
            </Box>
            <Typography sx={{ textAlign: "right", fontVariantNumeric: "tabular-nums" }}>
              {counted(it.taxa, "taxon", "taxa")}
            </Typography>
            <Typography
              variant="body2"
              color="text.secondary"
              sx={{ textAlign: "right", display: { xs: "none", sm: "block" }, fontVariantNumeric: "tabular-nums" }}
            >
              {typeof it.personMinutes === "number" ? counted(it.personMinutes, "person-minute", "person-min") : ""}
            </Typography>
          </Box>
        );
      })}
    </Box>
  );
}
