import { hand, line, turn, wash, type Point } from "../pen";
import { around, circle, mirrored, pen, ray, usual, type Draw, type OnPart } from "./draw";

const BLADE: Point[] = [
  [0, 20],
  [9, 13],
  [12.6, 4],
  [8, -9],
  [0, -21],
];

/** The plain part that a coat, a colour or a mark is shown on. */
function ground(on: OnPart, fill = usual(on)) {
  const { part, organ } = on;
  if (
    [
      "petiole",
      "rachis",
      "stem",
      "twig",
      "pedicel",
      "peduncle",
      "culm",
      "branch",
      "petiolule",
      "stipe",
      "trunk",
    ].includes(part)
  )
    return pen("M-9 -22V22H9V-22Z", fill, 1.4);
  if (part === "bark") return pen("M-20 -22H20V22H-20Z", fill, 1.4);
  if (organ === "bud")
    return pen(
      mirrored([
        [0, 20],
        [8, 16],
        [10, 4],
        [6, -10],
        [0, -21],
      ]),
      fill,
      1.4,
    );
  if (organ === "fruit") return pen(circle(0, 0, 17), fill, 1.4);
  if (organ === "flower")
    return pen(
      around(5, (a) => {
        const at = (p: Point) => turn(p, a);
        return `M0 0Q${at([10, -8]).join(" ")} ${at([0, -21]).join(" ")}Q${at([-10, -8]).join(" ")} 0 0Z`;
      }),
      fill,
      1.3,
    );
  return (
    <>
      {pen(mirrored(BLADE), fill, 1.4)}
      {organ === "leaf" && pen("M0 23V-15", undefined, 0.8)}
    </>
  );
}

// Places on the part, the same at each drawing.
function places(count: number, seed = 5): Point[] {
  const next = hand(seed);
  const found: Point[] = [];
  while (found.length < count) {
    const [x, y]: Point = [(next() * 2 - 1) * 9, (next() * 2 - 1) * 17];
    if (Math.abs(x) < 9 * (1 - (y / 24) ** 2)) found.push([x, y]);
  }
  return found;
}

export const hairDensity: Draw = (state, on) => {
  const count = { glabrous: 0, glabrescent: 0, hairy: 30, sparse: 9, moderate: 26, dense: 70, tomentose: 0 }[state];
  if (count === undefined) return undefined;
  const stroke = state === "hairy" ? "l2 -6" : "l1.2 -4.4";
  return (
    <>
      {ground(on, state === "tomentose" ? wash("white") : undefined)}
      {pen(
        places(count, state.length)
          .map(([x, y]) => `M${x} ${y}${stroke}`)
          .join(""),
        undefined,
        1.1,
      )}
      {state === "glabrescent" &&
        pen(
          places(7, 3)
            .filter(([, y]) => y > 4)
            .map(([x, y]) => `M${x} ${y}l1 -4`)
            .join("") + "M-6 -2l12 -12M6 -2l-12 -12",
          undefined,
          1,
        )}
      {state === "tomentose" &&
        pen(
          places(80, 9)
            .map(([x, y]) => `M${x} ${y}q2 -2 0 -3t2 -2`)
            .join(""),
          undefined,
          0.8,
        )}
    </>
  );
};

const SKIN = "M-23 16Q0 12 23 16V23H-23Z";

const arms = (count: number, length: number, centre: Point) =>
  Array.from({ length: count }, (_, i) => ray(-80 + (160 / (count - 1)) * i, 0, length, centre)).join("");

