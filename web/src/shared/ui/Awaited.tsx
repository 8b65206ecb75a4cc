import { Box, Skeleton, Typography } from "@mui/material";

interface Props {
  /** What is waited for, in words. */
  words: string;
  /** Heights of what will stand there, from the top down. */
  heights: number[];
}

/** What comes in a moment, in its form and in its place. */
export function Awaited({ words, heights }: Props) {
  return (
    <Box role="status" sx={{ maxWidth: 720 }}>
      <Typography variant="body2" color="text.secondary">
        {words}
      </Typography>
      {heights.map((height, i) => (
        <Skeleton key={i} variant="rectangular" height={height} sx={{ mt: 1.25 }} />
      ))}
    </Box>
  );
}
