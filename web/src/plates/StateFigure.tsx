import { Box } from "@mui/material";
import { isValidElement, type ReactNode } from "react";
import { bark, ligule, shoot, stem, underground } from "./details";
import { flower } from "./flower";
import { fruit, seed, sorus } from "./fruit";
import { habit } from "./habit";
import { inflorescence } from "./inflorescence";
import { leaf } from "./leaf";
import { Ink, smooth, wash, type Drawn } from "./pen";
import { withStates, type Traits } from "./traits";
import { twig, twigDetail } from "./twig";
import { Cell } from "./Cell";
import { plateSx } from "./plateSx";
import { qualityFigure, qualityOf } from "./qualities";

type Base = Record<string, string | number>;

// What a state is shown on: the part that it changes, and a plain plant around it.
const leafBase: Base = {
  "leaf-shape": "ovate",
  "leaf-length": 50,
  "leaf-margin": "entire",
  "leaf-venation": "pinnate",
  "petiole-length": 12,
};
const lobed: Base = {
  ...leafBase,
  "leaf-division": "lobed",
  "leaf-venation": "palmate",
  "lobe-number": 5,
  "leaf-shape": "round",
};
const twigBase: Base = { "bud-arrangement": "alternate", "bud-length": 6, "twig-colour": "brown", "bud-scales": 6 };
const flowerBase: Base = {
  "petal-length": 8,
  "petal-number": 5,
  "flower-colour": "white",
  "corolla-form": "open",
  "stamen-number": 6,
};
const fruitBase: Base = { "fruit-type": "capsule", "fruit-length": 10 };
const fern: Base = { "frond-division": "twice", "leaf-shape": "triangular", "leaf-length": 300, "petiole-length": 90 };
const grass: Base = { ligule: "membrane", "ligule-length": 1.5, "blade-section": "flat" };
const herb: Base = {
  "growth-form": "herb",
  "leaf-shape": "ovate",
  "inflorescence-type": "raceme",
  "flower-colour": "white",
};
const clover: Base = { ...flowerBase, "inflorescence-type": "raceme" };

