import { turn, wash, type Point } from "../pen";
import { around, circle, leaflet, pen, ray, green, type Draw } from "./draw";

// Flowers and how they stand together.

const petal = (a: number, length: number, wide: number) => leaflet(0, 0, length, a, wide);

const flowerDot = (p: Point, r = 2.4) => circle(p[0], p[1], r);

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
