// The rooms of the web app from the top down: what stands in one may import from those below it, and never from beside it in "features".
const rooms = ["app", "features", "plant-in-hand", "shared", "offline", "plates", "core", "theme", "api"];

/** The room of a path below src, and its rank; a feature is a room of its own. */
function roomOf(path) {
  const parts = path.split("/");
  const rank = rooms.indexOf(parts[0]);
  return rank < 0 ? undefined : { rank, name: parts[0] === "features" ? `features/${parts[1]}` : parts[0] };
}

function resolve(from, specifier) {
  const parts = from.split("/").slice(0, -1);
  for (const step of specifier.split("/")) {
    if (step === "..") parts.pop();
    else if (step !== ".") parts.push(step);
  }
  return parts.join("/");
}

const noArrowUp = {
  meta: {
    type: "problem",
    schema: [],
    messages: { up: "“{{from}}” may not use “{{to}}”: move what both need into a room below them." },
  },
  create(context) {
    const [, own] = context.filename.split("/web/src/");
    const from = own && roomOf(own);
    if (!from) return {};
    const check = (source) => {
      if (!source || typeof source.value !== "string" || !source.value.startsWith(".")) return;
      const to = roomOf(resolve(own, source.value));
      if (to && to.name !== from.name && to.rank <= from.rank)
        context.report({ node: source, messageId: "up", data: { from: from.name, to: to.name } });
    };
    return {
      ImportDeclaration: (node) => check(node.source),
      ExportNamedDeclaration: (node) => check(node.source),
      ExportAllDeclaration: (node) => check(node.source),
      ImportExpression: (node) => check(node.source),
    };
  },
};

export default { rules: { "no-arrow-up": noArrowUp } };
