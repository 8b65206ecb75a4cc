import { Box, Button, Typography } from "@mui/material";
import { useState } from "react";
import words from "../../api/words";

interface Props {
  picture?: string;
  onChange: (picture: string | undefined) => void;
}

const SIDE = 240;

/** A small picture of one's own: whatever is chosen is made small enough on the device. */
export function PictureField({ picture, onChange }: Props) {
  const [problem, setProblem] = useState("");
  const take = async (file: File | undefined) => {
    if (!file) return;
    setProblem("");
    try {
      onChange(await small(file));
    } catch (error) {
      setProblem(error instanceof Error ? error.message : "This picture can’t be read.");
    }
  };
  return (
    <Box>
      <Box
        component="label"
        sx={{
          position: "relative",
          display: "inline-flex",
          alignItems: "center",
          minHeight: 44,
          px: 2,
          border: 1,
          fontWeight: 600,
          "&:focus-within": { outline: "3px solid", outlineColor: "primary.main", outlineOffset: 2 },
        }}
      >
        {picture ? "Another picture" : "A picture of your own …"}
        <Box
          component="input"
          type="file"
          accept="image/png,image/jpeg"
          onChange={(event) => void take((event.target as HTMLInputElement).files?.[0])}
          sx={{ position: "absolute", opacity: 0, inset: 0, width: "100%", cursor: "pointer" }}
        />
      </Box>
      {picture && (
        <>
          <Box
            component="img"
            src={picture}
            alt="Your picture"
            sx={{ display: "block", width: 96, height: 96, mt: 1 }}
          />
          <Button onClick={() => onChange(undefined)}>Leave it out</Button>
        </>
      )}
      {problem && (
        <Typography role="alert" color="error">
          ✕ {problem}
        </Typography>
      )}
    </Box>
  );
}

async function small(file: File): Promise<string> {
  if (file.size > words.limits.largestPictureFile)
    throw new Error(`This file is too large: up to ${Math.round(words.limits.largestPictureFile / 1e6)} MB are read.`);
  const image = await createImageBitmap(file).catch(() => undefined);
  if (!image) throw new Error("This file is no picture that can be read: choose PNG or JPEG.");
  const scale = Math.min(1, SIDE / Math.max(image.width, image.height));
  const canvas = document.createElement("canvas");
  [canvas.width, canvas.height] = [Math.max(1, image.width * scale), Math.max(1, image.height * scale)];
  canvas.getContext("2d")?.drawImage(image, 0, 0, canvas.width, canvas.height);
  return canvas.toDataURL("image/jpeg");
}
