import type { Drawn } from "../pen";
import * as build from "./build";
import * as coat from "./coat";
import { framed, type Draw } from "./draw";
import * as shapes from "./shapes";

// What draws the states of a quality. What is missing here has no form: a length, a smell, the feel of a substance.
const drawers: Record<string, Draw> = {
  presence: build.presence,
  "relative-length": build.relativeLength,
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
  division: build.division,
  lobing: shapes.lobing,
  "lobe-depth": shapes.lobeDepth,
  arrangement: build.arrangement,
  insertion: build.insertion,
  attitude: build.attitude,
  posture: build.posture,
  fusion: build.fusion,
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
  venation: build.venation,
  "vein-run": build.veinRun,
  "vein-prominence": build.veinProminence,
  vernation: build.vernation,
  aestivation: build.aestivation,
  symmetry: build.symmetry,
  sex: build.sex,
  dehiscence: build.dehiscence,
  "fruit-type": build.fruitType,
  "husk-splitting": build.huskSplitting,
  "inflorescence-type": build.inflorescenceType,
  complexity: build.complexity,
  place: build.place,
  section: build.section,
  interior: build.interior,
  "bark-pattern": coat.barkPattern,
  "crown-form": build.crownForm,
  "life-span": build.lifeSpan,
  climbing: build.climbing,
  "ovary-position": build.ovaryPosition,
  exsertion: build.exsertion,
  "corolla-form": build.corollaForm,
  "lobe-attitude": build.lobeAttitude,
  "stamen-lengths": build.stamenLengths,
  placentation: build.placentation,
  "bud-cover": build.budCover,
  "bud-end": build.budEnd,
  clustering: build.clustering,
  "scar-pattern": build.scarPattern,
  "lenticel-form": coat.lenticelForm,
  size: build.size,
  slenderness: build.slenderness,
  "ligule-kind": build.ligule,
  "pappus-kind": build.pappus,
  "floret-kinds": build.florets,
  rooting: build.rooting,
  "spore-ornament": coat.sporeOrnament,
  "stomata-place": build.stomata,
  "frond-dimorphism": build.dimorphism,
  "seed-number-class": build.seeds,
  doubling: build.doubling,
  time: build.time,
};

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
