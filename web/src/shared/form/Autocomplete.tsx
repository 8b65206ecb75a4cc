import { Box } from "@mui/material";
import type MuiAutocomplete from "@mui/material/Autocomplete";
import { lazy, Suspense, type ComponentType } from "react";

const Late = lazy(() => import("@mui/material/Autocomplete") as Promise<{ default: ComponentType<object> }>);

const FIELD_HEIGHT = 56;

/** A field that offers what is typed; its code comes behind the page, its room is kept. */
export const Autocomplete = ((props: object) => (
  <Suspense fallback={<Box sx={{ minHeight: FIELD_HEIGHT }} />}>
    <Late {...props} />
  </Suspense>
)) as unknown as typeof MuiAutocomplete;
