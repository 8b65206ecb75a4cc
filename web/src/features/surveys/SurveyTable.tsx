import { Box, Button } from "@mui/material";
import { useState, type ReactNode } from "react";

const cell = { px: 1, py: 0.5, borderBottom: "1px dotted", borderColor: "rule", textAlign: "left" } as const;
const table = { borderCollapse: "collapse", fontVariantNumeric: "tabular-nums", "& th, & td": cell } as const;
const MOST_SHOWN = 30;

interface Props {
  label: string;
  columns: ReactNode[];
  rows: { key: string; head: ReactNode; cells: ReactNode[] }[];
  /** What the rows are, for the button that shows all of them. */
  what?: string;
}

/** A table of figures: the first rows, and all of them on request; it scrolls in itself. */
export function SurveyTable({ label, columns, rows, what = "rows" }: Props) {
  const [isAll, setAll] = useState(false);
  const shown = isAll ? rows : rows.slice(0, MOST_SHOWN);
  return (
    <>
      <Box sx={{ overflowX: "auto" }} tabIndex={0} role="region" aria-label={label}>
        <Box component="table" sx={table}>
          <thead>
            <tr>
              {columns.map((it, i) => (
                <th scope="col" key={i}>
                  {it}
                </th>
              ))}
            </tr>
          </thead>
          <tbody>
            {shown.map((it) => (
              <tr key={it.key}>
                <th scope="row">{it.head}</th>
                {it.cells.map((of, i) => (
                  <td key={i}>{of}</td>
                ))}
              </tr>
            ))}
          </tbody>
        </Box>
      </Box>
      {rows.length > MOST_SHOWN && (
        <Button onClick={() => setAll(!isAll)}>{isAll ? "Fewer" : `All ${rows.length} ${what}`}</Button>
      )}
    </>
  );
}
