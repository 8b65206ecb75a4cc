import { line, smooth, turn, wash, type Point } from "../pen";
import { around, circle, leaflet, mirrored, pen, ray, usual, green, type Draw } from "./draw";

// Stems, twigs, buds and the whole plant.

const GROUND = "M-23 18H23";

const tufts = (at: Point[]) => at.map(([x, y]) => leaflet(x, y, 7, 40) + leaflet(x, y, 7, -40)).join("");

const gon = (n: number, r: number, a = 0) =>
  line(
    Array.from({ length: n }, (_, i) => turn([0, -r], a + (360 / n) * i)),
    true,
  );

export const posture: Draw = (state) => {
  const stems: Record<string, [string, string]> = {
    erect: [
      "M0 18V-20",
      tufts([
        [0, 8],
        [0, -4],
        [0, -14],
      ]),
    ],
    ascending: [
      "M-18 17Q2 18 6 -18",
      tufts([
        [3, 4],
        [6, -10],
      ]),
    ],
    prostrate: [
      "M-20 15Q0 12 20 15",
      tufts([
        [-10, 13],
        [0, 12],
        [10, 13],
      ]),
    ],
    decumbent: [
      "M-20 15Q8 17 16 -8",
      tufts([
        [-8, 14],
        [14, 0],
      ]),
    ],
    creeping: [
      "M-20 14Q0 11 20 14M-12 13v6M0 12v7M12 13v6",
      tufts([
        [-12, 13],
        [0, 12],
        [12, 13],
      ]),
    ],
    layering: [
      "M0 18V-20M0 -6Q12 -16 17 16M0 0Q-12 -10 -17 16M17 15l-3 5M17 15l3 5M-17 15l-3 5M-17 15l3 5",
      tufts([
        [0, -18],
        [12, -6],
        [-12, 0],
      ]),
    ],
    scrambling: [
      "M-14 18Q-8 -12 4 -4Q12 2 20 -14M8 18V-20M16 18V-12",
      tufts([
        [-8, -2],
        [6, -4],
      ]),
    ],
    climbing: [
      "M6 18V-22M3 18L3 -16",
      tufts([
        [3, 6],
        [3, -6],
        [3, -16],
      ]),
    ],
    twining: ["M0 18V-22M-4 18Q8 12 -4 6Q8 0 -4 -6Q8 -12 -2 -18", ""],
    floating: ["M-22 0q4 -4 8 0t8 0t8 0t8 0t8 0", circle(-9, -1, 8, 2.4) + circle(9, -1, 7, 2.2)],
    submerged: [
      "M-22 -16q4 -4 8 0t8 0t8 0t8 0t8 0M0 18V-10",
      tufts([
        [0, 8],
        [0, 0],
        [0, -8],
      ]),
    ],
    tufted: ["M0 18Q-2 -4 -16 -16M0 18Q-1 -8 -6 -20M0 18Q1 -8 6 -20M0 18Q2 -4 16 -16M0 18V-20", ""],
    matted: [
      "M-21 17Q-20 10 0 10Q20 10 21 17",
      tufts([
        [-15, 14],
        [-7, 12],
        [1, 12],
        [9, 12],
        [16, 14],
      ]),
    ],
    cushion: [
      "M-19 18A19 19 0 0 1 19 18",
      tufts([
        [-10, 10],
        [0, 4],
        [10, 10],
        [-4, 15],
        [6, 15],
      ]),
    ],
    "not-rooting": [
      "M-20 10Q0 7 20 10M-14 22l5 -5M-9 22l-5 -5",
      tufts([
        [-8, 9],
        [4, 8],
        [14, 9],
      ]),
    ],
  };
  const own = stems[state];
  if (!own) return undefined;
  return (
    <>
      {state !== "floating" && state !== "submerged" && pen(GROUND, undefined, 1)}
      {pen(own[0], undefined, 1.8)}
      {pen(own[1], green(), 1.1)}
    </>
  );
};