export const hairForm: Draw = (state, on) => {
  const hairs: Record<string, string> = {
    simple: "M0 14Q1 -4 5 -20",
    branched: "M0 14V-2L-8 -16M0 -2L7 -14M3 -8L10 -8",
    forked: "M0 14V-4L-9 -20M0 -4L9 -20",
    star: "M0 14V4" + around(8, (a) => ray(a, 0, 15, [0, -4])),
    "t-shaped": "M0 14V-2M-20 -3Q0 -1 20 -3",
    dendritic: "M0 14V-20M0 6L-8 0M0 4L8 -2M0 -4L-7 -10M0 -6L7 -12M0 -14L-4 -19M0 -14L4 -19",
    glandular: "M0 14V-8",
    hooked: "M0 14V-10q0 -9 7 -9t5 8",
    barbed: "M0 14V-20M0 8l-4 4M0 8l4 4M0 0l-4 4M0 0l4 4M0 -8l-4 4M0 -8l4 4M0 -16l-4 4M0 -16l4 4",
    stinging: "M-4 14Q-2 0 -1 -14M4 14Q2 0 1 -14",
    "bulbous-based": "M0 8Q1 -6 3 -20",
    jointed: "M-2 14L-1.4 -20M2 14L1.4 -20M-2 6H2M-2 -2H2M-1.6 -10H1.6",
    "club-hairs": "M-1 14Q-1 -2 -5 -14Q0 -23 5 -14Q1 -2 1 14",
    feathery: "M0 14V-20" + Array.from({ length: 8 }, (_, i) => `M0 ${10 - i * 4}l-9 -4M0 ${10 - i * 4}l9 -4`).join(""),
    "peltate-scale": "M0 14V2",
  };
  const d = hairs[state];
  if (!d) return undefined;
  return (
    <>
      {pen(SKIN, usual(on), 1.3)}
      {pen(d, state === "club-hairs" ? wash("white") : undefined, 1.7)}
      {state === "glandular" && pen(circle(0, -12, 5), wash("red"), 1.3)}
      {state === "stinging" && pen(circle(0, -16, 2.6) + circle(0, 12, 5), wash("white"), 1.2)}
      {state === "bulbous-based" && pen(circle(0, 11, 5.6), wash("white"), 1.3)}
      {state === "peltate-scale" && (
        <>
          {pen(circle(0, -3, 19, 5), wash("grey"), 1.4)}
          {pen(arms(9, 15, [0, -3]), undefined, 0.6)}
        </>
      )}
    </>
  );
};

const row = (step: number, make: (x: number) => string) => {
  let d = "";
  for (let x = -20; x <= 20; x += step) d += make(x);
  return d;
};

export const hairLength: Draw = (state, on) => {
  const length = { "very-short": 3, short: 9, long: 30 }[state];
  if (!length) return undefined;
  return (
    <>
      {pen(SKIN, usual(on), 1.3)}
      {pen(
        row(4, (x) => `M${x} 14l1.5 ${-length}`),
        undefined,
        1.1,
      )}
    </>
  );
};

export const hairTexture: Draw = (state, on) => {
  const coats: Record<string, string> = {
    soft: row(3, (x) => `M${x} 14q2 -7 0 -13`),
    silky: row(3, (x) => `M${x} 14q6 -3 16 -5`),
    velvety: row(1.6, (x) => `M${x} 14v-8`),
    woolly: row(4, (x) => `M${x} 14q-5 -6 0 -9t0 -9t4 -8`),
    cobwebby: "M-22 10L22 -4M-20 -8L22 12M-22 0L20 -14M-10 14L12 -16M-22 -14L16 14",
    shaggy: row(6, (x) => `M${x} 14q6 -10 2 -30`),
    stiff: row(6, (x) => `M${x} 14l-1 -18`),
    bristly: row(10, (x) => `M${x - 1.6} 14L${x} -14L${x + 1.6} 14`),
  };
  const d = coats[state];
  if (!d) return undefined;
  return (
    <>
      {pen(SKIN, usual(on), 1.3)}
      {pen(d, undefined, state === "bristly" ? 1.8 : 1.1)}
    </>
  );
};

export const hairAttitude: Draw = (state, on) => {
  const stem = "M-7 -22V22H7V-22Z";
  const lay: Record<string, (y: number) => string> = {
    appressed: (y) => `M7 ${y}q3 -4 1.4 -11M-7 ${y}q-3 -4 -1.4 -11`,
    spreading: (y) => `M7 ${y}h13M-7 ${y}h-13`,
    antrorse: (y) => `M7 ${y}l12 -9M-7 ${y}l-12 -9`,
    retrorse: (y) => `M7 ${y}l12 9M-7 ${y}l-12 9`,
    curled: (y) => `M7 ${y}q10 -4 9 2t-5 0M-7 ${y}q-10 -4 -9 2t5 0`,
  };
  const make = lay[state];
  if (!make) return undefined;
  return (
    <>
      {pen(stem, usual(on), 1.3)}
      {pen([-16, -9, -2, 5, 12, 19].map(make).join(""), undefined, 1.2)}
    </>
  );
};

