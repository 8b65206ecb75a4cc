import { Box, Dialog, TextField, Typography } from "@mui/material";
import { keepPreviousData, useQuery } from "@tanstack/react-query";
import { useDeferredValue, useRef, useState, type KeyboardEvent } from "react";
import { Link as RouterLink, useNavigate } from "react-router";
import type { Schemas } from "../api/client";
import { useConnection } from "../offline/queries";
import { found } from "../offline/search";
import { useSearchedAhead } from "../offline/searched";
import { TaxonLabel } from "../shared/botany/TaxonLabel";
import { useHere } from "../shared/place/here";
import { InSeasonFound } from "./InSeasonFound";

type Found = Schemas["Findable"];

const kinds: Record<Exclude<Schemas["FoundKind"], "season">, string> = {
  taxon: "Taxa",
  plant: "Marked plants",
  place: "Places",
  key: "Keys",
  term: "Glossary",
};

function addressOf(it: Found, placeId: string): string {
  switch (it.kind) {
    case "taxon":
      return `/flora/${it.floraId}/taxa/${it.id}`;
    case "plant":
      return `/plants/${it.id}`;
    case "place":
      return `/places/${it.id}`;
    case "key":
      return `/keys/${it.id}`;
    case "term":
      return `/glossary?find=${encodeURIComponent(it.name)}`;
    case "season":
      return `/seasons${placeId ? `?place=${placeId}` : ""}`;
  }
}

/** What is searched, and what is found. */
export function SearchDialog({ onClose }: { onClose: () => void }) {
  const navigate = useNavigate();
  const { placeId } = useHere();
  const [typed, setTyped] = useState("");
  const text = useDeferredValue(typed).trim();
  const list = useRef<HTMLDivElement>(null);
  const connection = useConnection();
  useSearchedAhead(connection === "away" || connection === "outOfReach");
  const { data, isError } = useQuery({
    enabled: text.length > 0,
    queryKey: ["search", text],
    staleTime: 30_000,
    placeholderData: keepPreviousData,
    queryFn: ({ signal }) => found(text, signal),
  });
  const all = text ? (data ?? []) : [];
  const open = (it: Found) => {
    onClose();
    void navigate(addressOf(it, placeId));
  };
  const onKey = (event: KeyboardEvent) => {
    const lines = [...(list.current?.querySelectorAll<HTMLElement>("a") ?? [])];
    const at = lines.indexOf(document.activeElement as HTMLElement);
    const first = all[0];
    if (event.key === "Enter" && at < 0 && first) open(first);
    else if (event.key === "ArrowDown") lines[Math.min(at + 1, lines.length - 1)]?.focus();
    else if (event.key === "ArrowUp" && at > 0) lines[at - 1]?.focus();
    else return;
    event.preventDefault();
  };
  return (
    <Dialog
      open
      onClose={onClose}
      fullWidth
      maxWidth="sm"
      onKeyDown={onKey}
      sx={{ "& .MuiDialog-container": { alignItems: "flex-start" } }}
      slotProps={{
        paper: { "aria-label": "Search everything", sx: { m: { xs: 1, sm: 4 }, width: { xs: "calc(100% - 16px)" } } },
      }}
    >
      <Box sx={{ p: 2, pb: 1 }}>
        <TextField
          autoFocus
          label="A taxon, plant, place, key or term; “in flower”"
          value={typed}
          onChange={(event) => setTyped(event.target.value)}
          autoComplete="off"
          slotProps={{ htmlInput: { "aria-controls": "found", enterKeyHint: "go", maxLength: 100 } }}
        />
      </Box>
      <Box ref={list} id="found" sx={{ px: 2, pb: 2, minHeight: 60 }}>
        <Typography role="status" variant="body2" color="text.secondary" sx={{ py: 0.5 }}>
          {text && (data || isError)
            ? all.length === 0
              ? `Nothing is called “${text}”.`
              : all.some((it) => it.kind === "season")
                ? ""
                : `${all.length} found`
            : "Beginnings of words are enough: “ve al”."}
        </Typography>
        {all.map(
          (it) =>
            it.kind === "season" && (
              <InSeasonFound key={it.id} doing={it.id === "fruit" ? "fruit" : "flower"} onClose={onClose} />
            ),
        )}
        {Object.entries(kinds).map(([kind, name]) => {
          const own = all.filter((it) => it.kind === kind);
          if (own.length === 0) return null;
          return (
            <Box component="section" key={kind} aria-label={name} sx={{ borderTop: 1, borderColor: "rule", py: 0.5 }}>
              <Typography variant="h3" color="text.secondary">
                {name}
              </Typography>
              {own.map((it) => (
                <Box
                  component={RouterLink}
                  key={it.kind + it.id + it.state}
                  to={addressOf(it, placeId)}
                  onClick={onClose}
                  sx={{
                    display: "flex",
                    flexWrap: "wrap",
                    alignItems: "center",
                    columnGap: 1,
                    minHeight: 44,
                    px: 1,
                    color: "text.primary",
                    textDecoration: "none",
                    "&:hover, &:focus-visible": { bgcolor: "signal.chosenWash" },
                  }}
                >
                  <span>{it.kind === "taxon" ? <TaxonLabel name={it.name} /> : it.name}</span>
                  <Typography component="span" variant="body2" color="text.secondary">
                    {it.note}
                  </Typography>
                </Box>
              ))}
            </Box>
          );
        })}
      </Box>
    </Dialog>
  );
}
