import words from "../../api/words";
import { Box, ButtonBase, Link, MenuItem, TextField, Typography } from "@mui/material";
import { useMemo, useState } from "react";
import { Link as RouterLink, useParams } from "react-router";
import type { Schemas } from "../../api/client";
import { Page } from "../../shared/ui/Page";
import { StateFigure } from "../../plates/drawn";
import { TaxonLabel } from "../../shared/botany/TaxonLabel";
import { HowToLook, StateRows } from "../../shared/botany/CharacterEntry";
import { useCharacters, useFlora, useShowing } from "../../shared/botany/queries";

// Of a state that many taxa show the first few are named.
const MOST_NAMED = 6;

const fits = (character: Schemas["Character"], find: string) =>
  !find ||
  [character.name, ...character.states.flatMap((s) => [s.name, ...s.terms])].some((word) =>
    word.toLowerCase().includes(find.toLowerCase()),
  );

/** Every character with its states drawn; one opens to definition, trap and the taxa that show it. */
export function Glossary() {
  const { floraId } = useParams();
  const { flora } = useFlora(floraId);
  const characters = useCharacters(flora?.id);
  const [find, setFind] = useState("");
  const [organ, setOrgan] = useState("");
  const [open, setOpen] = useState<string>();
  const shown = useMemo(
    () => (characters.data ?? []).filter((c) => (!organ || c.organ === organ) && fits(c, find)),
    [characters.data, organ, find],
  );
  const organs = [...new Set((characters.data ?? []).map((c) => c.organ))];
  return (
    <Page
      title="Glossary"
      aside={
        <Box sx={{ display: "flex", gap: 2, flexWrap: "wrap" }}>
          <Link component={RouterLink} to="/glossary">
            Parts and qualities of any plant
          </Link>
          <Link component={RouterLink} to={`/flora/${flora?.id ?? ""}`}>
            To the flora of {flora?.name ?? "…"}
          </Link>
        </Box>
      }
    >
      <Box sx={{ display: "flex", gap: 1.5, flexWrap: "wrap", mb: 2 }}>
        <TextField
          label="Find a term"
          value={find}
          onChange={(event) => setFind(event.target.value)}
          sx={{ flex: "2 1 16rem", maxWidth: 420 }}
        />
        <TextField
          select
          label="Organ"
          value={organ}
          onChange={(event) => setOrgan(event.target.value)}
          sx={{ flex: "1 1 10rem", maxWidth: 220 }}
        >
          <MenuItem value="">All organs</MenuItem>
          {organs.map((it) => (
            <MenuItem key={it} value={it}>
              {words.organs[it]}
            </MenuItem>
          ))}
        </TextField>
      </Box>
      <Typography variant="body2" color="text.secondary" role="status">
        {characters.data
          ? `${shown.length === 1 ? "1 character" : `${shown.length} characters`}, ${shown.reduce((sum, c) => sum + c.states.length, 0)} states.`
          : characters.isError
            ? "The glossary can’t be fetched just now."
            : "Fetching the glossary …"}
      </Typography>
      {shown.map((character) => (
        <Box
          component="section"
          key={character.id}
          aria-label={character.name}
          sx={{ borderTop: 1, borderColor: "rule", py: 1 }}
        >
          <ButtonBase
            aria-expanded={open === character.id}
            onClick={() => setOpen(open === character.id ? undefined : character.id)}
            sx={{
              width: "100%",
              minHeight: 44,
              justifyContent: "flex-start",
              textAlign: "left",
              gap: 2,
              flexWrap: "wrap",
            }}
          >
            <Typography component="span" variant="h3" sx={{ flex: "0 0 13rem" }}>
              {open === character.id ? "▾" : "▸"} {character.name}
              <Typography
                component="span"
                variant="body2"
                color="text.secondary"
                sx={{ display: "block", fontWeight: 400 }}
              >
                {words.organs[character.organ]}
                {character.states.length === 0 && `, ${character.kind}${character.unit ? ` in ${character.unit}` : ""}`}
              </Typography>
            </Typography>
            {open !== character.id && (
              <Box component="span" sx={{ display: "flex", flexWrap: "wrap", gap: 0.5, flex: 1 }}>
                {character.states.map((state) => (
                  <Box component="span" key={state.id} sx={{ width: 84, textAlign: "center" }}>
                    <Box component="span" sx={{ display: "grid", placeItems: "center" }}>
                      <StateFigure character={character} state={state.id} size={66} />
                    </Box>
                    <Typography component="span" variant="caption" sx={{ display: "block", lineHeight: 1.15 }}>
                      {state.name}
                    </Typography>
                  </Box>
                ))}
              </Box>
            )}
          </ButtonBase>
          {open === character.id && flora && <Entry flora={flora.id} character={character} />}
        </Box>
      ))}
    </Page>
  );
}

function Entry({ flora, character }: { flora: string; character: Schemas["Character"] }) {
  const entry = useShowing(flora, character.id);
  return (
    <Box sx={{ pl: { md: 2 }, pb: 1 }}>
      <HowToLook character={character} />
      <StateRows
        character={character}
        taxa={(state) => {
          const taxa = entry.data?.showing.find((it) => it.state === state)?.taxa ?? [];
          if (taxa.length === 0) return null;
          return (
            <Typography variant="body2">
              {taxa.slice(0, MOST_NAMED).map((taxon, i) => (
                <span key={taxon.id}>
                  {i > 0 && ", "}
                  <Link component={RouterLink} to={`/flora/${flora}/taxa/${taxon.id}`}>
                    <TaxonLabel name={taxon.name} />
                  </Link>
                </span>
              ))}
              {taxa.length > MOST_NAMED && ` and ${taxa.length - MOST_NAMED} more`}
            </Typography>
          );
        }}
      />
    </Box>
  );
}
