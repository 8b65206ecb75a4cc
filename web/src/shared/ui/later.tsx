import { Typography } from "@mui/material";
import { lazy, Suspense, type ComponentType, type ReactElement } from "react";

/** A part of a page that is fetched when it is first wanted. */
export function later<P extends object>(load: () => Promise<(props: P) => ReactElement | null>) {
  const Late = lazy(async () => ({ default: (await load()) as ComponentType<P> }));
  return function Later(props: P) {
    return (
      <Suspense fallback={<Typography role="status">Fetching it …</Typography>}>
        <Late {...props} />
      </Suspense>
    );
  };
}
