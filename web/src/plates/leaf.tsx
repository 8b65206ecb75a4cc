import type { ReactNode } from "react";
import { hand, Ink, line, smooth, strokes, turn, wash, type Drawn, type Point } from "./pen";
import type { Traits } from "./traits";

interface Blade {
  length: number;
  width: number;
  /** Where it is widest, from the base, 0 to 1. */
  widest: number;
  /** Exponents of the outline towards base and tip: small is full, large is drawn out. */
  base: number;
  tip: number;
}

// By shape: length to width, place of the widest part, fullness towards base and tip.
const shapes: Record<string, { ratio: number; widest: number; base: number; tip: number }> = {
  linear: { ratio: 12, widest: 0.45, base: 0.22, tip: 0.35 },
  lanceolate: { ratio: 4.5, widest: 0.36, base: 0.75, tip: 1.15 },
  oblong: { ratio: 2.8, widest: 0.5, base: 0.38, tip: 0.38 },
  elliptic: { ratio: 2, widest: 0.5, base: 0.75, tip: 0.8 },
  ovate: { ratio: 1.6, widest: 0.34, base: 0.55, tip: 1.05 },
  obovate: { ratio: 1.7, widest: 0.66, base: 1, tip: 0.6 },
  round: { ratio: 1, widest: 0.5, base: 0.5, tip: 0.52 },
  kidney: { ratio: 0.75, widest: 0.42, base: 0.4, tip: 0.5 },
  triangular: { ratio: 1.4, widest: 0.1, base: 0.5, tip: 1.05 },
  spoon: { ratio: 3, widest: 0.76, base: 1.7, tip: 0.5 },
  rhombic: { ratio: 1.4, widest: 0.48, base: 1, tip: 1 },
  needle: { ratio: 9, widest: 0.4, base: 0.3, tip: 0.7 },
};
const plain = { ratio: 1.7, widest: 0.45, base: 0.65, tip: 0.85 };

function bladeOf(traits: Traits): Blade {
  const shape = shapes[traits.state("leaf-shape") ?? ""] ?? plain;
  const ratio = traits.size("leaf-ratio") ?? shape.ratio;
  const measured = traits.size("leaf-length");
  const across = traits.size("leaf-width");
  const length = measured ?? (across ? across * Math.min(ratio, 40) : 50);
  const width = across ?? length / ratio;
  const foot = traits.state("leaf-base");
  const tip = traits.state("leaf-tip");
  return {
    length,
    width,
    widest: shape.widest,
    base:
      foot === "wedge"
        ? Math.max(shape.base, 1.25)
        : foot === "rounded" || foot === "heart"
          ? Math.min(shape.base, 0.5)
          : shape.base,
    tip:
      tip === "blunt" || tip === "notched"
        ? Math.min(shape.tip, 0.5)
        : tip === "pointed" || tip === "spine"
          ? Math.max(shape.tip, 1.05)
          : shape.tip,
  };
}

/** Half-width at a share of the length. */
const half = (blade: Blade) => (t: number) => {
  const { widest, width, base, tip } = blade;
  const along =
    t < widest
      ? Math.sin((Math.PI / 2) * (t / widest)) ** base
      : Math.cos((Math.PI / 2) * ((t - widest) / (1 - widest))) ** tip;
  return (width / 2) * Math.max(0, along);
};

