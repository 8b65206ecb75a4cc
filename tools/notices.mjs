// Writes the licences of what is shipped with the web app beside it: node tools/notices.mjs FILE
import { existsSync, readdirSync, readFileSync, writeFileSync } from "node:fs";
import { join } from "node:path";

const web = join(import.meta.dirname, "..", "web");
const lock = JSON.parse(readFileSync(join(web, "package-lock.json"), "utf8"));
const parts = ["Garten ships these packages with its web app.\n"];
for (const [path, entry] of Object.entries(lock.packages).sort(([a], [b]) => a.localeCompare(b))) {
  // What only builds and tests it isn't shipped.
  if (!path || entry.dev || entry.peer || entry.optional) continue;
  const folder = join(web, path);
  if (!existsSync(folder)) continue;
  const name = path.slice(path.lastIndexOf("node_modules/") + "node_modules/".length);
  const file = readdirSync(folder).find((it) => /^(licen[cs]e|ofl)/i.test(it));
  const text = file ? readFileSync(join(folder, file), "utf8").trim() : "(see the package)";
  parts.push(`${"=".repeat(72)}\n${name} ${entry.version} (${entry.license ?? "see below"})\n\n${text}\n`);
}
writeFileSync(process.argv[2], parts.join("\n"));
