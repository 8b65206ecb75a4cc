import { holding, mannerInWords } from "../botany/looks";
import { organNames } from "../botany/organs";
import { Box, Typography } from "@mui/material";
import type { Schemas } from "../../api/client";
import { brief, dated, dayOfYear, DAYS, monthStarts, now, pieces, spoken, today } from "./day";
import { stateNames } from "../botany/states";

const MONTHS = ["J", "F", "M", "A", "M", "J", "J", "A", "S", "O", "N", "D"];
const ROW = 30;
const TOP = 18;

/** What was seen, in words. */
export function seenInWords(it: Schemas["Observation"], characters: Schemas["Character"][]): string {
  if (it.outcome === "notFound") return "looked for, not found";
  const character = characters.find((c) => c.id === it.character);
  const states = it.states.map((id) => character?.states.find((s) => s.id === id)?.name ?? id);
  const unit = character?.kind === "length" ? " mm" : "";
  const readings = it.readings.map(
    (r) => `${r.text || `${r.value}${unit}`}${r.struck ? ` (struck out: ${r.struck})` : ""}`,
  );
  const stand = it.of > 0 ? `, ${it.show} of ${it.of} plants` : "";
  return [...readings, states.join(it.together ? " and " : " or ")].filter(Boolean).join(", ") + stand;
}

// The first day of a half-month, of the year: of the 25th the day after the last.
const firstDay = (half: number) =>
  half > 24 ? DAYS + 1 : (monthStarts[Math.floor((half - 1) / 2)] ?? 0) + (half % 2 ? 1 : 16);

interface StripProps {
  plant: Schemas["PlantDetail"];
  needs: Schemas["OpenNeed"][];
}

