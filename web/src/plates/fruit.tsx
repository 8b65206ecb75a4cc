import type { ReactNode } from "react";
import { hand, Ink, line, smooth, strokes, turn, wash, type Drawn, type Point } from "./pen";
import type { Traits } from "./traits";

const disc = (x: number, y: number, r: number) =>
  `M${x - r} ${y}a${r} ${r} 0 1 0 ${2 * r} 0a${r} ${r} 0 1 0 ${-2 * r} 0Z`;

function fuzz(size: number, width: number): string {
  return Array.from({ length: 24 }, (_, i) => {
    const [x, y] = turn([0, -size * 0.5], (360 * i) / 24);
    return `M${x * width} ${y + size * 0.5}l${x * 0.16} ${y * 0.16}`;
  }).join("");
}

// Each with its foot at 0, 0, hanging or standing below it; size is the length of the fruit.
const makers: Record<string, (size: number, fill: string, traits: Traits) => ReactNode> = {
  "winged nuts": (size, fill, traits) => {
    const kind = traits.state("fruit-wing-angle") ?? "right";
    const angle = kind === "straight" ? 88 : kind === "parallel" ? 14 : 45;
    return [-1, 1].map((s) => (
      <g key={s} transform={`rotate(${-s * angle})`}>
        <Ink
          d={smooth([
            [0, 0],
            [-s * size * 0.08, size * 0.24],
            [-s * size * 0.1, size * 0.6],
            [s * size * 0.06, size],
            [s * size * 0.26, size * 0.86],
            [s * size * 0.22, size * 0.4],
            [0, 0],
          ])}
          fill={fill}
          width={1.3}
        />
        <Ink
          d={smooth([
            [0, size * 0.02],
            [-s * size * 0.1, size * 0.12],
            [0, size * 0.3],
            [s * size * 0.12, size * 0.16],
            [0, size * 0.02],
          ])}
          fill={wash("brown")}
        />
        <Ink
          d={[0.4, 0.55, 0.7, 0.82]
            .map((t) =>
              smooth([
                [-s * size * 0.06, size * t],
                [s * size * 0.08, size * (t + 0.04)],
                [s * size * 0.2, size * (t + 0.02)],
              ]),
            )
            .join("")}
          width={0.6}
          faint
        />
      </g>
    ));
  },
  capsule: (size, fill) => (
    <>
      <Ink
        d={smooth([
          [-size * 0.1, 0],
          [-size * 0.32, size * 0.35],
          [-size * 0.26, size * 0.8],
          [0, size],
          [size * 0.26, size * 0.8],
          [size * 0.32, size * 0.35],
          [size * 0.1, 0],
        ])}
        fill={fill}
        width={1.4}
      />
      <Ink
        d={
          smooth([
            [0, size * 0.98],
            [-size * 0.06, size * 0.5],
            [0, size * 0.06],
          ]) +
          smooth([
            [-size * 0.05, size * 0.97],
            [-size * 0.24, size * 0.5],
            [-size * 0.06, size * 0.04],
          ])
        }
        width={0.8}
      />
      <Ink
        d={
          line([
            [-size * 0.12, size * 0.9],
            [-size * 0.2, size * 1.06],
          ]) +
          line([
            [0, size],
            [0, size * 1.1],
          ]) +
          line([
            [size * 0.12, size * 0.9],
            [size * 0.2, size * 1.06],
          ])
        }
      />
    </>
  ),
  berry: (size, fill) => (
    <>
      <Ink d={disc(0, size * 0.5, size * 0.5)} fill={fill} width={1.4} />
      <Ink
        d={smooth([
          [size * 0.16, size * 0.2],
          [size * 0.32, size * 0.36],
          [size * 0.34, size * 0.54],
        ])}
        width={2}
        faint
      />
      <Ink
        d={[0, 72, 144, 216, 288].map((a) => line([[0, size], turn([0, size * 1.08], a / 6 - 24, [0, size])])).join("")}
      />
    </>
  ),
  drupe: (size, fill) => (
    <>
      <Ink d={disc(0, size * 0.5, size * 0.48)} fill={fill} width={1.4} />
      <Ink
        d={smooth([
          [0, 0.02 * size],
          [-size * 0.12, size * 0.4],
          [-size * 0.02, size * 0.97],
        ])}
        width={0.8}
        faint
      />
      {/* cut: the stone */}
      <g transform={`translate(${size * 1.15} 0)`}>
        <Ink d={disc(0, size * 0.5, size * 0.48)} fill={wash("pale")} />
        <Ink d={disc(0, size * 0.5, size * 0.26)} fill={wash("brown")} />
        <Ink d={disc(0, size * 0.5, size * 0.14)} fill={wash("white")} width={0.8} />
      </g>
    </>
  ),
  nut: (size, fill) => (
    <>
      <Ink
        d={smooth([
          [-size * 0.3, size * 0.3],
          [-size * 0.31, size * 0.7],
          [0, size],
          [size * 0.31, size * 0.7],
          [size * 0.3, size * 0.3],
        ])}
        fill={fill}
        width={1.4}
      />
      <Ink
        d={
          smooth([
            [-size * 0.08, 0],
            [-size * 0.36, size * 0.12],
            [-size * 0.4, size * 0.42],
            [0, size * 0.48],
            [size * 0.4, size * 0.42],
            [size * 0.36, size * 0.12],
            [size * 0.08, 0],
          ]) + "Z"
        }
        fill={wash("brown")}
        width={1.4}
      />
      <Ink
        d={[0.12, 0.22, 0.32]
          .flatMap((y) =>
            [-0.24, -0.08, 0.08, 0.24].map(
              (x) => `M${(x - 0.05) * size} ${y * size}q${size * 0.05} ${size * 0.07} ${size * 0.1} 0`,
            ),
          )
          .join("")}
        width={0.8}
      />
      <Ink
        d={line([
          [0, size],
          [0, size * 1.05],
        ])}
      />
    </>
  ),
  pome: (size, fill) => (
    <>
      <Ink d={disc(0, size * 0.5, size * 0.5)} fill={fill} width={1.4} />
      <Ink
        d={[-40, -20, 0, 20, 40]
          .map((a) => line([[0, size * 0.96], turn([0, size * 1.1], -a, [0, size * 0.96])]))
          .join("")}
        width={1.2}
      />
      <Ink
        d={strokes(
          10,
          () => size * 0.3,
          size * 0.7,
          (x, y) => `M${x} ${y + size * 0.85}h.01`,
          5,
        )}
        width={1.6}
        faint
      />
    </>
  ),
  achene: (size, fill) => (
    <Ink
      d={smooth([
        [0, 0],
        [-size * 0.3, size * 0.4],
        [-size * 0.16, size * 0.9],
        [0, size],
        [size * 0.16, size * 0.9],
        [size * 0.3, size * 0.4],
        [0, 0],
      ])}
      fill={fill}
      width={1.3}
    />
  ),
  plumed: (size) => (
    <>
      <Ink
        d={smooth([
          [-size * 0.05, size * 0.5],
          [-size * 0.09, size * 0.75],
          [0, size],
          [size * 0.09, size * 0.75],
          [size * 0.05, size * 0.5],
        ])}
        fill={wash("brown")}
      />
      <Ink
        d={Array.from({ length: 13 }, (_, i) =>
          line([[0, size * 0.5], turn([0, 0], (i - 6) * 11, [0, size * 0.5])]),
        ).join("")}
        width={0.8}
      />
    </>
  ),
  pod: (size, fill) => (
    <>
      <Ink
        d={smooth([
          [0, 0],
          [-size * 0.1, size * 0.2],
          [-size * 0.12, size * 0.6],
          [0, size],
          [size * 0.1, size * 0.62],
          [size * 0.08, size * 0.2],
          [0, 0],
        ])}
        fill={fill}
        width={1.4}
      />
      <Ink
        d={[0.25, 0.4, 0.55, 0.7].map((t) => disc(-size * 0.01, size * t, size * 0.045)).join("")}
        width={0.8}
        faint
      />
    </>
  ),
  burr: (size, fill) => (
    <>
      <Ink d={disc(0, size * 0.5, size * 0.34)} fill={fill} />
      <Ink
        d={Array.from({ length: 18 }, (_, i) => {
          const [x, y] = turn([0, -size * 0.36], i * 20);
          const [a, b] = turn([0, -size * 0.52], i * 20 + 4);
          return `M${x} ${y + size * 0.5}L${a} ${b + size * 0.5}l${b * 0.1} ${-a * 0.1}`;
        }).join("")}
      />
    </>
  ),
  drupelets: (size, fill, traits) => {
    const set = traits.state("fruit-set") ?? "full";
    const places: Point[] = [];
    for (const [row, count] of [3, 4, 5, 4, 3].entries())
      for (let k = 0; k < count; k++) places.push([(k - (count - 1) / 2) * size * 0.2, size * (0.16 + row * 0.17)]);
    const kept =
      set === "full" ? places : places.filter((_, i) => (set === "none" ? i % 7 === 2 : i % 2 === 0 && i % 5 !== 0));
    return (
      <>
        <Ink d={[-64, -32, 0, 32, 64].map((a) => line([[0, 0], turn([0, size * 0.3], a)])).join("")} width={1.8} />
        {set !== "full" && (
          <Ink
            d={smooth([
              [-size * 0.16, 0],
              [-size * 0.2, size * 0.5],
              [0, size * 0.86],
              [size * 0.2, size * 0.5],
              [size * 0.16, 0],
            ])}
            fill={wash("pale")}
          />
        )}
        {set !== "full" && <Ink d={places.map(([x, y]) => `M${x * 0.7} ${y}h.01`).join("")} width={1.8} />}
        <Ink d={kept.map(([x, y]) => disc(x, y, size * 0.115)).join("")} fill={fill} width={1.1} />
        <Ink d={kept.map(([x, y]) => `M${x} ${y}h.01`).join("")} width={1.8} />
      </>
    );
  },
  twin: (size, fill, traits) => (
    <>
      {[-1, 1].map((s) => (
        <g key={s}>
          <Ink
            d={
              smooth([
                [s * size * 0.02, 0],
                [s * size * 0.34, size * 0.3],
                [s * size * 0.3, size * 0.85],
                [s * size * 0.04, size],
              ]) + "Z"
            }
            fill={fill}
            width={1.3}
          />
          {traits.state("seed-surface") !== "smooth" && (
            <Ink
              d={[0.12, 0.22]
                .map((k) =>
                  smooth([
                    [s * size * 0.05, size * 0.05],
                    [s * size * k, size * 0.45],
                    [s * size * 0.06, size * 0.95],
                  ]),
                )
                .join("")}
              width={1}
            />
          )}
          {traits.state("seed-surface") === "hooked" && (
            <Ink
              d={[0.2, 0.35, 0.5, 0.65, 0.8]
                .map(
                  (y) =>
                    `M${s * size * 0.32} ${y * size}l${s * size * 0.14} ${-size * 0.03}l${-s * size * 0.01} ${-size * 0.05}`,
                )
                .join("")}
            />
          )}
        </g>
      ))}
      <Ink
        d={
          line([
            [-size * 0.04, 0],
            [-size * 0.14, -size * 0.12],
          ]) +
          line([
            [size * 0.04, 0],
            [size * 0.14, -size * 0.12],
          ])
        }
      />
    </>
  ),
  grain: (size, _fill, traits) => {
    const awn = traits.state("awn") ?? "none";
    const hairs = traits.state("lemma-hairs");
    return (
      <>
        <Ink
          d={smooth([
            [0, size],
            [-size * 0.18, size * 0.7],
            [-size * 0.13, size * 0.25],
            [0, 0],
            [size * 0.13, size * 0.25],
            [size * 0.18, size * 0.7],
            [0, size],
          ])}
          fill={wash("pale")}
          width={1.3}
        />
        <Ink
          d={[-0.07, 0, 0.07]
            .map((x) =>
              smooth([
                [x * size, size * 0.95],
                [x * size * 1.4, size * 0.5],
                [x * size * 0.4, size * 0.06],
              ]),
            )
            .join("")}
          width={0.7}
          faint
        />
        {awn === "tip" && (
          <Ink
            d={line([
              [0, 0],
              [0, -size * 0.22],
            ])}
            width={1.5}
          />
        )}
        {awn === "straight" && (
          <Ink
            d={line([
              [0, 0],
              [0, -size * 0.95],
            ])}
            width={1.5}
          />
        )}
        {awn === "bent" && (
          <Ink
            d={line([
              [size * 0.05, size * 0.4],
              [size * 0.2, -size * 0.12],
              [size * 0.62, -size * 0.6],
            ])}
            width={1.5}
          />
        )}
        {hairs && hairs !== "bald" && (
          <Ink
            d={Array.from({ length: 9 }, (_, i) => {
              const y = size * (0.2 + i * 0.08);
              return `M${-size * 0.16} ${y}l${-size * 0.1} ${-size * 0.06}M${size * 0.16} ${y}l${size * 0.1} ${-size * 0.06}${hairs === "all" ? `M${size * (((i * 3) % 5) / 20 - 0.1)} ${y}l${size * 0.05} ${-size * 0.08}` : ""}`;
            }).join("")}
            width={0.9}
          />
        )}
      </>
    );
  },
  spores: (size, fill) => (
    <>
      <Ink
        d={line([
          [0, size],
          [0, size * 0.7],
        ])}
        width={2}
      />
      <Ink d={disc(0, size * 0.4, size * 0.32)} fill={fill} width={1.4} />
      <Ink
        d={[20, 60, 100, 140, 180, 220]
          .map((a) =>
            line([turn([0, -size * 0.32], a), turn([0, -size * 0.2], a)].map(([x, y]): Point => [x, y + size * 0.4])),
          )
          .join("")}
        width={1}
      />
      <Ink
        d={[-0.5, -0.3, 0.35, 0.52].map((x) => `M${x * size} ${size * (0.75 + Math.abs(x) * 0.4)}h.01`).join("")}
        width={2.4}
      />
    </>
  ),
  nutlets: (size, fill) => (
    <Ink
      d={[
        [-0.26, 0.3],
        [0.26, 0.3],
        [-0.26, 0.78],
        [0.26, 0.78],
      ]
        .map(([x = 0, y = 0]) => disc(x * size, y * size, size * 0.22))
        .join("")}
      fill={fill}
      width={1.3}
    />
  ),
};

