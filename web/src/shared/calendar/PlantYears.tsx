import { Box, Typography } from "@mui/material";
import { useMemo } from "react";
import type { Schemas } from "../../api/client";
import words from "../../api/words";
import { core } from "../../core/coreClient";
import { useAsked } from "../../offline/flora";
import { day as dayInWords, dayOfYear, DAYS, months, monthStarts, pieces, spoken, today } from "./day";

const ROW = 30;
const TOP = 18;

/** The looks at a plant that hold, with what they say. */
export function useLooks(plant: Schemas["PlantDetail"] | undefined, characters: Schemas["Character"][]) {
  const question = useMemo(
    () =>
      plant && {
        observations: plant.observations,
        characters: characters.filter((c) => plant.observations.some((o) => o.character === c.id)),
      },
    [plant, characters],
  );
  const { answer } = useAsked(question, core.looks);
  return useMemo(() => {
    const said = new Map(answer?.map((it) => [it.id, it]));
    return (plant?.observations ?? []).flatMap((look) => {
      const inWords = said.get(look.id);
      return inWords ? [{ look, inWords }] : [];
    });
  }, [plant, answer]);
}

type Look = ReturnType<typeof useLooks>[number];

interface StripProps {
  plant: Schemas["PlantDetail"];
  looks: Look[];
  needs: Schemas["OpenNeed"][];
}

/** The years of a plant, a line each: the days on which it was looked at, and below what is still open and when. */
export function PlantYearStrip({ plant, looks, needs }: StripProps) {
  const looked = new Map<string, number>();
  for (const { look } of looks) looked.set(look.date, (looked.get(look.date) ?? 0) + 1);
  const visits = new Map(plant.visits.map((v) => [v.date, v]));
  const days = [
    ...new Set([...looked.keys(), ...visits.keys(), ...plant.determinations.map((d) => d.eventDate)]),
  ].sort();
  const years = [...new Set([...days, today()].map((d) => Number(d.slice(0, 4))))].sort();
  const changes = new Set(plant.determinations.filter((d) => d.overturned).map((d) => d.eventDate));
  const height = TOP + years.length * ROW + (needs.length > 0 ? ROW : 0) + 4;
  const x = (day: number) => 34 + ((day - 1) / DAYS) * 620;
  const windows = pieces(needs.flatMap((n) => n.windows));
  const phases = pieces(
    plant.year
      .filter((span) => span.phase === "flower" || span.phase === "ripeFruit")
      .map((span) => ({ ...span.window, phase: span.phase })),
  );
  const letters = months("narrow");
  const said = days.map((day) => {
    const visit = visits.get(day);
    const count = looked.get(day);
    return `${spoken(day)}${count ? `: ${count} looked at` : ""}${visit && visit.state !== "alive" ? `, ${words.plantStates[visit.state]}` : ""}`;
  });
  return (
    <Box
      component="svg"
      viewBox={`0 0 660 ${height}`}
      role="img"
      aria-label={`Its years: ${said.join("; ") || "not looked at yet"}.`}
      sx={{ display: "block", width: "100%", maxWidth: 900, minWidth: 520, height: "auto", color: "text.primary" }}
    >
      {letters.map((month, m) => (
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
                const at = x(dayOfYear(d));
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
        d={`M${x(dayOfYear(today()))} 14V${height}`}
        sx={{ stroke: (t) => t.palette.signal.conflict, strokeWidth: 2 }}
      />
    </Box>
  );
}

interface TableProps {
  looks: Look[];
  plant: Schemas["PlantDetail"];
  characters: Schemas["Character"][];
}

/** The sheet with its seasons side by side: a column for each day, a row for each character; what has changed is marked. */
export function SeasonsSideBySide({ plant, looks: held, characters }: TableProps) {
  const days = [...new Set([...held.map(({ look }) => look.date), ...plant.visits.map((v) => v.date)])].sort();
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
                    {dayInWords(day)}
                  </Typography>
                  {visit && (
                    <Typography variant="caption" component="div">
                      {[words.plantStates[visit.state], ...visit.phases.map(phaseInWords)].join("; ")}
                    </Typography>
                  )}
                </Box>
              );
            })}
          </tr>
        </thead>
        {organs.map((organ) => {
          const own = characters.filter((c) => c.organ === organ && held.some(({ look }) => look.character === c.id));
          if (own.length === 0) return null;
          return (
            <tbody key={organ}>
              <tr>
                <Box component="th" scope="rowgroup" colSpan={days.length + 1} sx={{ ...cell, borderTop: 1, pt: 1 }}>
                  <Typography variant="h3" component="span">
                    {words.organs[organ]}
                  </Typography>
                </Box>
              </tr>
              {own.map((character) => {
                const looks = held.filter(({ look }) => look.character === character.id);
                const isChanged =
                  new Set(
                    looks
                      .filter(({ look }) => look.states.length > 0)
                      .map(({ look }) => [...look.states].sort().join()),
                  ).size > 1;
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
                          .filter(({ look }) => look.date === day)
                          .map(({ look, inWords }) => (
                            <Typography variant="body2" key={look.id}>
                              <strong>{inWords.seen}</strong>
                              <Box
                                component="span"
                                sx={{ color: "text.secondary", display: "block", fontSize: "0.8125rem" }}
                              >
                                {[inWords.isPlain ? "" : inWords.manner, look.note].filter(Boolean).join(". ")}
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

/** "no flower yet", "flower", "flower over", "no flower this year". */
const phaseInWords = (note: Schemas["PhaseNote"]) => words.phaseStages[note.phase][note.stage];
