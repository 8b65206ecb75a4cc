import { Box } from "@mui/material";
import type MuiTextField from "@mui/material/TextField";
import { lazy, Suspense, type ComponentProps, type ComponentType } from "react";

const Late = lazy(() => import("@mui/material/TextField") as Promise<{ default: ComponentType<object> }>);

const FIELD_HEIGHT = { medium: 56, small: 44 };
const LINE_HEIGHT = 24;

/** A field of a page whose list stands before it can be typed in; its room is kept. Forms take MUI's own. */
export function TextField(props: ComponentProps<typeof MuiTextField>) {
  const height = FIELD_HEIGHT[props.size ?? "medium"] + (Number(props.minRows ?? 1) - 1) * LINE_HEIGHT;
  return (
    <Suspense fallback={<Box sx={{ ...props.sx, width: "100%", minHeight: height }} />}>
      <Late {...props} />
    </Suspense>
  );
}