/** The years of a plant, a line each: the days on which it was looked at, and below what is still open and when. */
export function PlantYearStrip({ plant, needs }: StripProps) {
  const looked = new Map<string, number>();
  for (const look of holding(plant.observations)) looked.set(look.date, (looked.get(look.date) ?? 0) + 1);
  const visits = new Map(plant.visits.map((v) => [v.date, v]));
  const days = [
    ...new Set([...looked.keys(), ...visits.keys(), ...plant.determinations.map((d) => d.eventDate)]),
  ].sort();
  const years = [...new Set([...days, today()].map((d) => Number(d.slice(0, 4))))].sort();
  const changes = new Set(plant.determinations.filter((d) => d.overturned).map((d) => d.eventDate));
  const height = TOP + years.length * ROW + (needs.length > 0 ? ROW : 0) + 4;
  const x = (day: number) => 34 + ((day - 1) / DAYS) * 620;
  const windows = pieces(needs.flatMap((n) => n.windows));
  const phases = (plant.taxa[0]?.facts?.phenology ?? [])
    .filter((span) => span.phase === "flower" || span.phase === "ripeFruit")
    .flatMap((span) =>
      pieces([{ from: firstDay(span.from), to: firstDay(span.to + 1) - 1 }]).map((w) => ({ ...w, phase: span.phase })),
    );
  const words = days.map((day) => {
    const visit = visits.get(day);
    const count = looked.get(day);
    return `${spoken(day)}${count ? `: ${count} looked at` : ""}${visit && visit.state !== "alive" ? `, ${stateNames[visit.state]}` : ""}`;
  });
  return (
    <Box
      component="svg"
      viewBox={`0 0 660 ${height}`}
      role="img"
      aria-label={`Its years: ${words.join("; ") || "not looked at yet"}.`}
      sx={{ display: "block", width: "100%", maxWidth: 900, minWidth: 520, height: "auto", color: "text.primary" }}
    >
      {MONTHS.map((month, m) => (
        <g key={m}>
          <text x={x((monthStarts[m] ?? 0) + 15)} y={12} fontSize={11} textAnchor="middle" fill="currentColor">
            {month}
          </text>
          <path d={`M${x((monthStarts[m] ?? 0) + 1)} 16V${height - 3}`} stroke="currentColor" strokeOpacity={0.2} />
        </g>
      ))}
      {years.map((year, r) => {
        const y = TOP + r * ROW + ROW / 2;
        return (
          <g key={year}>
            {phases.map((it) => (
              <Box
                component="rect"
                key={`${it.phase}${it.from}`}
                x={x(it.from)}
                y={y - ROW / 2 + 3}
                width={x(it.to + 1) - x(it.from)}
                height={ROW - 6}
                sx={{
                  fill: (t) => (it.phase === "flower" ? t.palette.signal.openWash : "none"),
                  stroke: (t) => (it.phase === "flower" ? t.palette.signal.open : t.palette.signal.conflict),
                  strokeDasharray: it.phase === "flower" ? undefined : "4 3",
                }}
              />
            ))}
            <text x={0} y={y + 4} fontSize={12} fill="currentColor">
              {year}
            </text>
            <path d={`M${x(1)} ${y}H${x(DAYS)}`} stroke="currentColor" strokeOpacity={0.5} />
            {days
              .filter((d) => d.startsWith(`${year}`))
              .map((d) => {
                const at = x(dayOfYear(dated(d)));
                const state = visits.get(d)?.state;
                const count = looked.get(d) ?? 0;
                if (state === "notRefound" || state === "dead")
                  return (
                    <Box key={d} component="g" sx={{ color: state === "dead" ? "signal.conflict" : "signal.absent" }}>
                      {state === "dead" ? (
                        <path d={`M${at - 5} ${y - 5}l10 10m0 -10l-10 10`} stroke="currentColor" strokeWidth={2.5} />
                      ) : (
                        <circle
                          cx={at}
                          cy={y}
                          r={6}
                          fill="none"
                          stroke="currentColor"
                          strokeWidth={2}
                          strokeDasharray="3 2"
                        />
                      )}
                    </Box>
                  );
                return (
                  <Box key={d} component="g" sx={{ color: "signal.support" }}>
                    <circle
                      cx={at}
                      cy={y}
                      r={count === 0 ? 4 : 4 + Math.min(6, count) * 0.7}
                      fill={count === 0 ? "none" : "currentColor"}
                      stroke="currentColor"
                      strokeWidth={2}
                    />
                    {changes.has(d) && (
                      <Box
                        component="path"
                        d={`M${at - 5} ${y - 15}h10l-5 6Z`}
                        sx={{ fill: (t) => t.palette.signal.conflict }}
                      />
                    )}
                  </Box>
                );
              })}
          </g>
        );
      })}
      {needs.length > 0 && (
        <g>
          <text x={0} y={TOP + years.length * ROW + ROW / 2 + 4} fontSize={12} fill="currentColor">
            open
          </text>
          {windows.map((w, i) => (
            <Box
              component="rect"
              key={i}
              x={x(w.from)}
              y={TOP + years.length * ROW + 8}
              width={x(w.to + 1) - x(w.from)}
              height={ROW - 16}
              sx={{ fill: (t) => t.palette.signal.open, opacity: 0.35 }}
            />
          ))}
        </g>
      )}
      <Box
        component="path"
        d={`M${x(dayOfYear(now()))} 14V${height}`}
        sx={{ stroke: (t) => t.palette.signal.conflict, strokeWidth: 2 }}
      />
    </Box>
  );
}

// What most looks are is not said of each.
const isPlain = (look: Schemas["Observation"]) => /^sure · by (eye|ruler)$/.test(mannerInWords(look));

interface TableProps {
  plant: Schemas["PlantDetail"];
  characters: Schemas["Character"][];
}

