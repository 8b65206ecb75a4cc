import {
  Box,
  Button,
  ButtonBase,
  FormControl,
  FormHelperText,
  InputLabel,
  OutlinedInput,
  Typography,
} from "@mui/material";
import { memo, useId, useMemo, useRef, useState, type KeyboardEvent } from "react";
import type { Schemas } from "../../api/client";
import { askEither, useAskedEither, type Host } from "../../offline/hosts";
import { CautionMarks } from "../../shared/botany/Cautions";
import { detailsTyped } from "./useVisitCommands";
import { TaxonLabel } from "../../shared/botany/TaxonLabel";

type Answer = Schemas["ShortNameAnswer"];

interface Props {
  floraId: string;
  host: Host;
  onList: (name: string, details: Schemas["LineDetails"] | undefined) => void;
  /** Whether something is typed: then what fits stands below. */
  onTyping: (isTyping: boolean) => void;
}

/** Something that was entered before it was known what it means. */
interface Unclear {
  text: string;
  question: Schemas["CoreCalls"]["shortNames"]["request"];
  /** Left out where it couldn't be looked up. */
  answer?: Answer;
}

/** The line at which a list is written: a few letters and Enter. Where several taxa fit, it asks; nothing is taken in silence. */
export const ListEntry = memo(function ListEntry({ floraId, host, onList, onTyping }: Props) {
  const [typed, setTyped] = useState("");
  const [at, setAt] = useState(-1);
  const [asks, setAsks] = useState(false);
  const [unclear, setUnclear] = useState<Unclear[]>([]);
  const field = useRef<HTMLInputElement>(null);
  const [listId, fieldId] = [useId(), useId()];
  const question = useMemo(() => (typed.trim() ? { floraId, typed, most: 8 } : undefined), [floraId, typed]);
  const { answer, of } = useAskedEither("shortNames", question, host);
  const shown = typed.trim() ? answer : undefined;
  const found = shown?.found ?? [];
  const clear = () => {
    setTyped("");
    onTyping(false);
    setAt(-1);
    setAsks(false);
    field.current?.focus();
  };
  const take = (name: string, by: Answer | undefined) => {
    onList(name, by && detailsTyped(by));
    clear();
  };
  const enter = async () => {
    if (!question) return;
    const picked = found[at];
    if (picked && shown) return take(picked.name, shown);
    if (of === question && answer) {
      if (answer.meant) take(answer.meant, answer);
      else setAsks(true);
      return;
    }
    // Written faster than it is answered: the next name can be typed meanwhile, and what isn't clear is asked below.
    clear();
    await lookUp({ text: question.typed.trim(), question });
  };
  const lookUp = async (it: Unclear) => {
    const answer = await askEither("shortNames", it.question, host).catch(() => undefined);
    if (answer?.meant) onList(answer.meant, detailsTyped(answer));
    else setUnclear((all) => [...all, { ...it, answer }]);
  };
  const press = (event: KeyboardEvent) => {
    if (event.key === "Enter") {
      event.preventDefault();
      void enter();
    } else if (event.key === "ArrowDown" || event.key === "ArrowUp") {
      event.preventDefault();
      const step = event.key === "ArrowDown" ? 1 : -1;
      setAt((before) => Math.min(found.length - 1, Math.max(-1, before + step)));
    } else if (event.key === "Escape") clear();
  };
  const isNothing = shown !== undefined && of === question && found.length === 0;
  return (
    <Box sx={{ position: { xs: "sticky", sm: "static" }, top: 0, zIndex: 1, bgcolor: "ground", pt: 1 }}>
      {/* What a field of text is made of: with all that a TextField may be, menus too, the page would come later. */}
      <FormControl fullWidth>
        <InputLabel shrink htmlFor={fieldId}>
          What grows here?
        </InputLabel>
        <OutlinedInput
          id={fieldId}
          inputRef={field}
          label="What grows here?"
          notched
          placeholder="ve al"
          value={typed}
          onChange={(event) => {
            setTyped(event.target.value);
            onTyping(event.target.value.trim() !== "");
            setAt(-1);
            setAsks(false);
          }}
          onKeyDown={press}
          aria-describedby={`${fieldId}-help`}
          slotProps={{
            input: {
              role: "combobox",
              "aria-expanded": found.length > 0,
              "aria-controls": listId,
              "aria-activedescendant": at >= 0 ? `${listId}-${at}` : undefined,
              autoComplete: "off",
              autoCapitalize: "none",
              spellCheck: false,
              enterKeyHint: "done",
              style: { fontSize: "1.35rem" },
            },
          }}
        />
        <FormHelperText id={`${fieldId}-help`}>
          Letters of genus and species, then Enter. A letter behind for abundance (d a f o r, lf), or a count.
        </FormHelperText>
      </FormControl>
      <Box role="status" sx={{ minHeight: asks ? undefined : 0 }}>
        {asks && found.length > 1 && (
          <Typography sx={{ color: "signal.open", fontWeight: 700 }}>△ Several fit. Which one?</Typography>
        )}
      </Box>
      <Box id={listId} role="listbox" aria-label="Taxa that fit" sx={{ display: "flex", flexWrap: "wrap", gap: 0.75 }}>
        {found.map((it, i) => (
          <ButtonBase
            key={it.taxon}
            id={`${listId}-${i}`}
            role="option"
            aria-selected={i === at || it.name === shown?.meant}
            tabIndex={-1}
            onClick={() => take(it.name, shown)}
            sx={{
              border: i === at ? 2 : 1,
              borderColor: i === at ? "primary.main" : "text.secondary",
              bgcolor: i === at || it.name === shown?.meant ? "signal.chosenWash" : "background.paper",
              minHeight: 48,
              px: 1.5,
              fontSize: "1rem",
              textAlign: "left",
              flex: { xs: "1 1 100%", sm: "0 1 auto" },
              justifyContent: "flex-start",
            }}
          >
            {it.name === shown?.meant && "↵ "}
            <TaxonLabel name={it.name} />
            {it.commonName && (
              <Typography component="span" variant="body2" color="text.secondary" sx={{ ml: 1 }}>
                {it.commonName}
              </Typography>
            )}
            {it.cautions.length > 0 && (
              <Box component="span" sx={{ ml: 1 }}>
                <CautionMarks cautions={it.cautions.flatMap((line) => line.cautions)} />
              </Box>
            )}
          </ButtonBase>
        ))}
      </Box>
      {unclear.map((it) => {
        const settle = (name: string | undefined) => {
          if (name) onList(name, it.answer && detailsTyped(it.answer));
          setUnclear((all) => all.filter((other) => other !== it));
          field.current?.focus();
        };
        return (
          <Box key={it.text} role="group" aria-label={`Which one is “${it.text}”?`} sx={{ my: 1 }}>
            <Typography role="status" sx={{ color: "signal.open", fontWeight: 700 }}>
              △ “{it.text}”:{" "}
              {!it.answer
                ? "it couldn’t be looked up."
                : it.answer.found.length > 0
                  ? "several fit. Which one?"
                  : "no taxon of the flora fits."}
            </Typography>
            <Box sx={{ display: "flex", flexWrap: "wrap", gap: 0.75 }}>
              {!it.answer && (
                <Button
                  onClick={() => {
                    settle(undefined);
                    void lookUp(it);
                  }}
                >
                  Look it up again
                </Button>
              )}
              {it.answer?.found.map((one) => (
                <Button key={one.taxon} onClick={() => settle(one.name)}>
                  <TaxonLabel name={one.name} />
                </Button>
              ))}
              <Button onClick={() => settle(it.text)}>Keep it as I wrote it</Button>
              <Button onClick={() => settle(undefined)}>Not this one</Button>
            </Box>
          </Box>
        );
      })}
      {isNothing && (
        <Box role="status" sx={{ display: "flex", flexWrap: "wrap", gap: 1, alignItems: "center", mt: 0.5 }}>
          <Typography>No taxon of the flora fits “{typed.trim()}”.</Typography>
          <Button onClick={() => take(typed.trim(), undefined)}>Keep it as I wrote it</Button>
        </Box>
      )}
    </Box>
  );
});
