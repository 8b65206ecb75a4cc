import type { Character } from "./sheet";
import { Box, Button, Chip, MenuItem, TextField, Typography } from "@mui/material";
import { useCallback, useEffect, useRef, useState } from "react";
import { useIsPhone } from "../../shared/ui/useIsPhone";
import type { Schemas } from "../../api/client";
import { core } from "../../core/coreClient";
import { hurry } from "../../core/firstView";
import { charactersKnown } from "../../offline/packed";
import { later } from "../../shared/ui/later";
import { useCalibrated } from "./calibrated";

const CalliperKeys = later(async () => (await import("./CalliperKeys")).CalliperKeys, true);

interface Props {
  character: Character;
  /** Readings that are on the sheet already. */
  readings: Schemas["Reading"][];
  onRecord: (readings: Schemas["Reading"][]) => void;
  onStrike: (index: number, reason: string) => void;
}

const PLACES = ["low", "middle", "top"] as const;
const REASONS = ["torn or worn", "another plant’s", "misread", "not full-grown"];

/** Readings as they come, or counted; n, mean, range and interval appear while typing. */
export function MeasureField({ character, readings, onRecord, onStrike }: Props) {
  const isLength = character.kind === "length";
  const isCount = character.kind === "count";
  const [text, setText] = useState("");
  const [tally, setTally] = useState(0);
  const [unit, setUnit] = useState("mm");
  const [series, setSeries] = useState(false);
  const [at, setAt] = useState<(typeof PLACES)[number]>("low");
  const [striking, setStriking] = useState<number>();
  const [read, setRead] = useState<Schemas["MeasureResponse"]>();
  const [tried, setTried] = useState(false);
  const [readOf, setReadOf] = useState("");
  const [unread, setUnread] = useState<string[]>([]);
  const asked = useRef(0);
  const objects = useCalibrated();
  const calibrated = objects.find((o) => o.name === unit);
  const asking = useCallback(
    (typed: string): Schemas["MeasureRequest"] => ({
      text: typed,
      character: character.id,
      unit: calibrated || !isLength ? "" : unit,
      calibrated: calibrated ?? null,
      objects,
    }),
    [unit, calibrated, objects, character.id, isLength],
  );

  useEffect(() => {
    if (!text.trim()) return;
    const ask = ++asked.current;
    // What is being measured can't be read by anybody else.
    hurry();
    void charactersKnown
      .then(() => core.measure(asking(text)))
      .then((answer) => {
        if (ask !== asked.current) return;
        setRead(answer);
        setReadOf(text);
      });
  }, [text, asking]);

  const shown = text.trim() ? read : undefined;
  const wrong = shown?.line.problems.find((p) => !p.isQuestion);
  const question = shown?.line.problems.find((p) => p.isQuestion);
  const sound = shown && !wrong && shown.line.readings.length > 0;
  const keep = (kept: Schemas["Reading"][]) => {
    onRecord(series ? kept.map((r) => ({ ...r, at })) : kept);
    // A series goes on upwards.
    if (series) setAt(at === "low" ? "middle" : "top");
  };
  const clear = () => {
    setText("");
    setRead(undefined);
    setTried(false);
  };
  const keepNow = useRef(keep);
  useEffect(() => {
    keepNow.current = keep;
  });
  // A device that types has pressed Enter before what it typed is read: that is waited for, one after the other, and the field is free for
  // what it types next.
  useEffect(() => {
    const [typed] = unread;
    if (typed === undefined) return;
    let isCurrent = true;
    void charactersKnown
      .then(() => core.measure(asking(typed)))
      .then(({ line }) => {
        if (!isCurrent) return;
        setUnread((all) => all.slice(1));
        if (line.readings.length > 0 && line.problems.every((p) => p.isQuestion)) return keepNow.current(line.readings);
        setText((now) => `${typed} ${now}`.trim());
        setTried(true);
      });
    return () => {
      isCurrent = false;
    };
  }, [unread, asking]);
  const record = (typed = text) => {
    if (!typed.trim()) return;
    if (typed === text && shown && readOf === text) {
      setTried(true);
      if (!sound) return;
      keep(shown.line.readings);
      return clear();
    }
    clear();
    setUnread((all) => [...all, typed]);
  };
  // What is half typed isn't called wrong before one goes on.
  const say = wrong && (tried || text.endsWith(" ") || wrong.at < text.length);
  const isPhone = useIsPhone();
  const count = (by: number) => setTally(Math.max(0, tally + by));
  return (
    <Box>
      {character.measuredFrom && (
        <Typography variant="body2" color="text.secondary" sx={{ display: "flex", alignItems: "center", gap: 1 }}>
          <MeasureDrawing character={character} /> Measured {character.measuredFrom}.
        </Typography>
      )}
      <Box
        component="form"
        noValidate
        onSubmit={(event) => {
          event.preventDefault();
          record();
        }}
        sx={{ display: "flex", gap: 1, alignItems: "flex-start", flexWrap: "wrap", mt: 0.75 }}
      >
        <TextField
          size="small"
          label={`Readings of ${character.name}`}
          placeholder={isLength ? "12.4 13 · under 2 cm" : isCount ? "5 5 6" : "1.8 2.1"}
          value={text}
          onChange={(event) => setText(event.target.value)}
          error={Boolean(say)}
          helperText={say ? `✕ ${wrong.message}` : question ? `? ${question.message}` : shown?.shown || undefined}
          slotProps={{
            // On a phone the digits below are larger than those of its keyboard, which would hide what is measured.
            htmlInput: { inputMode: isPhone ? "none" : "text", autoComplete: "off" },
            formHelperText: { "aria-live": "polite" },
          }}
          sx={{ flex: "1 1 14rem", width: "auto", "& input": { fontSize: { xs: "1.6rem", sm: "1rem" } } }}
        />
        {isLength && (
          <TextField
            select
            size="small"
            label="in"
            value={unit}
            onChange={(event) => setUnit(event.target.value)}
            sx={{ width: 118, flex: "none" }}
          >
            {["mm", "cm", "m", "in", "ft"].map((name) => (
              <MenuItem key={name} value={name}>
                {name}
              </MenuItem>
            ))}
            {objects.map((object) => (
              <MenuItem key={object.name} value={object.name}>
                × {object.name}
              </MenuItem>
            ))}
          </TextField>
        )}
        <Button type="submit" variant="contained" disabled={!text.trim()}>
          Record
        </Button>
        {isLength && (
          <CalliperKeys
            name={character.name}
            about={readings.at(-1)?.value}
            onKeys={(keys) => {
              const typed = `${text} ${keys}`.trim();
              if (keys.endsWith("\n")) record(typed);
              else setText(typed);
            }}
          />
        )}
      </Box>
      {isPhone && (
        <Digits
          name={character.name}
          onDigit={(digit) => setText(text + digit)}
          onBack={() => setText(text.slice(0, -1))}
        />
      )}
      {isLength && (character.organ === "leaf" || character.organ === "stem") && (
        <Box
          role="group"
          aria-label={`Series of ${character.name} up the stem`}
          sx={{ display: "flex", gap: 0.75, alignItems: "center", flexWrap: "wrap", mt: 0.5 }}
        >
          <Button onClick={() => setSeries(!series)} aria-pressed={series}>
            {series && "✓ "}Series up the stem
          </Button>
          {series &&
            PLACES.map((place) => (
              <Button
                key={place}
                variant={at === place ? "contained" : "outlined"}
                aria-pressed={at === place}
                onClick={() => setAt(place)}
              >
                {place}
              </Button>
            ))}
        </Box>
      )}
      {isCount && (
        <Box
          role="group"
          aria-label={`Count ${character.name}`}
          onKeyDown={(event) => {
            const by = event.key === "+" ? 1 : event.key === "-" || event.key === "−" ? -1 : 0;
            if (by === 0) return;
            event.preventDefault();
            count(by);
          }}
          sx={{ display: "flex", gap: 1, alignItems: "center", my: 1 }}
        >
          <Button onClick={() => count(-1)} disabled={tally === 0} aria-label="One less">
            −
          </Button>
          <Typography
            aria-live="polite"
            sx={{ minWidth: 36, textAlign: "center", fontWeight: 700, fontSize: "1.2rem" }}
          >
            {tally}
          </Typography>
          <Button onClick={() => count(1)} aria-label="One more (space bar)">
            +
          </Button>
          <Button
            disabled={tally === 0}
            onClick={() => {
              setText(`${text.trim()} ${tally}`.trim());
              setTally(0);
            }}
          >
            Take {tally}
          </Button>
        </Box>
      )}
      {readings.length > 0 && (
        <Box sx={{ display: "flex", flexWrap: "wrap", gap: 0.75, alignItems: "center", mb: 1 }}>
          {readings.map((reading, i) => (
            <Chip
              key={i}
              component="button"
              label={`${reading.at ? `${reading.at}: ` : ""}${reading.text || reading.value}${reading.struck ? `, struck out: ${reading.struck}` : ""}`}
              variant="outlined"
              onClick={() => (reading.struck ? onStrike(i, "") : setStriking(striking === i ? undefined : i))}
              aria-label={
                reading.struck
                  ? `Take back in ${reading.text || reading.value}, struck out: ${reading.struck}`
                  : `Strike out ${reading.text || reading.value}`
              }
              sx={{
                borderRadius: 0.5,
                height: 44,
                fontSize: "0.95rem",
                textDecoration: reading.struck ? "line-through" : undefined,
                color: reading.struck ? "text.secondary" : undefined,
              }}
            />
          ))}
          {striking !== undefined && (
            <Box role="group" aria-label="Why it is struck out" sx={{ display: "flex", gap: 0.75, flexWrap: "wrap" }}>
              {REASONS.map((reason) => (
                <Button
                  key={reason}
                  onClick={() => {
                    onStrike(striking, reason);
                    setStriking(undefined);
                  }}
                >
                  {reason}
                </Button>
              ))}
            </Box>
          )}
        </Box>
      )}
    </Box>
  );
}

