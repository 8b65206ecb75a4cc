// The rules of the job stand in the core, in C#: pages show values and words that it has worked out. This finds what looks like one of them.
import { readFileSync } from "node:fs";

const words = JSON.parse(readFileSync(new globalThis.URL("src/api/words.json", import.meta.url), "utf8"));
const months = [
  ...["January", "February", "March", "April", "May", "June", "July", "August", "September", "October"],
  ...["November", "December", "Jan", "Feb", "Mar", "Apr", "Jun", "Jul", "Aug", "Sep", "Oct", "Nov", "Dec"],
];

const vocabularies = {
  months,
  organs: Object.keys(words.organs),
  tools: Object.keys(words.tools),
  phases: Object.keys(words.phases),
  handlings: Object.keys(words.handlings),
  grades: Object.keys(words.grades),
};
// So many words of one list written side by side are that list, or a part of it.
const MOST = 2;

// What places a mark on a drawing or keeps a counter in its bounds.
const layout = new Set(["max", "min", "abs", "floor", "round", "sin", "cos", "PI"]);

const textOf = (node) => (node?.type === "Literal" && typeof node.value === "string" ? node.value : undefined);
const isPlainWord = (text) => text !== undefined && /^[A-Za-z][A-Za-z ’-]*$/.test(text);
const isFraction = (node) => node.type === "Literal" && typeof node.value === "number" && !Number.isInteger(node.value);

function listed(texts) {
  return Object.entries(vocabularies).find(([, all]) => texts.filter((text) => all.includes(text)).length > MOST)?.[0];
}

const noRules = {
  meta: { type: "problem", schema: [] },
  create(context) {
    const report = (node, message) => context.report({ node, message });
    return {
      MemberExpression(node) {
        if (node.object.name === "Math" && !layout.has(node.property.name))
          report(node, `Math.${node.property.name} works something out: that is for the core.`);
      },
      BinaryExpression(node) {
        if (["<", ">", "<=", ">="].includes(node.operator) && (isFraction(node.left) || isFraction(node.right)))
          report(node, "A threshold is for the core: let its answer say on which side it is.");
      },
      ArrayExpression(node) {
        const list = listed(
          node.elements.map(
            (it) => textOf(it) ?? (it?.type === "ArrayExpression" ? textOf(it.elements[0]) : undefined),
          ),
        );
        if (list) report(node, `A list of ${list} is for the core: take it from api/words.`);
      },
      ObjectExpression(node) {
        const worded = node.properties.filter((it) => it.type === "Property" && isPlainWord(textOf(it.value)));
        const list = listed(worded.map((it) => it.key.name ?? textOf(it.key)));
        if (list) report(node, `Words for ${list} are for the core: take them from api/words.`);
      },
    };
  },
};

export default { rules: { "no-rules": noRules } };
