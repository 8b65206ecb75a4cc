import { Box, Button, ButtonBase, Typography } from "@mui/material";
import type { OpenCouplet } from "./useWalk";
import { pageLabel } from "../keys/CoupletList";
import { TaxonLabel } from "../taxa/TaxonLabel";

interface Props {
  open: OpenCouplet;
  /** The answer given before, when an answered couplet is open again; undefined on a new one. */
  given?: number | null;
  onAnswer: (lead: number | null) => void;
}

// More names than this behind a lead are counted, not listed.
const MOST_NAMED = 4;

/** A couplet with its leads as large targets. */
export function CoupletPane({ open, given, onAnswer }: Props) {
  const { couplet } = open;
  return (
    <Box component="section" aria-labelledby="couplet">
      <Typography variant="body2" color="text.secondary">
        {open.keyTitle}
        {open.branch && <> · under {open.branch}</>}
      </Typography>
      <Box sx={{ display: "flex", flexWrap: "wrap", alignItems: "baseline", columnGap: 2, mb: 1 }}>
        <Typography variant="h1" component="h2" id="couplet">
          Couplet {couplet.label}
        </Typography>
        <Typography variant="body2" color="text.secondary">
          {open.place} of {open.coupletsInKey}; {toGo(open)}
        </Typography>
      </Box>
      <KeyPlace place={open.place} of={open.coupletsInKey} />
      <Box role="group" aria-labelledby="couplet" sx={{ display: "grid", gap: 1.25, mt: 1.5 }}>
        {couplet.leads.map((lead, i) => (
          <ButtonBase
            key={i}
            onClick={() => onAnswer(i)}
            aria-keyshortcuts={i < 9 ? String(i + 1) : undefined}
            aria-pressed={given === undefined ? undefined : given === i}
            sx={{
              display: "flex",
              alignItems: "stretch",
              textAlign: "left",
              width: "100%",
              minHeight: 96,
              border: "2px solid",
              borderColor: given === i ? "primary.main" : "text.primary",
              bgcolor: given === i ? "signal.chosenWash" : "background.paper",
              "&:hover": { bgcolor: "signal.chosenWash" },
            }}
          >
            <Box
              component="span"
              sx={{
                flex: "none",
                width: 52,
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
            <Box component="span" sx={{ flex: 1, px: 2, py: 1.25, alignSelf: "center" }}>
              {lead.statements.map((statement, s) => (
                <Typography
                  key={s}
                  component="span"
                  sx={{
                    display: "block",
                    fontSize: s === 0 ? "1.15rem" : "1.0625rem",
                    fontWeight: s === 0 ? 600 : 400,
                  }}
                >
                  {statement}
                </Typography>
              ))}
              <Typography component="span" variant="body2" color="text.secondary" sx={{ display: "block", mt: 0.5 }}>
                {given === i && <strong>✓ your answer · </strong>}
                <Behind taxa={open.taxa[i] ?? []} />
                {lead.destination?.page && <>, {pageLabel(lead.destination.page)}</>}
              </Typography>
            </Box>
          </ButtonBase>
        ))}
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