const surfaces: Record<string, (r: number) => string> = {
  smooth: (r) =>
    smooth([
      [r * 0.3, -r * 0.5],
      [r * 0.55, -r * 0.2],
      [r * 0.6, r * 0.2],
    ]),
  warty: (r) =>
    Array.from({ length: 26 }, (_, i) => {
      const [x, y] = turn([0, -r * 0.86 * Math.sqrt((i + 0.5) / 26)], i * 137.5);
      return disc(x, y, r * 0.08);
    }).join(""),
  netted: (r) =>
    [-0.6, -0.2, 0.2, 0.6]
      .map(
        (k) =>
          `M${k * r} ${-r * Math.sqrt(1 - k * k)}L${(k + 0.3) * r * 0.8} ${r * Math.sqrt(1 - Math.min(1, ((k + 0.3) * 0.8) ** 2))}M${-r * Math.sqrt(1 - k * k)} ${k * r}L${r * Math.sqrt(1 - k * k) * 0.95} ${(k + 0.2) * r}`,
      )
      .join(""),
  ridged: (r) =>
    [-0.6, -0.3, 0, 0.3, 0.6]
      .map((k) =>
        smooth([
          [k * r * 0.5, -r * 0.96],
          [k * r * 1.3, 0],
          [k * r * 0.5, r * 0.96],
        ]),
      )
      .join(""),
  hooked: (r) =>
    Array.from({ length: 16 }, (_, i) => {
      const [x, y] = turn([0, -r], i * 22.5);
      const [a, b] = turn([0, -r * 1.34], i * 22.5);
      return `M${x} ${y}L${a} ${b}l${b * 0.14} ${-a * 0.14}`;
    }).join(""),
};