const shown: Record<string, [(traits: Traits) => Drawn, Base]> = {
  "growth-form": [habit, herb],
  "branch-attitude": [habit, { "growth-form": "tree" }],
  "branch-rooting": [habit, { "growth-form": "dwarf" }],
  "stem-attitude": [habit, herb],
  "climbing-organ": [habit, { "growth-form": "climber" }],
  "life-span": [underground, {}],
  "bark-texture": [bark, { "bark-colour": "brown" }],
  "bark-colour": [bark, { "bark-texture": "fissured" }],
  "leaf-arrangement": [shoot, {}],
  "leaf-persistence": [shoot, {}],
  "bud-arrangement": [twig, twigBase],
  pith: [(traits) => twigDetail(traits, "foot"), twigBase],
  "twig-sap": [(traits) => twigDetail(traits, "foot"), { ...twigBase, pith: "solid" }],
  "sorus-shape": [sorus, { "sorus-place": "middle" }],
  "sorus-place": [sorus, { "sorus-shape": "round" }],
  "frond-division": [leaf, fern],
  "frond-scales": [
    leaf,
    { ...fern, "frond-division": "undivided", "leaf-shape": "oblong", "leaf-length": 120, "petiole-length": 80 },
  ],
  ligule: [ligule, grass],
  "ligule-tip": [ligule, { ...grass, "ligule-length": 3 }],
  sheath: [ligule, grass],
  "blade-section": [ligule, grass],
  "floating-leaves": [habit, { "growth-form": "aquatic", "submerged-leaves": "absent" }],
  "submerged-leaves": [habit, { "growth-form": "aquatic", "floating-leaves": "absent" }],
  "water-attachment": [habit, { "growth-form": "aquatic", "submerged-leaves": "whorled" }],
  "underground-type": [underground, {}],
  suckers: [underground, {}],
  "stem-section": [stem, {}],
  "stem-hairs": [stem, {}],
  "stem-interior": [stem, { "stem-section": "round" }],
  prickles: [stem, {}],
  "lobe-depth": [leaf, lobed],
  "tendril-form": [
    leaf,
    { ...leafBase, "leaf-division": "pinnate", "leaflet-number": 6, "climbing-organ": "tendrils" },
  ],
  "stipule-form": [leaf, { ...leafBase, stipules: "present" }],
  "petiole-to-blade": [leaf, { ...leafBase, "petiole-length": 0 }],
  "catkin-scale": [inflorescence, { "inflorescence-type": "catkin" }],
  "catkin-time": [inflorescence, { "inflorescence-type": "catkin", "catkin-scale": "plain" }],
  "inflorescence-type": [inflorescence, clover],
  "bract-to-head": [inflorescence, clover],
  "head-bracts": [flower, { ...flowerBase, "flower-colour": "yellow", "floret-kinds": "rays-only", "ray-number": 20 }],
  "floret-kinds": [flower, { ...flowerBase, "flower-colour": "yellow", "ray-number": 14 }],
  awn: [fruit, { "fruit-type": "grain", "fruit-length": 8 }],
  "lemma-hairs": [fruit, { "fruit-type": "grain", "fruit-length": 8, awn: "tip" }],
  "anther-tails": [flower, { ...flowerBase, "corolla-form": "urn", "flower-colour": "pink" }],
  "calyx-form": [flower, flowerBase],
  "stamen-place": [flower, flowerBase],
  "seed-surface": [seed, { "seed-colour": "brown" }],
  "seed-colour": [seed, { "seed-surface": "smooth" }],
  "fruit-set": [fruit, { "fruit-type": "drupelets", "fruit-colour": "black", "fruit-length": 14 }],
  "fruit-wing-angle": [fruit, { "fruit-type": "winged nuts", "fruit-length": 32 }],
  "fruit-colour": [fruit, { "fruit-type": "berry", "fruit-length": 9 }],
  "fruit-type": [fruit, { "fruit-length": 10, "fruit-colour": "brown" }],
  "flower-symmetry": [flower, { ...flowerBase, "corolla-form": "" }],
};

// By organ, where a character isn't named above.
const byOrgan: Record<string, [(traits: Traits) => Drawn, Base]> = {
  leaf: [leaf, leafBase],
  twig: [(traits) => twigDetail(traits, "node"), { ...twigBase, "leaf-scars": "narrow" }],
  bud: [(traits) => twigDetail(traits, "node"), twigBase],
  flower: [flower, flowerBase],
  fruit: [fruit, fruitBase],
  habit: [habit, herb],
  inflorescence: [inflorescence, clover],
  stem: [stem, {}],
  bark: [bark, {}],
  underground: [underground, {}],
};

// The ground that a plant stands on, and how it smells: small scenes of their own.
const scenes: Record<string, string[]> = {
  wood: [
    "M-14 12V-4M-14 -4m-6 0a6 8 0 1 0 12 0a6 8 0 1 0 -12 0M2 12V-8M2 -8m-7 0a7 9 0 1 0 14 0a7 9 0 1 0 -14 0M15 12V0M15 0m-5 0a5 6 0 1 0 10 0a5 6 0 1 0 -10 0",
  ],
  scarp: ["M-20 12L-12 12L-10 -12L4 -12L6 -2L13 -2L15 12L20 12M-10 -4H5M-11 4H14"],
  meadow: [
    "M-18 12q1 -10 3 -14M-12 12q-1 -12 1 -18M-5 12q1 -9 3 -13M2 12q-1 -13 -1 -20M8 12q1 -9 4 -13M15 12q-1 -10 0 -16",
  ],
  slack: ["M-20 6q8 -12 16 -2q5 6 11 0q6 -8 13 2M-4 8q4 2 8 0"],
  heath: ["M-20 10q6 -6 12 -3q8 -10 16 -2q6 -2 12 5M-12 6l-2 -5M-6 4l-1 -6M4 2l1 -6M12 5l2 -5"],
  marsh: ["M-20 6q5 -3 10 0t10 0t10 0t10 0M-20 11q5 -3 10 0t10 0t10 0t10 0M-10 4V-8M-4 4V-4M8 4V-9"],
  water: ["M-20 -2q5 -4 10 0t10 0t10 0t10 0M-20 4q5 -4 10 0t10 0t10 0t10 0M-20 10q5 -4 10 0t10 0t10 0t10 0"],
  hedge: ["M-20 10V2M-12 10V2M-4 10V2M4 10V2M12 10V2M20 10V2M-20 5H20M-18 -2q4 -10 10 -4q6 -8 12 -1q6 -7 12 0"],
  dry: ["M-20 8H20M-14 8l3 4M-2 8l-2 4M10 8l3 4"],
  moist: ["M-20 8H20M-12 12h5M0 12h6M10 13h4"],
  wet: ["M-20 8H20M-12 4q3 2 6 0M2 3q4 2 8 0M-8 12h16"],
  flooded: ["M-20 -4q5 -4 10 0t10 0t10 0t10 0M-20 10H20M-6 10V-8M5 10V-10"],
};

