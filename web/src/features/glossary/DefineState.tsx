import { Box } from "@mui/material";
import { useState } from "react";
import type { Schemas } from "../../api/client";
import { StateFigure } from "../../plates/drawn";
import { Choice, DefineForm, Field, idOf, list } from "./fields";
import { PictureField } from "./PictureField";

interface Props {
  vocabulary: Schemas["Vocabulary"];
  onDefine: (quality: Schemas["Quality"], name: string) => Promise<boolean>;
}

// A part that shows the shape of a state plainly.
const SHOWN_ON = "leaf";

const empty = { name: "", terms: "", definition: "", broader: "", near: "", drawnAs: "" };

/** A state more for a quality that is there. */
export function DefineState({ vocabulary, onDefine }: Props) {
  const qualities = vocabulary.qualities.filter((it) => !it.replacedBy && it.states.length > 0);
  const [qualityId, setQualityId] = useState(qualities[0]?.id ?? "");
  const [draft, setDraft] = useState(empty);
  const [picture, setPicture] = useState<string>();
  const [problem, setProblem] = useState("");
  const quality = qualities.find((it) => it.id === qualityId);
  const set = (part: Partial<typeof empty>) => setDraft({ ...draft, ...part });
  const states = quality?.states.filter((it) => !it.replacedBy) ?? [];
  const figure = { id: `${SHOWN_ON}.${qualityId}`, organ: "leaf", states };
  const submit = async () => {
    if (!quality) return;
    if (!draft.name.trim()) return setProblem("Give the state a name.");
    if (!draft.definition.trim()) return setProblem("Say in a sentence what it means.");
    setProblem("");
    const state: Schemas["QualityState"] = {
      id: idOf(draft.name),
      name: draft.name.trim(),
      broader: draft.broader,
      near: draft.near,
      terms: list(`${draft.name}, ${draft.terms}`),
      definition: draft.definition.trim(),
      replacedBy: null,
      drawnAs: draft.drawnAs ? `${qualityId}.${draft.drawnAs}` : null,
      picture: picture ?? null,
    };
    if (await onDefine({ ...quality, states: [...quality.states, state] }, state.name)) {
      setDraft(empty);
      setPicture(undefined);
    }
  };
  const choices = [["", "none"] as const, ...states.map((it) => [it.id, it.name] as const)];
  return (
    <DefineForm problem={problem} onSubmit={submit}>
      <Choice
        label="Quality"
        value={qualityId}
        options={qualities.map((it) => [it.id, it.name] as const)}
        onChange={(id) => {
          setQualityId(id);
          set({ broader: "", near: "", drawnAs: "" });
        }}
        help={quality && `${quality.definition} ${quality.trap}`}
      />
      <Field label="Name of the state" value={draft.name} onChange={(name) => set({ name })} />
      <Field
        label="Other words for it"
        value={draft.terms}
        onChange={(terms) => set({ terms })}
        help="Between commas: Latin-derived ones, other spellings."
      />
      <Field label="What it means" value={draft.definition} onChange={(definition) => set({ definition })} lines={2} />
      <Choice
        label="It is a kind of"
        value={draft.broader}
        options={choices}
        onChange={(broader) => set({ broader })}
        help="What is said of a kind is said of what it is a kind of as well."
      />
      <Choice
        label="It is easily confused with"
        value={draft.near}
        options={choices}
        onChange={(near) => set({ near })}
      />
      <Choice
        label="Drawn like"
        value={draft.drawnAs}
        options={choices}
        onChange={(drawnAs) => set({ drawnAs })}
        help="One of our drawings, or a picture of your own below."
      />
      <Box sx={{ display: "flex", gap: 2, alignItems: "center" }}>
        {draft.drawnAs && <StateFigure character={figure} state={draft.drawnAs} size={96} />}
        <PictureField picture={picture} onChange={setPicture} />
      </Box>
    </DefineForm>
  );
}
