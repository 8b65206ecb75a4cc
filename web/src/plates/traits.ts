import type { Schemas } from "../api/client";

type CharacterDescription = Schemas["CharacterDescription"];

/** Which plant of the taxon is drawn. */
export type Variation = "typical" | "small" | "large" | "shade";

/** What a drawing is made from: states by their share, sizes in millimetres. */
export interface Traits {
  /** The most frequent state of a character; undefined where it is unknown or doesn't apply. */
  state: (character: string) => string | undefined;
  /** All states, the most frequent first. */
  states: (character: string) => string[];
  /** A size in millimetres, a count or a ratio. */
  size: (character: string) => number | undefined;
  /** Whether the taxon lacks the part. */
  lacks: (character: string) => boolean;
  has: (character: string) => boolean;
}

/** Traits of a description; of a range the middle, or one of its ends. */
export function traitsOf(description: CharacterDescription[], variation: Variation = "typical"): Traits {
  const byId = new Map(description.map((it) => [it.character, it]));
  const states = (character: string) =>
    [...(byId.get(character)?.states ?? [])].sort((a, b) => b.share - a.share).map((it) => it.state);
  return {
    states,
    state: (character) => states(character)[0],
    size: (character) => {
      const it = byId.get(character);
      const range = variation === "shade" ? (it?.shade ?? it?.range) : it?.range;
      if (!range) return undefined;
      const low = range.lowExtreme ?? range.low;
      const high = range.highExtreme ?? range.high;
      if (variation === "small") return low;
      if (variation === "large") return high;
      return (range.low + range.high) / 2;
    },
    lacks: (character) => byId.get(character)?.applies === false,
    has: (character) => byId.has(character),
  };
}

/** Traits with some states set, for the drawing of a state. */
export function withStates(base: Record<string, string | number>): Traits {
  return {
    states: (character) => {
      const it = base[character];
      return typeof it === "string" ? [it] : [];
    },
    state: (character) => {
      const it = base[character];
      return typeof it === "string" ? it : undefined;
    },
    size: (character) => {
      const it = base[character];
      return typeof it === "number" ? it : undefined;
    },
    lacks: () => false,
    has: (character) => character in base,
  };
}
