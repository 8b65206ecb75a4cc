import { Box } from "@mui/material";
import type { Schemas } from "../../api/client";

const WIDTH = 150;
const INSET = 8;

/** A range on the axis that its row shares: the usual stretch thick, rare ends thin. */
export function RangeMarks({ mark }: { mark: Schemas["RangeMark"] }) {
  const x = (place: number) => INSET + place * (WIDTH - 2 * INSET);
  return (
    <Box
      component="svg"
      viewBox={`0 0 ${WIDTH} 14`}
      aria-hidden="true"
      sx={{ display: "block", width: "100%", maxWidth: WIDTH, height: 14, color: "text.primary" }}
    >
      <path d={`M${INSET} 7H${WIDTH - INSET}`} stroke="currentColor" strokeOpacity={0.25} />
      <path d={`M${x(mark.lowExtreme)} 7H${x(mark.highExtreme)}`} stroke="currentColor" strokeWidth={1.5} />
      <path
        d={`M${x(mark.low) - 1} 7H${x(mark.high) + 1}`}
        stroke="currentColor"
        strokeWidth={7}
        strokeOpacity={0.75}
      />
    </Box>
  );
}