const veins = "M0 23V-17M0 12L9 5M0 12L-9 5M0 3L10 -5M0 3L-10 -5M0 -6L7 -13M0 -6L-7 -13";
const fuzz = (at: Point[]) => at.map(([x, y]) => `M${x} ${y}l2 -4M${x} ${y}l-2 -4M${x} ${y}v-4.4`).join("");

export const hairPlace: Draw = (state, on) => {
  const spots: Record<string, Point[]> = {
    "all-over": places(26, 4),
    axils: [
      [2, 10],
      [-2, 10],
      [2, 1],
      [-2, 1],
      [2, -8],
      [-2, -8],
    ],
    veins: [
      [5, 9],
      [-5, 9],
      [5, 0],
      [-5, 0],
      [4, -9],
      [-4, -9],
      [0, 16],
      [0, 7],
      [0, -2],
      [0, -11],
    ],
    midrib: [
      [0, 18],
      [0, 12],
      [0, 6],
      [0, 0],
      [0, -6],
      [0, -12],
    ],
    margins: [
      [8, 15],
      [-8, 15],
      [13, 6],
      [-13, 6],
      [11, -4],
      [-11, -4],
      [6, -13],
      [-6, -13],
    ],
    base: [
      [0, 19],
      [4, 17],
      [-4, 17],
      [2, 14],
      [-2, 14],
    ],
    tip: [
      [0, -18],
      [3, -13],
      [-3, -13],
      [0, -12],
    ],
  };
  const own = spots[state];
  if (own)
    return (
      <>
        {pen(mirrored(BLADE), usual({ ...on, organ: "leaf" }), 1.4)}
        {pen(veins, undefined, 0.8)}
        {pen(fuzz(own), undefined, 1.2)}
      </>
    );
  const stems: Record<string, string> = {
    nodes: [-10, 10].map((y) => row(2.4, (x) => (Math.abs(x) < 8 ? `M${x} ${y}l${x * 0.4} -6` : ""))).join(""),
    "one-line": Array.from({ length: 14 }, (_, i) => `M2 ${20 - i * 3}l3 -3`).join(""),
    "two-lines": Array.from({ length: 14 }, (_, i) => `M7 ${20 - i * 3}l4 -3M-7 ${20 - i * 3}l-4 -3`).join(""),
    angles: Array.from({ length: 14 }, (_, i) => `M7 ${20 - i * 3}h4M-7 ${20 - i * 3}h-4M0 ${20 - i * 3}l2 -3`).join(
      "",
    ),
  };
  const d = stems[state];
  if (!d) return undefined;
  return (
    <>
      {pen(
        "M-7 -22V22H7V-22Z" + (state === "nodes" ? "M-8 -10H8M-8 10H8" : "") + (state === "angles" ? "M0 -22V22" : ""),
        usual(on),
        1.3,
      )}
      {pen(d, undefined, 1.2)}
    </>
  );
};

export const glandForm: Draw = (state, on) => {
  const red = wash("red");
  const glands: Record<string, [string, string]> = {
    stalked: ["M-10 14V-2M2 14V-6M14 14V-1", circle(-10, -5, 4) + circle(2, -9, 4) + circle(14, -4, 4)],
    sessile: ["", circle(-12, 11, 4.4, 3) + circle(0, 10, 4.4, 3) + circle(12, 11, 4.4, 3)],
    sunk: ["M-15 15q3 6 6 0M-3 14q3 6 6 0M9 15q3 6 6 0", circle(-12, 18, 2) + circle(0, 17, 2) + circle(12, 18, 2)],
    cup: ["", "M-12 14L-9 4H9L12 14ZM-9 4q9 5 18 0"],
    kidney: ["", "M-12 8C-14 -6 14 -6 12 8C10 14 4 12 0 7C-4 12 -10 14 -12 8Z"],
    round: ["", circle(0, 6, 8)],
    scale: ["M-14 12L-6 6L0 11L8 5L14 12", "M-14 12L-6 6L0 11ZM0 11L8 5L14 12Z"],
    none: ["", ""],
  };
  const own = glands[state];
  if (!own) return undefined;
  return (
    <>
      {pen(SKIN, usual(on), 1.3)}
      {pen(own[0], undefined, 1.5)}
      {pen(own[1], red, 1.4)}
    </>
  );
};

