import { Box, Button, Typography } from "@mui/material";
import { useMemo, useState } from "react";
import type { Schemas } from "../../api/client";
import words from "../../api/words";
import { useAskedEither } from "../../offline/hosts";
import { send } from "../../offline/outbox";
import { TaxonLabel } from "../../shared/botany/TaxonLabel";
import { useBenchFlora } from "../../shared/botany/useBenchFlora";
import { NearestPlants } from "../../plant-in-hand/sift/NearestPlants";
import { Choice } from "../../shared/form/Choice";
import { QuietButton } from "../../shared/ui/QuietButton";
import { v7 as uuid } from "uuid";
import { lineCommand } from "./useVisitCommands";

interface Props {
  visit: Schemas["SiteVisit"];
  recorder: Schemas["PersonReference"];
  line: { id: string; name: string; details: Schemas["LineDetails"]; site: Schemas["PlantSite"] | null };
  compartment: string;
  /** What is to be said of it; nothing while that is worked out. */
  advice: Schemas["LineAdvice"] | undefined;
  onChanged: (id: string, details: Schemas["LineDetails"]) => void;
  onUndo: () => void;
}

const abundances = Object.entries(words.abundances) as [Schemas["Abundance"], string][];

/** The line that was written last: its abundance by a tap, what it is taken for, and back with it. */
export function LastListed({ visit, recorder, line, compartment, advice, onChanged, onUndo }: Props) {
  const own = visit.lines.find((it) => it.id === line.id);
  const change = async (details: Schemas["LineDetails"]) => {
    const id = uuid();
    onChanged(id, details);
    await send(
      lineCommand(
        visit,
        recorder,
        {
          taxon: own?.plantId ? "" : line.name,
          unnamed: own?.unnamed ?? "",
          plantId: own?.plantId ?? undefined,
          compartment,
          details,
          site: line.site,
          at: own?.at,
          supersedes: line.id,
        },
        id,
      ),
    );
  };
  return (
    <Box sx={{ bgcolor: "signal.chosenWash", px: 1.5, py: 1, my: 1 }}>
      <Box sx={{ display: "flex", alignItems: "center", flexWrap: "wrap", columnGap: 1 }}>
        <Typography role="status" sx={{ fontWeight: 600, flex: 1 }}>
          ✓ {own?.plantId ? line.name : <TaxonLabel name={line.name} />}
        </Typography>
        <QuietButton name={`Undo ${line.name}`} onClick={onUndo}>
          Undo
        </QuietButton>
      </Box>
      <Box sx={{ display: "flex", flexWrap: "wrap", gap: 0.75, alignItems: "center" }}>
        <Choice
          label="Abundance"
          choices={abundances}
          value={line.details.abundance ?? undefined}
          canBeNone
          onChoose={(abundance) =>
            void change({
              ...line.details,
              abundance: abundance ?? null,
              isLocal: abundance ? (line.details.isLocal ?? false) : false,
            })
          }
        />
        {line.details.abundance && (
          <Button
            aria-pressed={line.details.isLocal ?? false}
            onClick={() => void change({ ...line.details, isLocal: !line.details.isLocal })}
          >
            {line.details.isLocal ? "✓ locally" : "locally"}
          </Button>
        )}
      </Box>
      {advice?.taxon && advice.kin.length > 0 && (
        <Kin key={line.name} name={line.name} advice={advice} date={visit.date} placeId={visit.place.id} />
      )}
    </Box>
  );
}

interface KinProps {
  name: string;
  date: string;
  placeId: string;
  advice: Schemas["LineAdvice"];
}

/** The others of its kind, what separates them on the day, and where one stands to compare with. */
function Kin({ name, date, placeId, advice }: KinProps) {
  const { taxon, kin } = advice;
  const [isOpen, setOpen] = useState(false);
  const { flora, host, characters } = useBenchFlora(undefined);
  const question = useMemo(
    () => (isOpen && flora ? { floraId: flora.id, taxa: [taxon, ...kin.map((it) => it.id)], date } : undefined),
    [isOpen, flora, taxon, kin, date],
  );
  const { answer, failure } = useAskedEither("contrast", question, host);
  const names = [name, ...kin.map((it) => it.name)];
  const wanted = answer?.smallestNow.characters ?? [];
  const rows = answer?.rows.filter((row) => wanted.includes(row.character)) ?? [];
  return (
    <Box sx={{ mt: 0.5 }}>
      <Typography variant="body2" component="span">
        Taken for{" "}
        {kin.map((it, i) => (
          <span key={it.id}>
            {i > 0 && ", "}
            <TaxonLabel name={it.name} />
          </span>
        ))}
        .
      </Typography>
      <QuietButton name="What separates them today" expanded={isOpen} onClick={() => setOpen(!isOpen)}>
        What separates them today
      </QuietButton>
      {isOpen && failure && <Typography variant="body2">The flora describes too little of them to tell.</Typography>}
      {isOpen && answer && rows.length === 0 && (
        <Typography variant="body2">Nothing that can be seen on this day separates them.</Typography>
      )}
      {rows.map((row) => (
        <Box key={row.character} sx={{ mb: 0.5 }}>
          <Typography variant="body2" sx={{ fontWeight: 600 }}>
            {characters.find((it) => it.id === row.character)?.name ?? row.character}
          </Typography>
          {row.values.map((value, i) => (
            <Typography key={names[i]} variant="body2">
              <TaxonLabel name={names[i] ?? ""} />: {value.text || "not described"}
            </Typography>
          ))}
        </Box>
      ))}
      {isOpen && <NearestPlants taxa={[{ id: taxon, name }, ...kin]} placeId={placeId} />}
    </Box>
  );
}
