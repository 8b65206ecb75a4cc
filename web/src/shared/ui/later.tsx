import { Typography } from "@mui/material";
import { lazy, Suspense, type ComponentType, type ReactElement } from "react";

/** A part of a page that is fetched when it is first wanted. What opens above the page leaves it as it is meanwhile. */
export function later<P extends object>(load: () => Promise<(props: P) => ReactElement | null>, isAbove = false) {
  const Late = lazy(async () => ({ default: (await load()) as ComponentType<P> }));
  return function Later(props: P) {
    return (
      <Suspense fallback={isAbove ? null : <Typography role="status">Fetching it …</Typography>}>
        <Late {...props} />
      </Suspense>
    );
  };
}
