import { Box, ButtonBase, Typography } from "@mui/material";
import { startTransition, useEffect, useState } from "react";
import type { Schemas } from "../../api/client";
import { QuietButton } from "../../shared/ui/QuietButton";
import { Plate } from "../../plates/drawn";
import { CautionMarks } from "../../shared/botany/Cautions";
import { TaxonLabel } from "../../shared/botany/TaxonLabel";
import { NOT_ON_LIST } from "./useSift";
import { Reasons } from "./Reasons";

/** So many are drawn and opened; further ones are a list of names. */
export const MOST_DRAWN = 6;

const MOST_NAMED = 24;

interface Props {
  answer: Schemas["SiftResponse"];
  prior: Schemas["SiftPrior"];
  strict: boolean;
  described: Map<string, Schemas["DescribedTaxon"]>;
  characters: Schemas["Character"][];
  inQuestion: string[];
  /** The taxa whose reasons are shown. */
  opened: string[];
  onOpen: (taxon: string, open: boolean) => void;
  onToggle: (taxon: string) => void;
  onLook: (character: string) => void;
}

/** The list as it stands: drawn, with its share and what speaks for and against each. */
export function Ranking(props: Props) {
  const { answer, prior, strict, described, characters, inQuestion, opened, onOpen, onToggle, onLook } = props;
  const [all, setAll] = useState(false);
  const { standing } = answer;
  const shown = standing.slice(0, all ? MOST_NAMED : MOST_DRAWN);
  const rest = answer.listed + 1 - shown.length;
  return (
    <Box>
      <Box component="ol" aria-label="Standing" sx={{ listStyle: "none", p: 0, m: 0 }}>
        {shown.map((it, i) =>
          it.taxon === NOT_ON_LIST ? (
            <NotOnList key={it.taxon} it={it} strict={strict} />
          ) : (
            <Row
              key={it.taxon}
              it={it}
              other={prior === "equal" ? "plausible" : "equal"}
              described={described.get(it.taxon)}
              characters={characters}
              place={i}
              drawn={i <= MOST_DRAWN}
              strict={strict}
              looks={answer.sheet.length}
              on={inQuestion.includes(it.taxon)}
              why={opened.includes(it.taxon)}
              onWhy={(open) => onOpen(it.taxon, open)}
              onToggle={() => onToggle(it.taxon)}
              onLook={onLook}
            />
          ),
        )}
      </Box>
      {rest > 0 && (
        <Typography variant="body2" color="text.secondary" component="div">
          {strict && standing.length < MOST_NAMED ? (
            `${answer.listed + 1 - standing.length} taxa have more conflicts.`
          ) : (
            <>
              {rest} more{" "}
              {!all && standing.length > MOST_DRAWN && (
                <QuietButton name="Show more of the list" onClick={() => setAll(true)}>
                  Show more of the list
                </QuietButton>
              )}
            </>
          )}
        </Typography>
      )}
    </Box>
  );
}

/** A plate that is drawn after the words beside it, one plate a frame. */
function LatePlate(props: { name: string; description: Schemas["CharacterDescription"][]; wait: number }) {
  const { name, description, wait } = props;
  const [drawn, setDrawn] = useState(false);
  useEffect(() => {
    const timer = setTimeout(() => startTransition(() => setDrawn(true)), wait * FRAME_MS);
    return () => clearTimeout(timer);
  }, [wait]);
  return drawn ? <Plate name={name} description={description} small /> : null;
}

const FRAME_MS = 17;

const rowSx = { borderTop: "1px dotted", borderColor: "rule", py: 1 } as const;

function NotOnList({ it, strict }: { it: Schemas["SiftedTaxon"]; strict: boolean }) {
  return (
    <Box component="li" sx={{ ...rowSx, display: "flex", flexWrap: "wrap", columnGap: 2, alignItems: "center" }}>
      <Typography component="span" sx={{ flex: "1 1 12rem" }}>
        <Box component="span" aria-hidden="true" sx={{ color: "signal.open", fontWeight: 700 }}>
          ⊘{" "}
        </Box>
        <strong>Not on this list</strong>{" "}
        <Typography component="span" variant="body2" color="text.secondary">
          a plant that the list lacks, perhaps near kin of what it has
        </Typography>
      </Typography>
      {!strict && <Share share={it.probability} words={it.probabilityInWords} />}
    </Box>
  );
}