const digits = ["1", "2", "3", "4", "5", "6", "7", "8", "9", ".", "0"];

/** Digits for a wet thumb. */
function Digits(props: { name: string; onDigit: (digit: string) => void; onBack: () => void }) {
  const { name, onDigit, onBack } = props;
  const sx = { minHeight: 56, fontSize: "1.5rem", bgcolor: "background.paper" } as const;
  return (
    <Box
      role="group"
      aria-label={`Digits for ${name}`}
      sx={{ display: "grid", gridTemplateColumns: "repeat(3, minmax(0, 1fr))", gap: 0.75, mt: 1 }}
    >
      {digits.map((digit) => (
        <Button key={digit} onClick={() => onDigit(digit)} aria-label={digit === "." ? "Point" : digit} sx={sx}>
          {digit}
        </Button>
      ))}
      <Button onClick={onBack} aria-label="Take the last digit back" sx={sx}>
        ⌫
      </Button>
      <Button onClick={() => onDigit(" ")} sx={{ gridColumn: "1 / -1", minHeight: 48 }}>
        Another reading
      </Button>
    </Box>
  );
}

/** From where to where a measure goes, drawn. */
function MeasureDrawing({ character }: { character: Character }) {
  const across = character.measures.includes("wide");
  return (
    <Box
      component="svg"
      viewBox="0 0 64 40"
      aria-hidden="true"
      sx={{
        width: { xs: 112, sm: 64 },
        height: { xs: 70, sm: 40 },
        flex: "none",
        fill: "none",
        stroke: "currentColor",
        strokeWidth: 1.4,
      }}
    >
      {character.organ === "leaf" && <path d="M4 20 h10 M14 20 q18 -18 44 0 q-26 18 -44 0 M14 20 h44" />}
      {character.organ === "fruit" && <path d="M4 20 h14 M18 20 a14 12 0 1 0 28 0 a14 12 0 1 0 -28 0" />}
      {character.organ === "bud" && <path d="M8 36 v-32 M8 26 q22 -2 34 -14 q-10 20 -34 22" />}
      {character.organ === "twig" && <path d="M8 36 v-32 M8 24 l36 -8 l-36 0" />}
      {character.organ === "habit" && <path d="M4 37 h56 M32 37 v-14 q-18 -2 -12 -14 q12 -12 24 0 q6 12 -12 14" />}
      {across && character.organ === "leaf" ? (
        <path d="M36 8 v24 M33 8 h6 M33 32 h6" strokeWidth={2.2} />
      ) : character.id.startsWith("petiole") || character.id.includes("stalk") ? (
        <path d="M4 28 h12 M4 25 v6 M16 25 v6" strokeWidth={2.2} />
      ) : character.organ === "habit" ? (
        <path d="M54 4 v33 M51 4 h6 M51 37 h6" strokeWidth={2.2} />
      ) : (
        <path d="M14 36 h44 M14 33 v6 M58 33 v6" strokeWidth={2.2} />
      )}
    </Box>
  );
}
