import { RECORDER, lastPlace } from "../shared/form/last";
import { v7 as uuid } from "uuid";
import { today } from "../shared/calendar/day";
import { choosePlace } from "../shared/place/here";
import { announce } from "../offline/outbox";
import { store, type KeepForm, type PlantInHand } from "../offline/store";

/** Of a plant that is named without a key. */
export const WITHOUT_KEY = { hash: "", title: "" };

/**
 * Begins with a plant, through a key or without one; place and recorder are those of the last record. What is in question is of the
 * flora that is given, else of the usual one.
 */
export async function beginWalk(
  key: { hash: string; title: string },
  plant?: PlantInHand["plant"],
  observations: PlantInHand["observations"] = [],
  inQuestion?: string[],
  floraId?: string,
): Promise<string> {
  const walk: PlantInHand = {
    id: uuid(),
    start: key.hash,
    title: key.title,
    answers: [],
    observations,
    keptIds: observations.map((o) => o.id),
    form: {
      placeId: plant?.placeId ?? lastPlace(),
      date: today(),
      recorder: localStorage.getItem(RECORDER) ?? "",
      label: plant?.label ?? "",
      note: "",
    },
    plant,
    inQuestion,
    floraId,
    updatedAt: Date.now(),
  };
  await (await store()).put("walks", walk);
  announce();
  return walk.id;
}

export async function saveWalk(walk: PlantInHand): Promise<void> {
  await (await store()).put("walks", { ...walk, updatedAt: Date.now() });
  announce();
}

export async function discardWalk(id: string): Promise<PlantInHand | undefined> {
  const db = await store();
  const walk = await db.get("walks", id);
  await db.delete("walks", id);
  announce();
  return walk;
}

/** What the next record starts with. */
export function remember(form: KeepForm): void {
  localStorage.setItem(RECORDER, form.recorder);
  choosePlace(form.placeId);
}

/** What a plant in hand is called on this device. */
export const walkName = (walk: PlantInHand) =>
  walk.plant
    ? `${walk.plant.label || "A plant"} at ${walk.plant.placeName}, again`
    : walk.form.label || walk.title || "A plant without a key";