function scene(state: string): Drawn | undefined {
  const d = scenes[state];
  return d && { toScale: false, words: state, box: [-22, -22, 44, 44], node: <Ink d={d.join("")} width={1.5} /> };
}

/** A leaf being rubbed, with what rises from it. */
function smell(state: string): Drawn {
  const rising =
    state === "none"
      ? ""
      : smooth([
          [-6, -4],
          [-9, -9],
          [-5, -13],
          [-8, -18],
        ]) +
        smooth([
          [0, -6],
          [-3, -11],
          [1, -15],
          [-2, -20],
        ]) +
        smooth([
          [6, -4],
          [3, -9],
          [7, -13],
          [4, -18],
        ]);
  const mark: Record<string, string> = {
    mint: "M-3 8l6 0M0 5v6",
    garlic: "M0 4q-4 3 0 7q4 -4 0 -7Z",
    resin: "M0 4l-3 5a3 3 0 0 0 6 0Z",
    foul: "M-3 5l6 6M3 5l-6 6",
  };
  return {
    toScale: false,
    words: `smell: ${state}`,
    box: [-22, -22, 44, 44],
    node: (
      <>
        <Ink
          d={smooth([
            [-14, 12],
            [-6, 0],
            [6, 0],
            [14, 12],
            [0, 18],
            [-14, 12],
          ])}
          fill={wash("green")}
          width={1.4}
        />
        <Ink d={rising} width={1.2} />
        <Ink d={mark[state] ?? ""} width={1.6} />
      </>
    ),
  };
}

/** Numbered plants of both sexes, in a row. */
function sexes(state: string): Drawn {
  const text: Record<string, string[]> = { bisexual: ["⚥"], dioecious: ["♀", "♂"], monoecious: ["♀♂"] };
  return {
    toScale: false,
    words: state,
    box: [-22, -22, 44, 44],
    node: (
      <>
        {(text[state] ?? []).map((it, i, all) => (
          <g key={it} transform={`translate(${(i - (all.length - 1) / 2) * 22} 0)`}>
            <Ink d="M0 18V2M0 10q-6 0 -8 -5M0 8q6 0 8 -5" />
            <text x={0} y={-4} fontSize={15} textAnchor="middle" fill="currentColor">
              {it}
            </text>
          </g>
        ))}
      </>
    ),
  };
}

/** A stem whose leaves grow smaller, stay alike or grow larger upwards. */
function sizes(state: string): Drawn {
  const at = [14, 4, -6, -16];
  const size = (i: number) => (state === "falling" ? 13 - i * 3 : state === "rising" ? 4 + i * 3 : 8.5);
  return {
    toScale: false,
    words: `leaves ${state}`,
    box: [-22, -26, 44, 48],
    node: (
      <>
        <Ink d="M0 20V-22" width={1.6} />
        <Ink
          d={at
            .map((y, i) => {
              const [s, n] = [i % 2 ? 1 : -1, size(i)];
              return `M0 ${y}q${s * n * 0.5} ${-n * 0.7} ${s * n * 1.4} ${-n * 0.4}q${-s * n * 0.5} ${n * 0.7} ${-s * n * 1.4} ${n * 0.4}Z`;
            })
            .join("")}
          fill={wash("green")}
        />
      </>
    ),
  };
}