/** One side of the margin, from base to tip, with its teeth or lobes; x is positive. */
function side(blade: Blade, traits: Traits, seed: number): Point[] {
  const at = half(blade);
  const margin = traits.state("leaf-margin") ?? "entire";
  const division = traits.state("leaf-division");
  const lobes =
    division === "lobed" && traits.state("leaf-venation") !== "palmate"
      ? Math.max(2, Math.round((traits.size("lobe-number") ?? 7) / 2))
      : 0;
  const depth = traits.state("lobe-depth") === "deep" ? 0.66 : 0.42;
  const isToothed = ["toothed", "double", "spiny", "scalloped"].includes(margin);
  const teeth = isToothed
    ? Math.min(
        34,
        Math.max(
          4,
          Math.round(traits.size("tooth-number") ?? (margin === "spiny" ? 7 : margin === "scalloped" ? 11 : 15)),
        ),
      )
    : 0;
  const reach = blade.width * (margin === "spiny" ? 0.13 : margin === "scalloped" ? 0.055 : 0.065);
  const next = hand(seed);
  const points: Point[] = [];
  const steps = Math.max(64, teeth * 8);
  for (let i = 0; i <= steps; i++) {
    const t = i / steps;
    let x = at(t);
    let y = -t * blade.length;
    if (lobes > 0) {
      const phase = (t * lobes) % 1;
      // Lobes are rounded, the bays between them narrow.
      x *= 1 - depth * (1 - Math.sin(Math.PI * phase) ** 0.55) * (t > 0.04 && t < 0.96 ? 1 : 0);
      y -= blade.length * 0.02 * Math.sin(Math.PI * phase);
    }
    if (teeth > 0 && t > 0.03 && t < 0.985) {
      const phase = (t * teeth) % 1;
      const bite =
        margin === "scalloped"
          ? Math.sin(Math.PI * phase) ** 0.6
          : margin === "double"
            ? 0.75 * phase + 0.35 * ((phase * 3) % 1)
            : phase ** (margin === "spiny" ? 2.2 : 1);
      const own = reach * Math.min(1, (x / (blade.width / 2)) * 1.4 + 0.1);
      x += own * (bite - 0.5);
      if (margin !== "scalloped") y -= own * bite * 0.55;
    }
    if (margin === "wavy") x *= 1 + 0.11 * Math.sin(t * Math.PI * 9);
    x *= 1 + (next() - 0.5) * 0.006;
    points.push([Math.max(0, x), y]);
  }
  if (traits.state("leaf-tip") === "notched") points[points.length - 1] = [0, -blade.length * 0.95];
  return points;
}

function outline(blade: Blade, traits: Traits): Point[] {
  const right = side(blade, traits, 3);
  const left = side(blade, traits, 5).map(([x, y]): Point => [-x, y]);
  const foot = traits.state("leaf-base") ?? (traits.state("leaf-shape") === "kidney" ? "heart" : undefined);
  const w = blade.width;
  let base: Point[] = [];
  const skip =
    foot === "heart"
      ? Math.round(right.length * 0.1)
      : foot === "arrow" || foot === "clasping"
        ? Math.round(right.length * 0.09)
        : 1;
  if (foot === "heart") {
    // Two rounded lobes beside the stalk, as wide as the blade is there.
    const [x, y] = right[skip] ?? [w * 0.3, 0];
    const lobe = Array.from({ length: 9 }, (_, i): Point => {
      const angle = (Math.PI * (i + 0.5)) / 9;
      return [(x / 2) * (1 + Math.cos(angle)), y * (1 - (i + 0.5) / 9) + w * 0.2 * Math.sin(angle)];
    });
    base = [...lobe.map(([a, c]): Point => [-a, c]), [0, 0], ...[...lobe].reverse()];
  } else if (foot === "arrow") {
    base = [
      [-w * 0.3, w * 0.42],
      [-w * 0.1, w * 0.1],
      [0, 0],
      [w * 0.1, w * 0.1],
      [w * 0.3, w * 0.42],
    ];
  } else if (foot === "unequal") {
    base = [
      [-w * 0.1, w * 0.1],
      [0, w * 0.02],
    ];
  } else if (foot === "clasping") {
    base = [
      [-w * 0.34, w * 0.16],
      [-w * 0.16, w * 0.24],
      [0, w * 0.06],
      [w * 0.16, w * 0.24],
      [w * 0.34, w * 0.16],
    ];
  }
  return [...left.slice(skip).reverse(), ...base, ...right.slice(skip)];
}

