import { Box, Link, Typography } from "@mui/material";
import { Link as RouterLink } from "react-router";
import type { Schemas } from "../../api/client";
import { TaxonLabel } from "../../shared/botany/TaxonLabel";
import { today } from "../../shared/calendar/day";
import { useLocalWork } from "../../offline/queries";
import { useOpenDocuments, useQuestions } from "../../shared/calendar/questions";
import { Part } from "../../shared/ui/Page";

/** What the visit was planned for: what has been answered since is ticked off by itself. */
export function PlannedQuestions({ planned }: { planned: Schemas["PlannedQuestion"][] }) {
  const documents = useOpenDocuments();
  const open = useQuestions(today(), documents);
  const ids = open && new Set(open.map((it) => it.question.id));
  // Without the server nobody says whether what waits answers a question of a plant.
  const { outbox } = useLocalWork();
  const waiting = new Set(outbox.flatMap(({ command }) => ("plantId" in command ? (command.plantId ?? []) : [])));
  const left = ids && planned.filter((it) => ids.has(it.id)).length;
  return (
    <Part id="planned" title="Planned for">
      <Typography variant="body2" color="text.secondary" role="status">
        {left === undefined
          ? "What of it is still open can’t be told just now."
          : left === 0
            ? "All of it is answered."
            : `${left} of ${planned.length} still open. What you record at the plant or population answers it.`}
      </Typography>
      <Box component="ul" sx={{ listStyle: "none", p: 0, m: 0 }}>
        {planned.map((it) => {
          const isDone = ids && !ids.has(it.id);
          const [name = "", ...label] = it.called.split(", ");
          return (
            <Box component="li" key={it.id} sx={{ borderTop: "1px dotted", borderColor: "rule", py: 0.5 }}>
              <Box component="span" sx={{ color: isDone ? "signal.support" : "signal.open", fontWeight: 700 }}>
                {isDone ? "✓ answered: " : waiting.has(it.subjectId) ? "◐ recorded, waits to be sent: " : "○ "}
              </Box>
              <Link component={RouterLink} to={`/${it.isOfPopulation ? "populations" : "plants"}/${it.subjectId}`}>
                <TaxonLabel name={name} />
                {label.length > 0 && `, ${label.join(", ")}`}
              </Link>{" "}
              <Typography component="span" variant="body2">
                {it.text}
              </Typography>
            </Box>
          );
        })}
      </Box>
    </Part>
  );
}
