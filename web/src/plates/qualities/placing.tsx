import { wash, type Point } from "../pen";
import { circle, leaflet, mirrored, pen, usual, green, LEAF, type Draw } from "./draw";

// Where and how parts stand, and their size.

const AXIS = "M0 23V-22";

const pair = (y: number, length = 15, degrees = 60) => leaflet(0, y, length, degrees) + leaflet(0, y, length, -degrees);

const measure = (long: number, own: number) => (
  <>
    {pen(`M-8 20V${20 - long}`, undefined, 6)}
    {pen(`M8 20V${20 - own}`, undefined, 3)}
    {pen("M-16 20H16", undefined, 1)}
  </>
);

export const arrangement: Draw = (state) => {
  const leaves: Record<string, string> = {
    alternate: leaflet(0, 14, 15, 60) + leaflet(0, 5, 15, -60) + leaflet(0, -4, 15, 60) + leaflet(0, -13, 15, -60),
    spiral:
      leaflet(0, 15, 15, 75) +
      leaflet(0, 9, 10, 20) +
      leaflet(0, 3, 15, -70) +
      leaflet(0, -4, 9, -12) +
      leaflet(0, -10, 14, 60),
    "two-ranked": [16, 10, 4, -2, -8, -14].map((y, i) => leaflet(0, y, 17, i % 2 ? -82 : 82, 0.3)).join(""),
    "three-ranked":
      leaflet(0, 16, 15, 75) +
      leaflet(0, 10, 11, 4, 0.6) +
      leaflet(0, 4, 15, -75) +
      leaflet(0, -4, 15, 75) +
      leaflet(0, -10, 11, 4, 0.6),
    equitant: [-9, -5, -1, 3, 7]
      .map((x, i) => `M${x - 3} 22Q${x} 0 ${(x - 1) * 2} ${-18 + Math.abs(i - 2) * 4}Q${x + 4} 2 ${x + 3} 22Z`)
      .join(""),
    opposite: pair(12) + pair(0) + pair(-12),
    decussate: pair(14) + circle(0, 4, 4, 2) + leaflet(0, 4, 9, 172, 0.7) + leaflet(0, 4, 8, 4, 0.7) + pair(-8),
    subopposite: leaflet(0, 13, 15, 60) + leaflet(0, 9, 15, -60) + leaflet(0, -5, 15, 60) + leaflet(0, -9, 15, -60),
    whorled: [10, -8].map((y) => [-85, -50, -15, 20, 55, 90].map((a) => leaflet(0, y, 14, a, 0.3)).join("")).join(""),
    "in-threes": [10, -6].map((y) => [-75, 4, 75].map((a) => leaflet(0, y, 14, a)).join("")).join(""),
    "in-fours": [10, -6].map((y) => [-90, -30, 30, 90].map((a) => leaflet(0, y, 14, a, 0.36)).join("")).join(""),
    rosette: [-90, -60, -30, 30, 60, 90].map((a) => leaflet(0, 18, 19, a, 0.3)).join(""),
    clustered: [12, -8].map((y) => [30, 55, 80, 105].map((a) => leaflet(3, y, 14, a, 0.2)).join("")).join(""),
    crowded: [-80, -48, -16, 16, 48, 80].map((a) => leaflet(0, -12, 15, a, 0.34)).join(""),
    overlapping: [16, 8, 0, -8, -16]
      .map((y) => leaflet(-4, y + 4, 12, -14, 0.7) + leaflet(4, y + 4, 12, 14, 0.7))
      .join(""),
    "one-row": [-16, -8, 0, 8, 16].map((x) => leaflet(x, 14, 24, 0, 0.3)).join(""),
    "two-rows":
      [-16, -8, 0, 8, 16].map((x) => leaflet(x, 10, 24, 0, 0.26)).join("") +
      [-12, -4, 4, 12].map((x) => leaflet(x, 18, 11, 0, 0.44)).join(""),
    "many-rows":
      [-16, -8, 0, 8, 16].map((x) => leaflet(x, 4, 25, 0, 0.24)).join("") +
      [-12, -4, 4, 12].map((x) => leaflet(x, 11, 16, 0, 0.34)).join("") +
      [-8, 0, 8].map((x) => leaflet(x, 19, 12, 0, 0.5)).join(""),
    "one-sided": [16, 9, 2, -5, -12].map((y) => leaflet(0, y, 17, 66, 0.3)).join(""),
  };
  const d = leaves[state];
  if (!d) return undefined;
  const hasAxis = !["equitant", "one-row", "two-rows", "many-rows"].includes(state);
  return (
    <>
      {hasAxis && pen(state === "rosette" ? "M0 20V-18" : AXIS, undefined, 1.8)}
      {pen(d, green(), 1.2)}
    </>
  );
};

