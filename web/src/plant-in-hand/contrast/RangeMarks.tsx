import { Box } from "@mui/material";
import type { Schemas } from "../../api/client";

const WIDTH = 150;
const INSET = 8;

/** Ranges of one character on one axis: the usual stretch thick, rare ends thin. */
export function RangeMarks({
  range,
  all,
}: {
  range: Schemas["QuantityRange"];
  all: (Schemas["QuantityRange"] | null | undefined)[];
}) {
  const known = all.filter((it): it is Schemas["QuantityRange"] => Boolean(it));
  const from = Math.min(...known.map((it) => it.lowExtreme ?? it.low));
  const to = Math.max(...known.map((it) => it.highExtreme ?? it.high));
  // Sizes are compared by ratio, as they vary; where one begins at nothing, by length.
  const log = from > 0 && to / from > 4;
  const scale = (value: number) => {
    const share = log ? Math.log(value / from) / Math.log(to / from) : (value - from) / Math.max(1e-9, to - from);
    return INSET + share * (WIDTH - 2 * INSET);
  };
  return (
    <Box
      component="svg"
      viewBox={`0 0 ${WIDTH} 14`}
      aria-hidden="true"
      sx={{ display: "block", width: "100%", maxWidth: WIDTH, height: 14, color: "text.primary" }}
    >
      <path d={`M${INSET} 7H${WIDTH - INSET}`} stroke="currentColor" strokeOpacity={0.25} />
      <path
        d={`M${scale(range.lowExtreme ?? range.low)} 7H${scale(range.highExtreme ?? range.high)}`}
        stroke="currentColor"
        strokeWidth={1.5}
      />
      <path
        d={`M${scale(range.low) - 1} 7H${scale(range.high) + 1}`}
        stroke="currentColor"
        strokeWidth={7}
        strokeOpacity={0.75}
      />
    </Box>
  );
}
