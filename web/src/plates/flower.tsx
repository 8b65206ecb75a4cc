import type { ReactNode } from "react";
import { hand, Ink, line, smooth, turn, wash, type Drawn, type Point } from "./pen";
import type { Traits } from "./traits";

const MOST_DRAWN = 24;

const petalPath = (length: number, width: number, notch = false) =>
  notch
    ? smooth([
        [0, 0],
        [-width * 0.36, -length * 0.45],
        [-width * 0.5, -length * 0.85],
        [-width * 0.24, -length],
        [0, -length * 0.8],
        [width * 0.24, -length],
        [width * 0.5, -length * 0.85],
        [width * 0.36, -length * 0.45],
        [0, 0],
      ])
    : smooth([
        [0, 0],
        [-width * 0.34, -length * 0.4],
        [-width * 0.5, -length * 0.78],
        [0, -length],
        [width * 0.5, -length * 0.78],
        [width * 0.34, -length * 0.4],
        [0, 0],
      ]);

function Stamens({ count, length, tails }: { count: number; length: number; tails?: string }) {
  const n = Math.min(MOST_DRAWN, count);
  const next = hand(9);
  const ends = Array.from({ length: n }, (_, i) => turn([0, -length * (0.82 + next() * 0.25)], (360 * (i + 0.5)) / n));
  return (
    <>
      <Ink d={ends.map((end) => line([[0, 0], end])).join("")} width={0.8} />
      <Ink d={ends.map(([x, y]) => `M${x} ${y}h.01`).join("")} width={3.6} />
      {tails && tails !== "none" && (
        <Ink
          d={ends
            .map(
              ([x, y]) =>
                `M${x} ${y}l${x * 0.16 + length * 0.06} ${y * -0.2}M${x} ${y}l${x * 0.16 - length * 0.06} ${y * -0.2}`,
            )
            .join("")}
          width={1}
        />
      )}
    </>
  );
}

/** Seen from the front: petals around the middle. */
function Open({ traits, size, fill }: { traits: Traits; size: number; fill: string }) {
  const isDouble = traits.state("flower-doubling") === "double";
  const petals = Math.min(18, Math.max(0, Math.round(isDouble ? 12 : (traits.size("petal-number") ?? 5))));
  const stamens = Math.round(traits.size("stamen-number") ?? (isDouble ? 0 : petals * 2 || 4));
  const out = traits.state("stamen-place") === "out";
  const width = size * Math.min(0.95, (2.6 / Math.max(3, petals)) * 1.1);
  const calyx = traits.state("calyx-form");
  const rows = isDouble ? [1, 0.74, 0.5] : [1];
  return (
    <>
      {calyx === "bent" &&
        Array.from({ length: 5 }, (_, i) => (
          <g key={`s${i}`} transform={`rotate(${36 + i * 72})`}>
            <Ink d={petalPath(size * 0.5, size * 0.2)} fill={wash("green")} />
          </g>
        ))}
      {rows.map((row, r) =>
        Array.from({ length: petals }, (_, i) => (
          <g key={`${r}.${i}`} transform={`rotate(${(360 * i) / petals + r * 17})`}>
            <Ink
              d={petalPath(size * row, width * row, petals === 5 && traits.state("calyx-form") === "tube")}
              fill={fill}
            />
            <Ink
              d={line([
                [0, -size * row * 0.25],
                [0, -size * row * 0.7],
              ])}
              width={0.6}
              faint
            />
          </g>
        )),
      )}
      {calyx === "free" &&
        petals > 0 &&
        Array.from({ length: petals }, (_, i) => (
          <g key={`c${i}`} transform={`rotate(${(360 * (i + 0.5)) / petals})`}>
            <Ink
              d={`M0 ${-size * 0.55}l${size * 0.05} ${-size * 0.16}l${size * 0.05} ${size * 0.16}`}
              fill={wash("green")}
              width={0.8}
            />
          </g>
        ))}
      <Ink
        d={`M${-size * 0.1} 0a${size * 0.1} ${size * 0.1} 0 1 0 ${size * 0.2} 0a${size * 0.1} ${size * 0.1} 0 1 0 ${-size * 0.2} 0Z`}
        fill={wash("green")}
      />
      <Stamens count={stamens} length={size * (out ? 1.12 : 0.42)} tails={traits.state("anther-tails")} />
      <Ink
        d={Array.from({ length: Math.min(7, Math.round(traits.size("style-number") ?? 1)) }, (_, i) =>
          line([[0, 0], turn([0, -size * 0.22], i * 51.4)]),
        ).join("")}
        width={1.8}
      />
    </>
  );
}

