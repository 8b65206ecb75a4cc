import { line, smooth, wash, type Point } from "../pen";
import { circle, mirrored, pen, usual, type Draw } from "./draw";

// The right side of each outline, from the foot up; y grows downwards.
const outlines: Record<string, Point[]> = {
  linear: [
    [0, 22],
    [1.6, 18],
    [1.7, -16],
    [0, -22],
  ],
  filiform: [
    [0, 22],
    [0.35, 10],
    [0.35, -10],
    [0, -22],
  ],
  needle: [
    [0, 20],
    [0.9, 17],
    [1, -8],
    [0, -20],
  ],
  subulate: [
    [0, 20],
    [2.6, 18],
    [1.4, 0],
    [0, -22],
  ],
  "strap-shaped": [
    [0, 20],
    [3.4, 18],
    [3.6, -18],
    [0, -20],
  ],
  sword: [
    [0, 22],
    [2.4, 20],
    [3.2, 0],
    [1.8, -14],
    [0, -23],
  ],
  lanceolate: [
    [0, 20],
    [3.6, 13],
    [4.6, 6],
    [2.6, -8],
    [0, -21],
  ],
  "narrowly-ovate": [
    [0, 20],
    [5.6, 13],
    [7, 7],
    [3.6, -7],
    [0, -20],
  ],
  oblanceolate: [
    [0, 21],
    [2.4, 8],
    [4.6, -7],
    [3.6, -14],
    [0, -20],
  ],
  oblong: [
    [0, 19],
    [5.6, 17],
    [6.6, 12],
    [6.6, -12],
    [5.6, -17],
    [0, -19],
  ],
  elliptic: [
    [0, 20],
    [6, 12],
    [8.6, 0],
    [6, -12],
    [0, -20],
  ],
  oval: [
    [0, 19],
    [9.6, 13],
    [13.4, 0],
    [9.6, -13],
    [0, -19],
  ],
  ovate: [
    [0, 19],
    [8.6, 14],
    [11.6, 6],
    [7, -8],
    [0, -20],
  ],
  "broadly-ovate": [
    [0, 18],
    [12, 14],
    [16, 6],
    [9.6, -9],
    [0, -19],
  ],
  obovate: [
    [0, 20],
    [6, 9],
    [11.4, -6],
    [8.6, -15],
    [0, -19],
  ],
  cordate: [
    [0, 13],
    [5, 18.6],
    [12, 17],
    [15, 9],
    [9.6, -7],
    [0, -20],
  ],
  obcordate: [
    [0, 20],
    [8.6, 4],
    [13, -8],
    [9, -17],
    [3.4, -17],
    [0, -12],
  ],
  round: [
    [0, 17],
    [12, 12],
    [17, 0],
    [12, -12],
    [0, -17],
  ],
  reniform: [
    [0, 5],
    [5, 12],
    [14, 12],
    [20, 2],
    [15, -10],
    [0, -14],
  ],
  shield: [
    [0, 20],
    [7, 10],
    [13, -2],
    [13.4, -14],
    [7, -17],
    [0, -16],
  ],
  spatulate: [
    [0, 22],
    [1.6, 12],
    [2.4, 2],
    [8.6, -8],
    [8, -17],
    [0, -20],
  ],
  fiddle: [
    [0, 20],
    [8, 16],
    [9, 9],
    [4.6, 1],
    [9.6, -8],
    [7, -17],
    [0, -20],
  ],
  crescent: [
    [0, 8],
    [10, 5],
    [19, -6],
    [12, -2],
    [0, 0],
  ],
  "u-shaped": [
    [0, 15],
    [10, 12],
    [13, -12],
    [7.6, -12],
    [6, 4],
    [0, 8],
  ],
};