export const glandPlace: Draw = (state) => {
  const at: Record<string, Point[]> = {
    "petiole-top": [
      [-2, 7],
      [2, 7],
    ],
    "petiole-middle": [
      [-2, 16],
      [2, 14],
    ],
    "blade-base": [
      [-5, 2],
      [5, 2],
    ],
    teeth: [
      [12, -6],
      [-12, -6],
      [9, -14],
      [-9, -14],
      [12, 1],
      [-12, 1],
    ],
    underside: [
      [-5, -6],
      [4, -10],
      [5, -2],
      [-4, -13],
    ],
    margin: [
      [11.6, -3],
      [10, -10],
      [-11.6, -3],
      [-10, -10],
    ],
  };
  const own = at[state];
  if (!own) return undefined;
  return (
    <>
      {pen(
        mirrored([
          [0, 6],
          [9, 3],
          [12, -5],
          [7, -15],
          [0, -22],
        ]),
        wash(state === "underside" ? "grey" : "green"),
        1.4,
      )}
      {pen("M0 23V-16", undefined, 1.2)}
      {state === "teeth" &&
        pen(own.map(([x, y]) => `M${x * 0.86} ${y + 2}L${x * 1.2} ${y}L${x * 0.86} ${y - 2}`).join(""), undefined, 1)}
      {pen(own.map(([x, y]) => circle(state === "teeth" ? x * 1.2 : x, y, 2)).join(""), wash("red"), 1)}
    </>
  );
};

// Hues by their words, muted like the others.
const hues: Record<string, string> = {
  white: "#fbf9f2",
  whitish: "#efeade",
  cream: "#f1e7c4",
  yellow: "#e6c65a",
  yellowish: "#ecdc9c",
  straw: "#d9c68c",
  orange: "#d9924a",
  red: "#b9524a",
  scarlet: "#d4462f",
  "red-brown": "#a3694d",
  pink: "#dba3ad",
  purple: "#8f5a86",
  violet: "#8b79b8",
  blue: "#6d8fc4",
  "blue-black": "#3b4460",
  green: "#86a866",
  "yellow-green": "#b9c25f",
  "blue-green": "#6ea394",
  "grey-green": "#a3ad94",
  olive: "#8c8a55",
  grey: "#a9aca4",
  silvery: "#d2d6d4",
  brown: "#94724d",
  rusty: "#b8733c",
  black: "#3a363b",
  colourless: "transparent",
};
const tint = (hex: string) => `color-mix(in oklab, ${hex}, var(--plate-shade, transparent) var(--plate-shading, 0%))`;

export const colour: Draw = (state, on) => {
  const hue = hues[state];
  return hue === undefined ? undefined : <>{ground(on, tint(hue))}</>;
};

export const hairColour: Draw = (state, on) => {
  const hue = {
    white: hues.white,
    grey: hues.grey,
    silvery: hues.silvery,
    rusty: hues.rusty,
    brown: hues.brown,
    black: hues.black,
    red: hues.red,
    yellow: hues.yellow,
  }[state];
  if (!hue) return undefined;
  return (
    <>
      {pen(SKIN, usual(on), 1.3)}
      {pen(
        row(4, (x) => `M${x - 1.4} 14L${x + 1} -10L${x + 1.4} 14Z`),
        tint(hue),
        0.8,
      )}
    </>
  );
};

export const colourDepth: Draw = (state, on) => {
  const share = { pale: 25, medium: 60, dark: 95 }[state];
  return share ? <>{ground(on, `color-mix(in oklab, ${tint("#4f6a3a")} ${share}%, ${tint("#f6f2e6")})`)}</> : undefined;
};

