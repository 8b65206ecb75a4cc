import { Box } from "@mui/material";
import type MuiTextField from "@mui/material/TextField";
import { lazy, Suspense, type ComponentProps, type ComponentType } from "react";

const Late = lazy(() => import("@mui/material/TextField") as Promise<{ default: ComponentType<object> }>);

const FIELD_HEIGHT = { medium: 56, small: 44 };

/** A field of a page whose list stands before it can be typed in; its room is kept. Forms take MUI's own. */
export function TextField(props: ComponentProps<typeof MuiTextField>) {
  return (
    <Suspense fallback={<Box sx={{ ...props.sx, width: "100%", minHeight: FIELD_HEIGHT[props.size ?? "medium"] }} />}>
      <Late {...props} />
    </Suspense>
  );
}
