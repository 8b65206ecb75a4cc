import words from "../../api/words";
import { Box, Button, Link, TextField, Typography } from "@mui/material";
import { useState, type FormEvent } from "react";
import { Link as RouterLink, useParams } from "react-router";
import { v7 as uuid } from "uuid";
import type { Schemas } from "../../api/client";
import { day as dayInWords, spoken, today, windowsInWords } from "../../shared/calendar/day";
import { useProblem } from "../../shared/form/useProblem";
import { WaitingNote } from "../../shared/ui/WaitingNote";
import { Page, Part } from "../../shared/ui/Page";
import { QuietButton } from "../../shared/ui/QuietButton";
import { useMending, useSend } from "../../offline/mending";
import type { RefusedCommand } from "../../offline/store";
import { usePopulations } from "../../offline/documents";
import { TagForm } from "../../shared/form/TagForm";
import { Callout, CautionMarks, GroundCaution } from "../../shared/botany/Cautions";
import { TaxonLabel } from "../../shared/botany/TaxonLabel";
import { useDays } from "../../shared/calendar/questions";
import { SharePlot } from "./SharePlot";
import { Tally } from "./Tally";

/** A population: how many there are, what becomes of its pegged plants, and what threatens it. */
export function PopulationPage() {
  const { populationId = "" } = useParams();
  const populations = usePopulations();
  const it = populations.data?.find((p) => p.id === populationId);
  const mend = useMending("countPopulation", "noteThreat");
  const [chosen, setOpen] = useState<"count" | "peg" | "threat" | "nothing">();
  // Opened to mend what was refused, it shows that form at once.
  const asked = mend ? (mend.command.kind === "noteThreat" ? "threat" : "count") : "nothing";
  const open = chosen ?? asked;
  const [newPeg, setNewPeg] = useState(() => uuid());
  if (!it) {
    return (
      <Page title="Population">
        <Typography role={populations.isLoading ? "status" : "alert"}>
          {populations.isLoading
            ? "Fetching the population …"
            : populations.isError
              ? "The server doesn’t answer just now; the population appears as soon as it does."
              : "No population has this address."}
        </Typography>
      </Page>
    );
  }
  const { summary } = it;
  const done = () => setOpen("nothing");
  const standing = it.threats.filter((t) => !t.dealtWith);
  return (
    <Page
      title={`${it.name}, ${it.place.name}`}
      isKeptBack={it.isSensitive}
      aside={
        <Box sx={{ display: "flex", gap: 1, flexWrap: "wrap" }}>
          <Button variant="contained" onClick={() => setOpen("count")}>
            Count it
          </Button>
          <Button onClick={() => setOpen("peg")}>Peg a plant</Button>
          <Button onClick={() => setOpen("threat")}>Note a threat</Button>
        </Box>
      }
    >
      <WaitingNote id={it.id} />
      <Typography variant="h1" component="h2" sx={{ fontSize: "1.55rem" }}>
        <TaxonLabel name={it.taxon} /> <CautionMarks cautions={[...new Set(it.cautions.flatMap((c) => c.cautions))]} />
      </Typography>
      {it.cautions.map((c) => (
        <Typography key={c.taxon} variant="body2" sx={{ color: "signal.caution", fontWeight: 600 }}>
          △ {c.note}
        </Typography>
      ))}
      {it.bounds && <Typography variant="body2">{it.bounds}</Typography>}
      <GroundCaution text={it.place.caution} />
      {standing.map((threat) => (
        <ThreatLine key={threat.id} threat={threat} population={it.id} />
      ))}
      {open === "count" && (
        <Part id="count" title="Count it">
          <Tally population={it} onDone={done} />
        </Part>
      )}
      {open === "peg" && (
        <Part id="peg" title="Peg a plant">
          <TagForm
            key={newPeg}
            plantId={newPeg}
            placeId={it.place.id}
            label={`${it.name} ${it.pegs.length + 1}`}
            site={null}
            finding={{ landmark: "", bearingDegrees: null, distanceMetres: null, note: "" }}
            populationId={it.id}
            taggedOn={today()}
            version={null}
            onDone={() => {
              setNewPeg(uuid());
              done();
            }}
          />
        </Part>
      )}
      {open === "threat" && (
        <Part id="threat" title="Note a threat">
          <ThreatForm population={it.id} onDone={done} />
        </Part>
      )}
      {(summary.due.length > 0 || summary.missed.length > 0) && (
        <Part id="due" title="To be done">
          {summary.due.map((need) => (
            <Typography key={need.id} variant="body2">
              ○ {need.text} {windowsInWords(need.windows)}.
            </Typography>
          ))}
          {summary.missed.map((text) => (
            <Typography key={text} variant="body2" sx={{ color: "signal.absent" }}>
              ◌ Missed: {text}
            </Typography>
          ))}
        </Part>
      )}
      <Part id="counts" title="How many">
        {it.counts.length === 0 ? (
          <Typography>It was not counted yet. The tally counts with one thumb.</Typography>
        ) : (
          <CountPlot it={it} />
        )}
      </Part>
      {it.pegs.length > 0 && (
        <Part id="fate" title="What becomes of them">
          {[...summary.years].reverse().map((year) => (
            <Box key={year.year} sx={{ mb: 1.5 }}>
              <Typography variant="h3">
                {year.year}: {year.pegged} pegged
                {year.notRefound > 0 && `, ${year.notRefound} not refound`}
              </Typography>
              <SharePlot name="flowered" it={year.flowered} />
              <SharePlot name="fruited" it={year.fruited} />
              <SharePlot name="alive" it={year.alive} />
              {year.sexes.male + year.sexes.female + year.sexes.both > 0 && (
                <>
                  <SharePlot name="female" it={year.sexes.femaleShare} />
                  <Typography variant="body2">
                    {year.sexes.male} male, {year.sexes.female} female, {year.sexes.both} with both,{" "}
                    {year.sexes.notSexed} not sexed
                  </Typography>
                </>
              )}
            </Box>
          ))}
          {summary.neverFlowered.length > 0 && (
            <Typography variant="body2">
              <strong>Never flowered in two years or more:</strong> {summary.neverFlowered.join(", ")}.
            </Typography>
          )}
          <Typography variant="caption" color="text.secondary">
            The bar is Wilson’s 95 % interval among those whose fate is known; dotted, what it may be with those that
            were not refound or not looked at.
          </Typography>
        </Part>
      )}
      {it.pegs.length > 0 && <Pegs it={it} />}
      {it.threats.some((t) => t.dealtWith) && (
        <Part id="dealt-with" title="Dealt with">
          {it.threats
            .filter((t) => t.dealtWith)
            .map((t) => (
              <Typography key={t.id} variant="body2">
                {spoken(t.notedOn)}: {t.text} → {t.dealtWith}
              </Typography>
            ))}
        </Part>
      )}
    </Page>
  );
}

