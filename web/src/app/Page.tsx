import { Box, Typography } from "@mui/material";
import { useEffect, type ReactNode } from "react";

/** A page with its heading; the heading is also the window's title. */
export function Page({ title, aside, children }: { title: string; aside?: ReactNode; children: ReactNode }) {
  useEffect(() => {
    document.title = `${title} · Garten`;
  }, [title]);
  return (
    <Box sx={{ maxWidth: 1240, mx: "auto", px: { xs: 2, md: 3 }, pt: 2, pb: 4 }}>
      <Box sx={{ display: "flex", flexWrap: "wrap", alignItems: "center", gap: 2, mb: 2 }}>
        <Typography variant="h1" sx={{ flex: "1 1 16rem" }}>
          {title}
        </Typography>
        {aside}
      </Box>
      {children}
    </Box>
  );
}

/** A thin-ruled part of a page with its own heading. */
export function Part({ title, children, id }: { title: ReactNode; children: ReactNode; id: string }) {
  return (
    <Box component="section" aria-labelledby={id} sx={{ borderTop: 1, borderColor: "rule", pt: 1.5, mb: 3 }}>
      <Typography id={id} variant="h2" sx={{ mb: 1 }}>
        {title}
      </Typography>
      {children}
    </Box>
  );
}
