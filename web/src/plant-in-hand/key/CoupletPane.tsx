import { Box, Button, ButtonBase, Typography } from "@mui/material";
import { useState } from "react";
import type { Schemas } from "../../api/client";
import type { OpenCouplet } from "./useWalk";
import { QuietButton } from "../../shared/ui/QuietButton";
import { pageLabel } from "../../shared/botany/CoupletList";
import { TaxonLabel } from "../../shared/botany/TaxonLabel";
import { useIsPhone } from "../../shared/ui/useIsPhone";
import { PlainStatement, Statement } from "./CoupletStatement";

interface Props {
  open: OpenCouplet;
  /** What the sheet says of it. */
  verdict?: Schemas["CoupletVerdict"];
  /** A statement that fits or doesn't, as it was tapped. */
  onStatement: (lead: number, statement: number, fits: boolean) => void;
  /** Opens the sheet at a character. */
  onLook: (character: string) => void;
  /** Opens the terms of a statement. */
  onTerm: (reading: Schemas["StatementReading"]) => void;
  /** Holds what lies on either side against each other. */
  onContrast: () => void;
  /** The answer given before, when an answered couplet is open again; undefined on a new one. */
  given?: number | null;
  /** Whether the answer is, or will be, only fairly sure. */
  fairly: boolean;
  onFairly: (fairly: boolean) => void;
  onAnswer: (lead: number | null) => void;
}

// More names than this behind a lead are counted, not listed.
const MOST_NAMED = 4;

