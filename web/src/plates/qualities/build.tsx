import { line, smooth, turn, wash, type Point } from "../pen";
import { around, circle, leaflet, mirrored, pen, ray, usual, type Draw } from "./draw";

const AXIS = "M0 23V-22";
const green = () => wash("green");

const pair = (y: number, length = 15, degrees = 60) => leaflet(0, y, length, degrees) + leaflet(0, y, length, -degrees);

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
    "one-sided": [16, 9, 2, -5, -12].map((y) => leaflet(0, y, 17, 66, 0.3)).join(""),
  };
  const d = leaves[state];
  if (!d) return undefined;
  const hasAxis = !["equitant", "one-row", "two-rows"].includes(state);
  return (
    <>
      {hasAxis && pen(state === "rosette" ? "M0 20V-18" : AXIS, undefined, 1.8)}
      {pen(d, green(), 1.2)}
    </>
  );
};

export const insertion: Draw = (state) => {
  const stem = "M-3 -23V23H3V-23Z";
  const big = (y: number) => `M0 ${y}`;
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
      {pen(big(0) + d, green(), 1.4)}
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

const GROUND = "M-23 18H23";
const tufts = (at: Point[]) => at.map(([x, y]) => leaflet(x, y, 7, 40) + leaflet(x, y, 7, -40)).join("");

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

export const division: Draw = (state) => {
  const blade = (right: Point[]) => mirrored(right);
  const pinnae = (ys: number[], length: number, end: boolean, wide = 0.4) =>
    ys.map((y) => leaflet(0, y, length, 68, wide) + leaflet(0, y, length, -68, wide)).join("") +
    (end ? leaflet(0, -12, 11, 0, wide) : "");
  const twice = (n: number) =>
    [10, 2, -6, -13]
      .map((y) =>
        [1, -1]
          .map((s) => {
            const b = turn([0, y - 16 + (10 - y) * 0.2], 68 * s, [0, y]);
            return (
              line([[0, y], b]) +
              Array.from({ length: n }, (_, i) => {
                const k = (i + 1) / (n + 1);
                const at: Point = [b[0] * k, y + (b[1] - y) * k];
                return (
                  leaflet(at[0], at[1], 14 / n, 68 * s + 60, 0.4) + leaflet(at[0], at[1], 14 / n, 68 * s - 60, 0.4)
                );
              }).join("")
            );
          })
          .join(""),
      )
      .join("");
  const three = (x: number, y: number, length: number, a: number) =>
    [-70, 0, 70].map((d) => leaflet(x, y, length, a + d, 0.46)).join("");
  const drawn: Record<string, string> = {
    simple: blade([
      [0, 16],
      [9, 10],
      [11, 2],
      [7, -9],
      [0, -20],
    ]),
    compound: pinnae([6, -6], 15, true, 0.5),
    bifoliolate: leaflet(0, 8, 24, 34, 0.5) + leaflet(0, 8, 24, -34, 0.5),
    ternate: three(0, 4, 20, 0),
    biternate: [-70, 0, 70]
      .map((a) => {
        const c = turn([0, -8], a, [0, 4]);
        return line([[0, 4], c]) + three(c[0], c[1], 11, a);
      })
      .join(""),
    triternate: [-70, 0, 70]
      .map((a) => {
        const c = turn([0, -9], a, [0, 4]);
        return (
          line([[0, 4], c]) +
          [-60, 0, 60]
            .map((b) => {
              const e = turn([c[0], c[1] - 6], a + b, c);
              return line([c, e]) + three(e[0], e[1], 4.4, a + b);
            })
            .join("")
        );
      })
      .join(""),
    palmate: [-100, -50, 0, 50, 100].map((a) => leaflet(0, 6, 21, a, 0.36)).join(""),
    pedate:
      [-30, 0, 30].map((a) => leaflet(0, 6, 22, a, 0.26)).join("") +
      "M0 6Q-12 2 -16 10M0 6Q12 2 16 10" +
      leaflet(-10, 4, 13, -60, 0.3) +
      leaflet(10, 4, 13, 60, 0.3) +
      leaflet(-15, 8, 11, -120, 0.3) +
      leaflet(15, 8, 11, 120, 0.3),
    pinnate: pinnae([14, 6, -2, -10], 15, false) + leaflet(0, -14, 9, 20, 0.4),
    imparipinnate: pinnae([14, 5, -4], 14, true),
    paripinnate: pinnae([14, 6, -2, -10, -18], 14, false),
    interrupted:
      pinnae([16, 4, -8], 15, true) + [10, -2].map((y) => leaflet(0, y, 6, 75) + leaflet(0, y, 6, -75)).join(""),
    bipinnate: twice(3),
    tripinnate: twice(7),
    dissected: [-75, -50, -25, 0, 25, 50, 75]
      .map((a) => {
        const c = turn([0, -10], a, [0, 6]);
        return (
          line([[0, 6], c]) +
          [-40, -14, 14, 40]
            .map((b) => {
              const e = turn([c[0], c[1] - 11], a + b, c);
              return line([c, e]);
            })
            .join("")
        );
      })
      .join(""),
  };
  const d = drawn[state];
  if (!d) return undefined;
  return (
    <>
      {pen(
        ["simple"].includes(state)
          ? "M0 23V-12"
          : ["bifoliolate", "ternate", "palmate", "pedate", "biternate", "triternate", "dissected"].includes(state)
            ? "M0 23V4"
            : "M0 23V-16",
        undefined,
        1.5,
      )}
      {pen(d, state === "dissected" ? undefined : green(), 1)}
    </>
  );
};

const LEAF: Point[] = [
  [0, 18],
  [11, 11],
  [14, 2],
  [9, -10],
  [0, -20],
];
const both = (d: (s: number) => string) => d(1) + d(-1);

export const venation: Draw = (state) => {
  const lines: Record<string, string> = {
    pinnate:
      "M0 22V-17" +
      both((s) => [12, 5, -2, -9].map((y) => `M0 ${y}L${s * (11 - Math.abs(y) * 0.3)} ${y - 7}`).join("")),
    palmate: "M0 22V-17" + both((s) => `M0 16L${s * 13} 4M0 16L${s * 11} -7`),
    "three-veined": "M0 22V-17" + both((s) => `M0 16Q${s * 9} 6 ${s * 4} -13`),
    parallel: "M0 22V-19" + both((s) => [3, 6, 9].map((x) => `M${s * x} ${16 - x * 0.4}V${-16 + x * 1.3}`).join("")),
    curved:
      "M0 22V-19" +
      both((s) => [12, 5, -2].map((y) => `M0 ${y}Q${s * 13} ${y - 4} ${s * 3} ${-16 + (12 - y) * 0.2}`).join("")),
    net: "M-9 10L-3 13L4 9L10 11M-12 2L-5 5L2 1L8 4L12 1M-10 -6L-3 -3L4 -7L9 -5M-5 -13L2 -11L5 -14M-3 13L-5 5L-3 -3L-5 -13M4 9L2 1L4 -7L2 -11M9 11L8 4L9 -5",
    "one-veined": "M0 22V-19",
    forked: "M0 22V14" + both((s) => `M0 14L${s * 5} 4L${s * 9} -6M${s * 5} 4L${s * 2} -16M${s * 2.6} 9L${s * 11} 2`),
  };
  const d = lines[state];
  if (!d) return undefined;
  return (
    <>
      {pen(mirrored(LEAF), green(), 1.3)}
      {pen(d, undefined, 1.3)}
    </>
  );
};

export const veinRun: Draw = (state) => {
  const rim = "M4 -22l5 2l-3 9l5 2l-3 9l5 2l-3 9l5 2l-3 9L-20 22V-22Z";
  const ends: Record<string, string> = {
    "to-teeth": "M-20 -10L9 -19M-20 1L11 -9M-20 12L13 2M-20 22L15 13",
    "to-sinuses": "M-20 -2L6 -11M-20 9L8 0M-20 20L10 11",
    "to-margin": "M-20 -8L8 -15M-20 4L9 -4M-20 16L12 7",
    looped: "M-20 -4Q2 -8 2 -18M-20 8Q4 4 1 -10M-20 20Q5 15 2 2",
    fading: "M-20 -8L-4 -12M-20 4L-4 0M-20 16L-4 12",
  };
  const d = ends[state];
  if (!d) return undefined;
  return (
    <>
      {pen(rim, green(), 1.3)}
      {pen(d, undefined, 1.8)}
    </>
  );
};

export const veinProminence: Draw = (state) => {
  const across: Record<string, string> = {
    sunk: "M-21 0H-5q5 9 10 0H21",
    level: "M-21 0H21M-2 0h4",
    raised: "M-21 0H-5q5 -13 10 0H21",
  };
  const d = across[state];
  return d ? pen(d, undefined, 3) : undefined;
};

// Young leaves cut across.
export const vernation: Draw = (state) => {
  const across: Record<string, string> = {
    flat: "M-20 0H20",
    folded: "M-2 -18L0 14L2 -18",
    pleated: "M-18 10L-12 -10L-6 10L0 -10L6 10L12 -10L18 10",
    rolled: "M2 0q-6 -2 -5 5t10 4t6 -13t-16 -6t-10 17t14 14",
    supervolute: "M2 2q-5 -3 -6 3t9 6t8 -14t-17 -6M-4 -9q-12 4 -11 14t14 13t18 -10",
    "involute-bud": "M0 12H-12q-8 0 -8 -8t7 -7t4 8M0 12H12q8 0 8 -8t-7 -7t-4 8",
    "revolute-bud": "M0 -12H-12q-8 0 -8 8t7 7t4 -8M0 -12H12q8 0 8 8t-7 7t-4 -8",
    circinate: "M0 22V2q0 -20 -12 -12q-7 8 3 12q8 0 6 -7q-4 -4 -5 1",
  };
  const d = across[state];
  return d ? pen(d, undefined, 2.6) : undefined;
};

export const aestivation: Draw = (state) => {
  const arc = (a: number, span: number, r: number) => {
    const from = turn([0, -r], a, [0, 0]);
    const to = turn([0, -r], a + span, [0, 0]);
    return `M${from.join(" ")}A${r} ${r} 0 0 1 ${to.join(" ")}`;
  };
  const rings: Record<string, string> = {
    valvate: around(5, (a) => arc(a + 2, 68, 16)),
    imbricate: arc(0, 92, 18) + arc(140, 92, 18) + arc(80, 80, 14) + arc(220, 92, 14) + arc(300, 80, 14),
    contorted: around(5, (a) => {
      const f = turn([0, -18], a, [0, 0]);
      const t = turn([0, -12], a + 92, [0, 0]);
      return `M${f.join(" ")}A20 20 0 0 1 ${t.join(" ")}`;
    }),
    "one-cap": circle(0, 0, 17),
    naked: circle(0, 0, 6) + around(6, (a) => ray(a, 8, 11)),
  };
  const d = rings[state];
  return d ? pen(d, undefined, 2.4) : undefined;
};

const petal = (a: number, length: number, wide: number) => leaflet(0, 0, length, a, wide);

export const symmetry: Draw = (state) => {
  const flowers: Record<string, string> = {
    radial: around(5, (a) => petal(a, 20, 0.6)),
    bilateral:
      petal(0, 17, 0.7) + petal(62, 15, 0.4) + petal(-62, 15, 0.4) + petal(150, 20, 0.4) + petal(-150, 20, 0.4),
    asymmetric: petal(-10, 20, 0.6) + petal(70, 10, 0.7) + petal(140, 21, 0.4) + petal(230, 13, 0.9),
  };
  const d = flowers[state];
  return d ? pen(d, wash("pink"), 1.3) : undefined;
};

export const sex: Draw = (state) => {
  const stamen = (a: number) => ray(a, 3, 12) + circle(...turn([0, -14], a), 2.2);
  const ovary = circle(0, 2, 4.4, 6) + "M0 -4V-11M-3 -12H3";
  const parts: Record<string, string> = {
    bisexual: around(6, stamen) + ovary,
    male: around(6, stamen),
    female: ovary,
    sterile: "",
  };
  if (state === "male-above" || state === "female-above") {
    const [top, low] = state === "male-above" ? ["♂", "♀"] : ["♀", "♂"];
    return (
      <>
        {pen(circle(0, -9, 8, 12) + circle(0, 11, 8, 11), wash("white"), 1.3)}
        {[top, low].map((sign, i) => (
          <text key={sign} x={0} y={i ? 16 : -4} fontSize={14} textAnchor="middle" fill="currentColor">
            {sign}
          </text>
        ))}
      </>
    );
  }
  const d = parts[state];
  if (d === undefined) return undefined;
  return (
    <>
      {pen(
        around(5, (a) => petal(a, 22, 0.6)),
        wash("white"),
        1.1,
      )}
      {pen(d, d ? wash("yellow") : undefined, 1.4)}
    </>
  );
};

export const dehiscence: Draw = (state, on) => {
  const fill = usual(on);
  const pod = "M0 22Q-12 0 0 -22Q12 0 0 22Z";
  const drawn: Record<string, [string, string]> = {
    closed: [circle(0, 0, 16), ""],
    valves: ["M-2 18Q-22 4 -16 -18Q-6 -8 -2 18ZM2 18Q22 4 16 -18Q6 -8 2 18Z", "M0 18V-10"],
    teeth: ["M-12 18Q-16 -2 -8 -8L-10 -16L-4 -9L0 -18L4 -9L10 -16L8 -8Q16 -2 12 18Z", ""],
    pores: [circle(0, 2, 15), circle(-7, -5, 2.6) + circle(0, -8, 2.6) + circle(7, -5, 2.6)],
    slits: [circle(0, 2, 15, 18), "M-6 14V-8M0 16V-10M6 14V-8"],
    lid: ["M-13 -2Q-15 20 0 20Q15 20 13 -2ZM-12 -8Q0 -26 14 -14Z", ""],
    "one-seam": [pod, "M0 -20Q5 0 0 20"],
    "two-seams": ["M-2 22Q-18 2 -8 -22Q-4 0 -2 22ZM2 22Q18 2 8 -22Q4 0 2 22Z", ""],
    "to-base": ["M0 21Q-22 14 -15 -18Q-4 -6 0 21ZM0 21Q22 14 15 -18Q4 -6 0 21Z", circle(0, 4, 5)],
    "half-way": ["M0 20Q-17 16 -15 -14Q-5 -10 0 2Q5 -10 15 -14Q17 16 0 20Z", ""],
    breaking: [circle(0, -16, 6, 5) + circle(0, -4, 7, 5) + circle(0, 9, 7, 5) + circle(3, 20, 6, 3), ""],
    schizo: ["M-2 18Q-16 8 -9 -16Q-2 -6 -2 18ZM2 18Q16 8 9 -16Q2 -6 2 18Z", "M0 -20V20M-9 -16L0 -20L9 -16"],
    explosive: [
      "M-4 16q-12 -10 -8 -28q4 4 5 12q0 8 3 16ZM4 16q12 -10 8 -28q-4 4 -5 12q0 8 -3 16Z",
      around(7, (a) => ray(a, 15, 22, [0, -6])),
    ],
  };
  const own = drawn[state];
  if (!own) return undefined;
  return (
    <>
      {pen(own[0], fill, 1.5)}
      {pen(own[1], state === "pores" ? wash("black") : undefined, 1.3)}
    </>
  );
};

export const huskSplitting: Draw = (state) => {
  const coats: Record<string, string> = {
    "to-base": "M0 21Q-23 14 -17 -17Q-9 -10 -8 6ZM0 21Q23 14 17 -17Q9 -10 8 6Z",
    "half-way": "M0 21Q-19 18 -17 -8Q-17 -19 -9 -19Q-8 -8 0 -2Q8 -8 9 -19Q17 -19 17 -8Q19 18 0 21Z",
    "at-tip": "M0 20Q-18 18 -16 -2Q-14 -14 -3 -18L0 -11L3 -18Q14 -14 16 -2Q18 18 0 20Z",
    "not-splitting": circle(0, 1, 17),
  };
  const d = coats[state];
  if (!d) return undefined;
  return (
    <>
      {state !== "not-splitting" && pen(circle(0, 2, 10, 12), wash("brown"), 1.2)}
      {pen(d, green(), 1.5)}
    </>
  );
};

const flowerDot = (p: Point, r = 2.4) => circle(p[0], p[1], r);

export const inflorescenceType: Draw = (state) => {
  const stalks: Record<string, [string, Point[]]> = {
    solitary: ["M0 23V-10", [[0, -14]]],
    paired: [
      "M0 23V0L-7 -12M0 0L7 -12",
      [
        [-7, -14],
        [7, -14],
      ],
    ],
    raceme: [
      "M0 23V-20M0 12L9 6M0 6L-9 0M0 -1L8 -7M0 -8L-7 -13",
      [
        [10, 5],
        [-10, -1],
        [9, -8],
        [-8, -14],
        [0, -21],
      ],
    ],
    spike: [
      "M0 23V-20",
      [
        [2.6, 12],
        [-2.6, 8],
        [2.6, 4],
        [-2.6, 0],
        [2.6, -4],
        [-2.6, -8],
        [2.6, -12],
        [-2.6, -16],
        [0, -20],
      ],
    ],
    catkin: [
      "M0 -22V-16",
      [
        [0, -14],
        [3, -10],
        [-3, -10],
        [0, -6],
        [3, -2],
        [-3, -2],
        [0, 2],
        [3, 6],
        [-3, 6],
        [0, 10],
        [3, 14],
        [-3, 14],
        [0, 18],
      ],
    ],
    panicle: [
      "M0 23V-18M0 12L14 4M7 8L11 11M0 10L-14 2M-7 6L-11 9M0 0L11 -7M0 -2L-11 -9",
      [
        [15, 3],
        [12, 12],
        [-15, 1],
        [-12, 10],
        [12, -8],
        [-12, -10],
        [6, -3],
        [-6, -5],
        [0, -20],
      ],
    ],
    corymb: [
      "M0 23V-12M0 16L-17 -12M0 10L-9 -12M0 8L9 -12M0 14L17 -12",
      [
        [-17, -14],
        [-9, -14],
        [0, -14],
        [9, -14],
        [17, -14],
      ],
    ],
    umbel: [
      "M0 23V4M0 4L-16 -10M0 4L-9 -15M0 4L0 -17M0 4L9 -15M0 4L16 -10",
      [
        [-16, -12],
        [-9, -17],
        [0, -19],
        [9, -17],
        [16, -12],
      ],
    ],
    "compound-umbel": [
      "M0 23V8M0 8L-14 -6M0 8L0 -10M0 8L14 -6" +
        [
          [-14, -6],
          [0, -10],
          [14, -6],
        ]
          .map(([x = 0, y = 0]) => `M${x} ${y}l-5 -7M${x} ${y}v-9M${x} ${y}l5 -7`)
          .join(""),
      [-14, 0, 14].flatMap((x): Point[] => {
        const y = x === 0 ? -10 : -6;
        return [
          [x - 5, y - 8],
          [x, y - 10],
          [x + 5, y - 8],
        ];
      }),
    ],
    head: [
      "M0 23V0M-12 -2Q0 4 12 -2",
      [
        [-11, -5],
        [-7, -8],
        [-3, -10],
        [1, -10],
        [5, -9],
        [9, -7],
        [12, -5],
        [-5, -5],
        [0, -6],
        [5, -5],
      ],
    ],
    cyme: [
      "M0 23V6L-9 -4M0 6L9 -2M0 6V-8M9 -2L15 -10M9 -2L10 -12",
      [
        [0, -10],
        [-10, -6],
        [16, -12],
        [10, -14],
      ],
    ],
    dichasium: [
      "M0 23V6V-6M0 6L-11 -4V-10M0 6L11 -4V-10M-11 -4L-18 -12M-11 -4L-5 -12M11 -4L18 -12M11 -4L5 -12",
      [
        [0, -9],
        [-11, -13],
        [11, -13],
        [-18, -14],
        [-5, -14],
        [18, -14],
        [5, -14],
      ],
    ],
    monochasium: [
      "M-6 23Q-10 -6 4 -14Q14 -16 14 -7Q12 -2 8 -5",
      [
        [-9, 6],
        [-7, -2],
        [-2, -9],
        [4, -15],
        [12, -15],
        [15, -9],
      ],
    ],
    whorls: [
      "M0 23V-20",
      [
        [-8, 10],
        [-4, 12],
        [4, 12],
        [8, 10],
        [-7, -2],
        [-3, 0],
        [3, 0],
        [7, -2],
        [-5, -13],
        [0, -12],
        [5, -13],
      ],
    ],
    glomerule: [
      "M0 23V2",
      [
        [0, -6],
        [-5, -4],
        [5, -4],
        [-7, -9],
        [7, -9],
        [-3, -11],
        [3, -11],
        [0, -14],
        [-6, -14],
        [6, -14],
      ],
    ],
    fascicle: [
      "M0 23V10M0 10L-10 -4M0 10L-4 -16M0 10L4 -8M0 10L11 -14",
      [
        [-10, -6],
        [-4, -18],
        [4, -10],
        [11, -16],
      ],
    ],
    spikelets: ["M0 23V-16M0 12L8 4M0 4L-8 -4M0 -4L7 -12", []],
    spadix: ["M0 23V10", []],
    thyrse: [
      "M0 23V-18M0 12L9 6M9 6L13 2M9 6L14 8M0 5L-9 -1M-9 -1L-13 -5M-9 -1L-14 1M0 -4L8 -9M8 -9L11 -13",
      [
        [14, 1],
        [15, 9],
        [9, 3],
        [-14, -6],
        [-15, 2],
        [-9, -4],
        [12, -14],
        [8, -12],
        [0, -20],
      ],
    ],
  };
  const own = stalks[state];
  if (!own) return undefined;
  return (
    <>
      {pen(own[0], undefined, 1.4)}
      {pen(own[1].map((p) => flowerDot(p)).join(""), wash("pink"), 1)}
      {state === "spikelets" &&
        pen(
          (
            [
              [9, 3, 40],
              [-9, -5, -40],
              [8, -13, 30],
              [0, -16, 0],
            ] as const
          )
            .map(([x, y, a]) => leaflet(x, y, 11, a, 0.4))
            .join(""),
          wash("pale"),
          1.1,
        )}
      {state === "spadix" && (
        <>
          {pen("M-2 12Q-20 -6 -6 -23Q8 -20 8 -4Q8 8 2 12Z", green(), 1.3)}
          {pen("M-3 12V-12a3 4 0 0 1 6 0V12Z", wash("yellow"), 1.3)}
        </>
      )}
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

const gon = (n: number, r: number, a = 0) =>
  line(
    Array.from({ length: n }, (_, i) => turn([0, -r], a + (360 / n) * i)),
    true,
  );

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

export const ovaryPosition: Draw = (state) => {
  const flowers: Record<string, [string, string]> = {
    superior: ["M0 23V14M-4 14L-20 -6M4 14L20 -6M-4 14L-12 2M4 14L12 2", circle(0, 5, 6, 9)],
    inferior: ["M0 23V20M-5 -2L-20 -18M5 -2L20 -18M-5 -2L-12 -14M5 -2L12 -14", circle(0, 9, 7, 11)],
    "half-inferior": ["M0 23V18M-7 6L-20 -10M7 6L20 -10M-7 6L-12 -4M7 6L12 -4", circle(0, 6, 7, 11)],
  };
  const own = flowers[state];
  if (!own) return undefined;
  return (
    <>
      {pen(own[0], undefined, 2)}
      {pen(own[1], green(), 1.5)}
      {pen("M0 -3V-12M-3 -13H3", undefined, 1.4)}
    </>
  );
};

export const exsertion: Draw = (state) => {
  const reach = { included: 2, exserted: -14, "far-exserted": -23 }[state];
  if (reach === undefined) return undefined;
  return (
    <>
      {pen("M-6 22L-8 0L-13 -6H13L8 0L6 22Z", wash("pink"), 1.4)}
      {pen([-3, 0, 3].map((x) => `M${x} 16L${x * 1.6} ${reach + 3}`).join(""), undefined, 1.2)}
      {pen([-3, 0, 3].map((x) => circle(x * 1.6, reach + 1, 2)).join(""), wash("yellow"), 1.1)}
    </>
  );
};

export const corollaForm: Draw = (state) => {
  const forms: Record<string, string> = {
    open: around(5, (a) => petal(a, 21, 0.62)),
    bell: "M-3 -18Q-13 -12 -12 6L-18 14Q0 9 18 14L12 6Q13 -12 3 -18Z",
    urn: "M-3 -18Q-17 -10 -14 4Q-10 12 -5 13L-9 18H9L5 13Q10 12 14 4Q17 -10 3 -18Z",
    tube: "M-4 -20V14L-7 19H7L4 14V-20Z",
    funnel: "M-2 -21L-3 -2L-19 17Q0 12 19 17L3 -2L2 -21Z",
    salver: "M-2 22V-8H-20V-12H20V-8H2V22Z",
    cross: [0, 90, 180, 270].map((a) => petal(a, 22, 0.5)).join(""),
    cup: "M-2 18Q-18 14 -17 -10Q-8 -4 0 -10Q8 -4 17 -10Q18 14 2 18Z",
    "two-lipped": "M-4 20L-5 0Q-14 -18 6 -20Q4 -10 6 -4Q20 -2 20 10Q10 10 4 4L4 20Z",
    pea: "M0 6Q-18 2 -16 -14Q-8 -22 0 -16Q8 -22 16 -14Q18 2 0 6ZM-8 6Q-12 16 -2 18L0 6ZM8 6Q12 16 2 18L0 6Z",
    spurred: "M-20 -14Q-14 -6 -6 -6Q2 -18 16 -14Q22 -4 12 6Q2 12 -4 4Q-12 2 -20 -14Z",
    strap: "M-3 22V8L-5 -19L-2.6 -17L-1 -20L1 -17L3 -20L5 -18L3 8V22Z",
    hooded: "M-8 20Q-14 -2 -6 -14Q4 -26 14 -12Q16 -4 10 -4Q6 -12 2 -4Q4 8 8 20Z",
  };
  const d = forms[state];
  return d ? pen(d, wash(state === "strap" ? "yellow" : "pink"), 1.5) : undefined;
};

export const lobeAttitude: Draw = (state) => {
  const tube = "M-6 22L-7 2H7L6 22Z";
  const lobes: Record<string, string> = {
    erect: "M-7 2Q-10 -12 -5 -20Q-1 -10 0 2Q1 -10 5 -20Q10 -12 7 2Z",
    spreading: "M-7 2Q-12 -6 -22 -6Q-16 2 -7 4ZM7 2Q12 -6 22 -6Q16 2 7 4Z",
    reflexed: "M-7 2Q-18 -6 -19 12Q-14 4 -7 6ZM7 2Q18 -6 19 12Q14 4 7 6Z",
    incurved: "M-7 2Q-16 -10 0 -16Q-6 -6 -2 2ZM7 2Q16 -10 0 -16Q6 -6 2 2Z",
  };
  const d = lobes[state];
  if (!d) return undefined;
  return pen(tube + d, wash("pink"), 1.4);
};

export const stamenLengths: Draw = (state) => {
  const tops: Record<string, number[]> = {
    equal: [-14, -14, -14, -14, -14],
    "two-long": [-18, -4, -4, -18],
    "four-long": [-2, -18, -18, -18, -18, -2],
    unequal: [-20, -12, -4, 2, 8],
  };
  const own = tops[state];
  if (!own) return undefined;
  const x = (i: number) => (i - (own.length - 1) / 2) * 8;
  return (
    <>
      {pen(own.map((top, i) => `M${x(i) * 0.6} 20L${x(i)} ${top}`).join(""), undefined, 1.6)}
      {pen(own.map((top, i) => circle(x(i), top - 1, 2.6)).join(""), wash("yellow"), 1.2)}
    </>
  );
};

export const placentation: Draw = (state) => {
  const walls: Record<string, [string, Point[]]> = {
    axile: [
      around(3, (a) => ray(a, 0, 18)),
      [
        [3, 3],
        [-3, 3],
        [4, -2],
        [-4, -2],
        [0, 5],
      ],
    ],
    parietal: [
      "",
      [
        [0, -15],
        [13, 7],
        [-13, 7],
        [3, -14],
        [-3, -14],
      ],
    ],
    "free-central": [
      circle(0, 0, 4),
      [
        [0, -7],
        [6, 3],
        [-6, 3],
        [6, -4],
        [-6, -4],
      ],
    ],
    basal: ["M0 18V12", [[0, 8]]],
    apical: ["M0 -18V-12", [[0, -8]]],
    marginal: [
      "M-18 0H-12",
      [
        [-10, -2],
        [-10, 3],
        [-6, 0],
      ],
    ],
  };
  const own = walls[state];
  if (!own) return undefined;
  return (
    <>
      {pen(circle(0, 0, 18), green(), 2)}
      {pen(own[0], undefined, 1.6)}
      {pen(own[1].map(([x, y]) => circle(x, y, 2.6)).join(""), wash("white"), 1.1)}
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

const measure = (long: number, own: number) => (
  <>
    {pen(`M-8 20V${20 - long}`, undefined, 6)}
    {pen(`M8 20V${20 - own}`, undefined, 3)}
    {pen("M-16 20H16", undefined, 1)}
  </>
);

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

export const ligule: Draw = (state) => {
  const tops: Record<string, string> = {
    membrane: "M-8 2Q-7 -8 0 -9Q7 -8 8 2Z",
    hairs: [-8, -5, -2, 1, 4, 7].map((x) => `M${x} 2l0.5 -8`).join(""),
    "fringed-skin": "M-8 2Q-7 -5 0 -5Q7 -5 8 2Z" + [-6, -3, 0, 3, 6].map((x) => `M${x} -4l0.4 -6`).join(""),
    none: "",
  };
  const d = tops[state];
  if (d === undefined) return undefined;
  return (
    <>
      {pen("M-8 23V2H8V23Z", green(), 1.3)}
      {pen("M8 2Q12 -8 22 -18L14 -20Q2 -10 -8 2Z", green(), 1.3)}
      {pen(d, state === "hairs" ? undefined : wash("white"), 1.3)}
    </>
  );
};

export const pappus: Draw = (state) => {
  const fan = [-50, -32, -16, 0, 16, 32, 50];
  const crowns: Record<string, string> = {
    hairs: fan.map((a) => ray(a, 2, 26, [0, 6])).join(""),
    feathery: fan
      .map(
        (a) =>
          ray(a, 2, 24, [0, 6]) +
          [10, 15, 20]
            .map((r) => {
              const p = turn([0, 6 - r], a, [0, 6]);
              return `M${p[0] - 2.6} ${p[1] - 1.6}L${p[0]} ${p[1]}L${p[0] + 2.6} ${p[1] - 1.6}`;
            })
            .join(""),
      )
      .join(""),
    scales: [-36, -12, 12, 36].map((a) => leaflet(0, 6, 16, a, 0.4)).join(""),
    bristles: ray(-20, 2, 22, [0, 6]) + ray(20, 2, 22, [0, 6]),
    crown: "M-5 6V1H5V6",
    none: "",
  };
  const d = crowns[state];
  if (d === undefined) return undefined;
  return (
    <>
      {pen("M-5 6Q-4 18 0 22Q4 18 5 6Z", wash("brown"), 1.4)}
      {pen(d, state === "scales" || state === "crown" ? wash("white") : undefined, 1.2)}
    </>
  );
};

export const florets: Draw = (state) => {
  const rays = around(12, (a) => leaflet(...turn([0, -8], a), 13, a, 0.32));
  const disc = around(10, (a) => circle(...turn([0, -6], a), 2)) + circle(0, 0, 3);
  const heads: Record<string, [string, string]> = {
    "disc-only": ["", around(14, (a) => circle(...turn([0, -11], a), 2.2)) + disc],
    "rays-only": [around(16, (a) => leaflet(0, 0, 21, a, 0.2)), ""],
    both: [rays, disc],
  };
  const own = heads[state];
  if (!own) return undefined;
  return (
    <>
      {pen(own[0], wash(state === "rays-only" ? "yellow" : "white"), 1.1)}
      {pen(own[1], wash("yellow"), 1)}
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

export const stomata: Draw = (state) => {
  const dots = (y: number) => [-16, -8, 0, 8, 16].map((x) => circle(x, y, 1.6)).join("");
  const at: Record<string, string> = {
    beneath: dots(7),
    above: dots(-7),
    both: dots(7) + dots(-7),
    bands: "M-18 4H-4V8H-18ZM4 4H18V8H4Z",
  };
  const d = at[state];
  if (!d) return undefined;
  return (
    <>
      {pen("M-21 -3H21V3H-21Z", green(), 1.4)}
      {pen(d, wash("white"), 1.2)}
    </>
  );
};

export const dimorphism: Draw = (state) => {
  const frond = (x: number, wide: number) =>
    `M${x} 22V-18` +
    [-14, -7, 0, 7].map((y) => leaflet(x, y + 6, wide, 70, 0.36) + leaflet(x, y + 6, wide, -70, 0.36)).join("");
  if (state === "alike") return pen(frond(-11, 9) + frond(11, 9), green(), 1.1);
  if (state === "unlike") return pen(frond(-11, 10) + frond(12, 3.4), green(), 1.1);
  return undefined;
};

export const seeds: Draw = (state) => {
  const at: Record<string, Point[]> = {
    one: [[0, 0]],
    few: [
      [-6, -4],
      [6, -4],
      [-5, 6],
      [5, 6],
    ],
    many: [
      [-8, -7],
      [0, -9],
      [8, -7],
      [-10, 0],
      [-4, -1],
      [3, -1],
      [10, 0],
      [-7, 7],
      [0, 6],
      [7, 7],
      [0, 12],
    ],
  };
  const own = at[state];
  if (!own) return undefined;
  return (
    <>
      {pen(circle(0, 0, 18), wash("pale"), 1.6)}
      {pen(own.map(([x, y]) => circle(x, y, state === "many" ? 2.2 : 3.6)).join(""), wash("brown"), 1.2)}
    </>
  );
};

export const doubling: Draw = (state) => {
  if (state === "single") return pen(around(5, (a) => petal(a, 20, 0.62)) + circle(0, 0, 3), wash("pink"), 1.3);
  if (state === "double")
    return pen(
      around(9, (a) => petal(a, 22, 0.44)) +
        around(7, (a) => petal(a + 15, 15, 0.5)) +
        around(5, (a) => petal(a, 9, 0.6)),
      wash("pink"),
      1.1,
    );
  return undefined;
};

export const time: Draw = (state) => {
  const catkin = circle(10, 2, 4, 12);
  const drawn: Record<string, [string, string]> = {
    "before-leaves": ["", catkin],
    "with-leaves": [leaflet(-2, 4, 13, -40) + leaflet(-2, -6, 13, -60), catkin],
    "after-leaves": [leaflet(-2, 8, 19, -50, 0.6) + leaflet(-2, -4, 19, -60, 0.6), circle(7, -9, 2, 4)],
  };
  const own = drawn[state];
  if (!own) return undefined;
  return (
    <>
      {pen("M-2 23V-20M-2 -8L10 -10", undefined, 2)}
      {pen(own[0], green(), 1.2)}
      {pen(own[1], wash("yellow"), 1.2)}
    </>
  );
};

export const presence: Draw = (state, on) => {
  if (state === "present") return pen(circle(0, 0, 12), usual(on), 1.6);
  if (state === "absent") return pen(circle(0, 0, 12) + "M-15 15L15 -15", undefined, 1.4);
  if (state === "conspicuous") return pen(circle(0, 0, 20), usual(on), 1.8);
  if (state === "inconspicuous") return pen(circle(0, 0, 3), usual(on), 1.2);
  return undefined;
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

// Kinds of fruit that no plate of a taxon draws.
export const fruitType: Draw = (state) => {
  const fruits: Record<string, [string, string]> = {
    follicle: ["M0 22Q-14 4 -3 -20Q4 -8 0 22Z", "M-3 -20Q-2 0 0 22"],
    siliqua: ["M-3 20V-16H3V20Z", "M-3 -16L-10 14M3 -16L10 14M0 -16V-22"],
    silicula: ["M0 14Q-18 0 0 -14Q18 0 0 14Z", "M0 -14V14M0 14V23M0 -14V-19"],
    hip: ["M-6 -12Q-16 4 0 20Q16 4 6 -12Z", "M-6 -12L-11 -21M0 -13V-22M6 -12L11 -21"],
    achenetum: [[-8, 0, 8].flatMap((x) => [-8, 0, 8].map((y) => circle(x + y * 0.2, y, 4, 5))).join(""), "M0 13V23"],
    "utricle-fruit": ["M0 20Q-17 12 -11 -6Q-4 -20 0 -22Q4 -20 11 -6Q17 12 0 20Z", circle(0, 4, 5)],
    cone: [
      [14, 7, 0, -7, -14].map((y, i) => leaflet(-5, y + 5, 11, -16, 0.9) + leaflet(5, y + 5, 11 - i, 16, 0.9)).join(""),
      "M0 20V23",
    ],
    "berry-cone": [circle(0, 2, 14), "M-13 6Q0 0 13 6M-11 -6Q0 -10 11 -6M0 16V23"],
    syncarp: [[-12, -4, 4, 12].flatMap((y) => [-7, 0, 7].map((x) => circle(x, y, 4))).join(""), "M0 16V23"],
  };
  const own = fruits[state];
  if (!own) return undefined;
  return (
    <>
      {pen(own[0], wash(["hip", "berry-cone"].includes(state) ? "red" : "pale"), 1.4)}
      {pen(own[1], undefined, 1.3)}
    </>
  );
};
