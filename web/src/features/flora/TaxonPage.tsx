import words from "../../api/words";
import { useBenchFlora } from "../../shared/botany/useBenchFlora";
import { leadLetter } from "../../shared/botany/leads";

import { Box, Button, ButtonBase, Link, Typography } from "@mui/material";
import { Fragment, useState } from "react";
import { Link as RouterLink, useNavigate, useParams } from "react-router";
import type { Schemas } from "../../api/client";
import { Page, Part } from "../../shared/ui/Page";
import { QuietButton } from "../../shared/ui/QuietButton";

import { useDescribed } from "../../offline/taxa";

import { Plate } from "../../plates/drawn";

import { today } from "../../shared/calendar/day";
import { beginWalk, WITHOUT_KEY } from "../../plant-in-hand/walks";

import { CautionMarks, CautionNotes } from "../../shared/botany/Cautions";
import { TaxonLabel } from "../../shared/botany/TaxonLabel";
import { later } from "../../shared/ui/later";
import { GridMap } from "./GridMap";
import { useCharacters, useTaxon } from "../../shared/botany/queries";
import { YearStrip } from "./YearStrip";
import { PlateChoice } from "./PlateChoice";
import { AloneHere } from "./AloneHere";
import { MemoryAids } from "./MemoryAids";

const AtlasAsked = later(async () => (await import("./AtlasAsked")).AtlasAsked, true);
const GlossaryDialog = later(async () => (await import("../../shared/botany/GlossaryDialog")).GlossaryDialog, true);

/** Everything that a flora knows of a taxon, drawn first. */
export function TaxonPage() {
  const { floraId = "", taxonId = "" } = useParams();
  const page = useTaxon(floraId, taxonId, today());
  if (!page.data) {
    return (
      <Page title="Taxon">
        <Typography role="status">
          {page.isError
            ? "This taxon can’t be shown: the flora hasn’t it, or the server doesn’t answer."
            : "Fetching the taxon …"}
        </Typography>
      </Page>
    );
  }
  return <Shown key={taxonId} flora={floraId} page={page.data} />;
}

