import { Box, Button, Link, Typography } from "@mui/material";
import { useMemo, useState } from "react";
import { Link as RouterLink } from "react-router";
import type { Schemas } from "../../api/client";
import { QuietButton } from "../../shared/ui/QuietButton";
import { ComparedCell, useComparedParts } from "../../plates/ContrastPlates";
import { StateFigure } from "../../plates/drawn";
import { CautionMarks } from "../../shared/botany/Cautions";
import { TaxonLabel } from "../../shared/botany/TaxonLabel";
import { RangeMarks } from "./RangeMarks";

interface Props {
  answer: Schemas["ContrastResult"];
  described: Map<string, Schemas["DescribedTaxon"]>;
  characters: Schemas["Character"][];
  nameOf: (id: string) => string;
  /** Behind which lead each taxon lies, where a fork is contrasted. */
  sides?: Record<string, string>;
  plants: Schemas["OwnPlant"][];
  /** The plants in the order in which the rows hold them. */
  plantIds: string[];
  onLook: (character: string) => void;
  onRemove: (taxon: string) => void;
  onSettle: (taxon: string) => void;
}

const groups: { id: Schemas["RowGroup"]; words: string; glyph: string; color: string }[] = [
  { id: "seen", words: "Seen on this plant", glyph: "●", color: "signal.support" },
  { id: "now", words: "Check now", glyph: "○", color: "text.primary" },
  { id: "later", words: "Come back for", glyph: "◌", color: "signal.absent" },
];

const capital = (part: string) => part.charAt(0).toUpperCase() + part.slice(1);

// So many parts are drawn before the rows; the others when they are asked for.
const MOST_DRAWN = 3;

