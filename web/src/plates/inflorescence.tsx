import type { ReactNode } from "react";
import { Ink, line, smooth, turn, wash, type Drawn, type Point } from "./pen";
import type { Traits } from "./traits";

const disc = (x: number, y: number, r: number) =>
  `M${x - r} ${y}a${r} ${r} 0 1 0 ${2 * r} 0a${r} ${r} 0 1 0 ${-2 * r} 0Z`;

/** The taxon's own flower, small: only what can be told at that size, its outline, colour and number of petals. */
function Small({ traits, at, size, angle = 0 }: { traits: Traits; at: Point; size: number; angle?: number }) {
  const fill = wash(traits.state("flower-colour"), "white");
  const form = traits.state("corolla-form") ?? "open";
  const place = `translate(${at[0]} ${at[1]}) rotate(${angle})`;
  if (traits.has("floret-kinds")) {
    const rays = traits.state("floret-kinds") !== "disc-only";
    return (
      <g transform={place}>
        {rays && (
          <Ink
            d={Array.from({ length: 16 }, (_, i) => {
              const [a, b, c] = [
                turn([0, -size * 0.3], i * 22.5 - 6),
                turn([0, -size], i * 22.5),
                turn([0, -size * 0.3], i * 22.5 + 6),
              ];
              return line([a, b, c]);
            }).join("")}
            fill={fill}
            width={0.8}
          />
        )}
        <Ink d={disc(0, 0, size * (rays ? 0.34 : 0.55))} fill={wash("yellow")} width={0.9} />
      </g>
    );
  }
  if (traits.lacks("petal-number") || traits.lacks("corolla-form")) {
    return (
      <g transform={place}>
        <Ink d={disc(0, 0, size * 0.4)} fill={fill} width={0.8} />
        <Ink d={[-30, 30].map((a) => line([[0, 0], turn([0, -size * 0.75], a)])).join("")} width={0.7} />
      </g>
    );
  }
  if (["bell", "urn", "tube"].includes(form)) {
    return (
      <g transform={place}>
        <Ink
          d={
            form === "urn"
              ? `M${-size * 0.2} 0Q${-size * 0.75} ${size * 0.7} ${-size * 0.22} ${size * 1.2}H${size * 0.22}Q${size * 0.75} ${size * 0.7} ${size * 0.2} 0Z`
              : `M${-size * 0.2} 0Q${-size * 0.55} ${size * 0.5} ${-size * 0.62} ${size * 1.15}L0 ${size}L${size * 0.62} ${size * 1.15}Q${size * 0.55} ${size * 0.5} ${size * 0.2} 0Z`
          }
          fill={fill}
          width={0.9}
        />
        {traits.state("stamen-place") === "out" && (
          <Ink
            d={`M${-size * 0.2} ${size * 1.1}v${size * 0.5}M${size * 0.2} ${size * 1.1}v${size * 0.5}`}
            width={0.8}
          />
        )}
      </g>
    );
  }
  if (["pea", "two-lipped", "spurred"].includes(form)) {
    return (
      <g transform={place}>
        {form === "spurred" && (
          <Ink
            d={smooth([
              [0, 0],
              [size * 0.8, size * 0.1],
              [size * 1.1, size * 0.5],
            ])}
            width={1.1}
          />
        )}
        <Ink
          d={`M0 0Q${-size} ${-size * 0.2} ${-size * 0.5} ${-size}Q0 ${-size * 1.2} ${size * 0.5} ${-size}Q${size} ${-size * 0.2} 0 0Z`}
          fill={fill}
          width={0.9}
        />
        <Ink
          d={`M0 0Q${-size * 0.6} ${size * 0.2} ${-size * 0.3} ${size * 0.7}Q0 ${size * 0.9} ${size * 0.3} ${size * 0.7}Q${size * 0.6} ${size * 0.2} 0 0Z`}
          fill={fill}
          width={0.9}
        />
      </g>
    );
  }
  const petals = Math.min(8, Math.max(3, Math.round(traits.size("petal-number") ?? 5)));
  return (
    <g transform={place}>
      <Ink
        d={Array.from({ length: petals }, (_, i) => {
          const t = (360 * i) / petals;
          const w = 150 / petals;
          const [a, b, c] = [
            turn([0, -size * 0.85], t - w),
            turn([0, -size * 1.05], t),
            turn([0, -size * 0.85], t + w),
          ];
          return `M0 0Q${a[0]} ${a[1]} ${b[0]} ${b[1]}Q${c[0]} ${c[1]} 0 0Z`;
        }).join("")}
        fill={fill}
        width={size < 2 ? 0.5 : 0.8}
      />
    </g>
  );
}

