import { Box, Typography } from "@mui/material";
import { useFlora } from "../../shared/botany/queries";

const SIZE = 34;

// B2, AA14 or 2-3: what stands before the last number is the column.
const columnOf = (cell: string) => cell.replace(/-?\d+$/, "");
const rowOf = (cell: string) => /\d+$/.exec(cell)?.[0] ?? "";

/** The grid of a flora with the cells in which a taxon is recorded; an empty cell may be one that nobody has visited. */
export function GridMap(props: { floraId: string; cells: string[]; all: string[]; kept: boolean }) {
  const { floraId, cells, all, kept } = props;
  const { flora } = useFlora(floraId);
  const columns = [...new Set(all.map((cell) => columnOf(cell)))].sort(
    (a, b) => a.length - b.length || (a < b ? -1 : 1),
  );
  // North is up: where the numbers go north, the largest stands on top.
  const up = flora?.grid?.naming === "lettersEastNumbersSouth" ? 1 : -1;
  const rows = [...new Set(all.map((cell) => rowOf(cell)))].sort((a, b) => up * (Number(a) - Number(b)));
  if (columns.length === 0 || rows.length === 0) return null;
  const [width, height] = [columns.length * SIZE + 25, rows.length * SIZE + 21];
  return (
    <>
      <Box
        component="svg"
        viewBox={`0 0 ${width} ${height}`}
        role="img"
        aria-label={cells.length > 0 ? `Recorded in the grid cells ${cells.join(", ")}.` : "Recorded in no grid cell."}
        sx={{ display: "block", width: "100%", maxWidth: width, height: "auto", color: "text.primary" }}
      >
        {columns.map((column, c) => (
          <text key={column} x={24 + c * SIZE + SIZE / 2} y={13} fontSize={11} textAnchor="middle" fill="currentColor">
            {column}
          </text>
        ))}
        {rows.map((row, r) => (
          <text key={row} x={10} y={20 + r * SIZE + SIZE / 2 + 4} fontSize={11} textAnchor="middle" fill="currentColor">
            {row}
          </text>
        ))}
        {all.map((cell) => {
          const c = columns.indexOf(columnOf(cell));
          const r = rows.indexOf(rowOf(cell));
          const [x, y] = [24 + c * SIZE, 20 + r * SIZE];
          return (
            <g key={cell}>
              <rect x={x} y={y} width={SIZE} height={SIZE} fill="none" stroke="currentColor" strokeOpacity={0.5} />
              {cells.includes(cell) && <circle cx={x + SIZE / 2} cy={y + SIZE / 2} r={9} fill="currentColor" />}
            </g>
          );
        })}
      </Box>
      <Typography variant="caption" color="text.secondary" sx={{ display: "block" }}>
        {kept
          ? "Sensitive: only the square is shown, never the place."
          : "An empty square may be one that nobody has visited."}
      </Typography>
    </>
  );
}