/** The sheet with its seasons side by side: a column for each day, a row for each character; what has changed is marked. */
export function SeasonsSideBySide({ plant, characters }: TableProps) {
  const held = holding(plant.observations);
  const days = [...new Set([...held.map((o) => o.date), ...plant.visits.map((v) => v.date)])].sort();
  const organs = [...new Set(characters.map((c) => c.organ))];
  if (held.length === 0)
    return (
      <Typography>
        Nothing was looked at by itself yet. Visit it, and tap an organ of the drawn plant to note what you see.
      </Typography>
    );
  const cell = {
    p: 0.75,
    textAlign: "left",
    verticalAlign: "top",
    borderTop: "1px dotted",
    borderColor: "rule",
  } as const;
  return (
    <Box sx={{ overflowX: "auto" }} tabIndex={0} role="region" aria-label="Seasons side by side">
      <Box component="table" sx={{ borderCollapse: "collapse", minWidth: 200 + days.length * 130 }}>
        <thead>
          <tr>
            <Box component="th" scope="col" sx={{ ...cell, borderTop: 0 }}>
              <Typography variant="caption">Character</Typography>
            </Box>
            {days.map((day) => {
              const visit = plant.visits.find((v) => v.date === day);
              return (
                <Box component="th" scope="col" key={day} sx={{ ...cell, borderTop: 0, minWidth: 110 }}>
                  <Typography variant="h3" component="span">
                    {brief(day)} {day.slice(0, 4)}
                  </Typography>
                  {visit && (
                    <Typography variant="caption" component="div">
                      {[stateNames[visit.state], ...visit.phases.map(phaseInWords)].join("; ")}
                    </Typography>
                  )}
                </Box>
              );
            })}
          </tr>
        </thead>
        {organs.map((organ) => {
          const own = characters.filter((c) => c.organ === organ && held.some((o) => o.character === c.id));
          if (own.length === 0) return null;
          return (
            <tbody key={organ}>
              <tr>
                <Box component="th" scope="rowgroup" colSpan={days.length + 1} sx={{ ...cell, borderTop: 1, pt: 1 }}>
                  <Typography variant="h3" component="span">
                    {organNames[organ]}
                  </Typography>
                </Box>
              </tr>
              {own.map((character) => {
                const looks = held.filter((o) => o.character === character.id);
                const isChanged =
                  new Set(looks.filter((o) => o.states.length > 0).map((o) => [...o.states].sort().join())).size > 1;
                return (
                  <tr key={character.id}>
                    <Box component="th" scope="row" sx={{ ...cell, fontWeight: 400 }}>
                      <Typography variant="body2" component="span">
                        {character.name}
                        {isChanged && (
                          <Box component="span" sx={{ color: "signal.open", fontWeight: 700 }}>
                            {" "}
                            ◐ changed
                          </Box>
                        )}
                      </Typography>
                    </Box>
                    {days.map((day) => (
                      <Box component="td" key={day} sx={cell}>
                        {looks
                          .filter((o) => o.date === day)
                          .map((o) => (
                            <Typography variant="body2" key={o.id}>
                              <strong>{seenInWords(o, characters)}</strong>
                              <Box
                                component="span"
                                sx={{ color: "text.secondary", display: "block", fontSize: "0.8125rem" }}
                              >
                                {[isPlain(o) ? "" : mannerInWords(o), o.note].filter(Boolean).join(". ")}
                              </Box>
                            </Typography>
                          ))}
                      </Box>
                    ))}
                  </tr>
                );
              })}
            </tbody>
          );
        })}
      </Box>
    </Box>
  );
}

const phaseWords: Record<Schemas["Phenophase"], string> = {
  shootsUp: "shoots",
  restingBud: "resting buds",
  leafBudOpening: "buds opening",
  flower: "flower",
  fullLeaf: "full leaf",
  autumnColour: "autumn colour",
  bareTwig: "bare twig",
  youngFruit: "young fruit",
  ripeFruit: "ripe fruit",
  fruitPersisting: "old fruit",
};

export const phaseNames = phaseWords;

/** "no flower yet", "flower", "flower over", "no flower this year". */
export function phaseInWords(note: Schemas["PhaseNote"]): string {
  const name = phaseWords[note.phase];
  if (note.stage === "notYet") return `no ${name} yet`;
  if (note.stage === "over") return `${name} over`;
  return note.stage === "none" ? `no ${name} this year` : name;
}
