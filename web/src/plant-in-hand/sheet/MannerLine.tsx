import { mannerInWords } from "../../shared/botany/looks";
import { Box, Button, MenuItem, TextField, Typography } from "@mui/material";
import { useState } from "react";
import type { Manner } from "../../offline/store";

const choices: { name: keyof Manner["context"]; label: string; values: [string, string][] }[] = [
  {
    name: "light",
    label: "Light",
    values: [
      ["unsaid", "not said"],
      ["sun", "sun"],
      ["shade", "shade"],
    ],
  },
  {
    name: "position",
    label: "Position",
    values: [
      ["unsaid", "not said"],
      ["low", "low"],
      ["middle", "middle"],
      ["top", "top"],
    ],
  },
  {
    name: "stage",
    label: "Stage of the plant",
    values: [
      ["unsaid", "not said"],
      ["seedling", "seedling"],
      ["sapling", "sapling"],
      ["juvenile", "juvenile"],
      ["adult", "adult"],
    ],
  },
  {
    name: "age",
    label: "Age of the part",
    values: [
      ["unsaid", "not said"],
      ["young", "young, this year’s"],
      ["grown", "full-grown"],
      ["old", "old, worn or fading"],
    ],
  },
  {
    name: "shaping",
    label: "Shaping",
    values: [
      ["unsaid", "none known"],
      ["browsed", "browsed"],
      ["mown", "mown"],
      ["clipped", "clipped or trained"],
      ["resprouting", "resprouting"],
    ],
  },
  {
    name: "attachment",
    label: "Attachment",
    values: [
      ["unsaid", "not said"],
      ["attached", "on the plant"],
      ["beneath", "lying beneath"],
      ["perhapsNeighbours", "perhaps a neighbour’s"],
    ],
  },
  {
    name: "sex",
    label: "Sex of the part",
    values: [
      ["unsaid", "not said"],
      ["male", "male"],
      ["female", "female"],
      ["both", "both"],
    ],
  },
];

/** How the next look is made: one line, inherited from the last look, that opens to be changed. */
export function MannerLine({ manner, onChange }: { manner: Manner; onChange: (manner: Manner) => void }) {
  const [open, setOpen] = useState(false);
  const field = (label: string, value: string, values: [string, string][], set: (value: string) => void) => (
    <TextField
      key={label}
      select
      size="small"
      label={label}
      value={value}
      onChange={(event) => set(event.target.value)}
    >
      {values.map(([id, name]) => (
        <MenuItem key={id} value={id}>
          {name}
        </MenuItem>
      ))}
    </TextField>
  );
  return (
    <Box sx={{ borderTop: 1, borderBottom: 1, borderColor: "rule", py: 0.5, mb: 1.5 }}>
      <Box sx={{ display: "flex", alignItems: "center", gap: 1, flexWrap: "wrap" }}>
        <Typography variant="body2" sx={{ flex: 1 }}>
          <strong>Looked at:</strong> {mannerInWords(manner)}
        </Typography>
        <Button size="small" onClick={() => setOpen(!open)} aria-expanded={open}>
          {open ? "Close" : "Change"}
        </Button>
      </Box>
      {open && (
        <Box
          sx={{ display: "grid", gap: 1.25, gridTemplateColumns: { xs: "1fr 1fr", md: "1fr 1fr 1fr" }, pt: 1, pb: 1 }}
        >
          {field(
            "How sure",
            manner.sureness,
            [
              ["sure", "sure"],
              ["fairly", "fairly sure"],
              ["guess", "a guess"],
            ],
            (value) => onChange({ ...manner, sureness: value as Manner["sureness"] }),
          )}
          {field(
            "Tool",
            manner.tool,
            [
              ["eye", "eye"],
              ["lens", "lens"],
              ["ruler", "ruler"],
              ["binoculars", "binoculars"],
              ["knife", "knife"],
              ["microscope", "microscope"],
            ],
            (value) => onChange({ ...manner, tool: value as Manner["tool"] }),
          )}
          {choices.map(({ name, label, values }) =>
            field(label, String(manner.context[name]), values, (value) =>
              onChange({ ...manner, context: { ...manner.context, [name]: value } }),
            ),
          )}
        </Box>
      )}
    </Box>
  );
}
