import { line, turn, wash, type Point } from "../pen";
import { circle, leaflet, mirrored, pen, green, LEAF, both, type Draw } from "./draw";

// How leaves are divided, veined and folded.

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