/** Plates and separating rows under each taxon, and what this plant says in each. */
export function ContrastTable(props: Props) {
  const { answer, described, characters, nameOf, sides, plants, plantIds, onLook, onRemove, onSettle } = props;
  const find = (id: string) => characters.find((c) => c.id === id);
  const descriptions = useMemo(
    () => answer.taxa.map((id) => described.get(id)?.description ?? []),
    [answer.taxa, described],
  );
  const separating = useMemo(
    () =>
      answer.rows.flatMap((row) => {
        const organ = characters.find((c) => c.id === row.character)?.organ;
        return organ ? [organ] : [];
      }),
    [answer.rows, characters],
  );
  const parts = useComparedParts(descriptions, separating);
  const [all, setAll] = useState(false);
  const shown = all ? parts : parts.slice(0, MOST_DRAWN);
  const hasOwn = answer.rows.some((row) => row.seen);
  const columns = 1 + answer.taxa.length + Number(hasOwn) + plants.length;
  return (
    <Box
      role="region"
      aria-label="Side by side"
      tabIndex={0}
      sx={{ overflowX: "auto", border: 1, borderColor: "rule", bgcolor: "background.paper" }}
    >
      <Box
        component="table"
        sx={{
          borderCollapse: "collapse",
          width: "100%",
          minWidth: 150 + 150 * (columns - 1),
          tableLayout: "fixed",
          "& th, & td": {
            textAlign: "left",
            verticalAlign: "top",
            p: 1,
            borderTop: "1px dotted",
            borderColor: "rule",
            fontWeight: 400,
          },
          "& th[scope=row]": { position: "sticky", left: 0, bgcolor: "background.paper", zIndex: 1 },
        }}
      >
        <colgroup>
          <Box component="col" sx={{ width: { xs: 128, md: 190 } }} />
          {Array.from({ length: columns - 1 }, (_, i) => (
            <col key={i} />
          ))}
        </colgroup>
        <thead>
          <tr>
            <Box component="td" sx={{ borderTop: "0 !important" }}>
              <Typography variant="caption" color="text.secondary">
                drawn to one scale; inked where they differ
              </Typography>
            </Box>
            {answer.taxa.map((id) => (
              <Box component="th" scope="col" key={id} sx={{ borderTop: "0 !important" }}>
                {sides?.[id] && (
                  <Typography variant="caption" color="text.secondary">
                    lead {sides[id]}
                  </Typography>
                )}
                <Typography sx={{ fontSize: "1.0625rem", lineHeight: 1.25 }}>
                  <TaxonLabel name={nameOf(id)} />
                </Typography>
                <Typography variant="body2" color="text.secondary">
                  {described.get(id)?.taxon.commonName}
                </Typography>
                <CautionMarks cautions={described.get(id)?.taxon.cautions ?? []} />
                <Box sx={{ ml: -1 }}>
                  <QuietButton name={`It is this one: ${nameOf(id)}`} onClick={() => onSettle(id)}>
                    It is this one
                  </QuietButton>
                  <QuietButton name={`Take out ${nameOf(id)}`} onClick={() => onRemove(id)}>
                    Take out
                  </QuietButton>
                </Box>
              </Box>
            ))}
            {hasOwn && (
              <Box component="th" scope="col" sx={{ bgcolor: "signal.chosenWash", borderTop: "0 !important" }}>
                <Typography sx={{ fontWeight: 700 }}>This plant</Typography>
              </Box>
            )}
            {plants.map((it) => (
              <Box component="th" scope="col" key={it.plantId} sx={{ borderTop: "0 !important" }}>
                <Typography variant="body2">
                  <Link component={RouterLink} to={`/plants/${it.plantId}`}>
                    {it.record.plantLabel || "A plant"}
                  </Link>
                  , {it.record.placeName}, {it.record.eventDate}
                </Typography>
                <Typography variant="body2" color="text.secondary">
                  named <TaxonLabel name={it.record.name} />
                </Typography>
              </Box>
            ))}
          </tr>
        </thead>
        <tbody>
          {shown.map((it) => (
            <tr key={it.id}>
              <th scope="row">
                <Typography variant="h3" sx={{ color: it.differs ? undefined : "text.secondary" }}>
                  {capital(it.id)}
                </Typography>
                {!it.differs && (
                  <Typography variant="caption" color="text.secondary">
                    alike
                  </Typography>
                )}
                {it.differs && it.scale === undefined && (
                  <Typography variant="caption" color="text.secondary">
                    {it.hasScale ? "each with its own bar" : "not to scale"}
                  </Typography>
                )}
              </th>
              {it.parts.map((part, i) => (
                <td key={answer.taxa[i]}>
                  <ComparedCell part={part} scale={it.scale} differs={it.differs} />
                </td>
              ))}
              {hasOwn && <Box component="td" sx={{ bgcolor: "signal.chosenWash" }} />}
              {plants.map((plant) => (
                <td key={plant.plantId} />
              ))}
            </tr>
          ))}
          {parts.length > MOST_DRAWN && (
            <tr>
              <Box component="td" colSpan={columns} sx={{ py: "0 !important" }}>
                <QuietButton
                  name={all ? "Draw fewer parts" : `Draw all ${parts.length} parts`}
                  expanded={all}
                  onClick={() => setAll(!all)}
                >
                  {all ? "Draw fewer parts" : `Draw all ${parts.length} parts`}
                </QuietButton>
              </Box>
            </tr>
          )}
        </tbody>
        {groups.map((group) => {
          const rows = answer.rows.filter((row) => row.group === group.id);
          if (rows.length === 0) return null;
          return (
            <tbody key={group.id}>
              <tr>
                <Box
                  component="th"
                  scope="rowgroup"
                  colSpan={columns}
                  sx={{ borderTop: "2px solid !important", pb: "0 !important" }}
                >
                  <Typography variant="h3" component="span" sx={{ color: group.color }}>
                    {group.glyph} {group.words}
                  </Typography>
                </Box>
              </tr>
              {rows.map((row) => {
                const character = find(row.character);
                const name = character?.name ?? row.character;
                return (
                  <tr key={row.character}>
                    <th scope="row">
                      <Box sx={{ ml: -1 }}>
                        <QuietButton name={`Look at ${name}`} onClick={() => onLook(row.character)}>
                          {name}
                        </QuietButton>
                      </Box>
                      <Typography variant="caption" color="text.secondary" component="div">
                        {answer.pairs.length > 1 && `separates ${row.mostlyPairs} of ${answer.pairs.length} pairs · `}
                        {character && `${character.effortSeconds} s`}
                        {character && character.tool !== "eye" && ` · ${character.tool}`}
                        {row.when && ` · ${row.when}`}
                      </Typography>
                    </th>
                    {row.values.map((value, i) => {
                      const id = answer.taxa[i] ?? "";
                      const speaks = row.speaksFor.includes(id);
                      const isAgainst = row.speaksFor.length > 0 && !speaks;
                      return (
                        <td key={id}>
                          <Box sx={{ display: "flex", gap: 0.75, alignItems: "center", opacity: isAgainst ? 0.62 : 1 }}>
                            {character &&
                              value.drawn.map((state) => (
                                <StateFigure key={state} character={character} state={state} size={40} />
                              ))}
                          </Box>
                          {value.mark && <RangeMarks mark={value.mark} />}
                          <Typography variant="body2" sx={{ fontWeight: speaks ? 700 : 400 }}>
                            {speaks && (
                              <Box component="span" sx={{ color: "signal.support" }}>
                                ●{" "}
                              </Box>
                            )}
                            {isAgainst && (
                              <Box component="span" sx={{ color: "signal.conflict" }}>
                                ✕{" "}
                              </Box>
                            )}
                            {value.text || "not described"}
                          </Typography>
                        </td>
                      );
                    })}
                    {hasOwn && (
                      <Box component="td" sx={{ bgcolor: "signal.chosenWash" }}>
                        <Typography variant="body2">
                          {row.seen || "–"}
                          {row.seen && (
                            <Box component="span" sx={{ display: "block", fontWeight: 700 }}>
                              {row.speaksFor.length > 0
                                ? `speaks for ${row.speaksFor.map(nameOf).join(", ")}`
                                : "doesn’t decide"}
                            </Box>
                          )}
                        </Typography>
                      </Box>
                    )}
                    {plants.map((plant) => (
                      <td key={plant.plantId}>
                        <Typography variant="body2">
                          {row.plants[plantIds.indexOf(plant.plantId)] || "not looked at"}
                        </Typography>
                      </td>
                    ))}
                  </tr>
                );
              })}
            </tbody>
          );
        })}
      </Box>
      {answer.rows.length === 0 && (
        <Box sx={{ p: 1.5 }}>
          <Typography>Their descriptions in this flora separate none of them.</Typography>
          <Button onClick={() => onRemove(answer.taxa.at(-1) ?? "")}>Take the last one out</Button>
        </Box>
      )}
    </Box>
  );
}