const WIDTH = 420;
const HEIGHT = 150;

// Counts over the years, a line for each unit, from 0.
function CountPlot({ it }: { it: Schemas["PopulationDetail"] }) {
  const units = [...new Set(it.counts.map((c) => c.unit))];
  const superseded = new Set(it.counts.map((c) => c.supersedes).filter(Boolean));
  const counts = it.counts.filter((c) => !superseded.has(c.id));
  const years = [...new Set(counts.map((c) => Number(c.date.slice(0, 4))))].sort();
  const most = Math.max(1, ...counts.map((c) => c.number));
  const [first, last] = [years[0] ?? 0, years.at(-1) ?? 0];
  const at = (date: string) => Number(date.slice(0, 4)) + (Number(date.slice(5, 7)) - 0.5) / 12;
  const x = (date: string) => 40 + ((at(date) - first) / Math.max(1, last + 1 - first)) * (WIDTH - 60);
  const y = (n: number) => HEIGHT - 24 - (n / most) * (HEIGHT - 44);
  const changes = it.summary.changes;
  return (
    <Box sx={{ display: "flex", flexWrap: "wrap", gap: 3, alignItems: "flex-start" }}>
      <Box
        component="svg"
        viewBox={`0 0 ${WIDTH} ${HEIGHT}`}
        role="img"
        aria-label={`Counts: ${counts.map((c) => `${spoken(c.date)} ${c.number} ${c.unit}`).join("; ")}.`}
        sx={{ width: "100%", maxWidth: WIDTH, height: "auto", color: "text.primary", flex: "1 1 300px" }}
      >
        <path d={`M36 12V${HEIGHT - 24}H${WIDTH - 8}`} fill="none" stroke="currentColor" strokeOpacity={0.6} />
        <text x={32} y={y(most) + 4} fontSize={12} textAnchor="end" fill="currentColor">
          {most}
        </text>
        <text x={32} y={y(0) + 4} fontSize={12} textAnchor="end" fill="currentColor">
          0
        </text>
        {years.map((year) => (
          <text key={year} x={x(`${year}-06-15`)} y={HEIGHT - 6} fontSize={12} textAnchor="middle" fill="currentColor">
            {year}
          </text>
        ))}
        {units.map((unit, u) => {
          const own = counts.filter((c) => c.unit === unit);
          return (
            <Box component="g" key={unit} sx={{ color: ["signal.support", "signal.open", "signal.conflict"][u] }}>
              <path
                d={own.map((c, i) => `${i === 0 ? "M" : "L"}${x(c.date)} ${y(c.number)}`).join("")}
                fill="none"
                stroke="currentColor"
                strokeWidth={2}
                strokeDasharray={["", "6 3", "2 3"][u]}
              />
              {own.map((c) => (
                <g key={c.id}>
                  <circle cx={x(c.date)} cy={y(c.number)} r={4.5} fill="currentColor" />
                  <text x={x(c.date) + 8} y={y(c.number) - 6} fontSize={12} fill="currentColor" fontWeight={600}>
                    {c.number}
                  </text>
                </g>
              ))}
            </Box>
          );
        })}
      </Box>
      <Box sx={{ flex: "1 1 260px" }}>
        {[...counts].reverse().map((c) => (
          <Typography key={c.id} variant="body2">
            {spoken(c.date)}: <strong>{c.number}</strong> {c.unit}, {c.recorder}
            {c.note && `. ${c.note}`}
          </Typography>
        ))}
        {changes.map((c) => (
          <Typography key={`${c.unit}${c.toYear}`} variant="body2" sx={{ mt: 0.5, fontWeight: 600 }}>
            {c.to === c.from ? "=" : c.to > c.from ? "▲" : "▼"} {c.unit} {c.fromYear} to {c.toYear}: {c.from} → {c.to}
            {c.perYearInWords && `, ${c.perYearInWords}`}
          </Typography>
        ))}
      </Box>
    </Box>
  );
}

