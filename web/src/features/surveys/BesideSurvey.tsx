import { MenuItem, TextField, Typography } from "@mui/material";
import { useMemo, useState } from "react";
import type { Schemas } from "../../api/client";
import { core } from "../../core/coreClient";
import { useAsked } from "../../offline/flora";
import { useSurvey, useSurveys } from "../../offline/surveys";
import { TaxonLabel } from "../../shared/botany/TaxonLabel";
import { SurveyTable } from "./SurveyTable";
import { number, signed } from "./signed";

interface Props {
  whole: Schemas["SurveyWhole"];
  from: Schemas["SurveySource"];
}

/** This survey beside another one: what stands more often in which, with intervals. */
export function BesideSurvey({ whole, from }: Props) {
  const [chosen, setChosen] = useState("");
  const others = (useSurveys().surveys ?? []).filter((it) => it.id !== whole.survey.id);
  if (others.length === 0) return <Typography>There is no other survey.</Typography>;
  return (
    <>
      <TextField
        select
        label="The other survey"
        value={chosen}
        onChange={(event) => setChosen(event.target.value)}
        fullWidth={false}
        sx={{ width: "min(100%, 30rem)", mb: 1 }}
      >
        {others.map((it) => (
          <MenuItem key={it.id} value={it.id}>
            {it.name}
          </MenuItem>
        ))}
      </TextField>
      {chosen && <Compared whole={whole} from={from} otherId={chosen} />}
    </>
  );
}

function Compared({ whole, from, otherId }: Props & { otherId: string }) {
  const { data: other, isError } = useSurvey(otherId);
  const question = useMemo(() => other && { first: other, second: whole, from }, [other, whole, from]);
  const answer = useAsked(question, core.surveyComparison).answer;
  if (isError)
    return <Typography role="alert">That survey isn’t on this device, and the server doesn’t answer.</Typography>;
  if (!answer || !other) return <Typography role="status">The two are being compared …</Typography>;
  const { richness, taxa, notes, first, second } = answer;
  return (
    <>
      {notes.map((it) => (
        <Typography key={it} variant="body2">
          {it}
        </Typography>
      ))}
      {richness && (
        <Typography sx={{ my: 1, maxWidth: 720 }}>
          Taxa in a recording: {number(richness.value, "+")} here, on average
          {typeof richness.low === "number" &&
            typeof richness.high === "number" &&
            ` (95 %: ${number(richness.low)} to ${number(richness.high)})`}
          ; {second} recordings here, {first} there.
        </Typography>
      )}
      {taxa.length > 0 && (
        <SurveyTable
          label="The two surveys taxon by taxon"
          what="taxa"
          columns={["Taxon", "Here", "There", "Difference of frequency", "95 %"]}
          rows={taxa.map((it) => ({
            key: it.taxon,
            head: <TaxonLabel name={it.taxon} />,
            cells: [
              `${it.second} of ${second}`,
              `${it.first} of ${first}`,
              `${it.difference.isClear ? "● " : ""}${signed(it.difference.value)}`,
              typeof it.difference.low === "number" && typeof it.difference.high === "number"
                ? `${signed(it.difference.low)} to ${signed(it.difference.high)}`
                : "",
            ],
          }))}
        />
      )}
      {taxa.length > 0 && (
        <Typography variant="body2" sx={{ mt: 1 }}>
          ● the interval leaves out no difference. Shares after Newcombe 1998 (independent, method 10), means after
          Welch 1947, each for itself: of many taxa some come out by chance.
        </Typography>
      )}
    </>
  );
}
