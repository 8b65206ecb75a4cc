import { AwayError } from "../api/client";
import { firstViewDone } from "../core/firstView";
import { keep, kept } from "./store";

/** Something in its binary form, with the tag of its version. */
export interface Packed {
  tag: string;
  bytes: Uint8Array<ArrayBuffer>;
}

/** Something in its binary form: fetched where it changed, and kept on this device; without a server as it was kept. */
export async function packed(name: string, address: string): Promise<Packed> {
  const before = await kept<Packed>(name);
  const now = await fetched(address, before?.tag);
  if (now === "same" && before) return before;
  if (now && now !== "same") {
    await keep(name, now);
    return now;
  }
  if (before) return before;
  throw new AwayError();
}

// What stands there now; nothing where it is out of reach.
async function fetched(address: string, known: string | undefined): Promise<Packed | "same" | undefined> {
  try {
    const response = await fetch(address);
    const tag = response.headers.get("ETag") ?? "";
    // Something between here and the server may answer in its place, with a page of its own.
    if (!response.ok || !tag || response.headers.get("Content-Type")?.startsWith("text/")) return undefined;
    return tag === known ? "same" : { tag, bytes: new Uint8Array(await response.arrayBuffer()) };
  } catch {
    return undefined;
  }
}

let tell: () => void = () => undefined;

/** When the core knows characters, of keys or of a flora: before that it can't read a measure. */
export const charactersKnown = new Promise<void>((resolve) => (tell = resolve));

/** Notes that it does. */
export const knowsCharacters = () => tell();

/** Has the core hold one thing of a kind at a time; what it holds already isn't given to it again. */
export function holder(load: (bytes: Uint8Array) => Promise<unknown>) {
  let loaded: { name: string; ready: Promise<unknown> } | undefined;
  return async (name: string, { tag, bytes }: Packed): Promise<string> => {
    const version = `${name} ${tag}`;
    if (loaded?.name !== version) loaded = { name: version, ready: firstViewDone.then(() => load(bytes)) };
    const own = loaded;
    try {
      await own.ready;
    } catch (error) {
      if (loaded === own) loaded = undefined;
      throw error;
    }
    return version;
  };
}
