import { Box, Button, Link, Typography } from "@mui/material";
import { TextField } from "../../shared/form/TextField";
import { useQueryClient } from "@tanstack/react-query";
import { useDeferredValue, useMemo, useState } from "react";
import { Link as RouterLink, useNavigate } from "react-router";
import { answerOf, api, ProblemError, type Schemas } from "../../api/client";
import { core } from "../../core/coreClient";
import { useAsked } from "../../offline/flora";
import { TaxonLabel } from "../../shared/botany/TaxonLabel";
import { useVocabulary } from "../../offline/vocabulary";
import { Page, Part } from "../../shared/ui/Page";
import { NO_SOURCE } from "../../shared/ui/source";
import { SourceFields } from "../../shared/ui/SourceFields";

// Of very many taxa the first ones show whether the text was understood.
const SHOWN = 20;

const EXAMPLE = `Vellorna exempla Hask. Deciduous shrub, 1–3 m high. Twigs slender, hairless, without thorns. Leaves alternate, ovate, 4–9 × 2–5 cm, finely serrate, white-felted beneath; petiole 8–15 mm. Flowers white, 12–18 mm across. Fruit a red berry. Fl. May–June.`;

/** Descriptions in the prose of a flora are read as they are pasted, and kept as a draft. */
export function PasteDescriptions() {
  const navigate = useNavigate();
  const client = useQueryClient();
  const vocabulary = useVocabulary();
  const [name, setName] = useState("");
  const [text, setText] = useState("");
  const [problem, setProblem] = useState("");
  const [source, setSource] = useState(NO_SOURCE);
  const deferred = useDeferredValue(text);
  const question = useMemo(
    () => (vocabulary.data && deferred.trim() ? { text: deferred } : undefined),
    [vocabulary.data, deferred],
  );
  const { answer, failure } = useAsked(question, core.readDescriptions);
  const read = question ? answer : undefined;
  const keep = async () => {
    if (!name.trim()) return setProblem("Give the flora a name.");
    try {
      await answerOf((signal) => api.POST("/api/v1/floras/descriptions", { body: { name, text, source }, signal }));
      await client.invalidateQueries({ queryKey: ["floras"] });
      void navigate("/flora/bring");
    } catch (error) {
      setProblem(
        error instanceof ProblemError
          ? `${error.problem.title} ${error.problem.detail}`
          : "The server doesn’t answer just now. The text stays here; try again when it does.",
      );
    }
  };
  return (
    <Page title="Paste descriptions">
      <Typography sx={{ maxWidth: "44rem", mb: 2 }}>
        A paragraph per taxon, each beginning with its scientific name, with an empty line between. “Like V. alba, but
        …” takes over what was said of that one; what isn’t said stays unknown.{" "}
        <Link component={RouterLink} to="/flora/bring">
          Bring tables instead
        </Link>
      </Typography>
      <Box sx={{ display: "grid", gap: 2, gridTemplateColumns: { xs: "1fr", lg: "1fr 1fr" }, alignItems: "start" }}>
        <Box sx={{ display: "grid", gap: 1.5 }}>
          <TextField
            label="Name of the flora"
            value={name}
            onChange={(event) => setName(event.target.value)}
            slotProps={{ htmlInput: { maxLength: 200 } }}
          />
          <TextField
            label="Descriptions"
            multiline
            minRows={12}
            maxRows={26}
            value={text}
            placeholder={EXAMPLE}
            onChange={(event) => setText(event.target.value)}
          />
          <SourceFields source={source} onChange={setSource} />
          {problem && (
            <Typography role="alert" color="error">
              ✕ {problem}
            </Typography>
          )}
          <Button
            variant="contained"
            disabled={!read?.taxa.length}
            onClick={() => void keep()}
            sx={{ justifySelf: "start" }}
          >
            Keep as a draft
          </Button>
        </Box>
        <Part id="as-read" title="As it is read">
          {failure && <Typography role="alert">✕ {failure}</Typography>}
          {read ? <Read read={read} /> : <Typography color="text.secondary">Nothing pasted yet.</Typography>}
        </Part>
      </Box>
    </Page>
  );
}

function Read({ read }: { read: Schemas["DescribedInProse"] }) {
  const statements = read.taxa.flatMap((it) => it.statements);
  const taken = statements.filter((it) => it.inWords).length;
  return (
    <>
      <Typography role="status">
        {read.taxa.length} {read.taxa.length === 1 ? "taxon" : "taxa"}; of {statements.length} statements{" "}
        <strong>{taken}</strong> say something that is taken, the others stay words.
      </Typography>
      {read.problems.map((it) => (
        <Typography key={it} role="alert" color="error" variant="body2">
          ✕ {it}
        </Typography>
      ))}
      {read.taxa.slice(0, SHOWN).map((it) => (
        <Taxon key={it.taxon.id} it={it} />
      ))}
      {read.taxa.length > SHOWN && (
        <Typography variant="body2">The first {SHOWN} are shown; the others are read alike.</Typography>
      )}
    </>
  );
}

function Taxon({ it }: { it: Schemas["TaxonInProse"] }) {
  const { taxon, statements } = it;
  const also = [
    taxon.like && `like ${taxon.like} where nothing else is said`,
    taxon.habitats.length > 0 && `habitat: ${taxon.habitats.join("; ")}`,
    taxon.distribution.length > 0 && `distribution: ${taxon.distribution.join("; ")}`,
    taxon.synonyms.length > 0 && `also called ${taxon.synonyms.join(", ")}`,
    taxon.phenology.length > 0 && "its season is taken",
  ].filter(Boolean);
  return (
    <Box component="section" aria-label={taxon.name} sx={{ borderTop: 1, borderColor: "rule", pt: 1, mt: 1 }}>
      <Typography variant="h3">
        <TaxonLabel name={taxon.name} authorship={taxon.authorship} />
      </Typography>
      {also.length > 0 && (
        <Typography variant="body2" color="text.secondary">
          {also.join(" · ")}
        </Typography>
      )}
      <Box component="ul" sx={{ listStyle: "none", p: 0, m: 0 }}>
        {statements.map((statement, i) => (
          <Box
            component="li"
            key={`${i}${statement.reading.text}`}
            sx={{ display: "grid", gridTemplateColumns: { xs: "1fr", md: "1fr 1fr" }, columnGap: 1.5, py: 0.5 }}
          >
            <Typography variant="body2" component="span">
              {statement.reading.text}
            </Typography>
            <Typography variant="body2" component="span" color="text.secondary">
              {statement.inWords || "¶ stays words"}
            </Typography>
          </Box>
        ))}
      </Box>
    </Box>
  );
}
