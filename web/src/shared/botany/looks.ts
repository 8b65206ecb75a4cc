import type { Schemas } from "../../api/client";
import type { Manner } from "../../offline/store";

export type Observation = Schemas["Observation"];

export type Character = Schemas["Character"];

/** The looks that no other one supersedes. */
export function holding(observations: Observation[]): Observation[] {
  const superseded = new Set(observations.map((o) => o.supersedes).filter(Boolean));
  return observations.filter((o) => !superseded.has(o.id) && !o.withdrawn);
}

/** What a look came to, in words. */
export function lookInWords(look: Observation, character: Character): string {
  if (look.outcome === "notFound") return "not found";
  if (look.readings.length > 0) return look.readings.map((r) => r.text || String(r.value)).join(" ");
  return look.states
    .map((id) => character.states.find((s) => s.id === id)?.name ?? id)
    .join(look.together ? " and " : " or ");
}

/** The context in words, only what differs from the plain one. */
export function mannerInWords(manner: Manner): string {
  return [
    manner.sureness === "sure" ? "sure" : manner.sureness === "fairly" ? "fairly sure" : "a guess",
    contextInWords(manner.context),
    `by ${manner.tool}`,
  ]
    .filter(Boolean)
    .join(" · ");
}

/** Which part of the plant, in words; empty for the plain one. */
export function contextInWords(context: Manner["context"]): string {
  const said = [
    context.light !== "unsaid" && (context.light === "shade" ? "in the shade" : "in the sun"),
    context.position !== "unsaid" && `${context.position} on the plant`,
    context.stage !== "unsaid" && context.stage,
    context.age !== "unsaid" && `${context.age} part`,
    context.shaping !== "unsaid" && context.shaping,
    context.attachment === "beneath" && "lying beneath",
    context.attachment === "perhapsNeighbours" && "perhaps a neighbour’s",
    context.sex !== "unsaid" && context.sex,
  ];
  return said.filter(Boolean).join(" · ");
}