// How its pegged plants were found last; a tap leads to the visit.
function Pegs({ it }: { it: Schemas["PopulationDetail"] }) {
  return (
    <Part id="pegs" title="Pegged plants">
      <Box
        component="ul"
        sx={{
          listStyle: "none",
          p: 0,
          m: 0,
          display: "grid",
          columnGap: 4,
          gridTemplateColumns: { xs: "1fr", md: "1fr 1fr" },
        }}
      >
        {it.pegs.map((peg) => {
          const last = peg.visits.at(-1);
          return (
            <Box
              component="li"
              key={peg.id}
              sx={{
                display: "flex",
                gap: 1,
                alignItems: "center",
                borderTop: "1px dotted",
                borderColor: "rule",
                minHeight: 48,
              }}
            >
              <Box sx={{ flex: 1 }}>
                <Link component={RouterLink} to={`/plants/${peg.id}`}>
                  {peg.label}
                </Link>
                <Typography variant="body2" color="text.secondary">
                  {last
                    ? `${dayInWords(last.date)}: ${[words.plantStates[last.state], ...last.phases.map((it) => words.phaseStages[it.phase][it.stage])].join(", ")}`
                    : `pegged on ${spoken(peg.peggedOn)}`}
                </Typography>
              </Box>
              <Button
                component={RouterLink}
                to={`/plants/${peg.id}/visit`}
                aria-label={`Visit ${peg.label}`}
                sx={{ flex: "none" }}
              >
                Visit
              </Button>
            </Box>
          );
        })}
      </Box>
    </Part>
  );
}

