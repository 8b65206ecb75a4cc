import { useState } from "react";
import type { Schemas } from "../../api/client";
import words from "../../api/words";
import { Choice, DefineForm, entries, Field, HowSeen, idOf, list } from "./fields";

interface Props {
  vocabulary: Schemas["Vocabulary"];
  onDefine: (part: Schemas["Part"]) => Promise<boolean>;
}

type Part = Schemas["Part"];

const empty = {
  nouns: "",
  definition: "",
  parent: "plant",
  owner: "",
  class: "body" as Part["class"],
  organ: "leaf" as Part["organ"],
  tool: "eye" as Part["tool"],
  handling: "look" as Part["handling"],
};

/** A part of plants. */
export function DefinePart({ vocabulary, onDefine }: Props) {
  const [draft, setDraft] = useState(empty);
  const [problem, setProblem] = useState("");
  const set = (part: Partial<typeof empty>) => setDraft({ ...draft, ...part });
  const parts = vocabulary.parts.filter((it) => !it.replacedBy).map((it) => [it.id, it.nouns[0] ?? it.id] as const);
  const submit = async () => {
    const nouns = list(draft.nouns);
    const [name] = nouns;
    if (!name) return setProblem("Give the part a noun.");
    if (!draft.definition.trim()) return setProblem("Say in a sentence what it is.");
    setProblem("");
    const done = await onDefine({
      id: idOf(name),
      parent: draft.owner ? "" : draft.parent,
      class: draft.class,
      organ: draft.organ,
      owners: draft.owner ? [draft.owner] : [],
      nouns,
      groups: [],
      seenIn: [],
      tool: draft.tool,
      handling: draft.handling,
      definition: draft.definition.trim(),
      replacedBy: null,
    });
    if (done) setDraft(empty);
  };
  return (
    <DefineForm problem={problem} onSubmit={submit}>
      <Field
        label="Its nouns"
        value={draft.nouns}
        onChange={(nouns) => set({ nouns })}
        help="Between commas: the usual one, its plural, then others."
      />
      <Field label="What it is" value={draft.definition} onChange={(definition) => set({ definition })} lines={2} />
      <Choice label="It is a part of" value={draft.parent} options={parts} onChange={(parent) => set({ parent })} />
      <Choice
        label="Or many parts have it"
        value={draft.owner}
        options={[["", "no, only the one above"], ["any", "any part can have it"], ...parts]}
        onChange={(owner) => set({ owner })}
      />
      <Choice
        label="What it is like in space"
        value={draft.class}
        options={entries(words.partClasses)}
        onChange={(it) => set({ class: it })}
        help="It says which qualities it usually has."
      />
      <Choice
        label="Where on the plant it is looked for"
        value={draft.organ}
        options={entries(words.organs)}
        onChange={(organ) => set({ organ })}
      />
      <HowSeen of={draft} onChange={set} />
    </DefineForm>
  );
}
