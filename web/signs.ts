import { mkdir, readdir, readFile, writeFile } from "node:fs/promises";
import { join } from "node:path";
import subsetFont from "subset-font";
import type { Plugin } from "vite";

// What says something on a page: its own source, and the sentences of the core and the server.
const sources = ["src", "../src"];
const texts = /\.(tsx?|cs)$/;
const cache = "node_modules/.cache/garten";
const passedOver = new Set(["bin", "obj", "node_modules"]);

async function signsOf(folder: string): Promise<Set<string>> {
  const found = new Set<string>();
  for (const entry of await readdir(folder, { withFileTypes: true })) {
    const path = join(folder, entry.name);
    if (entry.isDirectory() && !passedOver.has(entry.name)) for (const it of await signsOf(path)) found.add(it);
    // Letters, digits and stops are those of the text fonts.
    if (entry.isFile() && texts.test(entry.name))
      for (const it of await readFile(path, "utf8")) if (it > "\u00ff") found.add(it);
  }
  return found;
}

/** Makes a small font of all signs that the pages use, so that they look alike on every device, whatever fonts it has. */
export function signs(): Plugin {
  return {
    name: "signs",
    async buildStart() {
      const used = new Set((await Promise.all(sources.map(signsOf))).flatMap((it) => [...it]));
      const whole = await readFile("node_modules/dejavu-fonts-ttf/ttf/DejaVuSans.ttf");
      const font = await subsetFont(whole, [...used].sort().join(""), { targetFormat: "woff2" });
      await mkdir(cache, { recursive: true });
      await writeFile(join(cache, "signs.woff2"), font);
    },
  };
}