export const colourPattern: Draw = (state, on) => {
  const dark = wash("purple");
  const marks: Record<string, string> = {
    plain: "",
    spotted: places(13, 8)
      .map(([x, y]) => circle(x * 0.9, y * 0.9, 1.5))
      .join(""),
    blotched: circle(-4, 6, 4, 3) + circle(5, -1, 3.4, 4.4) + circle(-3, -8, 3.6, 2.6),
    "one-blotch": circle(0, 1, 5, 6),
    striped: "M-6 13V-3M-3 16V-10M3 16V-10M6 13V-3",
    veined: veins,
    banded: "M-9 9Q0 14 9 9V5Q0 10 -9 5ZM-9 -4Q0 1 9 -4L8 -8Q0 -3 -8 -8Z",
    tipped: "M-4.6 -13Q0 -12 4.6 -13Q3 -18 0 -21Q-3 -18 -4.6 -13Z",
    eyed: circle(0, 2, 6),
  };
  if (state === "edged")
    return (
      <>
        {ground(on, dark)}
        {pen(
          mirrored([
            [0, 16],
            [6, 10],
            [8.6, 3],
            [5.4, -8],
            [0, -16],
          ]),
          usual(on),
          0.8,
        )}
      </>
    );
  if (state === "two-coloured")
    return (
      <>
        {ground(on)}
        {pen("M0 20Q9 16 12.6 4Q10 -10 0 -21Z", dark, 1)}
      </>
    );
  const d = marks[state];
  if (d === undefined) return undefined;
  return (
    <>
      {ground(on)}
      {pen(
        d,
        ["striped", "veined"].includes(state) ? undefined : state === "eyed" ? wash("white") : dark,
        state === "veined" ? 2 : 1.2,
      )}
    </>
  );
};

export const lustre: Draw = (state, on) => {
  const shine: Record<string, string> = {
    matt: "",
    glossy: "M-7 8Q-9 -4 -2 -14M-4 10Q-6 0 0 -9",
    varnished: "M-8 9Q-10 -5 -2 -16L1 -13Q-6 -4 -4 9ZM6 8q2 -6 -1 -12",
    "silky-sheen": "M-9 6L6 -10M-9 10L8 -8M-7 13L9 -4M-4 15L9 1",
    glaucous: "",
    metallic: "M-9 4L9 -4M-9 8L9 0M-8 -2L8 -9",
  };
  const d = shine[state];
  if (d === undefined) return undefined;
  return (
    <>
      {ground(on, state === "glaucous" ? tint("#b9cbd0") : state === "metallic" ? tint("#8d99a6") : undefined)}
      {pen(d, state === "varnished" ? wash("white") : undefined, state === "glossy" ? 2.2 : 1)}
      {state === "glaucous" && pen("M-3 12L4 -10M0 14L7 -6", wash("green"), 2.4)}
    </>
  );
};

export const stickiness: Draw = (state, on) => {
  const drops = { "not-sticky": 0, slightly: 1, sticky: 5 }[state];
  if (drops === undefined) return undefined;
  const at: Point[] = [
    [0, -2],
    [-6, 8],
    [6, 6],
    [-3, 15],
    [4, -11],
  ];
  return (
    <>
      {ground(on)}
      {pen(
        at
          .slice(0, drops)
          .map(([x, y]) => `M${x} ${y - 6}q6 8 0 10q-6 -2 0 -10Z`)
          .join(""),
        wash("yellow"),
        1.3,
      )}
    </>
  );
};

