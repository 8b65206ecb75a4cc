import words from "../../api/words";
import { Box, Button, ButtonBase, TextField, Typography } from "@mui/material";
import { memo, useState } from "react";
import type { Schemas } from "../../api/client";
import { spoken } from "../../shared/calendar/day";
import { QuietButton } from "../../shared/ui/QuietButton";
import type { Manner } from "../../offline/store";
import { StateFigure } from "../../plates/drawn";
import { GlossaryDialog } from "../../shared/botany/GlossaryDialog";

import { MeasureField } from "./MeasureField";
import { type LookWords } from "./lookWords";
import { sameContext, type Character, type Observation } from "./sheet";

const takes: string[] = words.handlingThatTakes;

interface RowProps {
  character: Character;
  /** The looks at it that hold. */
  looks: Observation[];
  /** Those that were kept before: they change only where somebody says that they are corrected. */
  kept: string[];
  /** The looks in words. */
  said: LookWords;
  /** The day of this look. */
  date: string;
  manner: Manner;
  line: Schemas["SheetLine"][];
  /** What asks for it; left out where nothing does. */
  asked?: string;
  seenNow: boolean;
  /** Records a look in place of another one; without a look that one is taken back. */
  onSet: (character: string, part: Partial<Observation> | undefined, before?: Observation) => void;
}

const sameItems = <T,>(a: T[], b: T[], same: (x: T, y: T) => boolean) =>
  a.length === b.length && a.every((it, i) => same(it, b[i] as T));

export const CharacterRow = memo(
  CharacterRowPlain,
  (a, b) =>
    a.character === b.character &&
    a.asked === b.asked &&
    a.seenNow === b.seenNow &&
    a.manner === b.manner &&
    a.kept === b.kept &&
    a.said === b.said &&
    a.date === b.date &&
    a.onSet === b.onSet &&
    sameItems(a.looks, b.looks, (x, y) => x === y) &&
    sameItems(a.line, b.line, (x, y) => x.seen === y.seen && x.reason === y.reason && x.fitOfBest === y.fitOfBest),
);