export const insertion: Draw = (state) => {
  const stem = "M-3 -23V23H3V-23Z";
  const leaf: Record<string, string> = {
    stalked: "M3 6L10 1" + leaflet(10, 1, 15, 62),
    "short-stalked": "M3 6L5.4 4.6" + leaflet(5.4, 4.6, 18, 62),
    "long-stalked": "M3 10L16 -4" + leaflet(16, -4, 11, 46),
    sessile: leaflet(3, 6, 20, 62),
    clasping: "M3 6Q-9 12 -6 3Q-3 -3 3 -2Q14 -14 21 -8Q16 6 3 6Z",
    "half-clasping": "M3 8Q-2 9 -2 3Q0 -2 3 -2Q14 -14 21 -8Q16 6 3 8Z",
    perfoliate: "M-21 0Q-10 -12 0 -11Q10 -12 21 0Q10 12 0 11Q-10 12 -21 0Z",
    connate: "M-22 -6Q-8 -10 0 -4Q8 -10 22 -6Q12 8 0 6Q-12 8 -22 -6Z",
    decurrent: "M3 20Q6 8 6 2Q14 -14 21 -10Q18 4 8 8Q7 14 3 20Z",
    peltate: "M3 12L12 -2" + circle(12, -6, 10, 7),
    sheathing: "M-5 20L-5 -2Q0 4 5 -2Q12 -16 21 -14Q14 -2 5 4L5 20Z",
    adnate: "M3 20L9 20L10 4" + leaflet(10, 4, 17, 42) + "M3 4H10",
  };
  const d = leaf[state];
  if (!d) return undefined;
  const behind = ["clasping", "half-clasping", "sheathing", "connate"].includes(state);
  return (
    <>
      {!["perfoliate"].includes(state) && pen(stem, wash("pale"), 1.3)}
      {state === "perfoliate" && pen("M-3 11V23H3V11Z", wash("pale"), 1.3)}
      {pen(d, green(), 1.4)}
      {state === "perfoliate" && pen("M-3 -23V0H3V-23Z", wash("pale"), 1.3)}
      {state === "peltate" && pen(circle(12, -6, 1.4), undefined, 1.2)}
      {behind && pen(state === "sheathing" ? "M0 20V4" : "M-3 12V23M3 12V23M-3 -23V-8M3 -23V-8", undefined, 1.2)}
    </>
  );
};

export const attitude: Draw = (state) => {
  const at: Record<string, string> = {
    erect: leaflet(0, 4, 22, 14) + leaflet(0, 14, 22, -14),
    strict: leaflet(1, 6, 24, 4, 0.2) + leaflet(-1, 14, 24, -4, 0.2),
    appressed: "M1 14Q7 6 2 -8ZM-1 6Q-7 -2 -2 -16Z",
    ascending: "M0 10Q12 10 15 -10Q6 -4 0 6ZM0 16Q-12 16 -15 -4Q-6 2 0 12Z",
    spreading: leaflet(0, 4, 20, 55) + leaflet(0, 8, 20, -55),
    horizontal: leaflet(0, 0, 21, 90) + leaflet(0, 0, 21, -90),
    deflexed: leaflet(0, -4, 20, 145) + leaflet(0, -4, 20, -145),
    recurved: "M0 2Q14 -14 19 8Q10 -4 0 6ZM0 2Q-14 -14 -19 8Q-10 -4 0 6Z",
    incurved: "M0 12Q20 6 9 -18Q10 0 0 6ZM0 12Q-20 6 -9 -18Q-10 0 0 6Z",
    drooping: "M0 -8Q14 -14 18 8Q13 0 0 -4ZM0 0Q-14 -6 -18 16Q-13 8 0 4Z",
    pendent: "M0 -12Q8 -14 8 0L11 14L5 14L6 0Q5 -8 0 -8Z",
    nodding: "M0 8Q0 -14 8 -16Q14 -16 14 -9",
    flexuous: "",
    straight: "",
    twisted: "",
  };
  const d = at[state];
  if (d === undefined) return undefined;
  if (state === "flexuous") return pen("M0 23L-6 14L6 5L-6 -4L6 -13L0 -22", undefined, 2.6);
  if (state === "straight") return pen(AXIS, undefined, 2.6);
  if (state === "twisted")
    return pen(
      "M-4 22Q8 16 -4 10Q8 4 -4 -2Q8 -8 -4 -14Q8 -20 -2 -23M4 22Q-8 16 4 10Q-8 4 4 -2Q-8 -8 4 -14",
      undefined,
      1.6,
    );
  if (state === "nodding")
    return (
      <>
        {pen("M0 23V8" + d, undefined, 1.8)}
        {pen("M8 -9L20 -9L17 2L11 2Z", wash("pink"), 1.3)}
      </>
    );
  return (
    <>
      {pen(AXIS, undefined, 1.8)}
      {pen(d, green(), 1.3)}
    </>
  );
};

