import { Ink, hand, line, smooth, turn, wash, type Drawn, type Point } from "./pen";
import type { Traits } from "./traits";

const disc = (x: number, y: number, r: number) =>
  `M${x - r} ${y}a${r} ${r} 0 1 0 ${2 * r} 0a${r} ${r} 0 1 0 ${-2 * r} 0Z`;

/** What it lives on below ground. */
export function underground(traits: Traits): Drawn {
  const type = traits.state("underground-type") ?? "fibrous";
  const next = hand(6);
  const fine = (x: number, y: number, n = 7, length = 12, spread = 60) =>
    Array.from({ length: n }, (_, i) => {
      const a = 180 + ((i + 0.5) / n - 0.5) * spread * 2;
      const e = turn([x, y - length * (0.7 + next() * 0.5)], a, [x, y]);
      return smooth([[x, y], [(x + e[0]) / 2 + (next() - 0.5) * 3, (y + e[1]) / 2], e]);
    }).join("");
  const parts: Record<string, React.ReactNode> = {
    fibrous: <Ink d={fine(0, 0, 13, 17)} />,
    taproot: (
      <>
        <Ink
          d={smooth([
            [-3, 0],
            [-2.4, 8],
            [-0.8, 20],
            [0, 25],
            [0.8, 20],
            [2.4, 8],
            [3, 0],
          ])}
          fill={wash("pale")}
          width={1.4}
        />
        <Ink
          d={[5, 9, 13, 17]
            .map(
              (y) =>
                line([
                  [2 - y * 0.06, y],
                  [6, y + 3],
                ]) +
                line([
                  [-2 + y * 0.06, y + 1],
                  [-6, y + 4],
                ]),
            )
            .join("")}
        />
      </>
    ),
    rhizome: (
      <>
        <Ink
          d={
            smooth([
              [-16, 5],
              [-6, 2],
              [4, 4],
              [15, 2],
              [16, 5],
              [4, 8],
              [-6, 6],
              [-16, 9],
            ]) + "Z"
          }
          fill={wash("brown")}
          width={1.4}
        />
        <Ink
          d={
            [-10, -4, 3, 9].map((x) => `M${x} 3.5q1 2 0 4`).join("") +
            [-9, -2, 6].map((x) => fine(x, 7, 3, 7, 34)).join("")
          }
        />
        <Ink
          d={smooth([
            [0, 3],
            [-0.6, 1],
            [0, 0],
          ])}
          width={2.4}
        />
      </>
    ),
    bulb: (
      <>
        <Ink
          d={smooth([
            [-1.6, 0],
            [-7, 6],
            [-6.4, 14],
            [0, 17],
            [6.4, 14],
            [7, 6],
            [1.6, 0],
          ])}
          fill={wash("pale")}
          width={1.4}
        />
        <Ink
          d={
            smooth([
              [-0.8, 0],
              [-3.4, 7],
              [-2.6, 16],
            ]) +
            smooth([
              [0.8, 0],
              [3.4, 7],
              [2.6, 16],
            ]) +
            smooth([
              [0, 1],
              [0, 16],
            ])
          }
          width={0.8}
        />
        <Ink d={fine(0, 17, 7, 7, 44)} />
      </>
    ),
    tuber: (
      <>
        <Ink
          d={smooth([
            [-1.4, 0],
            [-6, 4],
            [-7, 10],
            [-3, 13],
            [0, 9],
            [3, 13],
            [7, 10],
            [6, 4],
            [1.4, 0],
          ])}
          fill={wash("pale")}
          width={1.4}
        />
        <Ink
          d={
            fine(0, 1, 6, 10, 84) +
            line([
              [-5, 12.6],
              [-6, 17],
            ]) +
            line([
              [5, 12.6],
              [6, 17],
            ])
          }
        />
      </>
    ),
    runners: (
      <>
        <Ink
          d={
            smooth([
              [0, 0],
              [-7, -2],
              [-15, 1],
            ]) +
            smooth([
              [0, 0],
              [7, -2],
              [15, 1],
            ])
          }
          width={1.8}
        />
        <Ink d={[-15, 15].map((x) => `M${x} 1q-2 -5 -4 -6M${x} 1q2 -5 4 -6M${x} 1v-6`).join("")} width={1.3} />
        <Ink d={fine(-15, 1, 4, 7, 38) + fine(15, 1, 4, 7, 38) + fine(0, 0, 6, 11, 50)} />
      </>
    ),
  };
  return {
    toScale: false,
    words: `underground: ${type}`,
    box: [-19, -8, 38, 34],
    node: (
      <>
        <Ink
          d={smooth([
            [-19, 0],
            [-8, -0.6],
            [6, 0.5],
            [19, -0.3],
          ])}
          faint
        />
        {parts[type] ?? parts.fibrous}
      </>
    ),
  };
}