/** Palmate lobes: a rim around the foot of the blade. */
function palmate(blade: Blade, traits: Traits): { rim: Point[]; tips: Point[] } {
  const lobes = Math.max(3, Math.round(traits.size("lobe-number") ?? 5) | 1);
  const depth = traits.state("lobe-depth") === "deep" ? 0.55 : 0.3;
  const toothed = ["toothed", "double", "spiny"].includes(traits.state("leaf-margin") ?? "");
  const heart = traits.state("leaf-base") !== "wedge";
  const reach = (lobes > 3 ? 128 : 100) + (heart ? 18 : 0);
  const rim: Point[] = [];
  const tips: Point[] = [];
  const steps = 180;
  const centre = -blade.length * 0.28;
  for (let i = 0; i <= steps; i++) {
    const share = (i / steps) * 2 - 1;
    const angle = share * reach;
    const phase = ((share + 1) / 2) * (lobes - 1);
    const near = Math.abs(phase - Math.round(phase)) * 2;
    const size = 1 - 0.34 * Math.abs(share) ** 1.5;
    let r = size * (1 - depth * near ** 1.1);
    if (toothed) r *= 1 + 0.05 * (((phase * 5) % 1) - 0.5);
    rim.push(
      turn([0, -r * blade.length * 0.74], angle * (blade.width / blade.length) ** 0.25, [0, 0]).map((v, k) =>
        k === 1 ? v + centre : v * 0.92,
      ) as Point,
    );
  }
  for (let k = 0; k < lobes; k++) {
    const share = (k / (lobes - 1)) * 2 - 1;
    const r = 1 - 0.34 * Math.abs(share) ** 1.5;
    const [x, y] = turn([0, -r * blade.length * 0.7], share * reach * (blade.width / blade.length) ** 0.25);
    tips.push([x * 0.92, y + centre]);
  }
  return { rim, tips };
}

function veins(blade: Blade, traits: Traits): string {
  const at = half(blade);
  const kind = traits.state("leaf-venation") ?? "pinnate";
  let path = "";
  if (kind === "parallel") {
    const lines = blade.width > blade.length / 6 ? 3 : 1;
    for (let k = 1; k <= lines; k++) {
      for (const s of [-1, 1]) {
        const points: Point[] = [];
        for (let i = 0; i <= 12; i++)
          points.push([(s * at(0.02 + (0.95 * i) / 12) * k) / (lines + 1), -(0.02 + (0.95 * i) / 12) * blade.length]);
        path += smooth(points);
      }
    }
    return path;
  }
  if (kind === "palmate") {
    for (const [reach, t] of [
      [0.55, 0.72],
      [0.86, 0.46],
      [0.8, 0.22],
    ] as const) {
      for (const s of [-1, 1]) {
        path += smooth([
          [0, 0],
          [s * at(t) * reach * 0.45, -t * blade.length * 0.62],
          [s * at(t) * reach, -t * blade.length],
        ]);
      }
    }
    return path;
  }
  const pairs =
    traits.state("leaf-shape") === "needle" ? 0 : Math.min(11, Math.max(4, Math.round(5 + blade.length / blade.width)));
  for (let i = 1; i <= pairs; i++) {
    const t = 0.06 + (0.82 * i) / (pairs + 1);
    const to = Math.min(0.97, t + 0.15);
    for (const s of [-1, 1]) {
      path += smooth([
        [0, -t * blade.length],
        [s * at(t + 0.05) * 0.45, -(t + 0.045) * blade.length],
        [s * at(to) * 0.84, -to * blade.length],
      ]);
    }
    if (kind === "net")
      path +=
        line([
          [at(t) * 0.3, -t * blade.length],
          [at(t) * 0.4, -(t + 0.06) * blade.length],
        ]) +
        line([
          [-at(t) * 0.3, -t * blade.length],
          [-at(t) * 0.4, -(t + 0.06) * blade.length],
        ]);
  }
  return path;
}