export const complexity: Draw = (state) => {
  const axes: Record<string, string> = {
    simple: "M0 23V-22",
    branched: "M0 23V-20M0 6L12 -10M0 -2L-11 -16",
    "few-branched": "M0 23V-21M0 2L10 -12",
    "much-branched":
      "M0 23V-20M0 14L16 0M8 7L14 8M0 12L-16 -2M-8 5L-14 7M0 2L14 -12M7 -5L15 -4M0 0L-14 -14M-7 -7L-15 -6M0 -8L8 -18M0 -9L-8 -19",
    forked: "M0 23V6L-12 -18M0 6L12 -18",
    "base-branched": "M0 20V-21M0 20L-14 -18M0 20L14 -18M0 20L-8 -20M0 20L8 -20",
    "top-branched": "M0 23V-6L-12 -20M0 -6L-5 -22M0 -6L5 -22M0 -6L12 -20",
    discs: "M0 23V2L-12 -10M0 2L0 -14M0 2L12 -10",
  };
  const d = axes[state];
  if (!d) return undefined;
  return (
    <>
      {pen(d, undefined, 2)}
      {state === "discs" && pen(circle(-13, -12, 3.4) + circle(0, -17, 3.4) + circle(13, -12, 3.4), wash("brown"), 1.2)}
    </>
  );
};

export const section: Draw = (state, on) => {
  const fill = usual(on);
  const cut: Record<string, string> = {
    round: circle(0, 0, 15),
    "half-round": "M-16 -6H16A16 16 0 0 1 -16 -6Z",
    flattened: circle(0, 0, 19, 7),
    "two-edged": "M-21 0Q0 -13 21 0Q0 13 -21 0Z",
    angled: gon(7, 16, 10),
    triangular: gon(3, 19),
    square: gon(4, 19, 45),
    "five-angled": "M0 -19L5 -6L18 -6L8 3L11 16L0 8L-11 16L-8 3L-18 -6L-5 -6Z",
    "many-angled": gon(11, 16),
    grooved:
      around(8, () => "") +
      smooth(
        Array.from({ length: 16 }, (_, i) => turn([0, i % 2 ? -13 : -17], 22.5 * i)),
        true,
      ),
    "grooved-above": "M-6 -12Q-16 -12 -16 1A16 16 0 0 0 16 1Q16 -12 6 -12Q0 4 -6 -12Z",
    ridged: circle(0, 0, 13) + around(10, (a) => ray(a, 13, 18)),
    winged: circle(0, 0, 9) + "M9 -2L22 -4V4L9 2M-9 -2L-22 -4V4L-9 2",
    folded: "M-12 -16L0 14L12 -16L9 -17L0 5L-9 -17Z",
    inrolled: "M-2 6q-13 0 -12 -10t12 -9t14 10t-10 14t-10 -9",
    keeled: "M-20 -10L-2 2V12H2V2L20 -10L20 -6L2 6M-20 -6L-2 6M-20 -10V-6",
    "flat-blade": "M-21 -2H21V2H-21Z",
  };
  const d = cut[state];
  if (!d) return undefined;
  return pen(d, ["inrolled", "keeled"].includes(state) ? undefined : fill, state === "inrolled" ? 3 : 1.6);
};

export const interior: Draw = (state) => {
  const rind = "M-11 -23V23M11 -23V23";
  const inside: Record<string, string> = {
    solid: "",
    hollow: "M-6 -23V23M6 -23V23",
    chambered: [-16, -8, 0, 8, 16].map((y) => `M-6 ${y}H6`).join("") + "M-6 -23V23M6 -23V23",
    diaphragmed:
      [-14, 0, 14].map((y) => `M-6 ${y}H6M-6 ${y + 1.6}H6`).join("") +
      "M-6 -23V23M6 -23V23" +
      [-20, -8, 7, 20].map((y) => `M-3 ${y}h0.1M3 ${y + 2}h0.1M0 ${y - 3}h0.1`).join(""),
    interrupted:
      "M-6 -23V23M6 -23V23" +
      [-18, -2, 14]
        .map((y) => `M-6 ${y - 3}Q0 ${y - 6} 6 ${y - 3}M-6 ${y + 4}Q0 ${y + 1} 6 ${y + 4}M-3 ${y}h0.1M2 ${y + 1}h0.1`)
        .join(""),
    spongy:
      "M-6 -23V23M6 -23V23" + [-18, -11, -4, 3, 10, 17].map((y) => `M-4 ${y}q2 -4 4 0M0 ${y + 3}q2 -4 4 0`).join(""),
    "stellate-pith":
      "M-6 -23V23M6 -23V23" +
      [-16, -4, 8, 18].map((y) => [0, 60, 120].map((a) => ray(a, -4, 4, [0, y])).join("")).join(""),
  };
  const d = inside[state];
  if (d === undefined) return undefined;
  return (
    <>
      {pen("M-11 -23V23H11V-23Z", wash(state === "solid" ? "brown" : "pale"), 0.8)}
      {state === "hollow" && pen("M-6 -23V23H6V-23Z", wash("black"), 0.6)}
      {pen(rind + d, undefined, 1.6)}
    </>
  );
};

