import { Box, ButtonBase, TextField, Typography } from "@mui/material";
import { useId, useMemo, useRef, useState, type KeyboardEvent } from "react";
import type { Schemas } from "../../api/client";
import { useAskedEither, type Host } from "../../offline/hosts";
import { TaxonLabel } from "../../shared/botany/TaxonLabel";
import { UnsettledLine, unsettledSays } from "../../shared/botany/UnsettledLine";
import { useEntered } from "../../shared/form/useEntered";

interface Props {
  /** By which name what is entered is kept. */
  list: string;
  floraId: string;
  host: Host;
  scale: Schemas["PlotScale"];
  layer: string;
  /** How many nested squares there are; 0 for none. */
  nests: number;
  onFind: (find: Schemas["PlotFind"]) => void;
}

const examples: Record<Schemas["PlotScale"], string> = {
  percent: "ve al 12",
  sevenClasses: "ve al 2",
  tenClasses: "ve al 5",
  presence: "ve al",
  count: "ve al 12",
  hits: "ve al 7/9",
};

/** The line at which a plot is written: some letters of a name, how much of it, Enter. What isn't clear is asked, and nothing is guessed. */
export function PlotEntry({ list, floraId, host, scale, layer, nests, onFind }: Props) {
  const example = `${examples[scale]}${nests > 0 ? (scale === "presence" ? " 2" : " #2") : ""}`;
  const [typed, setTypedText] = useState("");
  const latest = useRef("");
  const setTyped = (text: string) => {
    latest.current = text;
    setTypedText(text);
  };
  const [says, setSays] = useState("");
  const { unsettled, enter, settle, again } = useEntered<"plotName", null>("plotName", list, host, (answer) => {
    if (answer.meant && answer.find) onFind({ ...answer.find, taxon: answer.meant });
    return Promise.resolve(Boolean(answer.meant && answer.find));
  });
  const field = useRef<HTMLInputElement>(null);
  const listId = useId();
  const question = useMemo(
    () => (typed.trim() ? { floraId, typed, scale, layer, nests, most: 6 } : undefined),
    [floraId, typed, scale, layer, nests],
  );
  const { answer, of } = useAskedEither("plotName", question, host);
  const found = typed.trim() ? (answer?.found ?? []) : [];
  const take = (name: string, of: Schemas["PlotNameAnswer"]) => {
    if (!of.find) return setSays(`△ ${of.missing}`);
    onFind({ ...of.find, taxon: name });
    setTyped("");
    setSays("");
    field.current?.focus();
  };
  const doubt = (asked: string, now: Schemas["PlotNameAnswer"]) =>
    now.meant
      ? `△ ${now.missing}`
      : now.found.length > 1
        ? "△ Several fit. Which one?"
        : `△ No taxon of the flora fits “${asked.trim()}”.`;
  const end = async () => {
    if (!question) return;
    if (of === question && answer) return answer.meant ? take(answer.meant, answer) : setSays(doubt(typed, answer));
    // Written faster than it is answered: the next one can be typed meanwhile, and so can the fields below.
    setTyped("");
    setSays("");
    const { id, answer: late } = await enter(question, null);
    // What isn't clear comes back into the field while nothing else stands there; otherwise it is asked below.
    if (!late || (late.meant && late.find) || latest.current !== "") return;
    settle(id);
    setTyped(question.typed);
    setSays(doubt(question.typed, late));
  };
  const press = (event: KeyboardEvent) => {
    if (event.key !== "Enter") return;
    event.preventDefault();
    void end();
  };
  return (
    <Box sx={{ maxWidth: 720 }}>
      <TextField
        inputRef={field}
        fullWidth
        label={layer ? `What grows in the layer ${layer}?` : "What grows in it?"}
        placeholder={example}
        value={typed}
        onChange={(event) => {
          setTyped(event.target.value);
          setSays("");
        }}
        onKeyDown={press}
        helperText={`Letters of genus and species and how much, then Enter: ${example}${
          nests > 0 ? `. The last number is the smallest square in which it stands, 1 to ${nests}` : ""
        }`}
        slotProps={{
          inputLabel: { shrink: true },
          htmlInput: {
            role: "combobox",
            "aria-expanded": found.length > 0,
            "aria-controls": listId,
            autoComplete: "off",
            autoCapitalize: "none",
            spellCheck: false,
            enterKeyHint: "done",
            style: { fontSize: "1.35rem" },
          },
        }}
      />
      <Typography role="status" sx={{ color: "signal.open", fontWeight: 700, minHeight: says ? undefined : 0 }}>
        {says}
      </Typography>
      <Box id={listId} role="listbox" aria-label="Taxa that fit" sx={{ display: "flex", flexWrap: "wrap", gap: 0.75 }}>
        {found.map((it) => (
          <ButtonBase
            key={it.taxon}
            role="option"
            aria-selected={it.name === answer?.meant}
            tabIndex={-1}
            onClick={() => answer && take(it.name, answer)}
            sx={{
              border: 1,
              borderColor: "text.secondary",
              bgcolor: it.name === answer?.meant ? "signal.chosenWash" : "background.paper",
              minHeight: 48,
              px: 1.5,
              fontSize: "1rem",
            }}
          >
            {it.name === answer?.meant && "↵ "}
            <TaxonLabel name={it.name} />
          </ButtonBase>
        ))}
      </Box>
      {unsettled.map((it) => {
        const text = it.question.typed.trim();
        const find = it.answer?.find;
        const settled = () => {
          settle(it.id);
          field.current?.focus();
        };
        return (
          <UnsettledLine
            key={it.id}
            text={it.question.layer ? `${text}, ${it.question.layer}` : text}
            says={it.answer?.missing || unsettledSays(it.answer?.found)}
            found={find && it.answer ? it.answer.found : []}
            onTake={(name) => {
              if (find) onFind({ ...find, taxon: name });
              settled();
            }}
            ways={[
              ...(it.answer ? [] : [["Look it up again", () => again(it)] as [string, () => void]]),
              [
                "Write it anew",
                () => {
                  setTyped(it.question.typed);
                  settled();
                },
              ],
              ["Take it out", settled],
            ]}
          />
        );
      })}
    </Box>
  );
}