/** A grass spikelet: glumes and florets in two rows. */
function Spikelet({ traits, size }: { traits: Traits; size: number }) {
  const florets = Math.min(11, Math.max(1, Math.round(traits.size("spikelet-florets") ?? 4)));
  const awn = traits.state("awn") ?? "none";
  const one = size / (1 + florets * 0.32);
  const marks: ReactNode[] = [];
  for (let i = 0; i < florets; i++) {
    const s = i % 2 ? 1 : -1;
    const y = -i * one * 0.32;
    const tip: Point = [s * one * 0.3, y - one * 0.86];
    marks.push(
      <g key={i}>
        <Ink
          d={smooth([[0, y], [s * one * 0.3, y - one * 0.3], tip, [s * one * 0.08, y - one * 0.5], [0, y]])}
          fill={wash("green")}
          width={0.9}
        />
        {awn !== "none" && (
          <Ink
            d={
              awn === "bent"
                ? line([
                    [s * one * 0.2, y - one * 0.5],
                    [s * one * 0.46, y - one],
                    [s * one * 0.86, y - one * 1.35],
                  ])
                : line([tip, [tip[0] + s * one * 0.1, tip[1] - one * (awn === "tip" ? 0.2 : 0.85)]])
            }
            width={0.9}
          />
        )}
      </g>,
    );
  }
  return (
    <>
      <Ink
        d={[-1, 1]
          .map((s) =>
            smooth([
              [0, one * 0.1],
              [s * one * 0.3, -one * 0.1],
              [s * one * 0.34, -one * 0.6],
              [s * one * 0.06, -one * 0.2],
              [0, one * 0.1],
            ]),
          )
          .join("")}
        fill={wash("pale")}
        width={0.9}
      />
      {marks}
    </>
  );
}

