import { Box } from "@mui/material";
import { useMemo } from "react";
import type { Schemas } from "../../api/client";
import words from "../../api/words";
import { core } from "../../core/coreClient";
import { useAsked } from "../../offline/flora";
import { dayOfYear, DAYS, months, monthStarts, pieces, spoken, today } from "./day";

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

export type Look = ReturnType<typeof useLooks>[number];

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