const reactions: Record<string, string> = {
  acid: "M-14 10H14M-14 10V-2M-8 10V4",
  neutral: "M-14 10H14M-3 10V-4M3 10V-4",
  limy: "M-14 10H14M14 10V-8M8 10V0M2 10V5",
};

// Of a life span: the roots of one, two or many years.
const spans: Record<string, Base> = {
  annual: { "underground-type": "fibrous" },
  biennial: { "underground-type": "taproot" },
  perennial: { "underground-type": "rhizome" },
};

// Qualities whose states an older character is drawn for: its id, its organ, and the states that are called otherwise there.
const older: Record<string, [string, string, Record<string, string>]> = {
  "growth-form": [
    "growth-form",
    "habit",
    {
      tree: "tree",
      shrub: "shrub",
      dwarf: "dwarf",
      climber: "climber",
      herb: "herb",
      grass: "grass",
      fern: "fern",
      aquatic: "aquatic",
    },
  ],
  habitat: [
    "habitat-kind",
    "site",
    {
      wood: "wood",
      hedge: "hedge",
      meadow: "meadow",
      heath: "heath",
      dune: "slack",
      saltmarsh: "marsh",
      cliff: "scarp",
      water: "water",
    },
  ],
  moisture: ["ground-wetness", "site", { dry: "dry", moist: "moist", wet: "wet", flooded: "flooded" }],
  "soil-reaction": ["soil-reaction", "site", { acid: "acid", neutral: "neutral", limy: "limy" }],
  "sex-distribution": [
    "sexuality",
    "flower",
    { bisexual: "bisexual", monoecious: "monoecious", dioecious: "dioecious" },
  ],
  "underground-kind": [
    "underground-type",
    "underground",
    { fibrous: "fibrous", taproot: "taproot", rhizome: "rhizome", bulb: "bulb", tuber: "tuber", stolons: "runners" },
  ],
  "fruit-type": [
    "fruit-type",
    "fruit",
    {
      samara: "winged nuts",
      schizocarp: "twin",
      capsule: "capsule",
      berry: "berry",
      drupe: "drupe",
      nut: "nut",
      pome: "pome",
      achene: "achene",
      pod: "pod",
      burr: "burr",
      drupelets: "drupelets",
      grain: "grain",
      nutlets: "nutlets",
    },
  ],
};

/** The drawing of a state; undefined where there is nothing to draw. */
export function stateFigure(character: { id: string; organ: string }, state: string): Drawn | undefined {
  if (character.id.includes(".")) {
    const own = qualityFigure(character, state);
    const [id, organ, names] = older[qualityOf(character.id) ?? ""] ?? [];
    const name = names?.[state];
    return own ?? (id && organ && name ? stateFigure({ id, organ }, name) : undefined);
  }
  if (character.id === "leaf-smell") return smell(state);
  if (character.id === "habitat-kind" || character.id === "ground-wetness") return scene(state);
  if (character.id === "sexuality") return sexes(state);
  if (character.id === "soil-reaction")
    return {
      toScale: false,
      words: state,
      box: [-18, -16, 36, 32],
      node: <Ink d={reactions[state] ?? ""} width={2} />,
    };
  if (character.id === "leaf-size-trend") return sizes(state);
  if (character.id === "life-span") return underground(withStates(spans[state] ?? {}));
  if (character.id === "suckers")
    return underground(withStates({ "underground-type": state === "suckers" ? "runners" : "taproot" }));
  const [make, base] = shown[character.id] ?? byOrgan[character.organ] ?? [];
  if (!make || !base) return undefined;
  const extra: Base = { ...base, [character.id]: state };
  // Some states bring others with them.
  if (character.id === "leaf-division" && state === "lobed") extra["lobe-number"] = 7;
  if (character.id === "petiole-to-blade") extra["petiole-length"] = state === "as-long" ? 52 : 14;
  if (character.id === "bud-scale-edges") extra["bud-scales"] = state === "single" ? 1 : state === "meeting" ? 2 : 6;
  if (character.id === "twig-wings" && state !== "none") extra["wing-width"] = state === "winged" ? 4 : 1.2;
  if (character.id === "leaf-substance" && state === "fleshy")
    Object.assign(extra, { "leaf-shape": "oblong", "leaf-upper-side": "glossy" });
  if (character.id === "stem-attitude" && state === "floating")
    Object.assign(extra, { "growth-form": "aquatic", "submerged-leaves": "ribbon" });
  if (character.id === "flower-symmetry") extra["corolla-form"] = state === "bilateral" ? "two-lipped" : "open";
  if (character.id === "corolla-form" && state === "spurred") extra["flower-colour"] = "purple";
  if (character.id === "ligule" && state === "absent") extra["ligule-length"] = 0;
  if (character.id === "growth-form" && state === "aquatic") Object.assign(extra, { "floating-leaves": "round" });
  if (character.id === "growth-form" && state === "fern") extra["frond-division"] = "twice";
  return make(withStates(extra));
}

