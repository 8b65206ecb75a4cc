import { Box, Typography } from "@mui/material";
import type { Schemas } from "../../api/client";
import { day } from "../../shared/calendar/day";

/** The squares of a place in words: how many were recorded in, and when somebody was last in the empty ones. */
export function SquareList({ answer }: { answer: Schemas["SquaresAnswer"] }) {
  if (answer.squares.length === 0)
    return <Typography role="status">These would be too many squares: take larger ones.</Typography>;
  const empty = answer.squares.filter((it) => it.records === 0);
  return (
    <Box component="details" sx={{ mb: 1 }}>
      <Box component="summary" sx={{ py: 1, cursor: "pointer" }}>
        <strong>
          {answer.recorded} of {answer.squares.length} squares have records
        </strong>
        ; {answer.walked} were walked through, {answer.never} never entered. That somebody walked through doesn’t say
        that it was searched.
      </Box>
      <Box component="ul" aria-label="Empty squares" sx={{ columns: { sm: 2 }, m: 0, pl: 2.5 }}>
        {empty.map(({ square, lastWalked }) => (
          <Typography component="li" variant="body2" key={square.name}>
            {square.name}: {lastWalked ? `walked through ${day(lastWalked)}` : "never"}
          </Typography>
        ))}
      </Box>
    </Box>
  );
}