function hairs(blade: Blade, kind: string | undefined): ReactNode {
  if (!kind || kind === "bald") return null;
  const at = half(blade);
  const unit = blade.width * 0.035;
  if (kind === "axils") {
    let path = "";
    for (let i = 1; i <= 4; i++) {
      const y = -(0.1 + i * 0.15) * blade.length;
      for (const s of [-1, 1])
        path += `M0 ${y}l${s * unit} ${-unit * 1.6}M0 ${y}l${s * unit * 1.5} ${-unit * 0.8}M0 ${y}l${s * unit * 0.4} ${-unit * 1.8}`;
    }
    return <Ink d={path} width={0.9} />;
  }
  const make: Record<string, (x: number, y: number) => string> = {
    star: (x, y) =>
      `M${x - unit} ${y}h${unit * 2}M${x - unit * 0.5} ${y - unit}l${unit} ${unit * 2}M${x + unit * 0.5} ${y - unit}l${-unit} ${unit * 2}`,
    silky: (x, y) => `M${x} ${y}l${x > 0 ? unit * 0.7 : -unit * 0.7} ${-unit * 2.6}`,
    hairy: (x, y) => `M${x} ${y}l${unit * 0.5} ${-unit * 1.1}`,
  };
  const one = make[kind] ?? make.hairy;
  return one ? (
    <Ink d={strokes(kind === "silky" ? 90 : 54, at, blade.length, (x, y) => one(x, y), 11)} width={0.7} faint />
  ) : null;
}

/** One blade with its stalk; the foot of the blade lies at 0, 0. */
function Simple({ traits, blade }: { traits: Traits; blade: Blade }) {
  const fill = wash(traits.state("leaf-colour") === "purple" ? "purple" : traits.state("leaf-colour-beneath"), "green");
  const margin = traits.state("leaf-margin");
  const at = half(blade);
  if (traits.state("leaf-division") === "lobed" && traits.state("leaf-venation") === "palmate") {
    const { rim, tips } = palmate(blade, traits);
    return (
      <>
        <Ink d={`${smooth(rim)}L0 0Z`} fill={fill} width={1.5} />
        <Ink
          d={tips
            .map((tip) =>
              line([
                [0, 0],
                [tip[0] * 0.9, tip[1] * 0.94],
              ]),
            )
            .join("")}
          width={0.8}
          faint
        />
        {hairs({ ...blade, width: blade.width * 0.8 }, traits.state("leaf-hairs-beneath"))}
      </>
    );
  }
  return (
    <>
      <Ink d={line(outline(blade, traits), true)} fill={fill} width={1.5} />
      {margin === "rolled" && (
        <Ink
          d={
            smooth(side({ ...blade, width: blade.width * 0.72, length: blade.length * 0.97 }, traits, 3)) +
            smooth(
              side({ ...blade, width: blade.width * 0.72, length: blade.length * 0.97 }, traits, 3).map(
                ([x, y]): Point => [-x, y],
              ),
            )
          }
          width={0.9}
        />
      )}
      {margin === "ciliate" && (
        <Ink
          d={Array.from({ length: 16 }, (_, i) => (i + 1) / 17)
            .flatMap((t) =>
              [-1, 1].map(
                (s) => `M${s * at(t)} ${-t * blade.length}l${s * blade.width * 0.16} ${-blade.length * 0.02}`,
              ),
            )
            .join("")}
          width={0.9}
        />
      )}
      <Ink
        d={line([
          [0, 0],
          [0, -blade.length * (traits.state("leaf-tip") === "spine" ? 1.08 : 0.97)],
        ])}
        width={1.1}
      />
      <Ink d={veins(blade, traits)} width={0.75} faint />
      {hairs(blade, traits.state("leaf-hairs-beneath"))}
      {traits.state("leaf-upper-side") === "rough" && (
        <Ink d={strokes(60, at, blade.length, (x, y) => `M${x} ${y}h0.01`, 19)} width={1.6} />
      )}
      {traits.state("leaf-upper-side") === "glossy" && (
        <Ink
          d={smooth([
            [blade.width * 0.12, -blade.length * 0.3],
            [blade.width * 0.2, -blade.length * 0.45],
            [blade.width * 0.16, -blade.length * 0.62],
          ])}
          width={2.2}
          faint
        />
      )}
    </>
  );
}

