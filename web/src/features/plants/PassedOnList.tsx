import { Box, Link, Typography } from "@mui/material";
import { useQuery } from "@tanstack/react-query";
import { Link as RouterLink } from "react-router";
import { answerOf, api } from "../../api/client";
import words from "../../api/words";
import { TaxonLabel } from "../../shared/botany/TaxonLabel";
import { day } from "../../shared/calendar/day";
import { Part } from "../../shared/ui/Page";

/** To whom records of a plant went, and what is said of them there, beside our own names. */
export function PassedOnList({ plantId }: { plantId: string }) {
  const { data } = useQuery({
    queryKey: ["deliveries", "of", plantId],
    queryFn: () =>
      answerOf((signal) => api.GET("/api/v1/deliveries/of/{id}", { params: { path: { id: plantId } }, signal })),
    retry: false,
  });
  if (!data || data.length === 0) return null;
  return (
    <Part id="passed-on" title="Passed on">
      <Box component="ul" sx={{ listStyle: "none", p: 0, m: 0 }}>
        {data.map((it) => (
          <Box component="li" key={it.deliveryId + it.partner}>
            <Link component={RouterLink} to={`/deliveries/${it.deliveryId}`}>
              {it.partner}
            </Link>
            , {day(it.on.slice(0, 10))}: {it.state === "withdrawn" ? "withdrawn" : <TaxonLabel name={it.name} />}
            {it.said && (
              <Typography component="span" variant="body2">
                . They say: {words.partnerVerdicts[it.said.verdict].toLowerCase()}
                {it.said.says && `, “${it.said.says}”`}
              </Typography>
            )}
          </Box>
        ))}
      </Box>
    </Part>
  );
}