export const crownForm: Draw = (state) => {
  const crowns: Record<string, string> = {
    rounded: circle(0, -5, 15),
    spreading: circle(0, -4, 22, 11),
    conical: "M-13 12L0 -23L13 12Z",
    columnar: "M-5 13V-16Q0 -24 5 -16V13Z",
    ovoid: mirrored([
      [0, 13],
      [10, 8],
      [12, -2],
      [7, -14],
      [0, -22],
    ]),
    "flat-topped": "M-22 -8Q-20 -14 0 -14Q20 -14 22 -8Q10 -2 0 -2Q-10 -2 -22 -8Z",
    weeping:
      "M0 -20Q-20 -18 -19 14M0 -20Q-12 -14 -12 12M0 -20Q-5 -10 -5 8M0 -20Q20 -18 19 14M0 -20Q12 -14 12 12M0 -20Q5 -10 5 8",
    irregular: "M-16 4Q-22 -8 -8 -8Q-8 -22 4 -18Q12 -20 10 -8Q22 -8 16 2Q8 10 2 2Q-8 12 -16 4Z",
  };
  const d = crowns[state];
  if (!d) return undefined;
  return (
    <>
      {pen("M0 23V" + (state === "weeping" ? "-20" : "0"), undefined, 3)}
      {pen(d, state === "weeping" ? undefined : green(), 1.4)}
    </>
  );
};

export const climbing: Draw = (state) => {
  const post = "M4 23V-23M-4 23V-23";
  const ways: Record<string, string> = {
    "not-climbing": "M14 23V-12",
    twining: "M-10 18Q14 12 -8 4Q14 -2 -8 -10Q12 -15 6 -22",
    "twining-right": "M10 20Q-12 12 8 5Q-12 -2 8 -9Q-10 -15 -4 -22M8 -9l-7 -1M8 -9l-2 6",
    "twining-left": "M-10 20Q12 12 -8 5Q12 -2 -8 -9Q10 -15 4 -22M-8 -9l7 -1M-8 -9l2 6",
    tendrils: "M16 23V-20M16 8Q10 6 6 9q-3 3 0 4t2 -4M16 -8Q10 -10 6 -7q-3 3 0 4t2 -4",
    hooks: "M14 23V-20M14 12q-8 -1 -9 6M14 0q-8 -1 -9 6M14 -12q-8 -1 -9 6",
    roots: "M9 23V-21" + [18, 12, 6, 0, -6, -12, -18].map((y) => `M9 ${y}l-5 2M9 ${y}l-5 -1`).join(""),
    petioles: "M16 23V-20M16 6Q4 8 2 2Q0 -4 8 -4M16 -10Q4 -8 2 -14Q0 -20 8 -20",
  };
  const d = ways[state];
  if (!d) return undefined;
  return (
    <>
      {pen(post, wash("brown"), 1)}
      {pen(d, undefined, 2)}
    </>
  );
};

export const budCover: Draw = (state) => {
  const bud = mirrored([
    [0, 20],
    [8, 16],
    [10, 4],
    [6, -10],
    [0, -21],
  ]);
  const scales: Record<string, string> = {
    naked: "M-5 14Q-8 0 0 -18M5 14Q8 0 0 -18M0 18V-10M-3 8l-2 -3M3 8l2 -3M-3 0l-2 -3M3 0l2 -3",
    scaly: "M-9 10Q0 0 9 10M-8 -2Q0 -12 8 -2",
    "one-scale": "M-9 10Q0 14 9 10",
    "two-scales": "M0 20V-21",
    imbricate: "M-9 12Q0 4 6 18M9 10Q2 0 -6 14M-9 2Q0 -6 6 8M9 0Q2 -10 -6 4M-7 -8Q0 -14 4 -3M6 -9Q2 -16 -2 -10",
    sunk: "",
  };
  const d = scales[state];
  if (d === undefined) return undefined;
  if (state === "sunk") return pen("M-20 6Q-8 6 -6 12Q0 2 6 12Q8 6 20 6V22H-20Z", wash("brown"), 1.6);
  return (
    <>
      {pen(bud, state === "naked" ? green() : wash("brown"), 1.5)}
      {pen(d, undefined, 1.2)}
    </>
  );
};