const angular: Record<string, Point[]> = {
  triangular: [
    [0, 14],
    [15, 14],
    [0, -19],
  ],
  rhombic: [
    [0, 20],
    [11.6, 0],
    [0, -20],
  ],
  cuneate: [
    [0, 20],
    [12, -14],
    [0, -14],
  ],
  fan: [
    [0, 20],
    [18, -8],
    [13, -13],
    [7, -16],
    [0, -17],
  ],
  hastate: [
    [0, 11],
    [4, 11],
    [17, 17],
    [7, 2],
    [0, -20],
  ],
  sagittate: [
    [0, 8],
    [4, 12],
    [11, 21],
    [9, 2],
    [0, -20],
  ],
  "v-shaped": [
    [0, 16],
    [15, -12],
    [9, -12],
    [0, 5],
  ],
};

export const outline: Draw = (state, on) => {
  const veins = on.organ === "leaf" && !["filiform", "needle", "v-shaped", "u-shaped", "crescent"].includes(state);
  const mid = veins ? pen("M0 22V-15", undefined, 0.8) : null;
  const of = (d: string) => (
    <>
      {pen(d, usual(on), 1.4)}
      {mid}
    </>
  );
  if (state === "sickle")
    return pen(
      smooth(
        [
          [-8, 18],
          [-2, 6],
          [0, -6],
          [6, -19],
          [7.6, -4],
          [4, 9],
          [-5, 19],
        ],
        true,
      ),
      usual(on),
      1.4,
    );
  if (state === "three-lobed") return of(circle(0, -8, 7) + circle(-8, 6, 7) + circle(8, 6, 7));
  const round = outlines[state];
  if (round) return of(mirrored(round));
  const straight = angular[state];
  return straight ? of(mirrored(straight, false)) : undefined;
};

const bodies: Record<string, Point[]> = {
  globose: [
    [0, 15],
    [10.6, 10.6],
    [15, 0],
    [10.6, -10.6],
    [0, -15],
  ],
  "depressed-globose": [
    [0, 10],
    [13, 7.6],
    [17, 0],
    [13, -7.6],
    [0, -9],
  ],
  ovoid: [
    [0, 17],
    [10, 13],
    [12.6, 4],
    [8, -9],
    [0, -18],
  ],
  obovoid: [
    [0, 18],
    [8, 9],
    [12.6, -4],
    [10, -13],
    [0, -17],
  ],
  ellipsoid: [
    [0, 19],
    [8, 12],
    [10.6, 0],
    [8, -12],
    [0, -19],
  ],
  spindle: [
    [0, 22],
    [3, 12],
    [8, 0],
    [3, -12],
    [0, -22],
  ],
  club: [
    [0, 22],
    [1.6, 10],
    [3, -2],
    [7, -12],
    [5.6, -19],
    [0, -21],
  ],
  pear: [
    [0, 20],
    [2.6, 12],
    [5, 4],
    [11, -4],
    [10, -14],
    [0, -18],
  ],
  flask: [
    [0, 18],
    [10, 13],
    [11, 3],
    [3.4, -7],
    [2.4, -18],
    [2.8, -21],
    [0, -21],
  ],
  top: [
    [0, 20],
    [6, 8],
    [13, -6],
    [13.6, -11],
    [0, -13],
  ],
};
const edged: Record<string, Point[]> = {
  conical: [
    [0, 16],
    [13, 16],
    [0, -20],
  ],
  pyramidal: [
    [0, 18],
    [14, 12],
    [0, -20],
  ],
};