/** Seen from the side, mouth downwards or upwards: bell, urn and tube, with what sticks out. */
function Cup({ traits, size, fill, form }: { traits: Traits; size: number; fill: string; form: string }) {
  const out = traits.state("stamen-place") === "out";
  const body: Record<string, Point[]> = {
    bell: [
      [-size * 0.12, 0],
      [-size * 0.36, size * 0.22],
      [-size * 0.38, size * 0.66],
      [-size * 0.56, size],
    ],
    urn: [
      [-size * 0.16, 0],
      [-size * 0.44, size * 0.3],
      [-size * 0.4, size * 0.68],
      [-size * 0.15, size * 0.92],
    ],
    tube: [
      [-size * 0.12, 0],
      [-size * 0.15, size * 0.4],
      [-size * 0.17, size * 0.75],
      [-size * 0.3, size],
    ],
  };
  const left = body[form] ?? body.bell ?? [];
  const right = [...left].reverse().map(([x, y]): Point => [-x, y]);
  const mouth = left.at(-1) ?? [0, 0];
  const lobes = 3;
  const rim = Array.from({ length: lobes * 2 + 1 }, (_, i): Point => [
    mouth[0] + (-2 * mouth[0] * i) / (lobes * 2),
    mouth[1] + (i % 2 ? size * 0.1 : 0),
  ]);
  const stamens = Math.min(8, Math.round(traits.size("stamen-number") ?? 5));
  const tails = traits.state("anther-tails");
  return (
    <>
      {out && (
        <Ink
          d={
            Array.from({ length: stamens }, (_, i) =>
              line([
                [(i - (stamens - 1) / 2) * size * 0.05, size * 0.7],
                [(i - (stamens - 1) / 2) * size * 0.1, size * 1.22],
              ]),
            ).join("") +
            Array.from(
              { length: stamens },
              (_, i) => `M${(i - (stamens - 1) / 2) * size * 0.1} ${size * 1.22}h.01`,
            ).join("")
          }
          width={1.4}
        />
      )}
      <Ink
        d={`${smooth(left)}${line(rim).replace("M", "L")}${smooth(right).replace("M", "L")}Z`}
        fill={fill}
        width={1.4}
      />
      <Ink
        d={smooth([
          [-size * 0.04, size * 0.1],
          [-size * 0.08, size * 0.5],
          [-size * 0.06, size * 0.8],
        ])}
        width={0.6}
        faint
      />
      <Ink
        d={`M${-size * 0.2} ${size * 0.12}q${size * 0.06} ${-size * 0.24} ${size * 0.2} ${-size * 0.22}q${size * 0.14} 0 ${size * 0.2} ${size * 0.22}q${-size * 0.2} ${size * 0.1} ${-size * 0.4} 0Z`}
        fill={wash("green")}
      />
      <Ink
        d={line([
          [0, -size * 0.1],
          [0, -size * 0.45],
        ])}
        width={1.4}
      />
      {/* one anther, drawn large beside it */}
      {traits.has("anther-tails") && (
        <g transform={`translate(${size * 0.86} ${size * 0.45})`}>
          <Ink
            d={`M${-size * 0.1} ${size * 0.2}q${-size * 0.06} ${-size * 0.35} ${size * 0.08} ${-size * 0.4}q${size * 0.14} ${size * 0.05} ${size * 0.1} ${size * 0.4}Z`}
            fill={wash("red-brown")}
          />
          {tails === "tails" && (
            <Ink
              d={`M${-size * 0.08} ${size * 0.2}q${-size * 0.1} ${size * 0.1} ${-size * 0.06} ${size * 0.24}M${size * 0.06} ${size * 0.2}q${size * 0.1} ${size * 0.1} ${size * 0.06} ${size * 0.24}`}
            />
          )}
          {tails === "horns" && (
            <Ink
              d={`M${-size * 0.04} ${-size * 0.2}l${-size * 0.12} ${-size * 0.16}M${size * 0.04} ${-size * 0.2}l${size * 0.12} ${-size * 0.16}`}
            />
          )}
        </g>
      )}
    </>
  );
}