export const surface: Draw = (state, on) => {
  const marks: Record<string, string> = {
    smooth: "",
    rough: places(40, 6)
      .map(([x, y]) => `M${x - 1} ${y}l1 -2l1 2`)
      .join(""),
    warty: places(12, 7)
      .map(([x, y]) => circle(x, y, 2))
      .join(""),
    papillose: places(44, 2)
      .map(([x, y]) => circle(x, y, 0.8))
      .join(""),
    prickly: places(12, 7)
      .map(([x, y]) => `M${x - 1.4} ${y + 2}L${x} ${y - 5}L${x + 1.4} ${y + 2}`)
      .join(""),
    pitted: places(14, 11)
      .map(([x, y]) => `M${x - 2} ${y}a2 2 0 0 0 4 0`)
      .join(""),
    netted:
      "M-11 8L-4 12L4 8L11 12M-12 0L-5 3L4 0L12 3M-11 -8L-4 -5L4 -8L10 -5M-4 12L-5 3L-4 -5M4 8L4 0L4 -8M-8 15L-8 4M8 15L8 2",
    ridged: "M-9 14V-8M-4.5 17V-14M0 19V-18M4.5 17V-14M9 14V-8",
    furrowed: "M-8 14q2 -12 0 -22M-2 18q2 -16 0 -34M4 17q2 -14 0 -30M9 12q1 -8 0 -18",
    striate: Array.from({ length: 13 }, (_, i) => `M${-9 + i * 1.5} ${13 - Math.abs(i - 6) * -0.4}V-11`).join(""),
    "cross-wrinkled": [12, 7, 2, -3, -8, -13].map((y) => `M-8 ${y}q4 -3 8 0t8 0`).join(""),
    scaly: places(16, 3)
      .map(([x, y]) => `M${x - 3} ${y}q3 -6 6 0Z`)
      .join(""),
    winged: "M12 8L21 2V-10L10 -5M-12 8L-21 2V-10L-10 -5",
    corky: "M-10 10l20 -3M-10 3l20 -3M-9 -4l18 -3M-4 16V-14M5 15V-12",
    hooked: places(11, 7)
      .map(([x, y]) => `M${x} ${y}v-5q0 -3 3 -1`)
      .join(""),
    plumed: "M0 -18l-9 -5M0 -18l-5 -6M0 -18v-6M0 -18l5 -6M0 -18l9 -5",
    dotted: places(26, 12)
      .map(([x, y]) => circle(x, y, 0.9))
      .join(""),
  };
  const d = marks[state];
  if (d === undefined) return undefined;
  const filled =
    state === "dotted" ? "currentColor" : state === "warty" || state === "winged" ? wash("pale") : undefined;
  return (
    <>
      {ground(on)}
      {pen(d, filled, state === "ridged" ? 2 : 1.1)}
    </>
  );
};

export const relief: Draw = (state, on) => {
  // The blade cut across.
  const across: Record<string, string> = {
    flat: "M-21 0H21",
    puckered: "M-21 4q3.5 -12 7 0q3.5 -12 7 0q3.5 -12 7 0q3.5 -12 7 0q3.5 -12 7 0q3.5 -12 7 0",
    corrugated: "M-21 5L-14 -5L-7 5L0 -5L7 5L14 -5L21 5",
    "veins-sunk": "M-21 -2H-11l2 4l2 -4H-1l2 4l2 -4H9l2 4l2 -4H21",
    "veins-raised": "M-21 2H-11l2 -5l2 5H-1l2 -5l2 5H9l2 -5l2 5H21",
    keeled: "M-20 -10L0 8L20 -10M0 8V15",
    channelled: "M-18 -9Q-15 8 0 8Q15 8 18 -9",
    concave: "M-20 -7Q0 14 20 -7",
    convex: "M-20 7Q0 -14 20 7",
  };
  const d = across[state];
  return d ? pen(d, undefined, on.organ === "leaf" ? 3 : 2.8) : undefined;
};