function CharacterRowPlain({
  character,
  looks,
  kept: before,
  said,
  date,
  manner,
  line,
  asked,
  seenNow,
  onSet,
}: RowProps) {
  const [more, setMore] = useState(false);
  const [term, setTerm] = useState(false);
  const [correcting, setCorrecting] = useState<string>();
  // A look of another part, age, sex, light or day is another look. A tap changes the one that was just made in this manner; one that was kept
  // before only where it is said to be corrected.
  const corrected = looks.find((o) => o.id === correcting);
  const current =
    corrected ?? looks.filter((o) => !before.includes(o.id) && o.date === date && sameContext(o, manner)).at(-1);
  const others = looks.filter((o) => o !== current);
  // A correction is of the same part on the same day as what it corrects.
  const set = (part: Partial<Observation> | undefined) => {
    const own = corrected && part ? { ...part, context: corrected.context, date: corrected.date } : part;
    onSet(character.id, own, current);
    setCorrecting(undefined);
  };
  const hasStates = character.states.length > 0;
  const toggle = (state: string) => {
    const before = current?.outcome === "seen" ? current.states : [];
    const states = before.includes(state) ? before.filter((s) => s !== state) : [...before, state];
    set(states.length === 0 ? undefined : { ...kept(current), states });
  };
  const isAbsent = current?.outcome === "notFound";
  return (
    <Box
      component="section"
      aria-label={character.name}
      sx={{
        borderTop: "1px dotted",
        borderColor: "rule",
        py: 1.25,
        pl: asked ? 1.25 : 0,
        borderLeft: asked ? "4px solid" : undefined,
        borderLeftColor: asked ? "signal.open" : undefined,
      }}
    >
      <Box sx={{ display: "flex", alignItems: "center", gap: 1, flexWrap: "wrap" }}>
        <Typography variant="h3" sx={{ flex: "1 1 12rem" }}>
          {character.name}
        </Typography>
        <Typography variant="caption" color="text.secondary">
          {[
            asked,
            !seenNow && "◌ not at this time of the year",
            character.tool !== "eye" && words.tools[character.tool],
            character.handling !== "look" && words.handlingOfLook[character.handling],
          ]
            .filter(Boolean)
            .join(" · ")}
        </Typography>
        {corrected && (
          <QuietButton onClick={() => setCorrecting(undefined)} name={`Leave it as it is: ${character.name}`}>
            Leave it as it is
          </QuietButton>
        )}
        {current && (
          <QuietButton onClick={() => set(undefined)} name={`Take it back: ${character.name}`}>
            Take it back
          </QuietButton>
        )}
        <QuietButton onClick={() => setTerm(true)} name={`What is it: ${character.name}`}>
          What is it
        </QuietButton>
        <QuietButton
          onClick={() => setMore(!more)}
          expanded={more}
          name={`${more ? "Less" : "More"} about ${character.name}`}
        >
          {more ? "Less" : "More"}
        </QuietButton>
      </Box>
      {takes.includes(character.handling) && (
        <Typography variant="caption" sx={{ color: "signal.caution", display: "block", mb: 0.5 }}>
          △ Only where law and the landowner allow it; never on a protected plant.
        </Typography>
      )}
      {line.map((it) => (
        <Typography key={it.seen} variant="body2" aria-live="polite" sx={{ mb: 0.5 }}>
          <Box
            component="span"
            sx={{ color: it.fitOfBest === "conflicts" ? "signal.conflict" : "signal.support", fontWeight: 700 }}
          >
            {it.fitOfBest === "conflicts" ? "✕" : "●"} {it.seen}
          </Box>
          {it.reason && <> {it.reason}</>}
        </Typography>
      ))}
      {others.map((it) => (
        <Typography key={it.id} variant="body2" sx={{ display: "flex", alignItems: "center", flexWrap: "wrap" }}>
          <Box component="span">
            ◌ {said.get(it.id)?.seen}:{" "}
            {[it.date !== date && spoken(it.date), said.get(it.id)?.context].filter(Boolean).join(", ") || "before"}
          </Box>
          <QuietButton
            onClick={() => setCorrecting(it.id)}
            name={`Correct ${said.get(it.id)?.seen ?? "it"}: ${character.name}`}
          >
            Correct it
          </QuietButton>
        </Typography>
      ))}
      {corrected && (
        <Typography variant="body2" role="status" sx={{ color: "signal.open", fontWeight: 700 }}>
          ↺ You correct the look of {spoken(corrected.date)}
          {said.get(corrected.id)?.context && `, ${said.get(corrected.id)?.context}`}; its day and part stay.
        </Typography>
      )}
      {hasStates ? (
        <Box
          role="group"
          aria-label={`States of ${character.name}`}
          sx={{ display: "flex", flexWrap: "wrap", gap: 0.75 }}
        >
          {character.states.map((state) => {
            const on = current?.states.includes(state.id) ?? false;
            return (
              <ButtonBase
                key={state.id}
                onClick={() => toggle(state.id)}
                aria-pressed={on}
                title={state.definition || undefined}
                sx={{
                  border: on ? 2 : 1,
                  borderColor: on ? "primary.main" : "text.secondary",
                  bgcolor: on ? "signal.chosenWash" : "background.paper",
                  minHeight: 52,
                  gap: 0.75,
                  pl: 0.5,
                  pr: 1.5,
                  fontSize: "1rem",
                  fontWeight: on ? 700 : 400,
                }}
              >
                <StateFigure character={character} state={state.id} size={46} />
                <span>
                  {on && "✓ "}
                  {state.name}
                </span>
              </ButtonBase>
            );
          })}
        </Box>
      ) : (
        <MeasureField
          character={character}
          readings={current?.readings ?? []}
          onRecord={(readings) =>
            set({
              ...kept(current),
              context: manner.context,
              tool: character.kind === "length" ? "ruler" : manner.tool,
              readings: [...(current?.readings ?? []), ...readings],
            })
          }
          onStrike={(index, reason) =>
            current &&
            set({
              ...kept(current),
              readings: current.readings.map((r, i) => (i === index ? { ...r, struck: reason } : r)),
            })
          }
        />
      )}
      {current && current.states.length > 1 && (
        <Button sx={{ mt: 0.75 }} onClick={() => set({ ...kept(current), together: !current.together })}>
          {current.together ? "All of these are on the plant" : "One or the other"} (change)
        </Button>
      )}
      {term && <GlossaryDialog characters={[character]} marked={current?.states} onClose={() => setTerm(false)} />}
      {more && (
        <Box sx={{ display: "flex", gap: 1, flexWrap: "wrap", alignItems: "center", mt: 1 }}>
          {hasStates && (
            <Button
              aria-pressed={isAbsent}
              onClick={() => set(isAbsent ? undefined : { outcome: "notFound", states: [], readings: [] })}
            >
              {isAbsent && "✓ "}Looked for, not found
            </Button>
          )}
          {hasStates && (
            <StandFields current={current} onSet={(part) => current && set({ ...kept(current), ...part })} />
          )}
          <TextField
            size="small"
            label={`Note on ${character.name}`}
            defaultValue={current?.note ?? ""}
            disabled={!current}
            onBlur={(event) => {
              if (current && event.target.value !== current.note) set({ ...kept(current), note: event.target.value });
            }}
            sx={{ flex: "1 1 14rem", width: "auto" }}
          />
        </Box>
      )}
    </Box>
  );
}

// What a changed look keeps of the one before.
function kept(before: Observation | undefined): Partial<Observation> {
  if (!before) return {};
  return {
    outcome: "seen",
    states: before.states,
    together: before.together,
    readings: before.readings,
    show: before.show,
    of: before.of,
    sureness: before.sureness,
    context: before.context,
    note: before.note,
    fromCouplet: before.fromCouplet,
  };
}

/** Of a stand of several plants: k of n show it. */
function StandFields({ current, onSet }: { current?: Observation; onSet: (part: Partial<Observation>) => void }) {
  const [show, setShow] = useState(current?.show ? String(current.show) : "");
  const [of, setOf] = useState(current?.of ? String(current.of) : "");
  const whole = (text: string) => /^\d{1,5}$/.test(text);
  const bad = (show || of) && !(whole(show) && whole(of) && Number(show) <= Number(of) && Number(of) > 0);
  const take = () => {
    if (show === "" && of === "") onSet({ show: 0, of: 0 });
    else if (!bad) onSet({ show: Number(show), of: Number(of) });
  };
  return (
    <Box sx={{ display: "flex", gap: 0.75, alignItems: "center", flexWrap: "wrap" }}>
      <Typography variant="body2">Of a stand:</Typography>
      <TextField
        size="small"
        label="show it"
        value={show}
        disabled={!current}
        onChange={(event) => setShow(event.target.value)}
        onBlur={take}
        error={Boolean(bad)}
        sx={{ width: 90 }}
      />
      <Typography variant="body2">of</Typography>
      <TextField
        size="small"
        label="looked at"
        value={of}
        disabled={!current}
        onChange={(event) => setOf(event.target.value)}
        onBlur={take}
        error={Boolean(bad)}
        sx={{ width: 90 }}
      />
      {bad && (
        <Typography variant="caption" color="error" role="alert">
          ✕ Whole numbers, the first not above the second.
        </Typography>
      )}
    </Box>
  );
}