export const solidForm: Draw = (state, on) => {
  const fill = usual(on);
  const shade = (d: string) => pen(d, undefined, 0.7);
  const body = bodies[state];
  if (body)
    return (
      <>
        {pen(mirrored(body), fill, 1.5)}
        {shade(
          smooth([
            [4, 10],
            [7.4, 2],
            [5, -7],
          ]),
        )}
      </>
    );
  const straight = edged[state];
  if (straight)
    return (
      <>
        {pen(mirrored(straight, false), fill, 1.5)}
        {state === "pyramidal" ? shade("M0 18L0 -20") : shade("M-13 16q13 5 26 0")}
      </>
    );
  switch (state) {
    case "hemispherical":
      return pen("M-16 8A16 16 0 0 1 16 8Z", fill, 1.5);
    case "cylindrical":
      return pen("M-7 -16a7 2.6 0 0 1 14 0V16a7 2.6 0 0 1 -14 0ZM-7 -16a7 2.6 0 0 0 14 0", fill, 1.5);
    case "lens":
      return pen("M-19 0Q0 -13 19 0Q0 13 -19 0Z", fill, 1.5);
    case "disc":
      return pen("M-18 -2a18 6 0 0 1 36 0V3a18 6 0 0 1 -36 0ZM-18 -2a18 6 0 0 0 36 0", fill, 1.5);
    case "cup-form":
      return pen("M-14 -10Q-13 14 0 15Q13 14 14 -10ZM-14 -10a14 4 0 0 0 28 0a14 4 0 0 0 -28 0", fill, 1.5);
    case "star":
      return pen("M0 -20L4 -6L19 -6L7 3L12 17L0 9L-12 17L-7 3L-19 -6L-4 -6Z", fill, 1.5);
    case "spiral":
      return pen("M0 0q3 -4 6 0t-4 8t-13 -4t5 -16t18 4t0 18", undefined, 3);
    case "needle-form":
      return pen("M0 22V-22", undefined, 1.6);
    case "hooked-form":
      return pen("M-6 20V-2q0 -12 9 -12q8 0 8 8q-3 -4 -7 -3q-4 2 -4 8V20Z", fill, 1.5);
    case "straight-form":
      return pen("M-3 20L-3 -6L0 -21L3 -6L3 20Z", fill, 1.5);
    case "curved":
      return pen("M-10 20Q-10 -8 14 -18Q-2 -4 -4 20Z", fill, 1.5);
    case "flattened":
      return pen("M-18 -3Q0 -7 18 -3V2Q0 7 -18 2Z", fill, 1.5);
    case "inflated":
      return pen(
        "M-3 -21L3 -21L4 -13C24 -10 22 20 0 20C-22 20 -24 -10 -4 -13ZM-4 -13Q0 -11 4 -13M-9 -6Q-14 6 -7 14",
        fill,
        1.5,
      );
    case "boat":
      return pen("M-20 -6Q0 -2 20 -6Q13 12 0 12Q-13 12 -20 -6ZM0 12V-3", fill, 1.5);
    default:
      return undefined;
  }
};

// The far end of a blade: from the left edge over the tip to the right one.
const tips: Record<string, string> = {
  acute: "L0 -16",
  acuminate: "Q-6 -2 -2 -10L0 -21L2 -10Q6 -2 ",
  tailed: "Q-5 2 -1.2 -2L-0.6 -22L0.6 -22L1.2 -2Q5 2 ",
  pointed: "Q-8 -6 0 -17Q8 -6 ",
  obtuse: "Q-12 -8 0 -10Q12 -8 ",
  rounded: "C-14 -14 14 -14 ",
  truncate: "L-13 -8L13 -8L",
  emarginate: "C-14 -14 -4 -14 0 -4C4 -14 14 -14 ",
  retuse: "C-14 -12 -3 -12 0 -9C3 -12 14 -12 ",
  mucronate: "C-14 -10 -3 -11 -0.9 -11L0 -19L0.9 -11C3 -11 14 -10 ",
  apiculate: "C-14 -10 -4 -11 -2 -11Q0 -15 2 -11C4 -11 14 -10 ",
  cuspidate: "C-14 -6 -3 -7 -2 -8Q-0.8 -14 0 -21Q0.8 -14 2 -8C3 -7 14 -6 ",
  aristate: "C-12 -4 -2 -6 0 -9C2 -6 12 -4 ",
  "spine-tipped": "Q-8 -2 -2.2 -8L0 -22L2.2 -8Q8 -2 ",
  hooded: "C-15 -10 -8 -17 2 -16Q9 -15 8 -9Q15 -4 ",
  "hooked-tip": "Q-9 -6 -2 -13Q4 -21 9 -14Q5 -15 4 -10Q10 -4 ",
  "tendril-tip": "Q-8 -2 -1 -8Q0 -18 8 -19q6 1 4 5q-4 2 -4 -2Q4 -14 1 -8Q8 -2 ",
  torn: "L-12 -6L-8 -11L-6 -5L-2 -13L1 -7L5 -14L7 -6L12 -9L",
  "two-pointed": "L-7 -17L0 -5L7 -17L",
  "three-pointed": "L-9 -13L-4 -4L0 -18L4 -4L9 -13L",
};