function TwoSided({ form, size, fill }: { form: string; size: number; fill: string }) {
  if (form === "pea") {
    return (
      <>
        <Ink
          d={smooth([
            [0, size * 0.1],
            [-size * 0.62, -size * 0.1],
            [-size * 0.6, -size * 0.72],
            [0, -size * 0.95],
            [size * 0.6, -size * 0.72],
            [size * 0.62, -size * 0.1],
            [0, size * 0.1],
          ])}
          fill={fill}
          width={1.4}
        />
        <Ink
          d={line([
            [0, -size * 0.9],
            [0, -size * 0.1],
          ])}
          width={0.7}
          faint
        />
        {[-1, 1].map((s) => (
          <Ink
            key={s}
            d={smooth([
              [0, -size * 0.05],
              [s * size * 0.42, 0],
              [s * size * 0.4, size * 0.5],
              [s * size * 0.06, size * 0.36],
              [0, -size * 0.05],
            ])}
            fill={fill}
          />
        ))}
        <Ink
          d={smooth([
            [-size * 0.12, size * 0.05],
            [-size * 0.14, size * 0.5],
            [0, size * 0.62],
            [size * 0.14, size * 0.5],
            [size * 0.12, size * 0.05],
          ])}
          fill={wash("white")}
        />
      </>
    );
  }
  if (form === "spurred") {
    return (
      <>
        <Ink
          d={smooth([
            [0, -size * 0.1],
            [size * 0.42, size * 0.04],
            [size * 0.78, size * 0.3],
            [size * 0.72, size * 0.42],
            [size * 0.36, size * 0.26],
            [0, size * 0.12],
          ])}
          fill={fill}
        />
        <Ink
          d={smooth([
            [-size * 0.1, -size * 0.1],
            [-size * 0.34, -size * 0.6],
            [0, -size * 0.92],
            [size * 0.22, -size * 0.6],
            [size * 0.1, -size * 0.1],
          ])}
          fill={fill}
        />
        {[-1, 1].map((s) => (
          <Ink
            key={s}
            d={smooth([
              [0, -size * 0.1],
              [s * size * 0.5 - size * 0.12, -size * 0.52],
              [s * size * 0.7 - size * 0.1, -size * 0.16],
              [0, 0],
            ])}
            fill={fill}
          />
        ))}
        <Ink
          d={smooth([
            [-size * 0.08, 0],
            [-size * 0.62, size * 0.24],
            [-size * 0.5, size * 0.74],
            [-size * 0.18, size * 0.6],
            [0, size * 0.86],
            [size * 0.16, size * 0.5],
            [size * 0.06, 0],
          ])}
          fill={fill}
          width={1.4}
        />
        <Ink
          d={[
            [-0.3, 0.34],
            [-0.2, 0.5],
            [-0.36, 0.52],
            [-0.06, 0.36],
            [-0.04, 0.6],
          ]
            .map(([x = 0, y = 0]) => `M${x * size} ${y * size}h.01`)
            .join("")}
          width={2.4}
        />
      </>
    );
  }
  // two-lipped
  return (
    <>
      <Ink
        d={smooth([
          [-size * 0.14, size * 0.7],
          [-size * 0.16, size * 0.2],
          [-size * 0.3, -size * 0.3],
          [0, -size * 0.66],
          [size * 0.3, -size * 0.3],
          [size * 0.16, size * 0.2],
          [size * 0.14, size * 0.7],
        ])}
        fill={fill}
        width={1.4}
      />
      <Ink
        d={smooth([
          [-size * 0.17, size * 0.02],
          [-size * 0.5, size * 0.2],
          [-size * 0.36, size * 0.46],
          [0, size * 0.36],
          [size * 0.36, size * 0.46],
          [size * 0.5, size * 0.2],
          [size * 0.17, size * 0.02],
        ])}
        fill={fill}
      />
      <Ink
        d={`M${-size * 0.2} ${size * 0.96}L${-size * 0.16} ${size * 0.56}L${-size * 0.06} ${size * 0.66}L0 ${size * 0.54}L${size * 0.06} ${size * 0.66}L${size * 0.16} ${size * 0.56}L${size * 0.2} ${size * 0.96}Z`}
        fill={wash("green")}
      />
    </>
  );
}