function Shown({ flora, page }: { flora: string; page: Schemas["TaxonPage"] }) {
  const { taxon } = page;
  const facts = taxon.facts;
  const characters = useCharacters(flora);
  const navigate = useNavigate();
  const [term, setTerm] = useState<string>();
  const term_ = characters.data?.find((c) => c.id === term);
  const nameOf = (id: string) => characters.data?.find((c) => c.id === id)?.name ?? id;
  const to = (it: Schemas["Taxon"]) => `/flora/${flora}/taxa/${it.id}`;
  return (
    <Page
      title={taxon.name}
      aside={
        <Link component={RouterLink} to={`/flora/${flora}`}>
          To the list
        </Link>
      }
    >
      <Typography sx={{ mt: -1.5 }}>
        <TaxonLabel name={taxon.name} authorship={taxon.authorship} />
        {facts?.meaning && <> · “{facts.meaning}”</>}
        {taxon.family && ` · ${taxon.family}`}
        {taxon.rank !== "species" && ` · ${taxon.rank}`}
      </Typography>
      <Typography color="text.secondary">
        {facts && facts.commonNames.length > 0 ? facts.commonNames.join(", ") : taxon.commonName}
        {facts && facts.synonyms.length > 0 && (
          <>
            {" "}
            · once <TaxonLabel name={facts.synonyms.join(", ")} />
          </>
        )}
      </Typography>
      {page.namesakes.length > 0 && (
        <Typography variant="body2">
          <strong>◐ Its common name is shared</strong> with <TaxonLinks flora={flora} taxa={page.namesakes} />.
        </Typography>
      )}
      <Box sx={{ my: 1.5 }}>
        <CautionNotes taxa={[taxon]} />
      </Box>
      <Box
        sx={{
          display: "grid",
          gap: { xs: 2, md: 3 },
          gridTemplateColumns: { xs: "1fr", md: "minmax(0, 1.75fr) minmax(0, 1fr)" },
          mt: 1.5,
        }}
      >
        <Box>
          {page.description.length > 0 ? (
            <>
              <PlateChoice page={page} />
              <Part id="description" title="Description">
                {page.prose.map((part) => (
                  <Typography key={part.organ} sx={{ mb: 0.75 }}>
                    <strong>{part.subject}</strong>
                    {part.items[0]?.opens ? ": " : " "}
                    {part.items.map((item, i) => (
                      <Fragment key={item.character}>
                        {i > 0 && (item.opens ? "; " : ", ")}
                        <ButtonBase
                          onClick={() => setTerm(item.character)}
                          aria-label={`Term: ${item.text}`}
                          sx={{
                            display: "inline",
                            font: "inherit",
                            verticalAlign: "baseline",
                            textAlign: "left",
                            "&:hover, &:focus-visible": { textDecoration: "underline dotted", textUnderlineOffset: 4 },
                          }}
                        >
                          {item.text}
                        </ButtonBase>
                      </Fragment>
                    ))}
                    .
                  </Typography>
                ))}
              </Part>
            </>
          ) : (
            <Members flora={flora} page={page} />
          )}
          <MemoryAids flora={flora} taxon={taxon.id} />
        </Box>
        <Box>
          {page.keyMarks.length > 0 && (
            <Part id="marks" title="Know it by">
              <Box component="ul" sx={{ pl: 2.5, m: 0 }}>
                {page.keyMarks.map((mark) => (
                  <li key={mark.character}>
                    <QuietButton name={mark.text} onClick={() => setTerm(mark.character)}>
                      {mark.text}
                    </QuietButton>
                    <Typography component="span" variant="body2" color="text.secondary">
                      {mark.others === 0 ? "no other taxon here" : `shared with ${mark.others}`}
                    </Typography>
                  </li>
                ))}
              </Box>
            </Part>
          )}
          <AloneHere flora={flora} taxon={taxon.id} />
          {page.lookAlikes.length > 0 && (
            <Part id="lookalikes" title="Taken for">
              <Button
                sx={{ mb: 1 }}
                onClick={() =>
                  void beginWalk(
                    WITHOUT_KEY,
                    undefined,
                    [],
                    [taxon.id, ...page.lookAlikes.map((it) => it.taxon.id)].slice(0, MOST_COMPARED),
                    flora,
                  ).then((id) => navigate(`/bench/${id}/contrast`))
                }
              >
                Contrast them
              </Button>
              {page.lookAlikes.map((it) => (
                <Box key={it.taxon.id} sx={{ mb: 1.25 }}>
                  <Link component={RouterLink} to={to(it.taxon)}>
                    <TaxonLabel name={it.taxon.name} />
                  </Link>{" "}
                  {it.taxon.family !== taxon.family && (
                    <Typography component="span" variant="body2" color="text.secondary">
                      ({it.taxon.family}){" "}
                    </Typography>
                  )}
                  <CautionMarks cautions={it.taxon.cautions} />
                  {it.character && (
                    <Typography variant="body2">
                      <strong>{nameOf(it.character)}:</strong> {it.own} here, {it.other} there.{" "}
                      <Box component="span" sx={{ color: it.canBeSeen ? "signal.support" : "signal.absent" }}>
                        {it.canBeSeen ? "● can be seen now" : "◌ not at this time of the year"}
                      </Box>
                    </Typography>
                  )}
                </Box>
              ))}
            </Part>
          )}
          {(page.related.length > 0 || page.below.length > 0 || page.line.length > 0) && (
            <Part id="kin" title="Kin">
              {page.line.length > 0 && (
                <Typography variant="body2">
                  In: <TaxonLinks flora={flora} taxa={page.line} />
                </Typography>
              )}
              {page.below.length > 0 && (
                <Typography variant="body2">
                  {taxon.rank === "genus" ? "Species" : "Forms"}: <TaxonLinks flora={flora} taxa={page.below} />
                </Typography>
              )}
              {page.related.length > 0 && (
                <Typography variant="body2">
                  {taxon.rank === "hybrid"
                    ? "Parents and groups"
                    : taxon.rank === "aggregate"
                      ? "Members"
                      : "Hybrids and aggregates"}
                  : <TaxonLinks flora={flora} taxa={page.related} />
                </Typography>
              )}
            </Part>
          )}
          {facts && facts.phenology.length > 0 && (
            <Part id="year" title="The year">
              <YearStrip year={page.year} today={today()} />
            </Part>
          )}
          <Part id="where" title="Where">
            <Typography variant="body2">
              {[
                facts ? words.origins[facts.origin] : "",
                facts?.establishment ?? "",
                (facts?.habitats ?? []).join(", "),
                facts?.elevationFrom !== null && facts?.elevationFrom !== undefined
                  ? `${facts.elevationFrom} to ${facts.elevationTo} m`
                  : "",
              ]
                .filter(Boolean)
                .join(" · ")}
            </Typography>
            {facts && <GridMap floraId={flora} cells={facts.cells} all={page.cells} kept={facts.isSensitive} />}
            <AtlasAsked floraId={flora} page={page} />
          </Part>
          {page.keys.length > 0 && (
            <Part id="keys" title="In the keys">
              {page.keys.map((it) => (
                <Typography key={it.keyVersion + it.couplet + it.lead} variant="body2">
                  <Link component={RouterLink} to={`/keys/${it.keyVersion}`}>
                    {it.title}
                  </Link>
                  , {it.couplet}
                  {leadLetter(it.lead)}
                </Typography>
              ))}
            </Part>
          )}
          <Typography variant="body2">
            <Link component={RouterLink} to={`/records?taxon=${encodeURIComponent(taxon.name)}`}>
              Its records
            </Link>
          </Typography>
        </Box>
      </Box>
      {term_ && (
        <GlossaryDialog
          characters={[term_]}
          marked={page.description.find((c) => c.character === term)?.states.map((s) => s.state)}
          onClose={() => setTerm(undefined)}
        />
      )}
    </Page>
  );
}

