import { Box, Button, Link, Typography } from "@mui/material";
import { useState } from "react";
import { TextField } from "../../shared/form/TextField";

/** What is printed of a plant: a label to stand by it, and one for a pressed specimen with a slip for each later name. */
export function PaperOfPlant({ plantId, hasName }: { plantId: string; hasName: boolean }) {
  const [typed, setTyped] = useState({ number: "", part: "", licence: "", herbarium: "", duplicates: "" });
  const [isMissing, setMissing] = useState(false);
  const field = (name: keyof typeof typed, label: string) => (
    <TextField
      label={label}
      value={typed[name]}
      onChange={(event) => setTyped((before) => ({ ...before, [name]: event.target.value }))}
      error={isMissing && name === "number"}
      helperText={isMissing && name === "number" ? "✕ A specimen has a number." : undefined}
    />
  );
  const print = () => {
    setMissing(!typed.number.trim());
    if (!typed.number.trim()) return;
    const words = new URLSearchParams(Object.entries(typed).filter(([, text]) => text.trim()));
    window.open(`/api/v1/plants/${plantId}/voucher.html?${words.toString()}`, "_blank", "noreferrer");
  };
  return (
    <>
      <Link
        href={`/api/v1/plants/labels.html?id=${plantId}`}
        target="_blank"
        rel="noreferrer"
        sx={{ py: 1.25, display: "inline-block" }}
      >
        A label to stand by it
      </Link>
      {hasName && (
        <Box
          component="form"
          noValidate
          aria-label="Label of a specimen"
          onSubmit={(event) => {
            event.preventDefault();
            print();
          }}
          sx={{
            display: "grid",
            gap: 1.5,
            gridTemplateColumns: { xs: "1fr 1fr", sm: "repeat(3, 1fr)" },
            maxWidth: 720,
            mt: 1,
          }}
        >
          {field("number", "Specimen number")}
          {field("part", "What was taken")}
          {field("licence", "By which leave")}
          {field("herbarium", "Herbarium")}
          {field("duplicates", "Duplicates go to")}
          <Button type="submit">Label the specimen</Button>
          <Typography variant="body2" sx={{ gridColumn: "1 / -1" }}>
            Take nothing that is protected, and nothing without leave; of a small population a photograph is enough.
          </Typography>
        </Box>
      )}
    </>
  );
}
