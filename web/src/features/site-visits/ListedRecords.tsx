import { Box, Link, Typography } from "@mui/material";
import { memo, useState } from "react";
import { Link as RouterLink } from "react-router";
import type { Schemas } from "../../api/client";
import { CautionMarks } from "../../shared/botany/Cautions";
import { TaxonLabel } from "../../shared/botany/TaxonLabel";
import { later } from "../../shared/ui/later";
import { QuietButton } from "../../shared/ui/QuietButton";
import { WaitingNote } from "../../shared/ui/WaitingNote";
import { siteOf } from "./useVisitCommands";

const LineForm = later(async () => (await import("./LineForm")).LineForm);

type Visit = Schemas["SiteVisit"];
type Advice = Schemas["LineAdvice"];

interface Props {
  visit: Visit;
  advice: Map<string, Advice>;
  recorder: Schemas["PersonReference"];
  isOpen: boolean;
  onWithdraw: (line: Schemas["ListLine"]) => void;
}

/** The list, newest first: each taxon once in each part of the place, with what everybody noted of it. */
export const ListedRecords = memo(function ListedRecords({ visit, advice, recorder, isOpen, onWithdraw }: Props) {
  const [changing, setChanging] = useState<string>();
  const records = [...visit.records].reverse();
  return (
    <Box component="ol" reversed aria-label="The list" sx={{ m: 0, pl: 0, listStyle: "none" }}>
      {records.map((record, i) => (
        <Box component="li" key={record.id} sx={{ borderTop: "1px dotted", borderColor: "rule", py: 0.5 }}>
          {record.lines.map((line, k) => {
            const said = advice.get(line.id);
            const others = record.observers.length > 1 || record.lines.length > 1;
            return (
              <Box key={line.id}>
                <Box sx={{ display: "flex", alignItems: "baseline", flexWrap: "wrap", columnGap: 1 }}>
                  <Typography
                    component="span"
                    variant="body2"
                    color="text.secondary"
                    sx={{ minWidth: 28, fontVariantNumeric: "tabular-nums" }}
                  >
                    {k === 0 ? records.length - i : ""}
                  </Typography>
                  <Box sx={{ flex: "1 1 9rem", minWidth: 0 }}>
                    {k === 0 ? (
                      line.plantId ? (
                        <Link component={RouterLink} to={`/plants/${line.plantId}`}>
                          {line.name ? <TaxonLabel name={line.name} /> : line.unnamed}
                        </Link>
                      ) : line.name ? (
                        <TaxonLabel name={line.name} />
                      ) : (
                        line.unnamed
                      )
                    ) : null}
                    <Typography component="span" variant="body2" sx={{ ml: k === 0 ? 1 : 0 }}>
                      {[line.compartment, line.said, others && line.recorder].filter(Boolean).join(" · ")}
                    </Typography>{" "}
                    {said?.isNewHere && k === 0 && (
                      <Typography component="span" variant="body2" sx={{ color: "signal.support", fontWeight: 700 }}>
                        ✱ new here
                      </Typography>
                    )}{" "}
                    {said && k === 0 && <CautionMarks cautions={said.cautions.flatMap((it) => it.cautions)} />}
                    <WaitingNote id={line.id} />
                    {said?.doubts.map((doubt) => (
                      <Typography key={doubt.kind} variant="body2" sx={{ color: "signal.open" }}>
                        △ {doubt.says}
                      </Typography>
                    ))}
                  </Box>
                  <Box sx={{ display: "flex" }}>
                    <QuietButton
                      name={`Add to or correct ${record.called}`}
                      expanded={changing === line.id}
                      onClick={() => setChanging(changing === line.id ? undefined : line.id)}
                    >
                      Add
                    </QuietButton>
                    {isOpen && (
                      <QuietButton name={`Undo: ${record.called}`} onClick={() => onWithdraw(line)}>
                        Undo
                      </QuietButton>
                    )}
                  </Box>
                </Box>
                {changing === line.id && (
                  <LineForm
                    visit={visit}
                    recorder={recorder}
                    from={{
                      taxon: line.name,
                      unnamed: line.unnamed,
                      plantId: line.plantId ?? null,
                      compartment: line.compartment,
                      details: line.details,
                      site: siteOf(line),
                    }}
                    supersedes={line.id}
                    onDone={() => setChanging(undefined)}
                  />
                )}
              </Box>
            );
          })}
        </Box>
      ))}
    </Box>
  );
});
