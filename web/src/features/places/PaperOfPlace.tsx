import { Box, Button, Link, MenuItem } from "@mui/material";
import { useState } from "react";
import { today } from "../../api/today";
import { months } from "../../shared/calendar/day";
import { TextField } from "../../shared/form/TextField";

/** What is printed for a place: a form for a month with what is expected, and labels of its plants. */
export function PaperOfPlace({ placeId }: { placeId: string }) {
  const [month, setMonth] = useState(Number(today().slice(5, 7)));
  return (
    <Box sx={{ display: "flex", flexWrap: "wrap", gap: 1.5, alignItems: "center" }}>
      <TextField
        select
        fullWidth={false}
        label="Month"
        value={month}
        onChange={(event) => setMonth(Number(event.target.value))}
        sx={{ width: 180 }}
      >
        {months("long").map((name, i) => (
          <MenuItem key={name} value={i + 1}>
            {name}
          </MenuItem>
        ))}
      </TextField>
      <Button
        component="a"
        href={`/api/v1/places/${placeId}/form.html?month=${month}`}
        target="_blank"
        rel="noreferrer"
        sx={{ minHeight: 48 }}
      >
        Field form on paper
      </Button>
      <Link href={`/api/v1/plants/labels.html?place=${placeId}`} target="_blank" rel="noreferrer" sx={{ py: 1.25 }}>
        Labels of its marked plants
      </Link>
    </Box>
  );
}
