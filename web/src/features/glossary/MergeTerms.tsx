import { useState } from "react";
import type { Schemas } from "../../api/client";
import { Choice, DefineForm } from "./fields";

type Vocabulary = Schemas["Vocabulary"];

interface Props {
  vocabulary: Vocabulary;
  onMerge: (entry: Pick<Schemas["CommandDefineTermCommand"], "part" | "quality">, name: string) => Promise<boolean>;
}

type What = "part" | "quality" | "state";

const byName = (a: readonly [string, string], b: readonly [string, string]) => a[1].localeCompare(b[1]);

function optionsOf(vocabulary: Vocabulary, what: What, qualityId: string): (readonly [string, string])[] {
  if (what === "part")
    return vocabulary.parts
      .filter((it) => !it.replacedBy)
      .map((it) => [it.id, it.nouns[0] ?? it.id] as const)
      .sort(byName);
  if (what === "quality")
    return vocabulary.qualities
      .filter((it) => !it.replacedBy)
      .map((it) => [it.id, it.name] as const)
      .sort(byName);
  const quality = vocabulary.qualities.find((it) => it.id === qualityId);
  return (quality?.states ?? []).filter((it) => !it.replacedBy).map((it) => [it.id, it.name] as const);
}

/** A part, quality or state that was made twice is merged into the other one; what was recorded with it counts for that. */
export function MergeTerms({ vocabulary, onMerge }: Props) {
  const [what, setWhat] = useState<What>("state");
  const withStates = vocabulary.qualities.filter((it) => !it.replacedBy && it.states.length > 0);
  const [qualityId, setQualityId] = useState(withStates[0]?.id ?? "");
  const options = optionsOf(vocabulary, what, qualityId);
  const [from, setFrom] = useState("");
  const [into, setInto] = useState("");
  const [problem, setProblem] = useState("");
  const choose = (next: What, quality = qualityId) => {
    setWhat(next);
    setQualityId(quality);
    setFrom("");
    setInto("");
  };
  const submit = async () => {
    if (!from || !into || from === into) return setProblem("Choose two that are not the same one.");
    setProblem("");
    const part = vocabulary.parts.find((it) => it.id === from);
    const quality = vocabulary.qualities.find((it) => it.id === (what === "state" ? qualityId : from));
    const name = options.find(([id]) => id === from)?.[1] ?? from;
    const done =
      what === "part"
        ? part && (await onMerge({ part: { ...part, replacedBy: into }, quality: null }, name))
        : quality &&
          (await onMerge(
            {
              part: null,
              quality:
                what === "quality"
                  ? { ...quality, replacedBy: into }
                  : {
                      ...quality,
                      states: quality.states.map((it) => (it.id === from ? { ...it, replacedBy: into } : it)),
                    },
            },
            name,
          ));
    if (done) choose(what);
  };
  return (
    <DefineForm problem={problem} button="Merge them" onSubmit={submit}>
      <Choice
        label="What was made twice"
        value={what}
        options={[
          ["state", "a state"],
          ["quality", "a quality"],
          ["part", "a part"],
        ]}
        onChange={(next) => choose(next)}
      />
      {what === "state" && (
        <Choice
          label="Of the quality"
          value={qualityId}
          options={withStates.map((it) => [it.id, it.name] as const)}
          onChange={(id) => choose(what, id)}
        />
      )}
      <Choice label="This one goes" value={from} options={options} onChange={setFrom} />
      <Choice
        label="Into this one"
        value={into}
        options={options}
        onChange={setInto}
        help="What was recorded or described with the first counts for this one from now on. Nothing is lost."
      />
    </DefineForm>
  );
}