// A leaflet has the shape of the leaf and a size of its own.
function leafletOf(traits: Traits, length: number): Blade {
  const blade = bladeOf(traits);
  const ratio = Math.max(1.2, Math.min(6, blade.length / blade.width));
  const shape = shapes[traits.state("leaf-shape") ?? ""] ?? plain;
  return { ...blade, length, width: length / (traits.has("leaf-shape") ? shape.ratio : ratio) };
}

interface Place {
  at: Point;
  angle: number;
  length: number;
}

function leaflets(traits: Traits, length: number): { places: Place[]; axis: string } {
  const division = traits.state("leaf-division");
  const frond = traits.state("frond-division");
  if (division === "ternate") {
    const one = length * 0.62;
    return {
      axis: line([
        [0, 0],
        [0, -length * 0.38],
      ]),
      places: [
        { at: [0, -length * 0.38], angle: 0, length: one },
        { at: [0, -length * 0.22], angle: -72, length: one * 0.85 },
        { at: [0, -length * 0.22], angle: 72, length: one * 0.85 },
      ],
    };
  }
  if (division === "palmate") {
    return {
      axis: "",
      places: [-110, -55, 0, 55, 110].map((angle) => ({
        at: [0, 0],
        angle,
        length: length * (1 - Math.abs(angle) / 320),
      })),
    };
  }
  const isFrond = frond !== undefined || division === "bipinnate";
  const number = isFrond
    ? 19
    : Math.max(2, Math.round(traits.size("leaflet-number") ?? (division === "bipinnate" ? 9 : 9)));
  const hasEnd = isFrond || number % 2 === 1;
  const pairs = Math.max(1, Math.floor(number / 2));
  const places: Place[] = [];
  for (let i = 0; i < pairs; i++) {
    const t = pairs === 1 ? 0.4 : 0.12 + (0.74 * i) / (pairs - 1 || 1);
    // A frond tapers to its tip; the leaflets of a leaf are much alike.
    const taper = isFrond
      ? traits.state("leaf-shape") === "lanceolate"
        ? Math.sin(Math.PI * (0.2 + 0.75 * t))
        : 1.05 - t
      : 1 - 0.25 * Math.abs(t - 0.5);
    const one =
      length * (isFrond ? 0.36 : number <= 2 ? 0.62 : Math.min(0.34, 1.5 / pairs + 0.06)) * Math.max(0.12, taper);
    for (const s of [-1, 1]) places.push({ at: [0, -t * length], angle: s * (isFrond ? 68 : 62), length: one });
  }
  if (hasEnd)
    places.push({ at: [0, -length * (isFrond ? 0.88 : 0.84)], angle: 0, length: length * (isFrond ? 0.1 : 0.2) });
  return {
    axis: line([
      [0, 0],
      [0, -length * 0.88],
    ]),
    places,
  };
}

function Compound({ traits, length, depth }: { traits: Traits; length: number; depth: number }) {
  const { places, axis } = leaflets(traits, length);
  const twice = depth > 1;
  return (
    <>
      <Ink d={axis} width={1.2} />
      {places.map((it, i) => (
        <g key={i} transform={`translate(${it.at[0]} ${it.at[1]}) rotate(${it.angle})`}>
          {twice && it.length > length * 0.09 ? (
            <Segments length={it.length} traits={traits} deep={depth > 2} />
          ) : (
            <Simple traits={withoutDivision(traits)} blade={leafletOf(traits, it.length)} />
          )}
        </g>
      ))}
    </>
  );
}

