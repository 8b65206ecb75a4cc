import { v7 as uuid } from "uuid";
import type { Schemas } from "../api/client";
import { keep, kept } from "./store";

/** A person by name. One that is new here gets an identity at once, and keeps it until the server has taken it in. */
export async function personOf(
  typed: string,
  people: Schemas["PersonReference"][] | undefined,
): Promise<Schemas["PersonReference"]> {
  const name = typed.trim();
  const known = people?.find((person) => person.name === name);
  if (known) return known;
  const before = await kept<string>("recorder:" + name);
  if (before) return { id: before, name };
  const id = uuid();
  await keep("recorder:" + name, id);
  return { id, name };
}
