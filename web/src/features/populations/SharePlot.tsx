import { Box, Typography } from "@mui/material";
import type { Schemas } from "../../api/client";

/** A share as a point with its interval; what the unknown may add is dotted. */
export function SharePlot({ name, it }: { name: string; it: Schemas["ShareEstimate"] }) {
  const x = (share: number) => 4 + share * 192;
  return (
    <Box
      sx={{
        display: "grid",
        gridTemplateColumns: { xs: "1fr", sm: "6rem 210px minmax(0, 1fr)" },
        alignItems: "center",
        columnGap: 1.5,
        py: 0.25,
      }}
    >
      <Typography variant="body2">{name}</Typography>
      <Box
        component="svg"
        viewBox="0 0 200 22"
        aria-hidden="true"
        sx={{ width: 210, height: 23, color: "text.primary" }}
      >
        <path d="M4 16H196M4 12v8M100 13v6M196 12v8" stroke="currentColor" strokeOpacity={0.5} fill="none" />
        {it.least !== null && it.unknown > 0 && (
          <path
            d={`M${x(it.leastLow)} 8H${x(it.mostHigh)}`}
            stroke="currentColor"
            strokeDasharray="2 3"
            strokeOpacity={0.8}
          />
        )}
        {it.share !== null && (
          <Box component="g" sx={{ color: "signal.support" }}>
            <path d={`M${x(it.low)} 8H${x(it.high)}`} stroke="currentColor" strokeWidth={3} />
            <circle cx={x(it.share)} cy={8} r={4.5} fill="currentColor" />
          </Box>
        )}
      </Box>
      <Typography variant="body2">{it.inWords}</Typography>
    </Box>
  );
}
