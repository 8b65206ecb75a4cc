import { Box, Typography } from "@mui/material";

const SIZE = 34;

/** The grid of a flora with the cells in which a taxon is recorded; an empty cell may be one that nobody has visited. */
export function GridMap({ cells, all, kept }: { cells: string[]; all: string[]; kept: boolean }) {
  const columns = [...new Set(all.map((cell) => cell.replace(/\d+$/, "")))].sort();
  const rows = [...new Set(all.map((cell) => cell.replace(/^\D+/, "")))].sort((a, b) => Number(a) - Number(b));
  if (columns.length === 0 || rows.length === 0) return null;
  const [width, height] = [columns.length * SIZE + 24, rows.length * SIZE + 20];
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
          const c = columns.indexOf(cell.replace(/\d+$/, ""));
          const r = rows.indexOf(cell.replace(/^\D+/, ""));
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