export const fusion: Draw = (state, on) => {
  const fill = usual(on);
  const free = [-15, -5, 5, 15].map((x) => leaflet(x, 16, 30, x * 0.6, 0.26)).join("");
  const shapes: Record<string, string> = {
    free,
    united: "M-18 -14L-10 14H10L18 -14L9 -4L0 -16L-9 -4Z",
    "united-at-base":
      "M-8 18Q-20 4 -19 -18Q-11 -6 -8 10Q-8 -8 -6 -19Q-1 -6 0 10Q1 -6 6 -19Q8 -8 8 10Q11 -6 19 -18Q20 4 8 18Z",
    "half-united":
      "M-8 18Q-14 8 -16 -16Q-9 -10 -8 0Q-6 -12 -5 -18Q-1 -10 0 0Q1 -10 5 -18Q6 -12 8 0Q9 -10 16 -16Q14 8 8 18Z",
    tube: "M-7 20L-8 -12L-12 -19H12L8 -12L7 20Z",
    bundles: [-14, 0, 14].map((x) => [-2, 0, 2].map((k) => `M${x} 16Q${x + k} 0 ${x + k * 2} -16`).join("")).join(""),
    "nine-and-one": "M-8 18Q-9 0 -14 -16M-5 18Q-5 0 -8 -17M-2 18Q-2 0 -3 -18M1 18Q1 0 2 -18M-9 18H2M14 18Q15 0 12 -17",
    "overlapping-margins": "M-12 22V-18Q-2 -22 6 -18V22M12 22V-16Q4 -20 -4 -16V22",
    closed: "M-10 22V-18Q0 -23 10 -18V22ZM-10 -18Q0 -13 10 -18",
  };
  const d = shapes[state];
  if (!d) return undefined;
  return pen(d, ["bundles", "nine-and-one", "overlapping-margins"].includes(state) ? undefined : fill, 1.5);
};

export const place: Draw = (state) => {
  const shoot = AXIS;
  const leaf = (y: number, s: number) => leaflet(0, y, 14, 62 * s);
  const dot = (x: number, y: number) => circle(x, y, 3.4);
  const at: Record<string, [string, string, string]> = {
    terminal: [shoot, leaf(12, 1) + leaf(2, -1), dot(0, -20)],
    axillary: [shoot, leaf(12, 1) + leaf(0, -1) + leaf(-12, 1), dot(4, 6) + dot(-4, -6)],
    "leaf-opposed": [shoot, leaf(8, 1) + leaf(-8, 1), dot(-9, 6) + dot(-9, -10)],
    lateral: [shoot, "", dot(6, 8) + dot(-6, -2) + dot(6, -12)],
    basal: [shoot, leaf(-4, 1) + leaf(-12, -1), dot(5, 20) + dot(-5, 20)],
    "on-old-wood": ["M-7 23V-22H7V23", "", dot(9, 8) + dot(-9, -2) + dot(9, -12)],
    "on-short-shoots": [
      shoot + "M0 8H9M0 -6H-9",
      leaflet(9, 8, 9, 30) + leaflet(-9, -6, 9, -30),
      dot(12, 9) + dot(-12, -5),
    ],
    "stalk-between": ["M0 23V-22M0 0L-16 -8M0 0L16 -8", "", circle(0, 3, 5, 4)],
  };
  const own = at[state];
  if (own)
    return (
      <>
        {pen(own[0], state === "on-old-wood" ? wash("brown") : undefined, 1.8)}
        {pen(own[1], green(), 1.2)}
        {pen(own[2], wash("red"), 1.2)}
      </>
    );
  const spots: Record<string, Point[]> = {
    "along-midrib": [
      [2.4, 10],
      [-2.4, 6],
      [2.4, 1],
      [-2.4, -4],
      [2.4, -9],
    ],
    between: [
      [6, 9],
      [-6, 5],
      [7, 0],
      [-6, -5],
      [5, -10],
    ],
    marginal: [
      [10, 10],
      [-12, 5],
      [12, 0],
      [-10, -7],
      [6, -13],
    ],
    subterminal: [[0, -14]],
    dorsal: [[0, 0]],
  };
  const marks = spots[state];
  if (!marks) return undefined;
  return (
    <>
      {pen(mirrored(LEAF), wash("pale"), 1.3)}
      {pen("M0 22V-18", undefined, 0.9)}
      {state === "dorsal"
        ? pen("M0 0Q14 -4 20 -18", undefined, 2)
        : state === "subterminal"
          ? pen("M0 -14Q6 -18 7 -23", undefined, 2)
          : pen(marks.map(([x, y]) => circle(x, y, 2.6)).join(""), wash("brown"), 1.1)}
    </>
  );
};

