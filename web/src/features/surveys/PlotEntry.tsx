import { Box, Button, ButtonBase, TextField, Typography } from "@mui/material";
import { useId, useMemo, useRef, useState, type KeyboardEvent } from "react";
import type { Schemas } from "../../api/client";
import { askEither, useAskedEither, type Host } from "../../offline/hosts";
import { TaxonLabel } from "../../shared/botany/TaxonLabel";

interface Props {
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
export function PlotEntry({ floraId, host, scale, layer, nests, onFind }: Props) {
  const example = `${examples[scale]}${nests > 0 ? (scale === "presence" ? " 2" : " #2") : ""}`;
  const [typed, setTypedText] = useState("");
  const latest = useRef("");
  const setTyped = (text: string) => {
    latest.current = text;
    setTypedText(text);
  };
  const [says, setSays] = useState("");
  // Typed, asked for and not recorded, since it isn't clear; what was typed meanwhile stays in the field.
  const [unclear, setUnclear] = useState<string[]>([]);
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
  const doubt = (asked: string, now: Schemas["PlotNameAnswer"] | undefined) => {
    if (!now) return setSays("✕ The flora can’t be asked just now.");
    setSays(now.found.length > 1 ? "△ Several fit. Which one?" : `△ No taxon of the flora fits “${asked.trim()}”.`);
  };
  const enter = async () => {
    if (!question) return;
    if (of === question && answer) return answer.meant ? take(answer.meant, answer) : doubt(typed, answer);
    // Written faster than it is answered: the next one can be typed meanwhile, and so can the fields below.
    setTyped("");
    setSays("");
    const now = await askEither("plotName", question, host).catch(() => undefined);
    if (now?.meant && now.find) return onFind({ ...now.find, taxon: now.meant });
    if (latest.current !== "")
      return setUnclear((all) => [...all.filter((it) => it !== question.typed), question.typed]);
    setTyped(question.typed);
    if (now?.meant) setSays(`△ ${now.missing}`);
    else doubt(question.typed, now);
  };
  const again = (text: string) => {
    setUnclear((all) => all.filter((it) => it !== text));
    setTyped(text);
    field.current?.focus();
  };
  const press = (event: KeyboardEvent) => {
    if (event.key !== "Enter") return;
    event.preventDefault();
    void enter();
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
      {unclear.map((text) => (
        <Box key={text} sx={{ display: "flex", flexWrap: "wrap", gap: 1.5, alignItems: "center", my: 0.5 }}>
          <Typography role="status" sx={{ color: "signal.open", fontWeight: 700 }}>
            △ “{text.trim()}” isn’t recorded: it isn’t clear.
          </Typography>
          <Button aria-label={`See to it: ${text.trim()}`} onClick={() => again(text)}>
            See to it
          </Button>
        </Box>
      ))}
    </Box>
  );
}
