import { wash, type Point } from "../pen";
import { around, circle, leaflet, pen, ray, usual, green, type Draw } from "./draw";

// Fruit and how it opens.

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