/** A ripe seed under the lens. */
export function seed(traits: Traits): Drawn {
  const r = 1;
  const surface = surfaces[traits.state("seed-surface") ?? "smooth"];
  return {
    toScale: false,
    words: "seed under the lens",
    box: [-1.45, -1.45, 2.9, 2.9],
    node: (
      <>
        <Ink d={disc(0, 0, r)} fill={wash(traits.state("seed-colour"), "brown")} width={1.5} />
        {surface && <Ink d={surface(r)} width={1} />}
      </>
    ),
  };
}

/** A ripe fruit on its stalk, to scale where it is measured. */
export function fruit(traits: Traits): Drawn {
  const type = traits.state("fruit-type") ?? "capsule";
  const measured = traits.size("fruit-length");
  const isShrivelled = traits.state("fruit-condition") === "shrivelled";
  const size = measured ?? 10;
  const stalk = type === "grain" ? 0 : Math.min(size * 2.4, traits.size("fruit-stalk-length") ?? size * 0.35);
  const make = makers[type] ?? makers.capsule;
  const colour = traits.state("fruit-colour") ?? (type === "pod" || type === "capsule" ? "green" : "brown");
  const isStraight = traits.state("fruit-wing-angle") === "straight";
  const reach =
    type === "winged nuts" ? size * (isStraight ? 1.05 : 0.85) : type === "drupe" ? size * 1.7 : size * 0.62;
  const left = type === "drupe" ? size * 0.6 : reach;
  const hairy = traits.state("fruit-hairs") === "hairy";
  const above = type === "grain" ? size : 0;
  return {
    toScale: measured !== undefined,
    words: "fruit",
    box: [-left, -stalk - above - size * 0.05, left + reach, stalk + above + size * 1.2],
    node: (
      <>
        <Ink
          d={smooth([
            [0, -stalk],
            [size * 0.04, -stalk * 0.5],
            [0, 0],
          ])}
          width={1.7}
        />
        <g transform={isShrivelled ? "scale(0.72 0.8) skewX(9)" : undefined}>
          {make?.(size, wash(isShrivelled ? "brown" : colour, "brown"), traits)}
          {isShrivelled && (
            <Ink
              d={strokes(
                16,
                () => size * 0.3,
                size,
                (x, y, next) => `M${x} ${y + size}l${(next() - 0.5) * size * 0.2} ${size * 0.12}`,
                3,
              )}
              width={0.8}
            />
          )}
        </g>
        {hairy && (
          <Ink
            d={fuzz(size, ({ pod: 0.24, capsule: 0.62, nut: 0.66, achene: 0.55 } as Record<string, number>)[type] ?? 1)}
            width={0.8}
          />
        )}
      </>
    ),
  };
}

