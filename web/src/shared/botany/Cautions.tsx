import BackHand from "@mui/icons-material/BackHandOutlined";
import Dangerous from "@mui/icons-material/DangerousOutlined";
import Grain from "@mui/icons-material/GrainOutlined";
import Forward from "@mui/icons-material/KeyboardDoubleArrowRight";
import Shield from "@mui/icons-material/ShieldOutlined";
import { Box, Typography } from "@mui/material";
import { Fragment, type ReactNode } from "react";
import type { Schemas } from "../../api/client";
import { TaxonLabel } from "./TaxonLabel";

type Caution = Schemas["Caution"];

const glyphs: Record<Caution, typeof Shield> = {
  poisonous: Dangerous,
  irritant: BackHand,
  protected: Shield,
  invasive: Forward,
  allergenic: Grain,
};

/** Glyph and word of each caution, in a line. */
export function CautionMarks({ cautions }: { cautions: Caution[] }) {
  return (
    <>
      {cautions.map((caution) => {
        const Glyph = glyphs[caution];
        return (
          <Box
            key={caution}
            component="span"
            sx={{ color: "signal.caution", fontWeight: 700, fontSize: "0.875rem", mr: 1, whiteSpace: "nowrap" }}
          >
            <Glyph aria-hidden="true" sx={{ fontSize: "1.05em", verticalAlign: "-0.15em", mr: 0.25 }} />
            {caution}
          </Box>
        );
      })}
    </>
  );
}

// Up to so many taxa are warned of one by one; more are named together, and the list beside says which is what.
const MOST_IN_FULL = 2;

/** What to mind before a plant is handled: the cautions of every taxon that still stands. */
export function CautionNotes({ taxa, isFolded }: { taxa: Schemas["Taxon"][]; isFolded?: boolean }) {
  const careful = taxa.filter((taxon) => taxon.cautions.length > 0);
  if (careful.length === 0) return null;
  const kinds = [...new Set(careful.flatMap((taxon) => taxon.cautions))];
  if (isFolded)
    return (
      <Box
        role="note"
        aria-label="Cautions"
        sx={{ bgcolor: "signal.cautionWash", borderLeft: "4px solid", borderColor: "signal.caution", px: 1, mb: 0.75 }}
      >
        <details>
          <Box
            component="summary"
            sx={{ minHeight: 44, display: "flex", alignItems: "center", flexWrap: "wrap", cursor: "pointer" }}
          >
            <CautionMarks cautions={kinds} />
            <Typography component="span" variant="body2" sx={{ textDecoration: "underline", textUnderlineOffset: 3 }}>
              {careful.length === 1 ? "one that still stands" : `${careful.length} that still stand`}
            </Typography>
          </Box>
          <CautionWords careful={careful} kinds={kinds} />
        </details>
      </Box>
    );
  return (
    <Box
      role="note"
      aria-label="Cautions"
      sx={{
        bgcolor: "signal.cautionWash",
        borderLeft: "4px solid",
        borderColor: "signal.caution",
        px: 1.5,
        py: 0.75,
        mb: 1.5,
      }}
    >
      <CautionWords careful={careful} kinds={kinds} />
    </Box>
  );
}

function CautionWords({ careful, kinds }: { careful: Schemas["Taxon"][]; kinds: Caution[] }) {
  return (
    <>
      {careful.length <= MOST_IN_FULL ? (
        careful.map((taxon) => (
          <Typography key={taxon.id} variant="body2">
            <CautionMarks cautions={taxon.cautions} />
            <TaxonLabel name={taxon.name} />: {taxon.cautionNote}
          </Typography>
        ))
      ) : (
        <Typography variant="body2">
          <CautionMarks cautions={kinds} />
          Still possible:{" "}
          {careful.map((taxon, i) => (
            <Fragment key={taxon.id}>
              {i > 0 && ", "}
              <TaxonLabel name={taxon.name} />
            </Fragment>
          ))}
          . Look first; don’t break, pick or taste anything.
        </Typography>
      )}
      <Typography variant="caption" sx={{ display: "block", color: "text.secondary" }}>
        Local law, the landowner’s word and licensed or medical advice come first.
      </Typography>
    </>
  );
}

/** Something that stands out of a page: a caution, or what is open. */
export function Callout({ tone, children, role }: { tone: "caution" | "open"; children: ReactNode; role?: string }) {
  return (
    <Box
      role={role}
      sx={{
        borderLeft: "4px solid",
        borderColor: `signal.${tone}`,
        bgcolor: `signal.${tone}Wash`,
        px: 1.5,
        py: 0.75,
        my: 1,
      }}
    >
      {children}
    </Box>
  );
}

/** What to mind at a place: tides, bog, rockfall. */
export function GroundCaution({ text }: { text: string }) {
  if (!text) return null;
  return (
    <Callout tone="caution" role="note">
      <Typography variant="body2">
        <strong>△ Site hazards:</strong> {text}
      </Typography>
    </Callout>
  );
}
