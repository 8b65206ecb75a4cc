import words from "../../api/words";
import { Box, Button, Link, Typography } from "@mui/material";
import { TextField } from "../../shared/form/TextField";

import { useState } from "react";
import { Link as RouterLink } from "react-router";
import type { Schemas } from "../../api/client";
import { api } from "../../api/client";
import { QuietButton } from "../../shared/ui/QuietButton";
import { counted } from "../../shared/ui/counted";

// Of many problems the first ones are listed; the others come when these are mended.
const MOST_LISTED = 100;

export function Draft({
  flora,
  onPublish,
  onChange,
}: {
  flora: Schemas["FloraSummary"];
  onPublish: () => void;
  onChange: () => void;
}) {
  const [gone, setGone] = useState(false);
  const draft = flora.draft;
  if (!draft) return null;
  const setAside = async (aside: boolean) => {
    const path = { params: { path: { id: flora.id } } };
    const { response } = aside
      ? await api.DELETE("/api/v1/floras/{id}/draft", path)
      : await api.POST("/api/v1/floras/{id}/draft/restore", path);
    if (response.ok) setGone(aside);
    if (response.ok && !aside) onChange();
  };
  if (gone) {
    return (
      <Typography>
        The draft {flora.name} was thrown away. <Button onClick={() => void setAside(false)}>Bring it back</Button>
      </Typography>
    );
  }
  return (
    <Box sx={{ display: "flex", gap: 1.5, alignItems: "center", flexWrap: "wrap", py: 0.75 }}>
      <Typography sx={{ flex: "1 1 16rem" }}>
        <strong>{flora.name}</strong>: {counted(draft.taxa, "taxon", "taxa")}, {counted(draft.characters, "character")}
        {draft.problems.length > 0 && `, ${draft.problems.length} to look at`}
      </Typography>
      <Link component={RouterLink} to={`/flora/${flora.id}`}>
        Look through it
      </Link>
      <Button variant="contained" onClick={onPublish} aria-label={`Publish ${flora.name}`}>
        Publish
      </Button>
      <Button onClick={() => void setAside(true)} aria-label={`Throw away ${flora.name}`}>
        Throw away
      </Button>
    </Box>
  );
}

export function Columns({
  columns,
  renamed,
  onChange,
}: {
  columns: Schemas["FloraColumn"][];
  renamed: Record<string, string>;
  onChange: (renamed: Record<string, string>) => void;
}) {
  const set = (heading: string, to: string | undefined) => {
    const next = Object.fromEntries(Object.entries(renamed).filter(([it]) => it !== heading));
    onChange(to === undefined || to === heading ? next : { ...next, [heading]: to });
  };
  return (
    <Box
      component="ul"
      aria-label="Columns"
      sx={{ listStyle: "none", p: 0, m: 0, maxHeight: 420, overflowY: "auto", border: 1, borderColor: "rule" }}
      tabIndex={0}
    >
      {columns.map((column) => {
        const out = renamed[column.heading] === "";
        return (
          <Box
            component="li"
            key={column.heading}
            sx={{
              display: "grid",
              gridTemplateColumns: { xs: "1fr auto", md: "minmax(0, 1fr) minmax(0, 1.2fr) auto" },
              gap: 1.5,
              alignItems: "center",
              px: 1.5,
              py: 0.5,
              borderBottom: "1px dotted",
              borderColor: "rule",
            }}
          >
            <TextField
              size="small"
              variant="standard"
              value={renamed[column.heading] ?? column.heading}
              disabled={out}
              onChange={(event) => set(column.heading, event.target.value || undefined)}
              slotProps={{ htmlInput: { "aria-label": `Heading of the column ${column.heading}` } }}
            />
            <Typography
              variant="body2"
              sx={{
                gridRow: { xs: 2, md: "auto" },
                gridColumn: { xs: "1 / -1", md: "auto" },
                color: out || !column.readAs ? "signal.absent" : "text.primary",
              }}
            >
              {out
                ? "◌ left out"
                : column.readAs
                  ? `${column.kind ? `${words.characterKinds[column.kind]}${column.states ? `, ${column.states} states` : ""}${column.unit ? ` in ${column.unit}` : ""}` : column.readAs}; ${column.filled} cells`
                  : "◌ not used: see the problems below"}
            </Typography>
            <QuietButton
              name={`${out ? "Use" : "Leave out"}: ${column.heading}`}
              onClick={() => set(column.heading, out ? undefined : "")}
            >
              {out ? "Use" : "Leave out"}
            </QuietButton>
          </Box>
        );
      })}
    </Box>
  );
}

export function ProblemTable({
  problems,
  onOffer,
}: {
  problems: Schemas["FloraProblem"][];
  onOffer?: (column: string, heading: string) => void;
}) {
  if (problems.length === 0) return <Typography>Every cell was understood.</Typography>;
  return (
    <>
      <Box
        component="table"
        sx={{
          borderCollapse: "collapse",
          width: "100%",
          "& td, & th": {
            textAlign: "left",
            verticalAlign: "top",
            borderBottom: "1px dotted",
            borderColor: "rule",
            py: 0.5,
            pr: 1.5,
          },
        }}
      >
        <thead>
          <tr>
            {["", "Sheet", "Row", "Column", "What is wrong"].map((it, i) => (
              <th key={i} scope="col">
                <Typography variant="caption">
                  {it || <span style={{ position: "absolute", left: -9999 }}>Severity</span>}
                </Typography>
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {problems.slice(0, MOST_LISTED).map((it, i) => (
            <tr key={i}>
              <td>
                <Typography
                  variant="body2"
                  sx={{
                    color: it.severity === "error" ? "signal.conflict" : "signal.open",
                    whiteSpace: "nowrap",
                    fontWeight: 700,
                  }}
                >
                  {it.severity === "error" ? "✕ in the way" : "? look"}
                </Typography>
              </td>
              <td>{it.sheet}</td>
              <td>{it.row || ""}</td>
              <td>{it.column}</td>
              <td>
                {it.message}
                {onOffer && it.offers && it.offers.length > 0 && (
                  <Box sx={{ display: "flex", gap: 1, flexWrap: "wrap", mt: 0.5 }}>
                    {it.offers.map((offer) => (
                      <Button
                        key={offer.heading}
                        size="small"
                        variant="outlined"
                        onClick={() => onOffer(it.column, offer.heading)}
                        aria-label={`${offer.name} (for the column ${it.column})`}
                      >
                        {offer.name}
                      </Button>
                    ))}
                  </Box>
                )}
              </td>
            </tr>
          ))}
        </tbody>
      </Box>
      {problems.length > MOST_LISTED && (
        <Typography variant="body2">and {problems.length - MOST_LISTED} more.</Typography>
      )}
    </>
  );
}