export const barkPattern: Draw = (state) => {
  const marks: Record<string, string> = {
    smooth: "M-12 -8q6 2 12 0",
    furrowed: "M-13 -22q3 20 0 44M-5 -22q-3 20 1 44M4 -22q3 20 -1 44M13 -22q-3 20 0 44",
    interlaced: "M-14 -22L-6 -8L-14 6L-6 22M-6 -22L-14 -8L-6 6L-14 22M2 -22L10 -8L2 6L10 22M10 -22L2 -8L10 6L2 22",
    blocky: "M-7 -22V22M7 -22V22M-20 -12H-7M-7 -6H7M7 -14H20M-20 4H-7M-7 10H7M7 2H20M-20 16H-7M7 15H20",
    scaly:
      "M-18 -14q4 6 9 0M-6 -16q4 6 9 0M7 -13q4 6 9 0M-14 -2q4 6 9 0M-1 -3q4 6 9 0M-17 10q4 6 9 0M-4 11q4 6 9 0M8 9q4 6 9 0",
    plated: "M-18 -20L-2 -18L-4 -2L-19 0ZM2 -18L18 -20L17 4L0 -2ZM-18 4L-4 2L-3 20L-19 19ZM2 4L17 8L18 20L1 20Z",
    shaggy:
      "M-14 -22Q-16 0 -20 20M-12 -22Q-12 0 -15 20M-3 -22Q-2 4 -6 20M-1 -22Q2 4 -1 20M9 -22Q10 0 8 20M11 -22Q16 0 14 20",
    papery: "M-20 -12H4q8 0 6 5q-4 3 -5 -2M-20 2H-6q8 0 6 5q-4 3 -5 -2M-2 14H16q6 0 4 5q-4 2 -4 -2",
    peeling: "M-12 -18L2 -14L-2 4L-14 2Z",
    stringy:
      "M-16 -22q4 10 0 20t2 24M-10 -22q-4 12 1 22t-2 22M-3 -22q3 11 0 22t2 22M4 -22q-3 12 1 22t-1 22M10 -22q3 10 0 22t1 22M16 -22q-3 11 0 22",
    fibrous: Array.from({ length: 16 }, (_, i) => `M${-18 + i * 2.4} -22V22`).join(""),
    banded: "M-20 -14H20M-20 -4H20M-20 6H20M-20 16H20M-12 -9h8M4 -9h9M-8 1h10M6 11h8M-14 11h7",
    corky: "M-20 -10l10 -3l8 4l10 -3l12 3M-20 4l9 -3l9 4l9 -3l13 3M-20 17l10 -3l10 4l9 -3l11 3",
    warty: places(16, 13)
      .map(([x, y]) => circle(x * 1.7, y, 1.8))
      .join(""),
    spiny: places(8, 4)
      .map(([x, y]) => `M${x * 1.7 - 2} ${y}l2 -8l2 8`)
      .join(""),
  };
  const d = marks[state];
  if (d === undefined) return undefined;
  return (
    <>
      {pen("M-20 -22H20V22H-20Z", wash("brown"), 1.4)}
      {pen(d, ["papery", "peeling", "plated"].includes(state) ? wash("pale") : undefined, 1.3)}
    </>
  );
};

export const sporeOrnament: Draw = (state) => {
  const on: Record<string, string> = {
    smooth: "",
    spiny: around(16, (a) => ray(a, 15, 21)),
    warty: around(12, (a) => circle(...turn([0, -15], a), 2.4)),
    netted: "M-13 -4L-4 -10L5 -6L13 -9M-14 4L-5 0L4 4L14 1M-9 12L0 8L9 11M-4 -10L-5 0L0 8M5 -6L4 4L9 11",
    ridged: "M-14 -6Q0 -12 14 -6M-15 0Q0 -5 15 0M-14 6Q0 2 14 6M-10 12Q0 9 10 12",
    winged: circle(0, 0, 21),
  };
  const d = on[state];
  if (d === undefined) return undefined;
  return (
    <>
      {state === "winged" && pen(d, wash("white"), 1.2)}
      {pen(circle(0, 0, 15), wash("yellow"), 1.4)}
      {state !== "winged" && pen(d, undefined, 1.3)}
    </>
  );
};

export const lenticelForm: Draw = (state) => {
  const at: Point[] = [
    [-4, -12],
    [4, -3],
    [-3, 7],
    [4, 15],
  ];
  const one: Record<string, (p: Point) => string> = {
    round: ([x, y]) => circle(x, y, 1.8),
    "long-along": ([x, y]) => circle(x, y, 1.1, 4),
    "long-across": ([x, y]) => circle(x, y, 4.4, 1.1),
    bands: ([, y]) => `M-9 ${y}H9`,
    diamond: ([x, y]) =>
      line(
        [
          [x, y - 4],
          [x + 3, y],
          [x, y + 4],
          [x - 3, y],
        ],
        true,
      ),
    raised: ([x, y]) => `M${x - 3} ${y}q3 -6 6 0Z`,
  };
  const make = one[state];
  if (!make) return undefined;
  return (
    <>
      {pen("M-9 -22V22H9V-22Z", wash("brown"), 1.3)}
      {pen(at.map(make).join(""), wash("white"), 1.2)}
    </>
  );
};