// What a drawing looks like, whatever it was made of: its parts are plain functions and are drawn out here.
function plain(node: ReactNode): unknown {
  if (Array.isArray(node)) return (node as ReactNode[]).map(plain);
  if (!isValidElement<{ children?: ReactNode }>(node)) return node;
  const { type, props } = node;
  if (typeof type === "function") return plain((type as (given: typeof props) => ReactNode)(props));
  const { children, ...rest } = props;
  return [typeof type === "string" ? type : "", rest, plain(children)];
}

const looksLike = (part: Drawn) => JSON.stringify([plain(part.node), part.box]);

const told = new WeakMap<object, Set<string>>();

// The states of a character that have a drawing of their own: of one that the plates don't know every state would look the same.
function statesDrawn(character: { id: string; organ: string; states: { id: string }[] }): Set<string> {
  const known = told.get(character);
  if (known) return known;
  const drawings = new Map<string, string[]>();
  for (const { id } of character.states) {
    const part = stateFigure(character, id);
    const look = part ? looksLike(part) : "";
    drawings.set(look, [...(drawings.get(look) ?? []), id]);
  }
  const drawn = new Set([...drawings].flatMap(([look, ids]) => (look && ids.length === 1 ? ids : [])));
  told.set(character, drawn);
  return drawn;
}

/** A state, drawn; its words stand beside it, so the drawing is left out for those who listen. */
export function StateFigure({
  character,
  state,
  size = 64,
}: {
  character: { id: string; organ: string; states: { id: string; drawnAs?: string | null; picture?: string | null }[] };
  state: string;
  size?: number;
}) {
  const own = character.states.find((it) => it.id === state);
  if (own?.picture)
    return (
      <Box
        component="img"
        src={own.picture}
        alt=""
        sx={{ display: "block", flex: "none", width: size, height: size, objectFit: "contain" }}
      />
    );
  const [asQuality, asState] = own?.drawnAs?.split(".") ?? [];
  if (asQuality && asState) {
    const as = qualityFigure({ id: `${character.id.split(".")[0]}.${asQuality}`, organ: character.organ }, asState);
    return as ? <Framed part={as} size={size} /> : null;
  }
  const part = statesDrawn(character).has(state) ? stateFigure(character, state) : undefined;
  return part ? <Framed part={part} size={size} /> : null;
}

function Framed({ part, size }: { part: Drawn; size: number }) {
  return (
    <Box
      component="svg"
      viewBox="0 0 80 80"
      aria-hidden="true"
      sx={{ ...plateSx, display: "block", flex: "none", width: size, height: size }}
    >
      <Cell part={part} x={0} y={0} width={80} height={80} label={false} />
    </Box>
  );
}
