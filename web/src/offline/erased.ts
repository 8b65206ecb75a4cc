import { answerOf, api } from "../api/client";
import { inTurn } from "./inTurn";
import { copyAnew } from "./copying";
import { announce } from "./outbox";
import { kept, keep, noteAnswersChanged, store, type Command } from "./store";

const NAME = "erased";

/**
 * Forgets what was erased on request since this device looked last: what is kept of it, what it has sent of it, and what waits. Ids of plants
 * whose kept form is gone; they are fetched anew where they were taken along.
 */
export const forgetErased = (): Promise<string[]> => inTurn("garten-erased", forget);

async function forget(): Promise<string[]> {
  const all = await answerOf((signal) => api.GET("/api/v1/erased", { signal }));
  const known = new Set(await kept<string[]>(NAME));
  const fresh = all.filter((it) => !known.has(it.id));
  if (fresh.length === 0) return [];
  const people = new Set(fresh.filter((it) => it.kind === "person").map((it) => it.id));
  const gone = fresh.filter((it) => it.kind !== "person").map((it) => it.id);
  const ids = fresh.map((it) => it.id);
  const holds = (value: unknown, of: string[]) => {
    const text = JSON.stringify(value);
    return of.some((id) => text.includes(id));
  };
  const db = await store();
  const change = db.transaction(["answers", "outbox", "refused", "sent", "walks"], "readwrite");
  const plants: string[] = [];
  for (let at = await change.objectStore("answers").openCursor(); at; at = await at.continue()) {
    if (!holds(at.value, ids)) continue;
    if (at.value.name.startsWith("plant:")) plants.push(at.value.name.slice("plant:".length));
    await at.delete();
  }
  for (const name of ["outbox", "refused", "sent"] as const)
    for (let at = await change.objectStore(name).openCursor(); at; at = await at.continue()) {
      const { command } = at.value;
      if (holds(command, gone)) await at.delete();
      else if ("recorder" in command && command.recorder.id && people.has(command.recorder.id))
        await at.update({ ...at.value, command: nameless(command) } as never);
    }
  for (let at = await change.objectStore("walks").openCursor(); at; at = await at.continue())
    if (holds(at.value.plant, gone)) await at.delete();
  await change.done;
  await copyAnew();
  noteAnswersChanged();
  await keep(NAME, [...known, ...ids]);
  announce(true);
  return plants;
}

// The server doesn’t take the name up again; here it goes too.
const nameless = <T extends Command & { recorder: { name: string } }>(command: T): T => ({
  ...command,
  recorder: { ...command.recorder, name: "(erased)" },
});
