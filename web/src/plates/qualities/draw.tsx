import type { ReactNode } from "react";
import { Ink, line, smooth, turn, wash, type Drawn, type Point } from "../pen";

/** What the drawing of a quality is told: the part, without its owner, and the organ that it stands under. */
export interface OnPart {
  part: string;
  owner: string;
  organ: string;
  region: string;
}

/** Draws a state on a part; undefined where it has no form. */
export type Draw = (state: string, on: OnPart) => ReactNode | undefined;

/** Half the side of the square that all of these are drawn in. */
export const HALF = 24;

export const framed = (node: ReactNode, words: string): Drawn => ({
  node,
  box: [-HALF, -HALF, HALF * 2, HALF * 2],
  toScale: false,
  words,
});

/** The wash of a part where its colour isn't what is shown. */
export function usual({ part, organ }: OnPart): string {
  if (["petal", "corolla", "tepal", "corolla-lobe", "lip"].includes(part)) return wash("pink");
  if (organ === "flower" || organ === "inflorescence") return wash("white");
  if (organ === "leaf" || organ === "stem") return wash("green");
  if (organ === "twig" || organ === "bark" || organ === "bud") return wash("brown");
  return wash("pale");
}

export const pen = (d: string, fill?: string, width?: number) => <Ink d={d} fill={fill} width={width} />;

/** An outline mirrored at the y axis: points of the right side, from the foot up. */
export const mirrored = (right: Point[], isSmooth = true) => {
  const left = right.map(([x, y]): Point => [-x, y]).reverse();
  const all = [...right, ...left];
  return isSmooth ? smooth(all, true) : line(all, true);
};

export const circle = (x: number, y: number, r: number, ry = r) =>
  `M${x - r} ${y}a${r} ${ry} 0 1 0 ${2 * r} 0a${r} ${ry} 0 1 0 ${-2 * r} 0Z`;

/** The same path at several turns about a point. */
export const around = (count: number, make: (degrees: number) => string) =>
  Array.from({ length: count }, (_, i) => make((360 / count) * i)).join("");

export const ray = (degrees: number, from: number, to: number, centre: Point = [0, 0]) =>
  line([turn([centre[0], centre[1] - from], degrees, centre), turn([centre[0], centre[1] - to], degrees, centre)]);

/** A small leaf from a point, of a length, at degrees from upright. */
export function leaflet(x: number, y: number, length: number, degrees: number, wide = 0.42): string {
  const at = (points: Point[]) => points.map((p) => turn([x + p[0], y + p[1]], degrees, [x, y]));
  const w = (length * wide) / 2;
  return smooth(
    at([
      [0, 0],
      [w, -length * 0.4],
      [0, -length],
      [-w, -length * 0.4],
    ]),
    true,
  );
}

export const green = () => wash("green");

export const LEAF: Point[] = [
  [0, 18],
  [11, 11],
  [14, 2],
  [9, -10],
  [0, -20],
];

export const both = (d: (s: number) => string) => d(1) + d(-1);
