// Finds a survey of a running Garten by its id or its name, and writes its report as a page: node tools/report.mjs ADDRESS SURVEY FILE [exact]
import { writeFile } from "node:fs/promises";

const [address, wanted, file, exact] = process.argv.slice(2);

const end = (words) => {
  console.error(`garten: ${words}`);
  process.exit(1);
};

const answer = async (path) => {
  const got = await fetch(address + path).catch(() => end(`Garten doesn't answer at ${address}. Start it first: ./garten serve`));
  if (!got.ok) end(`${address}${path} answers ${got.status}.`);
  return got;
};

const surveys = await (await answer("/api/v1/surveys")).json();
const named = (text) => text.toLowerCase();
const fits = surveys.filter(({ id, name }) => id === wanted || named(name) === named(wanted));
const near = fits.length > 0 ? fits : surveys.filter(({ name }) => named(name).includes(named(wanted)));
if (near.length === 0) end(`There is no survey “${wanted}”. There are: ${surveys.map(({ name }) => `“${name}”`).join(", ") || "none"}.`);
if (near.length > 1) end(`Several surveys fit “${wanted}”: ${near.map(({ name, id }) => `“${name}” (${id})`).join(", ")}. Give the id.`);
const page = await (await answer(`/api/v1${exact ? "/exact" : ""}/surveys/${near[0].id}/report.html`)).text();
await writeFile(file, page);
console.log(near[0].name);
