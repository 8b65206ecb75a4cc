import { Link, Typography } from "@mui/material";
import { Link as RouterLink } from "react-router";
import { timeNow, today } from "../../api/today";
import { useSiteVisits } from "../../offline/siteVisits";
import { Callout } from "../../shared/botany/Cautions";
import { brief } from "../../shared/calendar/day";
import { counted } from "../../shared/ui/counted";

/** Visits that were begun and not ended: their lists are a tap away; one that is overdue says so. */
export function OpenVisits() {
  const open = useSiteVisits("").visits?.filter((it) => !it.isClosed) ?? [];
  return open.map((it) => {
    const isOld = it.date < today();
    const isOverdue = it.safety && (isOld || it.safety.backBy < timeNow());
    return (
      <Callout key={it.id} tone={isOverdue ? "caution" : "open"} role="note">
        <Typography>
          {isOverdue && (
            <strong>
              △ Overdue: {it.safety?.contact} expected you by {it.safety?.backBy}.{" "}
            </strong>
          )}
          {isOld ? `A visit of ${brief(it.date)} was never ended: ` : "You are on a visit: "}
          <Link component={RouterLink} to={isOld ? `/site-visits/${it.id}/end` : `/site-visits/${it.id}`}>
            {it.placeName}
          </Link>
          , {counted(it.taxa, "taxon", "taxa")} so far.
        </Typography>
      </Callout>
    );
  });
}
