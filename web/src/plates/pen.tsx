import type { ReactNode } from "react";

/** A part of a plate in its own space, in millimetres of the plant; y grows downwards. */
export interface Drawn {
  node: ReactNode;
  /** Left, top, width, height. */
  box: [number, number, number, number];
  /** Whether it is drawn to scale, so that a bar belongs beside it. */
  toScale: boolean;
  /** Whether only what lies inside the box is shown: a detail. */
  clipped?: boolean;
  /** What is drawn, in a few words, for those who can't see it. */
  words: string;
}

export type Point = [number, number];

const round = (value: number) => Math.round(value * 100) / 100;

/** A path through points, straight. */
export const line = (points: Point[], close = false) =>
  points.map(([x, y], i) => `${i === 0 ? "M" : "L"}${round(x)} ${round(y)}`).join("") + (close ? "Z" : "");

/** A smooth path through points (Catmull–Rom as Béziers). */
export function smooth(points: Point[], close = false): string {
  const at = (i: number): Point => {
    const n = points.length;
    const index = close ? (i + n) % n : Math.min(n - 1, Math.max(0, i));
    return points[index] ?? [0, 0];
  };
  const [x0, y0] = at(0);
  let path = `M${round(x0)} ${round(y0)}`;
  for (let i = 0; i < points.length - (close ? 0 : 1); i++) {
    const [a, b, c, d] = [at(i - 1), at(i), at(i + 1), at(i + 2)];
    path += `C${round(b[0] + (c[0] - a[0]) / 6)} ${round(b[1] + (c[1] - a[1]) / 6)} ${round(c[0] - (d[0] - b[0]) / 6)} ${round(c[1] - (d[1] - b[1]) / 6)} ${round(c[0])} ${round(c[1])}`;
  }
  return path + (close ? "Z" : "");
}

/** Numbers that look drawn by hand but are the same each time. */
export function hand(seed: number): () => number {
  let state = (seed * 2654435761 + 12345) >>> 0;
  return () => {
    state = (Math.imul(state, 1664525) + 1013904223) >>> 0;
    return state / 4294967296;
  };
}

export const turn = ([x, y]: Point, degrees: number, [cx, cy]: Point = [0, 0]): Point => {
  const angle = (degrees * Math.PI) / 180;
  const [dx, dy] = [x - cx, y - cy];
  return [cx + dx * Math.cos(angle) - dy * Math.sin(angle), cy + dx * Math.sin(angle) + dy * Math.cos(angle)];
};

interface InkProps {
  d: string;
  fill?: string;
  /** Line width in pixels, whatever the scale. */
  width?: number;
  faint?: boolean;
  dash?: string;
}

/** A pen stroke, with a flat wash inside where there is one. */
export const Ink = ({ d, fill, width = 1.2, faint, dash }: InkProps) => (
  <path
    d={d}
    fill={fill ?? "none"}
    stroke="currentColor"
    strokeWidth={width}
    strokeOpacity={faint ? 0.55 : 1}
    strokeDasharray={dash}
    strokeLinecap="round"
    strokeLinejoin="round"
    vectorEffect="non-scaling-stroke"
  />
);

/** Washes by the colour words of floras: muted, so that ink stays what is read. */
const washes: Record<string, string> = {
  green: "#9db57f",
  grey: "#b9bcb0",
  white: "#f6f2e6",
  yellow: "#e6c65a",
  orange: "#d9924a",
  red: "#b9524a",
  pink: "#dba3ad",
  purple: "#9a6f9c",
  blue: "#7f93bd",
  brown: "#a58560",
  black: "#4a444c",
  "red-brown": "#a3694d",
  pale: "#e3d8b4",
};

/** A wash; at night a darker one of the same hue, so that the light ink on it is still seen. */
export const wash = (colour: string | undefined, otherwise = "green") => {
  const name = colour !== undefined && colour in washes ? colour : otherwise;
  return `color-mix(in oklab, ${washes[name] ?? "transparent"}, var(--plate-shade, transparent) var(--plate-shading, 0%))`;
};

/** Short strokes over an area, inside of a half-width function along the y axis. */
export function strokes(
  count: number,
  inside: (t: number) => number,
  length: number,
  make: (x: number, y: number, next: () => number) => string,
  seed = 7,
): string {
  const next = hand(seed);
  let path = "";
  for (let i = 0; i < count; i++) {
    const t = (i + next()) / count;
    const half = inside(t) * 0.86;
    path += make((next() * 2 - 1) * half, -t * length, next);
  }
  return path;
}

/** A round length for a scale bar that fills about a third of a width, and its words. */
export function barOf(width: number): { length: number; words: string } {
  const wanted = width / 3;
  const power = 10 ** Math.floor(Math.log10(wanted));
  const step = wanted / power;
  const length = (step >= 5 ? 5 : step >= 2 ? 2 : 1) * power;
  const words = length >= 1000 ? `${length / 1000} m` : length >= 10 ? `${length / 10} cm` : `${round(length)} mm`;
  return { length, words };
}