/** Where blade and sheath of a grass meet, with the ligule; under the lens. */
export function ligule(traits: Traits): Drawn {
  const kind = traits.state("ligule") ?? "membrane";
  const tip = traits.state("ligule-tip") ?? "blunt";
  const height = Math.min(9, 1.5 + (traits.size("ligule-length") ?? 1.5) * 1.9);
  const section = traits.state("blade-section") ?? "flat";
  const closed = traits.state("sheath") === "closed";
  const narrow = section === "inrolled" || section === "folded";
  const w = narrow ? 2.2 : 5;
  const top: Point[] =
    tip === "pointed"
      ? [
          [-3.6, 0],
          [-2.4, -height * 0.5],
          [0, -height * 1.25],
          [2.4, -height * 0.5],
          [3.6, 0],
        ]
      : tip === "torn"
        ? [
            [-3.6, 0],
            [-3.3, -height],
            [-2, -height * 0.7],
            [-1.2, -height * 1.08],
            [0.2, -height * 0.62],
            [1.3, -height],
            [2.2, -height * 0.7],
            [3.3, -height * 0.96],
            [3.6, 0],
          ]
        : [
            [-3.6, 0],
            [-3.3, -height * 0.8],
            [-1.6, -height],
            [1.6, -height],
            [3.3, -height * 0.8],
            [3.6, 0],
          ];
  const hairs = traits.state("stem-hairs");
  const section1: Record<string, string> = {
    flat: "M-5 0q5 -1.6 10 0",
    folded: "M-0.6 -4L0 0L0.6 -4",
    inrolled: "M1.4 -2.2a2 2 0 1 0 -1 -1.2",
    keeled: "M-5 -1.6L0 0L5 -1.6M0 0v1.8",
  };
  return {
    toScale: false,
    words: "ligule and sheath",
    box: [-12, -26, 34, 46],
    node: (
      <>
        <Ink d={`M-3.8 18L-3.8 0Q0 2.4 3.8 0L3.8 18`} fill={wash("green")} width={1.4} />
        {closed ? (
          <Ink d="M-3.8 4Q0 6.4 3.8 4" width={0.8} />
        ) : (
          <Ink
            d={smooth([
              [1.2, 1.3],
              [0.4, 9],
              [1.2, 18],
            ])}
            width={1.3}
          />
        )}
        <Ink
          d={[-2.4, -1.2, 2.6]
            .map((x) =>
              line([
                [x, 3],
                [x, 18],
              ]),
            )
            .join("")}
          width={0.6}
          faint
        />
        {hairs && hairs !== "bald" && (
          <Ink
            d={Array.from({ length: 8 }, (_, i) => {
              const l = hairs === "long" ? 3.4 : 1.5;
              return `M-3.8 ${3 + i * 2}l${-l} -.6M3.8 ${3 + i * 2}l${l} -.6`;
            }).join("")}
            width={0.8}
          />
        )}
        <g transform="rotate(34 0 0)">
          <Ink
            d={`M${-w * 0.76} 0C${-w} -8 ${-w * 0.9} -16 ${-w * 0.6} -25L${w * 0.6} -25C${w * 0.9} -16 ${w} -8 ${w * 0.76} 0Z`}
            fill={wash("green")}
            width={1.4}
          />
          <Ink
            d={
              narrow
                ? line([
                    [0, -1],
                    [0, -25],
                  ])
                : [-0.5, 0, 0.5]
                    .map((k) =>
                      line([
                        [k * w, -1],
                        [k * w * 0.9, -25],
                      ]),
                    )
                    .join("")
            }
            width={0.7}
            faint
          />
        </g>
        {kind === "membrane" && <Ink d={line(top, true)} fill={wash("white")} width={1.2} />}
        {kind === "hairs" && (
          <Ink
            d={Array.from({ length: 13 }, (_, i) => `M${-3.6 + i * 0.6} 0l${(i - 6) * 0.07} ${-height}`).join("")}
            width={0.9}
          />
        )}
        <g transform="translate(13 12)">
          <Ink d={section1[section] ?? section1.flat ?? ""} width={2} />
        </g>
      </>
    ),
  };
}

