import { Box, Typography } from "@mui/material";
import type { Schemas } from "../../api/client";

const RADIUS = 46;

/** How to find a plant again, drawn from bearing and distance: the landmark in the middle, north up. */
export function FindingSketch({ plant }: { plant: Schemas["PlantDetail"] }) {
  const { finding, site, findingInWords: words } = plant;
  const { landmark, bearingDegrees, distanceMetres } = finding;
  const isDrawn = landmark && typeof bearingDegrees === "number" && typeof distanceMetres === "number";
  const angle = ((bearingDegrees ?? 0) * Math.PI) / 180;
  const [x, y] = [Math.sin(angle) * RADIUS, -Math.cos(angle) * RADIUS];
  return (
    <Box sx={{ display: "flex", gap: 2, flexWrap: "wrap", alignItems: "center" }}>
      {isDrawn && (
        <Box
          component="svg"
          viewBox="-75 -66 150 132"
          role="img"
          aria-label={`The plant stands ${words}.`}
          sx={{ width: 190, height: 167, flex: "none", color: "text.primary" }}
        >
          <circle r={RADIUS} fill="none" stroke="currentColor" strokeOpacity={0.35} strokeDasharray="2 4" />
          <path d="M62 -44v-16m-5 7l5 -8l5 8" fill="none" stroke="currentColor" strokeWidth={1.5} />
          <text x={62} y={-32} fontSize={11} textAnchor="middle" fill="currentColor">
            N
          </text>
          <path d={`M0 0L${x} ${y}`} stroke="currentColor" strokeDasharray="5 3" />
          <path d="M-6 6h12l-2 -13h-8Z" fill="currentColor" />
          <Box component="g" transform={`translate(${x} ${y})`} sx={{ color: "signal.support" }}>
            <path
              d="M0 8V-4M0 2q-8 0 -9 -8q9 0 9 8q0 -8 9 -8q-1 8 -9 8"
              fill="none"
              stroke="currentColor"
              strokeWidth={2}
            />
          </Box>
          <text x={x * 1.3} y={y * 1.3 + 4} fontSize={11} textAnchor="middle" fill="currentColor">
            {distanceMetres} m
          </text>
        </Box>
      )}
      <Box>
        <Typography>{words ? `${words}.` : "Nothing is said of how to find it again."}</Typography>
        <Typography variant="body2" color="text.secondary">
          {site
            ? `${site.latitude}, ${site.longitude} ± ${site.uncertaintyMetres} m (WGS 84)`
            : "No position of its own was taken; that of the place counts."}
        </Typography>
      </Box>
    </Box>
  );
}