function ThreatLine({ threat, population }: { threat: Schemas["Threat"]; population: string }) {
  const [closing, setClosing] = useState(false);
  const far = useDays(threat.actBy ? [{ id: threat.id, date: threat.actBy }] : []).get(threat.id);
  return (
    <Callout tone="caution">
      <Typography variant="body2">
        <strong>△ {threat.text}</strong>
        {threat.actBy && (
          <Box component="span" sx={{ fontWeight: far?.isSoon ? 700 : 400 }}>
            {" "}
            Act by {spoken(threat.actBy)}
            {far &&
              (far.ahead < 0 ? ": that day has passed." : far.ahead === 0 ? ": today." : `: ${far.ahead} days left.`)}
          </Box>
        )}{" "}
        <QuietButton name={`Dealt with: ${threat.text}`} onClick={() => setClosing(!closing)} expanded={closing}>
          Dealt with
        </QuietButton>
      </Typography>
      {closing && (
        <ThreatFields population={population} closes={threat.id} mend={null} onDone={() => setClosing(false)} />
      )}
    </Callout>
  );
}

interface ThreatProps {
  population: string;
  closes?: string;
  onDone: () => void;
}

function ThreatForm(props: ThreatProps) {
  const mend = useMending("noteThreat");
  return mend === undefined ? null : <ThreatFields {...props} mend={mend} />;
}

function ThreatFields(
  props: ThreatProps & { mend: (RefusedCommand & { command: Schemas["CommandNoteThreatCommand"] }) | null },
) {
  const start = props.mend?.command;
  const closes = props.closes ?? start?.closes ?? null;
  const send = useSend(props.mend?.id);
  const [text, setText] = useState(start?.text ?? "");
  const [actBy, setActBy] = useState(start?.actBy ?? "");
  const { at, elsewhere, miss, setProblem } = useProblem(["text", "actBy"]);
  const submit = async (event: FormEvent) => {
    event.preventDefault();
    if (!text.trim()) return miss("text", closes ? "Say how it was dealt with." : "Say what threatens it.");
    const sent = await send({
      kind: "noteThreat",
      id: uuid(),
      threatId: uuid(),
      populationId: props.population,
      notedOn: start?.notedOn ?? today(),
      text: text.trim(),
      actBy,
      closes,
    });
    if (sent.kind === "refused") setProblem(sent.problem);
    else props.onDone();
  };
  return (
    <Box
      component="form"
      noValidate
      onSubmit={(event) => void submit(event)}
      sx={{ display: "flex", gap: 1.5, flexWrap: "wrap", alignItems: "flex-start", mt: 1 }}
    >
      <TextField
        label={closes ? "How it was dealt with" : "What threatens it"}
        placeholder={closes ? undefined : "ditch clearing, grazing, felling"}
        value={text}
        onChange={(e) => setText(e.target.value)}
        sx={{ flex: "1 1 18rem" }}
        {...at("text")}
      />
      {!closes && (
        <TextField
          type="date"
          label="Act by"
          value={actBy}
          onChange={(e) => setActBy(e.target.value)}
          slotProps={{ inputLabel: { shrink: true } }}
          sx={{ width: 180 }}
          {...at("actBy")}
        />
      )}
      <Button type="submit" variant="contained" sx={{ minHeight: 52 }}>
        {closes ? "Keep it" : "Keep the threat"}
      </Button>
      <Button onClick={props.onDone} sx={{ minHeight: 52 }}>
        Cancel
      </Button>
      {elsewhere && (
        <Typography role="alert" color="error">
          {elsewhere}
        </Typography>
      )}
    </Box>
  );
}
