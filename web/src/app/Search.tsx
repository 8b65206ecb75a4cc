import { Box, ButtonBase } from "@mui/material";
import { lazy, Suspense, useEffect, useState } from "react";

const SearchDialog = lazy(() => import("./SearchDialog").then((it) => ({ default: it.SearchDialog })));

/** A glass that opens the search; so does “/” wherever nothing is typed. */
export function SearchGlass() {
  const [open, setOpen] = useState(false);
  useEffect(() => {
    const onKey = (event: globalThis.KeyboardEvent) => {
      const target = event.target instanceof HTMLElement ? event.target : undefined;
      const isTaken = target?.closest("input, textarea, select, [contenteditable], [role=dialog]");
      if (event.key !== "/" || event.ctrlKey || event.altKey || event.metaKey || isTaken) return;
      event.preventDefault();
      setOpen(true);
    };
    window.addEventListener("keydown", onKey);
    return () => window.removeEventListener("keydown", onKey);
  }, []);
  return (
    <>
      <ButtonBase
        onClick={() => setOpen(true)}
        aria-label="Search everything"
        aria-keyshortcuts="/"
        aria-haspopup="dialog"
        sx={{ flex: "none", minHeight: 44, minWidth: 44, px: { sm: 1 }, gap: 0.75, fontSize: "0.9375rem" }}
      >
        <Box
          component="svg"
          viewBox="0 0 20 20"
          aria-hidden="true"
          sx={{ width: 20, height: 20, fill: "none", stroke: "currentColor", strokeWidth: 1.9, strokeLinecap: "round" }}
        >
          <path d="M13 8.5a5 5 0 1 1-10 0 5 5 0 0 1 10 0zM12.2 12.2 18 18" />
        </Box>
        <Box component="span" sx={{ display: { xs: "none", md: "inline" } }}>
          Search
        </Box>
      </ButtonBase>
      {open && (
        <Suspense fallback={null}>
          <SearchDialog onClose={() => setOpen(false)} />
        </Suspense>
      )}
    </>
  );
}