/** A head of florets from above: rays around a disc, with the bracts behind. */
function Head({ traits, size, fill }: { traits: Traits; size: number; fill: string }) {
  const kinds = traits.state("floret-kinds") ?? "rays-and-disc";
  const rays = Math.min(44, Math.max(6, Math.round(traits.size("ray-number") ?? 13)));
  const disc = size * (kinds === "disc-only" ? 0.7 : kinds === "rays-only" ? 0.1 : 0.36);
  const bracts = traits.state("head-bracts");
  const next = hand(21);
  const over = traits.state("bract-to-head") === "overtopping";
  return (
    <>
      {over && (
        <Ink
          d={Array.from({ length: 9 }, (_, i) => {
            const a = turn([0, -size * 1.28], i * 40 + 20);
            const b = turn([0, -size * 0.3], i * 40 + 12);
            const c = turn([0, -size * 0.3], i * 40 + 28);
            return line([b, a, c]);
          }).join("")}
          fill={wash("green")}
        />
      )}
      {kinds !== "disc-only" &&
        Array.from({ length: rays }, (_, i) => (
          <g key={i} transform={`rotate(${(360 * i) / rays + (i % 2) * 3})`}>
            <Ink
              d={`M${-size * 0.035} ${-disc}L${-size * 0.07} ${-size * (i % 2 ? 0.94 : 1)}l${size * 0.045} ${size * 0.03}l${size * 0.025} ${-size * 0.04}l${size * 0.025} ${size * 0.04}l${size * 0.045} ${-size * 0.03}L${size * 0.035} ${-disc}Z`}
              fill={fill}
              width={0.9}
            />
          </g>
        ))}
      {kinds !== "rays-only" && (
        <>
          <Ink
            d={`M${-disc} 0a${disc} ${disc} 0 1 0 ${2 * disc} 0a${disc} ${disc} 0 1 0 ${-2 * disc} 0Z`}
            fill={wash("yellow")}
          />
          <Ink
            d={Array.from({ length: 34 }, (_, i) => {
              const r = disc * Math.sqrt((i + 0.5) / 34) * 0.92;
              const [x, y] = turn([0, -r], i * 137.5);
              return `M${x} ${y}h${0.01 + next() * 0}`;
            }).join("")}
            width={2}
            faint
          />
        </>
      )}
      {/* the involucre from the side */}
      {bracts && (
        <g transform={`translate(${size * 1.75} ${size * 0.1})`}>
          <Ink
            d={smooth([
              [-size * 0.4, -size * 0.3],
              [-size * 0.46, size * 0.16],
              [-size * 0.16, size * 0.52],
              [size * 0.16, size * 0.52],
              [size * 0.46, size * 0.16],
              [size * 0.4, -size * 0.3],
            ])}
            fill={wash("green")}
            width={1.3}
          />
          {bracts === "overlapping" || bracts === "spiny-tip" ? (
            <Ink
              d={[0, 1, 2]
                .flatMap((r) =>
                  [-2, -1, 0, 1, 2].map((k) => {
                    const x = (k + (r % 2) / 2) * size * 0.18;
                    const y = size * (0.36 - r * 0.22);
                    return Math.abs(x) < size * 0.42
                      ? `M${x - size * 0.09} ${y}q${size * 0.02} ${-size * 0.2} ${size * 0.09} ${-size * 0.22}q${size * 0.07} ${size * 0.02} ${size * 0.09} ${size * 0.22}${bracts === "spiny-tip" ? `M${x} ${y - size * 0.22}v${-size * 0.14}` : ""}`
                      : "";
                  }),
                )
                .join("")}
              width={0.9}
            />
          ) : (
            <Ink
              d={[-2, -1, 0, 1, 2]
                .map((k) =>
                  line([
                    [k * size * 0.12, size * 0.44],
                    [k * size * 0.17, -size * 0.3],
                  ]),
                )
                .join("")}
              width={0.9}
            />
          )}
          {bracts === "outer-small" && (
            <Ink
              d={[-1.6, -0.6, 0.5, 1.5]
                .map(
                  (k) =>
                    `M${k * size * 0.16} ${size * 0.5}q${k * size * 0.06 - size * 0.04} ${-size * 0.1} ${k * size * 0.12} ${-size * 0.2}q${size * 0.06} ${size * 0.1} ${-k * size * 0.02} ${size * 0.2}Z`,
                )
                .join("")}
              fill={wash("green")}
              width={1}
            />
          )}
          <Ink
            d={Array.from({ length: 11 }, (_, i) =>
              line([
                [(i - 5) * size * 0.075, -size * 0.3],
                [(i - 5) * size * 0.1, -size * 0.52],
              ]),
            ).join("")}
            width={1.2}
          />
          <Ink
            d={line([
              [0, size * 0.52],
              [0, size * 0.95],
            ])}
            width={1.6}
          />
        </g>
      )}
    </>
  );
}