function Row(props: {
  it: Schemas["SiftedTaxon"];
  other: Schemas["SiftPrior"];
  described?: Schemas["DescribedTaxon"];
  characters: Schemas["Character"][];
  /** Its place in the list, from 0. */
  place: number;
  drawn: boolean;
  strict: boolean;
  looks: number;
  on: boolean;
  why: boolean;
  onWhy: (open: boolean) => void;
  onToggle: () => void;
  onLook: (character: string) => void;
}) {
  const { it, other, described, characters, place, drawn, strict, looks, on, why, onWhy, onToggle, onLook } = props;
  const counting = it.reasons.filter((r) => r.fit !== null && r.fit !== undefined);
  const taxon = described?.taxon;
  return (
    <Box component="li" sx={rowSx}>
      <Box
        sx={{
          display: "grid",
          gridTemplateColumns: drawn ? { xs: "96px minmax(0, 1fr)", sm: "168px minmax(0, 1fr)" } : "1fr",
          columnGap: 1.5,
          alignItems: "center",
        }}
      >
        {drawn && (
          <Box
            sx={{
              bgcolor: "background.paper",
              border: 1,
              borderColor: "rule",
              minHeight: 58,
              alignContent: "center",
              gridRow: { xs: "1 / span 1" },
            }}
          >
            {described && <LatePlate name={it.name} description={described.description} wait={place} />}
          </Box>
        )}
        <Box>
          <Typography component="span" sx={{ fontSize: "1.125rem", fontWeight: on ? 700 : 400 }}>
            <TaxonLabel name={it.name} />
          </Typography>{" "}
          <Typography component="span" variant="body2" color="text.secondary">
            {taxon?.commonName}
          </Typography>
          <Box>{taxon && <CautionMarks cautions={taxon.cautions} />}</Box>
          {!strict && <Share share={it.probability} words={it.probabilityInWords} />}
          <Typography variant="body2" component="div" color="text.secondary">
            {it.conflicts > 0 && (
              <Box component="span" sx={{ color: "signal.conflict", fontWeight: 700 }}>
                ✕ {it.conflicts} in conflict{" "}
              </Box>
            )}
            {strict && it.conflicts === 0 && (
              <Box component="span" sx={{ color: "signal.support", fontWeight: 700 }}>
                ● fits{" "}
              </Box>
            )}
            {[
              looks > 0 && it.described < looks && `described in ${it.described} of ${looks} looked at`,
              !strict &&
                it.otherInWords &&
                `${other === "equal" ? "were all names equal" : "by place and season"}: ${it.otherInWords}`,
            ]
              .filter(Boolean)
              .join(" · ")}
          </Typography>
          <Box sx={{ display: "flex", flexWrap: "wrap", alignItems: "center", gap: 0.5, mt: 0.5 }}>
            <ButtonBase
              onClick={onToggle}
              aria-pressed={on}
              aria-label={`Shortlist: ${it.name}`}
              sx={{
                minHeight: 44,
                px: 1.25,
                border: on ? 2 : 1,
                borderColor: on ? "primary.main" : "text.secondary",
                bgcolor: on ? "signal.chosenWash" : "background.paper",
                fontSize: "0.9375rem",
                fontWeight: on ? 700 : 400,
              }}
            >
              {on ? "✓ Shortlist" : "Shortlist"}
            </ButtonBase>
            <QuietButton name={`${why ? "Hide why" : "Why"}: ${it.name}`} expanded={why} onClick={() => onWhy(!why)}>
              {why ? "Hide why" : "Why"}
            </QuietButton>
          </Box>
        </Box>
      </Box>
      {why && (
        <>
          <Reasons reasons={counting} prior={it.priorReasons} characters={characters} onLook={onLook} name={it.name} />
          {it.described === 0 && it.priorReasons.length === 0 && (
            <Typography variant="body2" color="text.secondary">
              Nothing seen so far speaks for or against it.
            </Typography>
          )}
        </>
      )}
    </Box>
  );
}

function Share({ share, words }: { share: number; words: string }) {
  return (
    <Box sx={{ display: "flex", alignItems: "center", gap: 1, flex: "1 1 12rem", maxWidth: 320 }}>
      <Box aria-hidden="true" sx={{ flex: 1, height: 9, border: 1, borderColor: "text.secondary" }}>
        <Box sx={{ height: "100%", width: `${share * 100}%`, bgcolor: "primary.main" }} />
      </Box>
      <Typography component="span" variant="body2" sx={{ minWidth: 74, fontWeight: 700 }}>
        {words}
      </Typography>
    </Box>
  );
}