export const clustering: Draw = (state) => {
  const at: Record<string, Point[]> = {
    single: [[0, 0]],
    pair: [
      [-6, 0],
      [6, 0],
    ],
    cluster: [
      [0, -7],
      [-7, -1],
      [7, -1],
      [-4, 7],
      [4, 7],
    ],
    superposed: [
      [0, -10],
      [0, 0],
      [0, 10],
    ],
    "side-by-side": [
      [-11, 2],
      [0, 2],
      [11, 2],
    ],
    lines: [
      [-15, -8],
      [-5, -8],
      [5, -8],
      [15, -8],
      [-15, 8],
      [-5, 8],
      [5, 8],
      [15, 8],
    ],
    bands: [-16, -8, 0, 8, 16].flatMap((x): Point[] => [
      [x, -3],
      [x + 3, 3],
    ]),
    scattered: [
      [-15, -13],
      [11, -9],
      [-4, 3],
      [15, 12],
      [-13, 15],
    ],
  };
  const own = at[state];
  return own ? pen(own.map(([x, y]) => circle(x, y, 3.6)).join(""), wash("brown"), 1.3) : undefined;
};

export const relativeLength: Draw = (state) => {
  const own = { "much-shorter": 8, shorter: 20, equal: 28, longer: 36, "much-longer": 42 }[state];
  return own ? measure(state === "much-longer" ? 18 : 28, own) : undefined;
};

export const size: Draw = (state, on) => {
  const r = { minute: 1.6, small: 5, medium: 11, large: 19 }[state];
  return r ? pen(circle(0, 0, r), usual(on), 1.4) : undefined;
};

export const slenderness: Draw = (state, on) => {
  const w = { slender: 1.4, medium: 5, stout: 11 }[state];
  return w ? pen(`M${-w} 22V-22H${w}V22Z`, usual(on), 1.3) : undefined;
};

export const presence: Draw = (state, on) => {
  if (state === "present") return pen(circle(0, 0, 12), usual(on), 1.6);
  if (state === "absent") return pen(circle(0, 0, 12) + "M-15 15L15 -15", undefined, 1.4);
  if (state === "conspicuous") return pen(circle(0, 0, 20), usual(on), 1.8);
  if (state === "inconspicuous") return pen(circle(0, 0, 3), usual(on), 1.2);
  return undefined;
};

export const evenness: Draw = (state, on) => {
  const lengths = { even: [28, 28, 28, 28], uneven: [34, 12, 26, 18] }[state];
  return lengths
    ? pen(lengths.map((long, i) => leaflet(-15 + i * 10, 18, long, 0, 0.3)).join(""), usual(on), 1.3)
    : undefined;
};

export const compactness: Draw = (state, on) => {
  const rows = {
    lax: [-18, -4, 10],
    interrupted: [-20, -16, -12, 0, 4, 16, 20],
    dense: [-20, -16, -12, -8, -4, 0, 4, 8, 12, 16],
  }[state];
  if (!rows) return undefined;
  const flowers = rows.map((y) => circle(-5, y, 3.4, 2.6) + circle(5, y + 2, 3.4, 2.6)).join("");
  return (
    <>
      {pen(AXIS, undefined, 1.4)}
      {pen(flowers, usual(on), 1.1)}
    </>
  );
};

export const widest: Draw = (state, on) => {
  const y = { "below-middle": 10, middle: -1, "above-middle": -12 }[state];
  if (y === undefined) return undefined;
  return (
    <>
      {pen(`M0 21Q-15 ${y + 5} -13 ${y}Q-10 ${y - 9} 0 -22Q10 ${y - 9} 13 ${y}Q15 ${y + 5} 0 21Z`, usual(on), 1.4)}
      {pen(`M-20 ${y}H20M-20 ${y - 3}V${y + 3}M20 ${y - 3}V${y + 3}`, undefined, 1)}
    </>
  );
};
