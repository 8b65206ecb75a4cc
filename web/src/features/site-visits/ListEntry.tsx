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
import { useAskedEither, type Host } from "../../offline/hosts";
import { CautionMarks } from "../../shared/botany/Cautions";
import { TaxonLabel } from "../../shared/botany/TaxonLabel";
import { UnsettledLine, unsettledSays } from "../../shared/botany/UnsettledLine";
import { useEntered } from "../../shared/form/useEntered";
import { detailsTyped, listOf, type Where } from "./useVisitCommands";

type Answer = Schemas["ShortNameAnswer"];

interface Props {
  visitId: string;
  floraId: string;
  host: Host;
  /** Lists a taxon; settled once the line is kept. */
  onList: (name: string, details: Schemas["LineDetails"] | undefined, where?: Where) => Promise<unknown>;
  /** Where one is as a line is entered. */
  whereNow: () => Where;
  /** Whether something is typed: then what fits stands below. */
  onTyping: (isTyping: boolean) => void;
}

/** The line at which a list is written: a few letters and Enter. Where several taxa fit, it asks; nothing is taken in silence. */
export const ListEntry = memo(function ListEntry({ visitId, floraId, host, onList, whereNow, onTyping }: Props) {
  const [typed, setTyped] = useState("");
  const [at, setAt] = useState(-1);
  const [asks, setAsks] = useState(false);
  const { unsettled, enter, settle, again } = useEntered<"shortNames", Where>(
    "shortNames",
    listOf(visitId),
    host,
    async (answer, { where }) => {
      if (!answer.meant) return false;
      await onList(answer.meant, detailsTyped(answer), where);
      return true;
    },
  );
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
    void onList(name, by && detailsTyped(by));
    clear();
  };
  const end = () => {
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
    void enter(question, whereNow());
  };
  const press = (event: KeyboardEvent) => {
    if (event.key === "Enter") {
      event.preventDefault();
      end();
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
      {unsettled.map((it) => {
        const settled = (name?: string) => {
          if (name) void onList(name, it.answer ? detailsTyped(it.answer) : undefined, it.where);
          settle(it.id);
          field.current?.focus();
        };
        const text = it.question.typed.trim();
        return (
          <UnsettledLine
            key={it.id}
            text={text}
            says={unsettledSays(it.answer?.found)}
            found={it.answer?.found ?? []}
            onTake={settled}
            ways={[
              ...(it.answer ? [] : [["Look it up again", () => again(it)] as [string, () => void]]),
              ["Keep it as I wrote it", () => settled(text)],
              ["Not this one", () => settled()],
            ]}
          />
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