/** A leaflet that is cut again: small segments along its own axis. */
function Segments({ length, traits, deep }: { length: number; traits: Traits; deep: boolean }) {
  const fill = wash(traits.state("leaf-colour"), "green");
  let outlinePath = "";
  const count = 7;
  for (let i = 0; i < count; i++) {
    const t = 0.1 + (0.8 * i) / count;
    const size = length * 0.24 * (1.05 - t);
    for (const s of [-1, 1]) {
      const [x, y] = [0, -t * length];
      if (deep)
        for (let k = 1; k <= 3; k++)
          outlinePath += `M${x + (s * size * k) / 3.6} ${y - (size * 0.35 * k) / 3.6}l${s * size * 0.16} ${-size * 0.3}l${-s * size * 0.26} ${size * 0.02}ZM${x + (s * size * k) / 3.6} ${y - (size * 0.35 * k) / 3.6}l${s * size * 0.26} ${size * 0.12}l${-s * size * 0.2} ${size * 0.06}Z`;
      else
        outlinePath += `M${x} ${y}q${s * size * 0.5} ${-size * 0.75} ${s * size} ${-size * 0.45}q${-s * size * 0.3} ${size * 0.6} ${-s * size} ${size * 0.45}Z`;
    }
  }
  return (
    <>
      <Ink d={outlinePath} fill={fill} width={0.55} />
      <Ink
        d={line([
          [0, 0],
          [0, -length],
        ])}
        width={0.9}
      />
    </>
  );
}

const withoutDivision = (traits: Traits): Traits => ({
  ...traits,
  state: (character) =>
    character === "leaf-division" || character === "leaf-base" ? undefined : traits.state(character),
});

function Stipules({ traits, y, unit }: { traits: Traits; y: number; unit: number }) {
  if (traits.state("stipules") !== "present") return null;
  const form = traits.state("stipule-form") ?? "scale";
  const size = unit * (form === "leafy" ? 1 : 0.45);
  const one = (s: number) =>
    form === "spine"
      ? `M0 ${y}l${s * size * 1.6} ${-size * 0.7}`
      : form === "sheath"
        ? `M${s * size * 0.5} ${y}q${s * size * 0.2} ${-size * 0.8} ${s * size * 0.3} ${-size * 1.6}`
        : `M0 ${y}q${s * size * 0.3} ${-size} ${s * size} ${-size * 0.9}q${s * size * 0.1} ${size * 0.8} ${-s * size} ${size * 0.9}Z`;
  return <Ink d={one(-1) + one(1)} fill={form === "leafy" ? wash("green") : "none"} />;
}

/** How many times the blade is divided. */
export const divisions = (traits: Traits): number =>
  ({ once: 1, twice: 2, thrice: 3, undivided: 0 })[traits.state("frond-division") ?? ""] ??
  { pinnate: 1, ternate: 1, palmate: 1, bipinnate: 2 }[traits.state("leaf-division") ?? ""] ??
  0;

