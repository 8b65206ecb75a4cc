// The words that pages show, out of the description of the API into a file of their own.
import { readFileSync, writeFileSync } from "node:fs";

const api = JSON.parse(readFileSync(new URL("../docs/openapi.json", import.meta.url), "utf8"));
writeFileSync(new URL("src/api/words.json", import.meta.url), JSON.stringify(api["x-words"], null, 2) + "\n");