/** A piece of stem: hairs, prickles, and its section cut across. */
export function stem(traits: Traits): Drawn {
  const section = traits.state("stem-section") ?? "round";
  const hollow = traits.state("stem-interior") === "hollow";
  const hairs = traits.state("stem-hairs");
  const prickles = traits.state("prickles");
  const rim: Record<string, string> = {
    round: disc(0, 0, 4),
    square: "M-3.8 -3.8L3.8 -3.8L3.8 3.8L-3.8 3.8Z",
    angled: line(
      [0, 60, 120, 180, 240, 300].map((a) => turn([0, -4.3], a)),
      true,
    ),
    flattened: "M-5 0a5 2.4 0 1 0 10 0a5 2.4 0 1 0 -10 0Z",
    winged: "M-3 -1.4a3.2 3.2 0 0 1 6 0L7 0L3 1.4a3.2 3.2 0 0 1 -6 0L-7 0Z",
  };
  const hair: Record<string, (y: number, s: number) => string> = {
    short: (y, s) => `M${s * 3} ${y}l${s * 1.3} -.3`,
    long: (y, s) => `M${s * 3} ${y}q${s * 2.4} .6 ${s * 3.9} -.9`,
    glandular: (y, s) => `M${s * 3} ${y}l${s * 2.4} -.2`,
    woolly: (y, s) => `M${s * 3} ${y}q${s * 1.6} -2.6 ${s * 1.4} .4q${s * 0.8} -1.6 ${s * 1.2} .2`,
  };
  const make = hairs ? hair[hairs] : undefined;
  const ys = Array.from({ length: 14 }, (_, i) => -17 + i * 2.6);
  const prickle: Record<string, (y: number, s: number) => string> = {
    straight: (y, s) => `M${s * 3} ${y - 1.5}l${s * 4.6} .9l${-s * 4.6} 2Z`,
    hooked: (y, s) => `M${s * 3} ${y - 2}q${s * 4} -.4 ${s * 4.6} 3.4q${-s * 2} -2 ${-s * 4.6} -.4Z`,
    bristles: (y, s) =>
      `M${s * 3} ${y}l${s * 5} -1M${s * 3} ${y + 1.6}l${s * 4} .2M${s * 3} ${y - 1.8}l${s * 3.8} -1.6`,
  };
  const spike = prickles ? prickle[prickles] : undefined;
  return {
    toScale: false,
    words: "piece of stem with its section",
    box: [-9, -20, 27, 42],
    node: (
      <>
        {section === "winged" && <Ink d="M-3 -19L-6 -18L-6 19L-3 20M3 -19L6 -18L6 19L3 20" fill={wash("green")} />}
        <Ink d="M-3 20L-3 -19Q0 -17.6 3 -19L3 20" fill={wash("green")} width={1.5} />
        {["square", "angled"].includes(section) && (
          <Ink d={section === "square" ? "M0.4 -18V20" : "M-1 -18V20M1.2 -18V20"} width={0.8} />
        )}
        {make && <Ink d={ys.flatMap((y) => [make(y, -1), make(y + 1.2, 1)]).join("")} width={0.8} />}
        {hairs === "glandular" && (
          <Ink d={ys.flatMap((y) => [`M-5.6 ${y - 0.2}h.01`, `M5.6 ${y + 1}h.01`]).join("")} width={3} />
        )}
        {spike && (
          <Ink
            d={[-12, -3, 6, 15].map((y, i) => spike(y, i % 2 ? 1 : -1)).join("")}
            fill={prickles === "bristles" ? "none" : wash("red-brown")}
            width={1.2}
          />
        )}
        {traits.has("stem-section") || traits.has("stem-interior") ? (
          <g transform="translate(12.5 8)">
            <Ink d={rim[section] ?? rim.round ?? ""} fill={wash("green")} width={1.4} />
            {hollow && <Ink d={disc(0, 0, section === "flattened" ? 1.1 : 2.1)} fill="var(--plate-ground)" />}
          </g>
        ) : null}
      </>
    ),
  };
}

