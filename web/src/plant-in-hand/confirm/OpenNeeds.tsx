import { Box, Typography } from "@mui/material";
import { useMemo } from "react";
import type { Schemas } from "../../api/client";
import { QuietButton } from "../../shared/ui/QuietButton";
import { started, useAskedEither } from "../../offline/hosts";
import { spoken, today } from "../../shared/calendar/day";
import { YearBand } from "../../shared/calendar/YearBand";

const HERE = "here";

interface Props {
  answer: Schemas["ConfirmResult"];
  date: string | null;
  place: string;
  onLook: (character: string) => void;
}

/** What is still missing and when it can be seen, the fewest days that answer all of it, and what a camera can do. */
export function OpenNeeds({ answer, date, place, onLook }: Props) {
  const from = date ?? today();
  const { needs, shots } = answer;
  const question = useMemo(
    (): Schemas["VisitsRequest"] | undefined =>
      needs.length === 0
        ? undefined
        : {
            from,
            needs: needs.map((n) => ({ id: n.id, place: place || HERE, windows: n.windows })),
          },
    [needs, from, place],
  );
  const plan = useAskedEither("planVisits", question, started).answer;
  const standing = useMemo(
    () => ({ date: from, questions: needs.map(({ id, windows }) => ({ id, windows })) }),
    [needs, from],
  );
  const stands = useAskedEither("questionStatus", standing, started).answer;
  if (needs.length === 0) {
    return (
      <Typography>
        <Box component="span" sx={{ color: "signal.support", fontWeight: 700 }}>
          ● Nothing.
        </Box>{" "}
        All that can be seen outside a laboratory has been.
      </Typography>
    );
  }
  return (
    <>
      <Box component="ul" aria-label="Still to be seen" sx={{ listStyle: "none", p: 0, m: 0 }}>
        {needs.map((need) => {
          const now = stands?.find((it) => it.id === need.id)?.open ?? false;
          return (
            <Box
              component="li"
              key={need.id}
              sx={{
                display: "grid",
                gridTemplateColumns: { xs: "1fr", sm: "minmax(0, 1fr) 180px" },
                columnGap: 2,
                alignItems: "center",
                py: 0.5,
                borderTop: "1px dotted",
                borderColor: "rule",
              }}
            >
              <Typography variant="body2" component="div">
                {need.text}{" "}
                {need.windows.length === 0 ? (
                  <strong>✕ can’t be answered outdoors</strong>
                ) : now && need.character ? (
                  <QuietButton name={`Look now: ${need.text}`} onClick={() => onLook(need.character)}>
                    Look now
                  </QuietButton>
                ) : (
                  <Box component="span" sx={{ color: now ? "signal.support" : "signal.absent", fontWeight: 600 }}>
                    {now ? "● can be seen now" : "◌ not today"}
                  </Box>
                )}
              </Typography>
              {need.windows.length > 0 && <YearBand windows={need.windows} today={from} />}
            </Box>
          );
        })}
      </Box>
      {plan && plan.visits.length > 0 && (
        <Typography sx={{ mt: 1 }}>
          <strong>
            {plan.visits.length === 1 ? "One visit" : `${plan.visits.length} visits`}{" "}
            {plan.visits.length === 1 ? "answers" : "answer"} all of it
          </strong>
          {": "}
          {plan.visits
            .map((v) => {
              const last = spoken(v.latest);
              if (v.isOpen) return v.latest === from ? "today" : `now, until ${last}`;
              return v.earliest === v.latest ? last : `about ${spoken(v.date)}, until ${last}`;
            })
            .join(", then ")}
          .{!plan.optimal && " Perhaps fewer would do."}
        </Typography>
      )}
      {shots.length > 0 && (
        <Box sx={{ mt: 1.5 }}>
          <Typography variant="h3" component="h3">
            With the camera
          </Typography>
          <Box component="ul" sx={{ m: 0, pl: 2.5 }}>
            {shots.map((shot) => (
              <Typography component="li" variant="body2" key={shot.character}>
                {shot.text}
                {!shot.canBeSeen && (
                  <Box component="span" sx={{ color: "signal.absent" }}>
                    {" "}
                    ◌ not today
                  </Box>
                )}
              </Typography>
            ))}
          </Box>
        </Box>
      )}
    </>
  );
}