function Calyx({ traits, size }: { traits: Traits; size: number }): ReactNode {
  const form = traits.state("calyx-form");
  if (form !== "tube" && form !== "inflated") return null;
  const w = size * (form === "inflated" ? 0.42 : 0.2);
  return (
    <g transform={`translate(${size * 1.6} ${-size * 0.35})`}>
      <Ink
        d={[-1, 0, 1]
          .map((s) =>
            smooth([
              [s * size * 0.04, 0],
              [s * size * 0.3, -size * 0.34],
              [s * size * 0.5, -size * 0.3],
              [s * size * 0.16, 0.02 * size],
            ]),
          )
          .join("")}
        fill={wash(traits.state("flower-colour"), "white")}
      />
      <Ink
        d={smooth([
          [-size * 0.13, 0],
          [-w, size * 0.4],
          [-w * 0.7, size * 0.86],
          [0, size * 0.98],
          [w * 0.7, size * 0.86],
          [w, size * 0.4],
          [size * 0.13, 0],
        ])}
        fill={wash("green")}
        width={1.3}
      />
      <Ink
        d={[-0.5, 0, 0.5]
          .map((k) =>
            smooth([
              [k * size * 0.14, size * 0.04],
              [k * w * 1.3, size * 0.42],
              [k * w * 0.7, size * 0.9],
            ]),
          )
          .join("")}
        width={0.7}
        faint
      />
      <Ink
        d={line([
          [0, size * 0.98],
          [0, size * 1.4],
        ])}
        width={1.5}
      />
    </g>
  );
}

/** A flower or flower head, to scale where its petals are measured. */
export function flower(traits: Traits): Drawn {
  const measured = traits.size("petal-length");
  const size = measured ?? 8;
  const fill = wash(traits.state("flower-colour"), "white");
  const form =
    traits.state("corolla-form") ?? (traits.state("flower-symmetry") === "bilateral" ? "two-lipped" : "open");
  const isHead = traits.has("floret-kinds");
  if (isHead)
    return {
      toScale: measured !== undefined,
      words: "flower head",
      box: [-size * 1.35, -size * 1.35, size * (traits.has("head-bracts") ? 3.7 : 2.7), size * 2.7],
      node: <Head traits={traits} size={size} fill={fill} />,
    };
  if (["bell", "urn", "tube"].includes(form)) {
    return {
      toScale: measured !== undefined,
      words: "flower from the side",
      box: [-size * 0.7, -size * 0.5, size * (traits.has("anther-tails") ? 1.9 : 1.4), size * 1.85],
      node: <Cup traits={traits} size={size} fill={fill} form={form} />,
    };
  }
  if (["pea", "two-lipped", "spurred"].includes(form))
    return {
      toScale: measured !== undefined,
      words: "flower",
      box: [-size * 0.85, -size * 1.02, size * 1.75, size * 2.06],
      node: <TwoSided form={form} size={size} fill={fill} />,
    };
  if (form === "strap")
    return {
      toScale: measured !== undefined,
      words: "ray floret",
      box: [-size * 0.3, -size * 1.05, size * 0.6, size * 1.4],
      node: (
        <Ink
          d={`M0 ${size * 0.3}V0L${-size * 0.14} ${-size * 0.3}L${-size * 0.14} ${-size}l${size * 0.07} ${size * 0.05}l${size * 0.07} ${-size * 0.05}l${size * 0.07} ${size * 0.05}l${size * 0.07} ${-size * 0.05}L${size * 0.14} ${-size * 0.3}L0 0`}
          fill={fill}
        />
      ),
    };
  const isInferior = traits.state("ovary-place") === "inferior";
  const beside = ["tube", "inflated"].includes(traits.state("calyx-form") ?? "");
  return {
    toScale: measured !== undefined,
    words: "flower",
    box: [-size * 1.2, -size * 1.25, size * (beside ? 3.5 : 2.4), size * (isInferior ? 2.9 : 2.5)],
    node: (
      <>
        {isInferior && (
          <Ink
            d={smooth([
              [-size * 0.16, size * 0.5],
              [-size * 0.24, size * 1.1],
              [0, size * 1.55],
              [size * 0.24, size * 1.1],
              [size * 0.16, size * 0.5],
            ])}
            fill={wash("green")}
          />
        )}
        <Open traits={traits} size={size} fill={fill} />
        <Calyx traits={traits} size={size} />
      </>
    ),
  };
}