export const apex: Draw = (state, on) => {
  const to = tips[state];
  if (to === undefined) return undefined;
  const end = state === "acute" ? "L13 8" : "13 8";
  const bristle = state === "aristate" ? pen("M0 -9V-22", undefined, 1) : null;
  const mid = on.organ === "leaf" ? pen("M0 22V-4", undefined, 0.8) : null;
  const back = state === "hooded" ? pen("M-6 -8Q2 -11 8 -9", undefined, 0.9) : null;
  return (
    <>
      {pen(`M-11 22L-13 8${to}${end}L11 22`, usual(on), 1.5)}
      {bristle}
      {mid}
      {back}
    </>
  );
};

const feet: Record<string, string> = {
  cuneate: "L-1 14L1 14L",
  attenuate: "Q-4 -2 -1 18L1 18Q4 -2 ",
  rounded: "C-15 10 -4 11 -1 11L1 11C4 11 15 10 ",
  truncate: "L-13 10L-1 10L1 10L13 10L",
  cordate: "C-18 12 -8 19 -1 8L1 8C8 19 18 12 ",
  subcordate: "C-17 10 -8 13 -1 9L1 9C8 13 17 10 ",
  "reniform-base": "C-24 14 -14 16 -1 2L1 2C14 16 24 14 ",
  sagittate: "L-13 20L-1 6L1 6L13 20L",
  hastate: "L-8 4L-21 12L-1 11L1 11L21 12L8 4L",
  auricled: "Q-8 4 -5 8C-11 8 -11 14 -6 14Q-3 14 -1 10L1 10Q3 14 6 14C11 14 11 8 5 8Q8 4 ",
  oblique: "C-15 6 -4 6 -1 6L1 14C5 14 16 13 ",
  equal: "C-14 8 -5 12 -1 12L1 12C5 12 14 8 ",
  clawed: "C-13 -2 -3 -1 -2 4L-2 22L2 22L2 4C3 -1 13 -2 ",
  bulbous: "L-6 2C-13 8 -9 18 0 18C9 18 13 8 6 2L",
};

export const baseForm: Draw = (state, on) => {
  const to = feet[state];
  if (to === undefined) return undefined;
  return (
    <>
      {pen(`M-11 -22L-13 -8${to}13 -8L11 -22`, usual(on), 1.5)}
      {on.organ === "leaf" && pen("M0 -22V6M0 12V23", undefined, 1)}
    </>
  );
};

// The right edge of a blade, enlarged, from top to bottom, as relative steps.
const edge = (step: string, count: number) => "M4 -22" + step.repeat(count);

export const margin: Draw = (state, on) => {
  const steps: Record<string, string> = {
    entire: "M4 -22Q8 0 4 22",
    toothed: edge("l6 5.5l-6 5.5", 4),
    serrate: edge("l1.6 -1l3 8l-4.6 0", 6) + "V22",
    serrulate: edge("l1.4 2.9l-1.4 0.3", 13) + "V22",
    "doubly-serrate": edge("l2.6 2l-0.6 1l3.6 2.4l-1 1l4 3.6l-8.6 1", 4),
    dentate: edge("l7 4.4l-7 4.4", 5),
    crenate: edge("q9 0.6 9 4.4t-9 4.4", 5),
    crenulate: edge("q3.4 0.3 3.4 1.8t-3.4 1.8", 12),
    spiny: edge("q5 3 2 5l9 -1l-9 3q3 3 -2 4", 4),
    incised: edge("l14 2l-5 2l6 3l-15 4", 4),
    fringed: edge("l11 0.6l-11 1.2", 24),
    sinuate: edge("q12 5.5 0 11t0 11", 2),
    "wavy-cut": edge("q4 5.5 0 11t0 11", 2),
  };
  const d = steps[state];
  if (!d) return undefined;
  return (
    <>
      {pen(`${d}L-20 22V-22Z`, usual(on), 1.5)}
      {pen("M-20 -22V22M-20 -12L-2 -18M-20 2L-2 -4M-20 16L-2 10", undefined, 0.7)}
    </>
  );
};