/** A leaf, to scale. */
export function leaf(traits: Traits): Drawn {
  const blade = bladeOf(traits);
  const stalk = Math.min(
    blade.length * 0.7,
    traits.size("petiole-length") ??
      blade.length *
        (traits.state("petiole-to-blade") === "as-long"
          ? 0.7
          : ["clasping", "sheathing"].includes(traits.state("leaf-base") ?? "") ||
              traits.state("leaf-shape") === "needle"
            ? 0.02
            : 0.2),
  );
  const depth = divisions(traits);
  const isLobedHand = traits.state("leaf-division") === "lobed" && traits.state("leaf-venation") === "palmate";
  const tendrils = traits.state("climbing-organ") === "tendrils" && depth > 0;
  const reach =
    depth > 0
      ? blade.length * (traits.state("frond-division") ? 0.36 : (traits.size("leaflet-number") ?? 9) <= 3 ? 0.55 : 0.34)
      : isLobedHand
        ? blade.length * 0.62
        : blade.width / 2 + blade.width * 0.08;
  const drop = Math.max(stalk, blade.width * 0.15);
  return {
    toScale: true,
    words: "leaf",
    box: [
      -reach,
      -blade.length * (tendrils ? 1.3 : 1.06),
      reach * 2,
      blade.length * (tendrils ? 1.3 : 1.06) + drop + blade.length * 0.03,
    ],
    node: (
      <>
        {depth > 0 ? (
          <Compound traits={traits} length={blade.length} depth={depth} />
        ) : (
          <Simple traits={traits} blade={blade} />
        )}
        {tendrils && <Tendril traits={traits} at={-blade.length * 0.88} size={blade.length * 0.36} />}
        <Ink
          d={line([
            [0, 0],
            [0, stalk],
          ])}
          width={1.8}
        />
        {traits.has("frond-scales") && (
          <FrondScales
            kind={traits.state("frond-scales")}
            stalk={stalk}
            unit={Math.max(stalk, blade.length * 0.1) * 0.14}
          />
        )}
        <Stipules traits={traits} y={stalk} unit={blade.length * 0.14} />
        {traits.state("leaf-base") === "sheathing" && (
          <Ink
            d={line([
              [-blade.width * 0.14, 0],
              [-blade.width * 0.1, drop],
              [blade.width * 0.1, drop],
              [blade.width * 0.14, 0],
            ])}
            fill={wash("green")}
          />
        )}
      </>
    ),
  };
}

function FrondScales({ kind, stalk, unit }: { kind?: string; stalk: number; unit: number }) {
  if (!kind || kind === "none") return null;
  const next = hand(4);
  const places = Array.from({ length: 9 }, (_, i) => [i % 2 ? 1 : -1, stalk * (0.25 + 0.08 * i), next()] as const);
  const one = ([s, y, r]: readonly [number, number, number]) =>
    `M0 ${y}q${s * unit * 0.5} ${-unit * 0.2} ${s * unit * (0.8 + r * 0.4)} ${unit * 0.5}q${-s * unit * 0.5} ${unit * 0.1} ${-s * unit} ${-unit * 0.3}Z`;
  return (
    <>
      <Ink d={places.map(one).join("")} fill={wash(kind === "dark" ? "black" : "pale")} width={0.8} />
      {kind === "dark-stripe" && (
        <Ink
          d={places.map(([s, y]) => `M${s * unit * 0.1} ${y}l${s * unit * 0.8} ${unit * 0.32}`).join("")}
          width={1.6}
        />
      )}
    </>
  );
}

function Tendril({ traits, at, size }: { traits: Traits; at: number; size: number }) {
  const coil = (x: number, y: number, s: number, length: number) =>
    smooth([
      [x, y],
      [x + s * length * 0.12, y - length * 0.4],
      [x + s * length * 0.3, y - length * 0.72],
      [x + s * length * 0.12, y - length * 0.95],
      [x - s * length * 0.05, y - length * 0.78],
      [x + s * length * 0.1, y - length * 0.68],
    ]);
  const form = traits.state("tendril-form") ?? "simple";
  const branches = form === "simple" ? [1] : [-1, 1, 0.3];
  return (
    <>
      <Ink
        d={
          line([
            [0, at],
            [0, at - size * 0.15],
          ]) + branches.map((s) => coil(0, at - size * 0.1, s, size)).join("")
        }
      />
      {form === "discs" && (
        <Ink
          d={branches
            .map((s) => `M${s * size * 0.1 - 0.1} ${at - size * 0.72}a${size * 0.07} ${size * 0.07} 0 1 0 .01 0Z`)
            .join("")}
          fill="currentColor"
        />
      )}
    </>
  );
}
