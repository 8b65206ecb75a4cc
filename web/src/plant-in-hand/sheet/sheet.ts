import type { Schemas } from "../../api/client";
import { v7 as uuid } from "uuid";
import type { Manner, PlantInHand } from "../../offline/store";
import { heldVocabulary, isComposed } from "../../offline/vocabulary";

export type Observation = Schemas["Observation"];

export type Character = Schemas["Character"];

/** The looks of a sheet in the making that no other one supersedes. */
export function holding(observations: Observation[]): Observation[] {
  const superseded = new Set(observations.map((o) => o.supersedes).filter(Boolean));
  return observations.filter((o) => !superseded.has(o.id) && !o.withdrawn);
}

/** What the first look of a plant inherits. */
export const plainManner: Manner = {
  sureness: "sure",
  tool: "eye",
  context: {
    position: "unsaid",
    light: "unsaid",
    stage: "unsaid",
    age: "unsaid",
    shaping: "unsaid",
    attachment: "unsaid",
    sex: "unsaid",
    material: "unsaid",
    damage: "unsaid",
    search: "unsaid",
    gathered: "",
    bag: "",
    crowns: "unsaid",
  },
};

/** A look in the manner of the last one. */
export function newLook(walk: PlantInHand, character: string, part: Partial<Observation>): Observation {
  const manner = walk.manner ?? plainManner;
  return {
    id: uuid(),
    character,
    outcome: "seen",
    states: [],
    together: false,
    readings: [],
    show: 0,
    of: 0,
    sureness: manner.sureness,
    context: manner.context,
    tool: manner.tool,
    date: walk.form.date,
    note: "",
    withdrawn: false,
    fromCouplet: "",
    vocabulary: isComposed(character) ? heldVocabulary() : "",
    ...part,
  };
}

/** The walk with a look in place of another one; a look that is kept on the server is superseded, one that isn't yet is replaced. */
export function withLook(walk: PlantInHand, next: Observation | undefined, before?: Observation): PlantInHand {
  const all = walk.observations ?? [];
  const isKept = before && walk.keptIds?.includes(before.id);
  if (!before) return { ...walk, observations: next ? [...all, next] : all };
  if (!isKept) {
    const observations = next
      ? all.map((o) => (o.id === before.id ? { ...next, supersedes: before.supersedes } : o))
      : all.filter((o) => o.id !== before.id).concat(takenBack(before));
    return { ...walk, observations };
  }
  const correction = next
    ? { ...next, supersedes: before.id }
    : { ...before, id: uuid(), supersedes: before.id, withdrawn: true };
  return { ...walk, observations: [...all, correction] };
}

// A correction that is itself taken back leaves what it corrected taken back as well.
function takenBack(before: Observation): Observation[] {
  return before.supersedes ? [{ ...before, id: uuid(), withdrawn: true }] : [];
}

/** Whether a look is of the same part, age, sex and light as the next one will be. */
export function sameContext(look: Observation, manner: Manner): boolean {
  const keys = Object.keys(plainManner.context) as (keyof Manner["context"])[];
  return keys.every((key) => (look.context[key] ?? "unsaid") === (manner.context[key] ?? "unsaid"));
}