export const toothShape: Draw = (state, on) => {
  const body: Record<string, string> = {
    "acute-tooth": "L14 0L",
    "blunt-tooth": "Q13 -9 13 0Q13 9 ",
    "gland-tipped": "L12 0L",
    "bristle-tipped": "L8 0L",
    "mucronate-tooth": "Q8 -8 9 -2L16 0L9 2Q8 8 ",
    "incurved-tooth": "Q14 -2 9 -12Q16 -2 6 8L",
  };
  const d = body[state];
  if (d === undefined) return undefined;
  return (
    <>
      {pen(`M-6 -22L-4 -11${d}-4 11L-6 22H-22V-22Z`, usual(on), 1.5)}
      {state === "gland-tipped" && pen(circle(13, 0, 3), wash("red"), 1.2)}
      {state === "bristle-tipped" && pen("M8 0H22", undefined, 1.2)}
    </>
  );
};

export const toothSize: Draw = (state, on) => {
  const size = { minute: 1.4, fine: 4, coarse: 12 }[state];
  if (!size) return undefined;
  const count = Math.floor(44 / size);
  return pen(`${edge(`l${size * 0.8} ${size / 2}l${-size * 0.8} ${size / 2}`, count)}V22H-20V-22Z`, usual(on), 1.4);
};

const EDGE = "M4 -22Q9 0 4 22H-20V-22Z";

export const marginHairs: Draw = (state, on) => {
  if (!["ciliate", "gland-ciliate", "not-ciliate"].includes(state)) return undefined;
  const at = Array.from({ length: 11 }, (_, i): Point => [5.2 + 1.6 * (1 - (i / 5 - 1) ** 2), -20 + i * 4]);
  return (
    <>
      {pen(EDGE, usual(on), 1.5)}
      {state !== "not-ciliate" && pen(at.map(([x, y]) => `M${x} ${y}l11 -3`).join(""), undefined, 1)}
      {state === "gland-ciliate" && pen(at.map(([x, y]) => circle(x + 11.6, y - 3.2, 1.5)).join(""), wash("red"), 0.9)}
    </>
  );
};

// The blade cut across near its edge: what the edge does out of the plane.
export const edgeRolling: Draw = (state, on) => {
  const across: Record<string, string> = {
    "flat-edge": "M-21 0H21",
    revolute: "M-21 -4H8q11 0 11 7t-8 6t-4 -6",
    "recurved-edge": "M-21 -4H8q9 0 12 10",
    involute: "M-21 6H8q11 0 11 -7t-8 -6t-4 6",
    thickened: "M-21 0H10",
  };
  const d = across[state];
  if (!d) return undefined;
  return (
    <>
      {pen(d, undefined, 3.4)}
      {state === "thickened" && pen(circle(14, 0, 4.6), usual(on), 1.4)}
    </>
  );
};

export const edgeWaviness: Draw = (state) => {
  const along: Record<string, string> = {
    even: "M-21 0H21",
    wavy: "M-21 0q5.25 -9 10.5 0t10.5 0t10.5 0t10.5 0",
    crisped: "M-21 0q1.5 -9 3 0t3 0t3 0t3 0t3 0t3 0t3 0t3 0t3 0t3 0t3 0t3 0t3 0t3 0",
  };
  const d = along[state];
  return d ? pen(d, undefined, 2.4) : undefined;
};

