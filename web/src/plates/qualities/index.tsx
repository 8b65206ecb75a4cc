import type { Drawn } from "../pen";
import * as axes from "./axes";
import * as flowers from "./flowers";
import * as fruits from "./fruits";
import * as leaves from "./leaves";
import * as placing from "./placing";
import * as coat from "./coat";
import { framed, type Draw } from "./draw";
import * as shapes from "./shapes";

// What draws the states of a quality. What is missing here has no form: a length, a smell, the feel of a substance.
const drawers: Record<string, Draw> = {
  presence: placing.presence,
  "relative-length": placing.relativeLength,
  outline: shapes.outline,
  "solid-form": shapes.solidForm,
  apex: shapes.apex,
  "base-form": shapes.baseForm,
  margin: shapes.margin,
  "tooth-shape": shapes.toothShape,
  "tooth-size": shapes.toothSize,
  "margin-hairs": shapes.marginHairs,
  "edge-rolling": shapes.edgeRolling,
  "edge-waviness": shapes.edgeWaviness,
  "edge-colour": shapes.edgeColour,
  division: leaves.division,
  lobing: shapes.lobing,
  "lobe-depth": shapes.lobeDepth,
  arrangement: placing.arrangement,
  insertion: placing.insertion,
  attitude: placing.attitude,
  posture: axes.posture,
  fusion: placing.fusion,
  surface: coat.surface,
  relief: coat.relief,
  "hair-density": coat.hairDensity,
  "hair-form": coat.hairForm,
  "hair-length": coat.hairLength,
  "hair-texture": coat.hairTexture,
  "hair-attitude": coat.hairAttitude,
  "hair-place": coat.hairPlace,
  "hair-colour": coat.hairColour,
  "gland-form": coat.glandForm,
  "gland-place": coat.glandPlace,
  colour: coat.colour,
  "colour-depth": coat.colourDepth,
  "colour-pattern": coat.colourPattern,
  lustre: coat.lustre,
  stickiness: coat.stickiness,
  venation: leaves.venation,
  "vein-run": leaves.veinRun,
  "vein-prominence": leaves.veinProminence,
  vernation: leaves.vernation,
  aestivation: flowers.aestivation,
  symmetry: flowers.symmetry,
  sex: flowers.sex,
  dehiscence: fruits.dehiscence,
  "fruit-type": fruits.fruitType,
  "husk-splitting": fruits.huskSplitting,
  "inflorescence-type": flowers.inflorescenceType,
  complexity: axes.complexity,
  place: placing.place,
  section: axes.section,
  interior: axes.interior,
  "bark-pattern": coat.barkPattern,
  "crown-form": axes.crownForm,
  "life-span": axes.lifeSpan,
  climbing: axes.climbing,
  "ovary-position": flowers.ovaryPosition,
  exsertion: flowers.exsertion,
  "corolla-form": flowers.corollaForm,
  "lobe-attitude": flowers.lobeAttitude,
  "stamen-lengths": flowers.stamenLengths,
  placentation: flowers.placentation,
  "bud-cover": axes.budCover,
  "bud-end": axes.budEnd,
  clustering: placing.clustering,
  "scar-pattern": axes.scarPattern,
  "lenticel-form": coat.lenticelForm,
  size: placing.size,
  slenderness: placing.slenderness,
  evenness: placing.evenness,
  compactness: placing.compactness,
  widest: placing.widest,
  "ligule-kind": leaves.ligule,
  "pappus-kind": flowers.pappus,
  "floret-kinds": flowers.florets,
  rooting: axes.rooting,
  "spore-ornament": coat.sporeOrnament,
  "stomata-place": leaves.stomata,
  "frond-dimorphism": leaves.dimorphism,
  "seed-number-class": fruits.seeds,
  doubling: flowers.doubling,
  time: flowers.time,
};

/** The quality of a character that is made of part and quality; undefined for another one. */
export const qualityOf = (id: string) => /\.([a-z0-9-]+)/.exec(id)?.[1];

/** The drawing of a state of a character that is made of part and quality; undefined where it has no form. */
export function qualityFigure(character: { id: string; organ: string }, state: string): Drawn | undefined {
  const [path = "", rest = ""] = character.id.split(".");
  const [quality = "", region = ""] = rest.split("@");
  const draw = drawers[quality];
  if (!draw) return undefined;
  const [owner, part] = path.includes("/") ? path.split("/") : ["", path];
  const node = draw(state, { part: part ?? "", owner: owner ?? "", organ: character.organ, region });
  return node ? framed(node, state) : undefined;
}
