import { Box, Link, Typography } from "@mui/material";
import { useMemo } from "react";
import { Link as RouterLink } from "react-router";
import type { Schemas } from "../../api/client";
import { useAskedEither, useHost } from "../../offline/hosts";
import { useHeldShelf } from "../../offline/shelf";
import { useHeldVocabulary } from "../../offline/vocabulary";
import { NamesLabel, TaxonLabel } from "../../shared/botany/TaxonLabel";

interface Props {
  names: string[];
  sheet: Schemas["Observation"][];
}

const NO_VERSIONS: string[] = [];

/** The couplet of each key that parts the taxa, beside what the descriptions say and what was seen on the plant. */
export function WhereKeysPart({ names, sheet }: Props) {
  const shelf = useHeldShelf(NO_VERSIONS);
  const vocabulary = useHeldVocabulary();
  const host = useHost(shelf.data !== undefined && vocabulary.isSettled, "shelf with vocabulary");
  const key = names.join("|");
  const question = useMemo(() => ({ names: key.split("|"), sheet }), [key, sheet]);
  const { answer, of, failure } = useAskedEither("keysParting", question, host);
  if (shelf.isError && !answer) return null;
  if (failure) return <Typography role="alert">{failure}</Typography>;
  const found = answer && of?.names.join("|") === key ? answer : undefined;
  return (
    <Box component="section" aria-labelledby="keys-part" sx={{ mt: 3 }}>
      <Typography variant="h2" id="keys-part">
        Where keys part them
      </Typography>
      {!found && <Typography role="status">Looking through the keys …</Typography>}
      {found && found.couplets.length === 0 && (
        <Typography>
          {found.unparted.length > 0
            ? "Keys lead to them and end before they part:"
            : "No key here leads to two of them."}{" "}
          {found.unparted.join(", ")}
        </Typography>
      )}
      {found?.couplets.map((couplet) => (
        <Box key={couplet.hash + couplet.couplet} sx={{ borderTop: "1px dotted", borderColor: "rule", py: 1.25 }}>
          <Typography variant="h3">
            <Link component={RouterLink} to={`/keys/${couplet.hash}`}>
              {couplet.title}
            </Link>
            , couplet {couplet.couplet}
          </Typography>
          <Box
            sx={{
              display: "grid",
              gap: { xs: 1, md: 2.5 },
              gridTemplateColumns: { md: `repeat(${Math.min(couplet.leads.length, 3)}, minmax(0, 1fr))` },
              mt: 0.5,
            }}
          >
            {couplet.leads.map((lead) => (
              <PartingLead key={lead.number} lead={lead} />
            ))}
          </Box>
        </Box>
      ))}
      {found && found.couplets.length > 0 && found.unparted.length > 0 && (
        <Typography variant="body2" color="text.secondary">
          Lead to them and don’t part them: {found.unparted.join(", ")}.
        </Typography>
      )}
      {found && found.contradictions.length > 0 && <Contradictions all={found.contradictions} />}
    </Box>
  );
}

function PartingLead({ lead }: { lead: Schemas["PartingLead"] }) {
  return (
    <div>
      <Typography sx={{ fontWeight: 700 }}>
        → <NamesLabel names={lead.taxa} />
      </Typography>
      <Typography variant="body2" sx={{ mb: 0.5 }}>
        {lead.number}. {lead.text}
      </Typography>
      {lead.claims.map((claim) => (
        <Box key={claim.character + claim.inWords} sx={{ borderLeft: 3, borderColor: "rule", pl: 1, mb: 0.75 }}>
          <Typography variant="body2" sx={{ fontWeight: 700 }}>
            {claim.inWords}
          </Typography>
          {alike(claim.described).map((voices) => {
            const contradicts = voices[0]?.contradicts;
            return (
              <Typography
                key={voices[0]?.taxon}
                variant="body2"
                color={contradicts ? "signal.conflict" : "text.secondary"}
              >
                {contradicts ? "✕ " : ""}
                described
                {voices.length < lead.taxa.length && (
                  <>
                    {" "}
                    <NamesLabel names={voices.map((voice) => voice.taxon)} />
                  </>
                )}
                : {voices[0]?.inWords}
                {contradicts ? " – contradicts the key" : ""}
              </Typography>
            );
          })}
          {claim.seen && (
            <Typography
              variant="body2"
              sx={{ fontWeight: 700 }}
              color={claim.seenFits === null ? undefined : claim.seenFits ? "signal.support" : "signal.conflict"}
            >
              {claim.seenFits === null ? "" : claim.seenFits ? "● " : "✕ "}this plant: {claim.seen}
            </Typography>
          )}
        </Box>
      ))}
      {lead.claims.length === 0 && (
        <Typography variant="caption" color="text.secondary">
          nothing of this is weighed
        </Typography>
      )}
    </div>
  );
}

/** Descriptions that say the same, together. */
function alike(voices: Schemas["PartingVoice"][]): Schemas["PartingVoice"][][] {
  const groups = new Map<string, Schemas["PartingVoice"][]>();
  for (const voice of voices) {
    if (!voice.inWords) continue;
    const key = `${voice.contradicts}|${voice.inWords}`;
    groups.set(key, [...(groups.get(key) ?? []), voice]);
  }
  return [...groups.values()];
}

function Contradictions({ all }: { all: Schemas["PartingContradiction"][] }) {
  return (
    <Box sx={{ borderTop: 2, borderColor: "signal.conflict", pt: 1, mt: 1 }}>
      <Typography variant="h3">✕ They can’t all be right</Typography>
      <Box component="ul" sx={{ pl: 2.5, m: 0 }}>
        {all.map((it) => (
          <li key={[it.taxon, it.character, it.first, it.second].join("|")}>
            <Typography variant="body2">
              <TaxonLabel name={it.taxon} />, {it.character}: “{it.first}” says {it.firstSays},{" "}
              {it.second ? `“${it.second}”` : "its description"} says {it.secondSays}.
            </Typography>
          </li>
        ))}
      </Box>
    </Box>
  );
}