export const edgeColour: Draw = (state, on) => {
  const band: Record<string, string | undefined> = {
    same: undefined,
    "dark-edge": wash("black"),
    "pale-edge": wash("white"),
    "red-edge": wash("red"),
  };
  if (!(state in band)) return undefined;
  return (
    <>
      {pen(EDGE, usual(on), 1.5)}
      {band[state] && pen("M4 -22Q9 0 4 22H-2Q2 0 -2 -22Z", band[state], 1)}
    </>
  );
};

// How far cuts go, on one and the same blade.
const cuts = (depth: number, count: number): Point[] => {
  const right: Point[] = [[0, 18]];
  for (let i = 0; i < count; i++) {
    const y = 14 - (30 / count) * (i + 0.5);
    right.push([15 - Math.abs(y) * 0.3, y + 3], [15 - Math.abs(y) * 0.3, y - 2], [15 * (1 - depth) + 0.6, y - 5]);
  }
  return [...right, [0, -20]];
};

export const lobeDepth: Draw = (state, on) => {
  const depth = { shallow: 0.25, half: 0.5, deep: 0.75, "to-the-midrib": 0.96 }[state];
  if (!depth) return undefined;
  return (
    <>
      {pen(mirrored(cuts(depth, 3)), usual(on), 1.4)}
      {pen("M0 22V-15", undefined, 0.8)}
    </>
  );
};

// Lobes that spread from the foot.
function palm(count: number, fill: string) {
  const points: Point[] = [[0, 14]];
  for (let i = 0; i < count; i++) {
    const angle = ((i - (count - 1) / 2) * (count > 5 ? 30 : 44) * Math.PI) / 180;
    const tip: Point = [Math.sin(angle) * 21, 6 - Math.cos(angle) * 25];
    if (i > 0) {
      const between = ((i - 0.5 - (count - 1) / 2) * (count > 5 ? 30 : 44) * Math.PI) / 180;
      points.push([Math.sin(between) * 9, 6 - Math.cos(between) * 11]);
    }
    points.push(tip);
  }
  return (
    <>
      {pen(line([...points, [0, 14]], true), fill, 1.4)}
      {pen("M0 14V23", undefined, 1.4)}
    </>
  );
}

export const lobing: Draw = (state, on) => {
  const fill = usual(on);
  const of = (right: Point[], isSmooth = true) => (
    <>
      {pen(mirrored(right, isSmooth), fill, 1.4)}
      {pen("M0 23V-14", undefined, 0.8)}
    </>
  );
  switch (state) {
    case "unlobed":
      return of([
        [0, 18],
        [9, 12],
        [11, 3],
        [7, -9],
        [0, -20],
      ]);
    case "lobed":
      return of([
        [0, 18],
        [10, 12],
        [14, 4],
        [7, 0],
        [12, -8],
        [5, -9],
        [0, -20],
      ]);
    case "pinnately-lobed":
      return of(cuts(0.6, 4));
    case "palmately-lobed":
      return palm(7, fill);
    case "two-lobed":
      return of([
        [0, 20],
        [7, 10],
        [12, -12],
        [6, -18],
        [0, -4],
      ]);
    case "three-lobed":
      return palm(3, fill);
    case "five-lobed":
      return palm(5, fill);
    case "many-lobed":
      return palm(9, fill);
    case "lyrate":
      return of([
        [0, 21],
        [4, 19],
        [5, 15],
        [1.4, 13],
        [6, 10],
        [6.4, 6],
        [1.6, 4],
        [12, -2],
        [11, -14],
        [0, -20],
      ]);
    case "runcinate":
      return of(
        [
          [0, 21],
          [2, 17],
          [10, 20],
          [4, 9],
          [12, 11],
          [5, 0],
          [12, 1],
          [4, -9],
          [0, -21],
        ],
        false,
      );
    case "pectinate":
      return pen(
        "M0 22V-20" + Array.from({ length: 10 }, (_, i) => `M0 ${18 - i * 4}l13 -2M0 ${18 - i * 4}l-13 -2`).join(""),
        undefined,
        1.7,
      );
    default:
      return undefined;
  }
};