/** Bark of a grown trunk. */
export function bark(traits: Traits): Drawn {
  const texture = traits.state("bark-texture") ?? "smooth";
  const next = hand(12);
  const marks =
    texture === "fissured"
      ? Array.from({ length: 8 }, (_, i) =>
          smooth([
            [-14 + i * 4, -20 + next() * 6],
            [-14 + i * 4 + (next() - 0.5) * 4, 0],
            [-14 + i * 4 + (next() - 0.5) * 3, 20 - next() * 6],
          ]),
        ).join("")
      : texture === "peeling"
        ? Array.from({ length: 7 }, (_, i) => {
            const y = -17 + i * 5.6;
            const x = -14 + next() * 14;
            return `M${x} ${y}q6 -1.6 12 0q1.6 2.4 -1.4 2.6`;
          }).join("")
        : Array.from({ length: 14 }, () => {
            const [x, y] = [next() * 30 - 15, next() * 36 - 18];
            return `M${x} ${y}h${1 + next() * 2}`;
          }).join("");
  return {
    toScale: false,
    words: `bark: ${texture}`,
    box: [-18, -21, 36, 42],
    node: (
      <>
        <Ink d="M-17 -20H17V20H-17Z" fill={wash(traits.state("bark-colour"), "brown")} width={1.3} />
        <Ink d={marks} width={texture === "fissured" ? 2 : 1.1} />
      </>
    ),
  };
}

/** A shoot with its buds or leaves: how they stand. */
export function shoot(traits: Traits): Drawn {
  const arrangement = traits.state("leaf-arrangement") ?? "alternate";
  const leaf = (x: number, y: number, angle: number) => {
    const p = (a: number, b: number) => turn([x + a, y - b], angle, [x, y]);
    return smooth([p(0, 0), p(2.6, 4), p(2, 9), p(0, 12), p(-2, 9), p(-2.6, 4), p(0, 0)]);
  };
  const evergreen = traits.state("leaf-persistence") === "evergreen";
  const leaves: string[] = [];
  if (arrangement === "rosette") for (const a of [-84, -56, -28, 28, 56, 84]) leaves.push(leaf(0, 17, a));
  else
    for (const [i, y] of [12, 3, -6].entries()) {
      const sides =
        arrangement === "alternate" ? [i % 2 ? 58 : -58] : arrangement === "whorled" ? [-76, -26, 26, 76] : [-58, 58];
      for (const a of sides) leaves.push(leaf(0, y, a));
    }
  return {
    toScale: false,
    words: `leaves ${arrangement}`,
    box: [-16, -20, 32, 42],
    node: (
      <>
        <Ink
          d={smooth([
            [0, 20],
            [0.4, 0],
            [0, arrangement === "rosette" ? -16 : -18],
          ])}
          width={1.8}
        />
        {leaves.map((d, i) => (
          <Ink
            key={i}
            d={d}
            fill={wash(evergreen ? "green" : (traits.state("leaf-colour") ?? "green"))}
            width={evergreen ? 2.2 : 1.1}
          />
        ))}
      </>
    ),
  };
}