/** A couplet with its leads as large targets. */
export function CoupletPane(props: Props) {
  const { open, verdict, given, fairly, onFairly, onAnswer, onStatement, onLook, onTerm, onContrast } = props;
  const { couplet } = open;
  const isPhone = useIsPhone();
  // On a phone the leads come first: their statements are weighed one by one where somebody asks for it.
  const [weighing, setWeighing] = useState<number>();
  const count = `${open.place} of ${open.coupletsInKey}; ${toGo(open)}`;
  return (
    <Box component="section" aria-labelledby="couplet">
      {isPhone ? (
        <Box sx={{ display: "flex", alignItems: "baseline", columnGap: 1, minWidth: 0 }}>
          <Typography variant="h2" id="couplet" sx={{ flex: "none" }}>
            Couplet {couplet.label}
          </Typography>
          <Typography variant="caption" color="text.secondary" noWrap>
            {open.branch && <>under {open.branch} · </>}
            {count} · {open.keyTitle}
          </Typography>
        </Box>
      ) : (
        <>
          <Typography variant="body2" color="text.secondary">
            {open.keyTitle}
            {open.branch && <> · under {open.branch}</>}
          </Typography>
          <Box sx={{ display: "flex", flexWrap: "wrap", alignItems: "baseline", columnGap: 2, mb: 1 }}>
            <Typography variant="h1" component="h2" id="couplet">
              Couplet {couplet.label}
            </Typography>
            <Typography variant="body2" color="text.secondary">
              {count}
            </Typography>
          </Box>
          <KeyPlace place={open.place} of={open.coupletsInKey} />
        </>
      )}
      {verdict && verdict.call !== "unseen" && <VerdictLine verdict={verdict} />}
      <Box
        role="group"
        aria-labelledby="couplet"
        sx={{ display: "grid", gap: { xs: 1, sm: 1.25 }, mt: { xs: 0.5, sm: 1.5 } }}
      >
        {couplet.leads.map((lead, i) => {
          const weighed = verdict?.leads[i];
          const taxa = open.taxa[i] ?? [];
          return (
            <Box
              key={i}
              sx={{
                position: "relative",
                display: "flex",
                alignItems: "stretch",
                border: "2px solid",
                borderColor: given === i ? "primary.main" : "text.primary",
                bgcolor: given === i ? "signal.chosenWash" : "background.paper",
                minHeight: { xs: 64, sm: 96 },
                "&:has(> button:hover)": { bgcolor: "signal.chosenWash" },
              }}
            >
              {/* The whole lead is one target; what can be tapped inside it lies above. */}
              <ButtonBase
                onClick={() => onAnswer(i)}
                aria-label={`${i + 1} ${lead.statements.join("; ")}; ${taxa.length === 1 ? taxa[0]?.name : `${taxa.length} taxa`}`}
                aria-keyshortcuts={i < 9 ? String(i + 1) : undefined}
                aria-pressed={given === undefined ? undefined : given === i}
                sx={{ position: "absolute", inset: 0 }}
              />
              <Box
                aria-hidden="true"
                sx={{
                  flex: "none",
                  width: { xs: 36, sm: 52 },
                  display: "grid",
                  placeItems: "center",
                  borderRight: 1,
                  borderColor: "rule",
                  fontWeight: 700,
                  fontSize: "1.3rem",
                }}
              >
                {i + 1}
              </Box>
              <Box sx={{ flex: 1, minWidth: 0, pl: { xs: 1.25, sm: 2 }, pr: 1, py: 0.75, alignSelf: "center" }}>
                {isPhone && weighing !== i && (
                  <Box sx={{ lineHeight: 1.35 }}>
                    {lead.statements.map((statement, s) => (
                      <PlainStatement key={s} text={statement} first={s === 0} it={weighed?.statements[s]} />
                    ))}
                  </Box>
                )}
                {(!isPhone || weighing === i) &&
                  lead.statements.map((statement, s) => (
                    <Statement
                      key={s}
                      text={statement}
                      first={s === 0}
                      it={weighed?.statements[s]}
                      onFits={(fits) => onStatement(i, s, fits)}
                      onLook={onLook}
                      onTerm={onTerm}
                    />
                  ))}
                <Box sx={{ display: "flex", alignItems: "center", gap: 1.5, mt: 0.25 }}>
                  <Typography component="span" variant="body2" color="text.secondary" sx={{ flex: 1 }}>
                    {given === i && <strong>✓ your answer · </strong>}
                    <Behind taxa={taxa} />
                    {lead.destination?.page && <>, {pageLabel(lead.destination.page)}</>}
                  </Typography>
                  {weighed && verdict.call !== "unseen" && (
                    <ShareBar share={weighed.share} words={weighed.shareInWords} best={verdict.best === i} />
                  )}
                  {isPhone && (
                    <Box sx={{ position: "relative", zIndex: 1, flex: "none" }}>
                      <QuietButton
                        name={`${weighing === i ? "Close" : "One by one"}: lead ${i + 1}`}
                        expanded={weighing === i}
                        onClick={() => setWeighing(weighing === i ? undefined : i)}
                      >
                        {weighing === i ? "Close" : "One by one"}
                      </QuietButton>
                    </Box>
                  )}
                </Box>
              </Box>
            </Box>
          );
        })}
        <Button
          onClick={() => onAnswer(null)}
          aria-keyshortcuts="0"
          aria-pressed={given === undefined ? undefined : given === null}
          sx={{
            justifyContent: "flex-start",
            gap: 2,
            minHeight: 56,
            borderStyle: "dashed",
            borderColor: "signal.open",
            color: "text.primary",
          }}
        >
          <Box component="span" sx={{ fontWeight: 700, fontSize: "1.2rem", width: 20 }}>
            0
          </Box>
          <span>
            {given === null && "✓ your answer · "}Can’t tell: keep{" "}
            {couplet.leads.length === 2 ? "both" : `all ${couplet.leads.length}`} open
          </span>
        </Button>
        <Box sx={{ display: "flex", flexWrap: "wrap", alignItems: "center", justifyContent: "space-between" }}>
          <ButtonBase
            aria-pressed={fairly}
            aria-keyshortcuts="f"
            onClick={() => onFairly(!fairly)}
            sx={{ minHeight: 44, px: 0.5, gap: 1, fontSize: "0.9375rem" }}
          >
            <span aria-hidden="true">{fairly ? "☑" : "☐"}</span>
            <span>
              Only <strong>fairly sure</strong> of the answer
            </span>
          </ButtonBase>
          {new Set(open.taxa.flat().flatMap((it) => it.taxonId ?? [])).size > 1 && (
            <QuietButton name="Contrast what lies on either side" onClick={onContrast}>
              Contrast what lies on either side
            </QuietButton>
          )}
        </Box>
      </Box>
    </Box>
  );

  function toGo({ fewestToEnd, mostToEnd }: OpenCouplet) {
    if (mostToEnd === 1) return "the last one on this way";
    if (fewestToEnd === mostToEnd) return `${mostToEnd} to go`;
    return `${fewestToEnd} to ${mostToEnd} to go`;
  }
}

