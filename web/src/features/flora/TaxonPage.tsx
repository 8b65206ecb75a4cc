import words from "../../api/words";
import { useBenchFlora } from "../../shared/botany/useBenchFlora";
import { leadLetter } from "../../shared/botany/leads";
import { lastPlace } from "../../shared/form/last";
import { Box, Button, ButtonBase, Link, MenuItem, TextField, Typography } from "@mui/material";
import { Fragment, useEffect, useMemo, useState } from "react";
import { Link as RouterLink, useNavigate, useParams } from "react-router";
import type { Schemas } from "../../api/client";
import { Page, Part } from "../../shared/ui/Page";
import { QuietButton } from "../../shared/ui/QuietButton";
import { core } from "../../core/coreClient";
import { useAsked, useDescribed } from "../../offline/flora";
import { usePlaces } from "../../offline/documents";
import { keep, kept } from "../../offline/store";
import { Plate } from "../../plates/Plate";
import { bark } from "../../plates/details";
import { StateFigure } from "../../plates/StateFigure";
import type { Traits, Variation } from "../../plates/traits";
import { twig, twigDetail } from "../../plates/twig";
import { today } from "../../shared/calendar/day";
import { beginWalk, WITHOUT_KEY } from "../../plant-in-hand/walks";
import { siftPlace } from "../../plant-in-hand/sift/useSift";
import { CautionMarks, CautionNotes } from "../../shared/botany/Cautions";
import { TaxonLabel } from "../../shared/botany/TaxonLabel";
import { GlossaryDialog } from "../../shared/botany/GlossaryDialog";
import { GridMap } from "./GridMap";
import { useCharacters, useTaxon } from "../../shared/botany/queries";
import { YearStrip } from "./YearStrip";

const variations: [Variation, string][] = [
  ["typical", "Typical"],
  ["small", "Small"],
  ["large", "Large"],
  ["shade", "Shade leaf"],
];

// What is left to look at when the leaves are down.
const winterParts = [
  twig,
  (traits: Traits) => twigDetail(traits, "tip"),
  (traits: Traits) => twigDetail(traits, "node"),
  (traits: Traits) => twigDetail(traits, "foot"),
  bark,
];

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
                    <strong>{words.organs[part.organ]}.</strong>{" "}
                    {part.items.map((item, i) => (
                      <Fragment key={item.character}>
                        {i > 0 && "; "}
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
            {facts && <GridMap cells={facts.cells} all={page.cells} kept={facts.isSensitive} />}
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
  const { flora: held, version } = useBenchFlora(flora);
  const members = page.below.length > 0 ? page.below : page.related;
  const described = useDescribed(
    held?.id,
    version,
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

/** States by which it is known at once: in the whole flora, and on the list of the place last recorded at. */
function AloneHere({ flora, taxon }: { flora: string; taxon: string }) {
  const { flora: held, version, characters } = useBenchFlora(flora);
  const places = usePlaces().data ?? NO_PLACES;
  const [placeId, setPlaceId] = useState(lastPlace());
  const place = places.find((p) => p.id === placeId);
  const question = useMemo(
    (): Schemas["GiveawayRequest"] | undefined =>
      held && version
        ? { floraId: held.id, at: siftPlace(place), narrowing: place ? { recordedHere: true } : null }
        : undefined,
    [held, version, place],
  );
  const { answer, of } = useAsked(question, core.giveaways);
  if (!answer) return null;
  const isCurrent = of === question;
  const own = answer.giveaways.filter((it) => it.taxon === taxon);
  return (
    <Part id="alone" title="Alone in">
      <TextField
        select
        size="small"
        label="List of"
        value={place?.id ?? ""}
        onChange={(event) => setPlaceId(event.target.value)}
        slotProps={{ select: { displayEmpty: true }, inputLabel: { shrink: true } }}
        sx={{ mb: 1 }}
      >
        <MenuItem value="">the whole flora</MenuItem>
        {places.map((it) => (
          <MenuItem key={it.id} value={it.id}>
            {it.name}
          </MenuItem>
        ))}
      </TextField>
      {!isCurrent ? (
        <Typography variant="body2">Looking through the list …</Typography>
      ) : own.length === 0 ? (
        <Typography variant="body2">
          Nothing that no other of {answer.listed} taxa shows; it wants a comparison.
        </Typography>
      ) : (
        own.map((it) => {
          const character = characters.find((c) => c.id === it.character);
          return (
            <Box key={it.character + it.state} sx={{ display: "flex", gap: 1, alignItems: "center" }}>
              {character && <StateFigure character={character} state={it.state} size={40} />}
              <Typography variant="body2">
                ◆ {it.text}, alone among {answer.listed}
              </Typography>
            </Box>
          );
        })
      )}
    </Part>
  );
}

const NO_PLACES: Schemas["Place"][] = [];

// As many taxa as a contrast can take.
const MOST_COMPARED = 8;

/** The plate, and which plant of the taxon it shows. */
function PlateChoice({ page }: { page: Schemas["TaxonPage"] }) {
  const [variation, setVariation] = useState<Variation>("typical");
  const [winter, setWinter] = useState(false);
  const hasTwig = page.description.some((cell) => cell.character === "bud-arrangement");
  const hasShade = page.description.some((cell) => cell.shade);
  const { taxon } = page;
  return (
    <>
      <Box sx={{ border: 1, borderColor: "rule", bgcolor: "background.paper" }}>
        <Plate
          name={taxon.name}
          description={page.description}
          variation={variation}
          only={winter ? winterParts : undefined}
        />
      </Box>
      <Box
        role="group"
        aria-label="Which plant is drawn"
        sx={{ display: "flex", flexWrap: "wrap", gap: 1, mt: 1, mb: 2 }}
      >
        {variations
          .filter(([it]) => it !== "shade" || hasShade)
          .map(([it, words]) => (
            <Button
              key={it}
              aria-pressed={!winter && variation === it}
              variant={!winter && variation === it ? "contained" : "outlined"}
              onClick={() => {
                setWinter(false);
                setVariation(it);
              }}
            >
              {words}
            </Button>
          ))}
        {hasTwig && (
          <Button aria-pressed={winter} variant={winter ? "contained" : "outlined"} onClick={() => setWinter(true)}>
            Winter twig
          </Button>
        )}
      </Box>
    </>
  );
}

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

/** One's own words to remember it by, kept on this device. */
function MemoryAids({ flora, taxon }: { flora: string; taxon: string }) {
  const name = `aid:${flora}:${taxon}`;
  const [text, setText] = useState<string>();
  useEffect(() => {
    let current = true;
    void kept<string>(name).then((found) => current && setText(found ?? ""));
    return () => {
      current = false;
    };
  }, [name]);
  if (text === undefined) return null;
  return (
    <Part id="aids" title="Your own memory aids">
      <TextField
        multiline
        minRows={2}
        label="How do you remember it?"
        helperText="Kept on this device only."
        value={text}
        onChange={(event) => {
          setText(event.target.value);
          void keep(name, event.target.value);
        }}
      />
    </Part>
  );
}