/** A fertile segment of a frond from beneath. */
export function sorus(traits: Traits): Drawn {
  const shape = traits.state("sorus-shape") ?? "round";
  const place = traits.state("sorus-place") ?? "middle";
  const x = place === "midrib" ? 3 : place === "edge" ? 9.4 : 6.2;
  const next = hand(2);
  const rows = [-3, -2, -1, 0, 1, 2, 3];
  const one = (s: number, y: number) =>
    shape === "linear"
      ? line([
          [s * 2.4, y],
          [s * 8.6, y - 3],
        ])
      : shape === "kidney"
        ? `M${s * x - 1.2} ${y}q-.4 -1.8 1.2 -1.8q1.7 0 1.3 1.9q-.3 1.2 -1.1 .4q-.6 -.7 -1.4 -.5Z`
        : shape === "margin"
          ? `M${s * 10} ${y - 1.6}q${s * 1.4} 1.6 0 3.2`
          : disc(s * x, y + next() * 0.2, 1.15);
  return {
    toScale: false,
    words: "sori beneath",
    box: [-13, -22, 26, 44],
    node: (
      <>
        <Ink
          d={smooth([
            [0, 20],
            [-9, 14],
            [-11.6, 0],
            [-8, -13],
            [0, -20],
            [8, -13],
            [11.6, 0],
            [9, 14],
            [0, 20],
          ])}
          fill={wash("green")}
          width={1.5}
        />
        <Ink
          d={
            line([
              [0, 20],
              [0, -19],
            ]) +
            rows
              .map(
                (r) =>
                  line([
                    [0, r * 4.6 + 3],
                    [9.6, r * 4.6 - 1.4],
                  ]) +
                  line([
                    [0, r * 4.6 + 3],
                    [-9.6, r * 4.6 - 1.4],
                  ]),
              )
              .join("")
          }
          width={0.7}
          faint
        />
        <Ink
          d={rows.map((r) => one(1, r * 4.6 + 0.8) + one(-1, r * 4.6 + 0.8)).join("")}
          fill={shape === "linear" ? "none" : wash("brown")}
          width={shape === "linear" ? 3.4 : 1.1}
        />
      </>
    ),
  };
}
