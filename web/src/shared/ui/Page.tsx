import { Box, Typography } from "@mui/material";
import { useEffect, type ReactNode } from "react";
import { useIsPhone } from "./useIsPhone";
import { visuallyHidden } from "./visuallyHidden";

interface PageProps {
  title: string;
  aside?: ReactNode;
  /** Whether it tells the place of a sensitive taxon: then it isn’t printed. */
  isKeptBack?: boolean;
  /** On a phone without its heading and what stands beside it: the room is for what is done here. */
  isTight?: boolean;
  children: ReactNode;
}

/** A page with its heading; the heading is also the window's title. */
export function Page({ title, aside, isKeptBack, isTight, children }: PageProps) {
  const isPhone = useIsPhone();
  useEffect(() => {
    document.title = `${title} · Garten`;
  }, [title]);
  return (
    <Box
      sx={{
        maxWidth: 1240,
        mx: "auto",
        px: { xs: isTight ? 1.25 : 2, md: 3 },
        pt: { xs: isTight ? 0.5 : 2, sm: 2 },
        pb: { xs: isTight ? 1 : 4, sm: 4 },
      }}
    >
      {isKeptBack && (
        <Typography sx={{ display: "none", "@media print": { display: "block" } }}>
          This page tells the exact place of a sensitive taxon and isn’t printed. The exports under Records and Plants
          give its grid cell.
        </Typography>
      )}
      <Box data-kept-back={isKeptBack ? "" : undefined}>
        <Box
          sx={{
            display: "flex",
            flexWrap: "wrap",
            alignItems: "center",
            gap: 2,
            mb: 2,
            ...(isTight && isPhone ? visuallyHidden : {}),
          }}
        >
          <Typography variant="h1" sx={{ flex: "1 1 min(16rem, 100%)" }}>
            {title}
          </Typography>
          {!(isTight && isPhone) && aside}
        </Box>
        {children}
      </Box>
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
