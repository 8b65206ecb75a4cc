import words from "../../api/words";
import { Box, ButtonBase, Typography } from "@mui/material";
import type { Schemas } from "../../api/client";

import { QuietButton } from "../../shared/ui/QuietButton";

const fits: Record<Schemas["StatementFit"], { glyph: string; color: string }> = {
  fits: { glyph: "●", color: "signal.support" },
  atTheEdge: { glyph: "◐", color: "signal.support" },
  doubtful: { glyph: "?", color: "signal.open" },
  conflicts: { glyph: "✕", color: "signal.conflict" },
  notSeen: { glyph: "○", color: "text.secondary" },
  unread: { glyph: "¶", color: "text.secondary" },
};

/** The text of a statement; its terms open the glossary in place. */
function Terms(props: {
  reading: Schemas["StatementReading"];
  text: string;
  onTerm: (reading: Schemas["StatementReading"]) => void;
}) {
  const { reading, text, onTerm } = props;
  const pieces = [];
  let at = 0;
  for (const part of reading.parts.filter((p) => p.kind === "state")) {
    if (part.at < at) continue;
    const term = text.slice(part.at, part.at + part.length);
    pieces.push(text.slice(at, part.at));
    pieces.push(
      <ButtonBase
        key={part.at}
        onClick={() => onTerm(reading)}
        aria-label={`Term: ${term}`}
        sx={{
          position: "relative",
          zIndex: 1,
          display: "inline",
          font: "inherit",
          verticalAlign: "baseline",
          textDecoration: "underline dotted",
          textUnderlineOffset: 4,
          // A thumb means the lead; the term is explained on the organ's sheet.
          "@media (pointer: coarse)": { pointerEvents: "none" },
        }}
      >
        {term}
      </ButtonBase>,
    );
    at = part.at + part.length;
  }
  pieces.push(text.slice(at));
  return <>{pieces}</>;
}

/** A statement in running text, as a phone shows it: its words, and how it stands where that is known. */
export function PlainStatement({
  text,
  first,
  it,
}: {
  text: string;
  first: boolean;
  it?: Schemas["StatementVerdict"];
}) {
  const said = it && it.fit !== "notSeen" && it.fit !== "unread" ? fits[it.fit] : undefined;
  return (
    <Typography component="span" sx={{ fontSize: first ? "1.0625rem" : "1rem", fontWeight: first ? 600 : 400 }}>
      {!first && "; "}
      {text}
      {it && said && (
        <Box component="span" sx={{ color: said.color, fontWeight: 700 }}>
          {" "}
          {said.glyph} {words.statementFits[it.fit]}
        </Box>
      )}
    </Typography>
  );
}

/** A statement with how it stands and the figure behind it; a tap says that it fits, or doesn't. */
export function Statement(props: {
  text: string;
  first: boolean;
  it?: Schemas["StatementVerdict"];
  onFits: (fits: boolean, reading: Schemas["StatementReading"]) => void;
  onLook: (character: string) => void;
  onTerm: (reading: Schemas["StatementReading"]) => void;
}) {
  const { text, first, it, onFits, onLook, onTerm } = props;
  const said = it && fits[it.fit];
  const claim = it?.reading.claims[0];
  const measured = it !== undefined && it.reading.claims.length > 0 && it.reading.claims.every((c) => c.range);
  const toWeigh = it !== undefined && !measured && (it.fit === "notSeen" || it.fit === "unread");
  return (
    <Box sx={{ display: "flex", flexWrap: "wrap", alignItems: "center", columnGap: 1 }}>
      <Box sx={{ flex: "1 1 15rem", minWidth: 0 }}>
        <Typography component="span" sx={{ fontSize: first ? "1.15rem" : "1.0625rem", fontWeight: first ? 600 : 400 }}>
          {it ? <Terms reading={it.reading} text={text} onTerm={onTerm} /> : text}
        </Typography>
        {it && said && it.fit !== "notSeen" && it.fit !== "unread" && (
          <Typography component="span" variant="body2" sx={{ display: "block", color: said.color }}>
            <strong>
              {said.glyph} {words.statementFits[it.fit]}
            </strong>
            {it.seen && `: ${it.seen}`}
          </Typography>
        )}
      </Box>
      {it && said && (
        <Box sx={{ display: "flex", alignItems: "center", position: "relative", zIndex: 1 }}>
          {toWeigh && (
            <Typography component="span" variant="caption" color="text.secondary" sx={{ mr: 0.5 }}>
              {said.glyph} {words.statementFits[it.fit]}
            </Typography>
          )}
          {claim && (
            <QuietButton onClick={() => onLook(claim.character)} name={`${measured ? "Measure" : "Look"}: ${text}`}>
              {measured ? "Measure" : "Look"}
            </QuietButton>
          )}
          {toWeigh && (
            <>
              <QuietButton onClick={() => onFits(true, it.reading)} name={`Fits: ${text}`}>
                Fits
              </QuietButton>
              <QuietButton onClick={() => onFits(false, it.reading)} name={`Doesn’t fit: ${text}`}>
                Doesn’t
              </QuietButton>
            </>
          )}
        </Box>
      )}
    </Box>
  );
}