/** A genus or an aggregate that isn't described itself is drawn as what it is made of. */
function Members({ flora, page }: { flora: string; page: Schemas["TaxonPage"] }) {
  const { asked } = useBenchFlora(flora);
  const members = page.below.length > 0 ? page.below : page.related;
  const described = useDescribed(
    asked,
    members.map((it) => it.id),
  );
  return (
    <>
      <Typography sx={{ mb: 1 }}>
        {members.length > 0
          ? "It isn’t described itself; it is drawn as what it is made of."
          : "This taxon isn’t described in this flora."}
      </Typography>
      <Box sx={{ display: "grid", gap: 1.5, gridTemplateColumns: { xs: "1fr", sm: "1fr 1fr" } }}>
        {members.map((it) => {
          const own = described.get(it.id);
          return (
            <Box key={it.id} sx={{ border: 1, borderColor: "rule", bgcolor: "background.paper", p: 1 }}>
              {own && own.description.length > 0 && <Plate name={it.name} description={own.description} small />}
              <Link component={RouterLink} to={`/flora/${flora}/taxa/${it.id}`}>
                <TaxonLabel name={it.name} />
              </Link>{" "}
              <CautionMarks cautions={it.cautions} />
            </Box>
          );
        })}
      </Box>
    </>
  );
}

// As many taxa as a contrast can take.
const MOST_COMPARED = 8;

function TaxonLinks({ flora, taxa }: { flora: string; taxa: Schemas["Taxon"][] }) {
  return (
    <>
      {taxa.map((it, i) => (
        <span key={it.id}>
          {i > 0 && ", "}
          <Link component={RouterLink} to={`/flora/${flora}/taxa/${it.id}`}>
            <TaxonLabel name={it.name} />
          </Link>
        </span>
      ))}
    </>
  );
}