/** The arrangement of the flowers, as a scheme with the taxon's own flowers in it. */
export function inflorescence(traits: Traits): Drawn {
  const type = traits.state("inflorescence-type") ?? "single";
  const isGrass = traits.has("spikelet-florets");
  const bracts = traits.state("bract-to-head");
  const parts: ReactNode[] = [];
  let stems: string;
  const small = 3.4;
  const put = (at: Point, size = small, angle = 0) => {
    if (isGrass)
      parts.push(
        <g key={parts.length} transform={`translate(${at[0]} ${at[1]}) rotate(${angle})`}>
          <Spikelet traits={traits} size={size * 3} />
        </g>,
      );
    else parts.push(<Small key={parts.length} traits={traits} at={at} size={size} angle={angle} />);
  };
  let box: [number, number, number, number] = [-16, -44, 32, 46];
  switch (type) {
    case "raceme":
    case "spike":
      stems = line([
        [0, 2],
        [0, -40],
      ]);
      for (let i = 0; i < 8; i++) {
        const s = i % 2 ? 1 : -1;
        const y = -9 - i * 4.2;
        const stalk = type === "raceme" ? 6.5 - i * 0.4 : isGrass ? 0.6 : 2.2;
        if (type === "raceme")
          stems += smooth([
            [0, y],
            [s * stalk * 0.6, y - 1.6],
            [s * stalk, y - 1.8],
          ]);
        put([s * stalk, y - 1.8], small * (1 - i * 0.05), isGrass ? s * 8 : 0);
        if (bracts === "overtopping") stems += `M0 ${y + 1}q${s * 5} -1 ${s * 11} -6q${-s * 4} 6 ${-s * 11} 6`;
      }
      put([0, -42], small * 0.6);
      break;
    case "panicle":
      stems = line([
        [0, 2],
        [0, -38],
      ]);
      for (let i = 0; i < 5; i++) {
        const y = -8 - i * 6;
        const reach = 13 - i * 2.1;
        for (const s of [-1, 1]) {
          stems +=
            smooth([
              [0, y],
              [s * reach * 0.5, y - 4],
              [s * reach, y - 6],
            ]) +
            line([
              [s * reach * 0.5, y - 4],
              [s * reach * 0.62, y - 8],
            ]);
          put([s * reach, y - 6], small * 0.72, s * 30);
          put([s * reach * 0.62, y - 8.4], small * 0.66, s * 12);
        }
      }
      put([0, -39.5], small * 0.7);
      break;
    case "umbel":
    case "compound-umbel": {
      const compound = type === "compound-umbel";
      stems = line([
        [0, 2],
        [0, -16],
      ]);
      for (const angle of [-64, -43, -21, 0, 21, 43, 64]) {
        const end = turn([0, compound ? -38 : -36], angle * 0.82, [0, -16]);
        stems += line([[0, -16], end]);
        if (!compound) put(end, small);
        else
          for (const a of [-60, -20, 20, 60]) {
            const tip: Point = turn([end[0], end[1] - 4.6], angle * 0.5 + a, end);
            stems += line([end, tip]);
            put(tip, 1.5);
          }
      }
      if (traits.state("head-bracts") === "outer-small" || traits.state("head-bracts") === "one-row")
        stems += [-70, -40, 40, 70].map((a) => line([[0, -16], turn([0, -21], a + 180, [0, -16])])).join("");
      if (bracts === "overtopping")
        stems += [-80, -58, 58, 80]
          .map((a) => {
            const e = turn([0, -47], a, [0, -16]);
            return smooth([[0, -16], [e[0] * 0.5, -16 + (e[1] + 16) * 0.4], e]);
          })
          .join("");
      box = compound ? [-30, -48, 60, 50] : [-25, -44, 50, 46];
      break;
    }
    case "head":
      stems = line([
        [0, 2],
        [0, -22],
      ]);
      if (traits.has("floret-kinds")) put([0, -30], 10);
      else {
        for (let i = 0; i < 19; i++) {
          const [x, y] = turn([0, -8 * Math.sqrt((i + 0.5) / 19)], i * 137.5, [0, 0]);
          put([x, y - 29], small * 0.72);
        }
      }
      if (bracts === "overtopping")
        stems += [-60, 60]
          .map((a) => smooth([[0, -20], turn([0, -34], a, [0, -20]), turn([0, -46], a * 0.8, [0, -20])]))
          .join("");
      break;
    case "whorls":
      stems = line([
        [0, 2],
        [0, -40],
      ]);
      for (const [row, y] of [-9, -20, -31].entries()) {
        stems += [-1, 1].map((s) => `M0 ${y + 2}q${s * 6} 0 ${s * 12} -4q${-s * 5} 6 ${-s * 12} 5`).join("");
        for (const x of [-5, -2.5, 0, 2.5, 5]) put([x, y - Math.abs(x) * 0.1], small * (0.8 - row * 0.1));
      }
      break;
    case "cyme":
      stems =
        line([
          [0, 2],
          [0, -22],
        ]) +
        smooth([
          [0, -14],
          [-6, -20],
          [-9, -28],
        ]) +
        smooth([
          [0, -14],
          [6, -20],
          [9, -28],
        ]) +
        smooth([
          [-9, -24],
          [-13, -30],
          [-14, -35],
        ]) +
        smooth([
          [9, -24],
          [13, -30],
          [14, -35],
        ]);
      put([0, -24], small * 1.2);
      put([-9, -30], small);
      put([9, -30], small);
      put([-14, -37], small * 0.8);
      put([14, -37], small * 0.8);
      box = [-20, -44, 40, 46];
      break;
    case "cluster":
      stems = line([
        [0, 2],
        [0, -12],
      ]);
      for (const [x, y] of [
        [-12, -28],
        [-7, -32],
        [-2, -34],
        [3, -34],
        [8, -31],
        [12, -27],
        [-5, -26],
        [4, -27],
      ] as Point[]) {
        stems += smooth([
          [0, -12],
          [x * 0.6, y * 0.7],
          [x, y],
        ]);
        put([x, y], small * 0.85);
      }
      break;
    case "catkin": {
      const scale = traits.state("catkin-scale");
      stems = smooth([
        [0, 2],
        [1, -2],
        [0, -6],
      ]);
      for (let i = 0; i < 13; i++) {
        for (const k of [-1, 0, 1]) {
          const w = 5.2 * Math.sin(Math.PI * (0.12 + (0.8 * i) / 13)) ** 0.5;
          const [x, y] = [k * w * 0.62, -8 - i * 2.3 - (k === 0 ? 1 : 0)];
          parts.push(
            <g key={`${i}${k}`}>
              <Ink
                d={`M${x - 2} ${y}q0 -2.6 2 -3q2 .4 2 3q-2 1.2 -4 0Z`}
                fill={wash(scale === "two-toned" ? "pale" : scale === "fringed" ? "grey" : "yellow")}
                width={0.9}
              />
              {scale === "two-toned" && (
                <Ink d={`M${x - 1.3} ${y - 2.2}q1.3 -1.2 2.6 0q-1.3 1 -2.6 0Z`} fill="currentColor" width={0.5} />
              )}
              {scale === "fringed" && (
                <Ink d={[-1.5, -0.7, 0, 0.7, 1.5].map((d) => `M${x + d} ${y - 2.6}v-1.8`).join("")} width={0.7} />
              )}
            </g>,
          );
        }
      }
      if (traits.state("catkin-time") === "with")
        stems += smooth([
          [0, 0],
          [8, -4],
          [14, -14],
          [5, -10],
          [0, 0],
        ]);
      box = [-10, -44, 26, 48];
      break;
    }
    default:
      stems = smooth([
        [0, 2],
        [0.6, -8],
        [0, -20],
      ]);
      put([0, -27], 8);
      box = [-14, -40, 28, 42];
  }
  return {
    toScale: false,
    words: `inflorescence: ${type.replace("-", " ")}`,
    box,
    node: (
      <>
        <Ink d={stems} width={1.4} />
        {parts}
      </>
    ),
  };
}