export const budEnd: Draw = (state) => {
  if (state !== "true" && state !== "false") return undefined;
  const isTrue = state === "true";
  return (
    <>
      {pen("M-5 23V-4H5V23Z", wash("brown"), 1.4)}
      {pen(isTrue ? "M-6 -4Q-7 -16 0 -22Q7 -16 6 -4Z" : "M-1 -3Q0 -16 9 -19Q12 -10 5 0Z", wash("pale"), 1.5)}
      {!isTrue && pen("M-5 -4L-7 -10L-3 -10L-2 -4", wash("white"), 1.2)}
    </>
  );
};

export const scarPattern: Draw = (state) => {
  const scar = "M-17 -8Q0 20 17 -8Q0 2 -17 -8Z";
  const dots: Record<string, Point[]> = {
    "three-groups": [
      [-11, -2],
      [-9, -1],
      [-1, 6],
      [1, 6],
      [9, -1],
      [11, -2],
    ],
    "scattered-dots": [
      [-11, -2],
      [-5, 3],
      [0, 7],
      [4, 4],
      [8, 0],
      [-2, 4],
      [11, -3],
    ],
    "one-bundle": [[0, 5]],
    "three-bundles": [
      [-10, -1],
      [0, 6],
      [10, -1],
    ],
    "many-bundles": [
      [-12, -3],
      [-8, 1],
      [-4, 4],
      [0, 6],
      [4, 4],
      [8, 1],
      [12, -3],
    ],
  };
  const own = dots[state];
  if (own)
    return (
      <>
        {pen(scar, wash("pale"), 1.5)}
        {pen(own.map(([x, y]) => circle(x, y, 1.5)).join(""), wash("black"), 1)}
      </>
    );
  const lines: Record<string, string> = {
    ring: "M-9 0Q0 6 9 0M-9 3Q0 9 9 3",
    line: "M2 0L8 -3",
    arc: "M-6 -4Q0 8 6 -4",
    dot: circle(5, 0, 1.8),
    ellipse: circle(0, 0, 7, 4),
  };
  const d = lines[state];
  if (!d) return undefined;
  return (
    <>
      {pen("M-9 -23V23H9V-23Z", wash("brown"), 1.3)}
      {pen(d, undefined, 2)}
    </>
  );
};

export const rooting: Draw = (state) => {
  const drawn: Record<string, string> = {
    rooted: "M0 -16V4M0 4q-6 8 -9 15M0 4q0 8 0 17M0 4q6 8 9 15M-22 4H22",
    free: "M-22 0q4 -4 8 0t8 0t8 0t8 0t8 0M0 -2V-14M-4 2v12M4 2v12",
    "rooting-nodes": "M-21 0H21M-12 0V-10M0 0V-10M12 0V-10M-12 0q-3 8 -4 14M0 0q-3 8 -3 14M12 0q-3 8 -2 14",
    "rooting-tip": "M-18 10Q-6 -22 16 8M16 8q-4 6 -6 12M16 8q2 6 4 12M-22 10H22",
    "on-others": "M-20 -4H20V6H-20ZM0 -4V-18M0 -4q-4 6 -4 10M0 -4q4 6 4 10",
  };
  const d = drawn[state];
  if (!d) return undefined;
  return pen(d, state === "on-others" ? wash("brown") : undefined, 1.7);
};

export const lifeSpan: Draw = (state) => {
  const year = (x: number, isFlowering: boolean) =>
    `M${x} 20V4` + leaflet(x, 14, 7, 60) + leaflet(x, 14, 7, -60) + (isFlowering ? circle(x, 1, 3) : "");
  const years: Record<string, string> = {
    annual: year(0, true),
    biennial: leaflet(-10, 18, 8, 70) + leaflet(-10, 18, 8, -70) + leaflet(-10, 18, 8, 0) + year(10, true),
    perennial: year(-15, true) + year(0, true) + year(15, true),
    monocarpic:
      [-15, -5, 5].map((x) => leaflet(x, 18, 6, 60) + leaflet(x, 18, 6, -60)).join("") +
      year(15, true) +
      "M11 -6L19 -14M19 -6L11 -14",
  };
  const d = years[state];
  return d ? pen(d, green(), 1.3) : undefined;
};