function Behind({ taxa }: { taxa: OpenCouplet["taxa"][number] }) {
  const [first] = taxa;
  if (taxa.length === 1 && first) {
    return (
      <>
        → <TaxonLabel name={first.name} scientific={first.taxon?.isScientific ?? false} />
      </>
    );
  }
  return (
    <>
      → {taxa.length} taxa
      {taxa.length <= MOST_NAMED && (
        <>
          :{" "}
          {taxa.map((taxon, i) => (
            <span key={taxon.name}>
              {i > 0 && ", "}
              <TaxonLabel name={taxon.name} scientific={taxon.taxon?.isScientific ?? false} />
            </span>
          ))}
        </>
      )}
    </>
  );
}

/** Where the couplet stands among those of its key. */
function KeyPlace({ place, of }: { place: number; of: number }) {
  const share = of <= 1 ? 0 : (place - 1) / (of - 1);
  return (
    <Box aria-hidden="true" sx={{ position: "relative", height: 12, maxWidth: 420 }}>
      <Box sx={{ position: "absolute", left: 0, right: 0, top: 5, borderTop: 2, borderColor: "rule" }} />
      <Box
        sx={{
          position: "absolute",
          left: 0,
          width: `${share * 100}%`,
          top: 5,
          borderTop: 2,
          borderColor: "text.primary",
        }}
      />
      <Box
        sx={{
          position: "absolute",
          left: `calc(${share * 100}% - ${share * 12}px)`,
          top: 0,
          width: 12,
          height: 12,
          transform: "rotate(45deg)",
          bgcolor: "primary.main",
        }}
      />
    </Box>
  );
}

function ShareBar({ share, words, best }: { share: number; words: string; best: boolean }) {
  return (
    <Box
      component="span"
      sx={{ flex: "none", width: { xs: 92, sm: 150 }, display: "flex", alignItems: "center", gap: 1 }}
    >
      <Typography
        component="span"
        variant="body2"
        sx={{ fontWeight: best ? 700 : 400, textAlign: "right", minWidth: 66, order: 1 }}
      >
        {words}
      </Typography>
      <Box
        component="span"
        aria-hidden="true"
        sx={{ flex: 1, height: 7, border: 1, borderColor: "text.secondary", display: "block" }}
      >
        <Box
          component="span"
          sx={{
            display: "block",
            height: "100%",
            width: `${share * 100}%`,
            bgcolor: best ? "primary.main" : "text.secondary",
          }}
        />
      </Box>
    </Box>
  );
}

function VerdictLine({ verdict }: { verdict: Schemas["CoupletVerdict"] }) {
  const glyph = { clear: "●", leaning: "◐", undecided: "○", unseen: "" }[verdict.call];
  return (
    <Typography variant="body2" sx={{ mt: 1 }} aria-live="polite">
      <strong>
        {glyph} By the evidence: {verdict.words}
      </strong>{" "}
      {verdict.reasons.join(" ")}
    </Typography>
  );
}
