import {
  Box,
  Button,
  Dialog,
  DialogActions,
  DialogContent,
  DialogTitle,
  IconButton,
  TextField,
  Typography,
} from "@mui/material";
import { useState } from "react";
import { keepCalibrated, useCalibrated } from "./calibrated";

/** Calibrates a coin, a card, a pencil or the own thumb: once, kept on this device. */
export function CalibrateDialog({ onClose }: { onClose: () => void }) {
  const objects = useCalibrated();
  const [name, setName] = useState("");
  const [length, setLength] = useState("");
  const [uncertainty, setUncertainty] = useState("");
  const [problem, setProblem] = useState("");
  const number = (text: string) => Number(text.trim().replace(",", "."));
  const add = () => {
    const [l, u] = [number(length), number(uncertainty || "0")];
    if (!name.trim()) setProblem("Give it a name: my thumb, a card.");
    else if (objects.some((o) => o.name === name.trim()) || ["mm", "cm", "m", "in", "ft"].includes(name.trim()))
      setProblem("This name is taken. Give it another one.");
    else if (!(l > 0 && l <= 2000)) setProblem("Its length is a number of millimetres, above 0 and up to 2000.");
    else if (!(u >= 0 && u < l))
      setProblem("How well it is known is a number of millimetres, 0 or more and less than its length.");
    else {
      keepCalibrated([...objects, { name: name.trim(), length: l, uncertainty: u }]);
      setName("");
      setLength("");
      setUncertainty("");
      setProblem("");
    }
  };
  return (
    <Dialog open onClose={onClose} aria-labelledby="calibrate-title" fullWidth maxWidth="sm">
      <DialogTitle id="calibrate-title">Measure with what is in the pocket</DialogTitle>
      <DialogContent>
        <Typography variant="body2" sx={{ mb: 1.5 }}>
          Lay it beside a ruler once. A thumb bends: say by how many millimetres its length may be off, and every
          measure taken with it carries that doubt.
        </Typography>
        <Box component="ul" sx={{ listStyle: "none", p: 0, m: 0, mb: 1.5 }}>
          {objects.map((object) => (
            <Box
              component="li"
              key={object.name}
              sx={{ display: "flex", alignItems: "center", borderTop: "1px dotted", borderColor: "rule" }}
            >
              <Typography sx={{ flex: 1 }}>
                {object.name}: {object.length} ± {object.uncertainty} mm
              </Typography>
              <IconButton
                aria-label={`Forget ${object.name}`}
                onClick={() => keepCalibrated(objects.filter((o) => o.name !== object.name))}
              >
                ✕
              </IconButton>
            </Box>
          ))}
        </Box>
        <Box sx={{ display: "grid", gap: 1.5, gridTemplateColumns: { xs: "1fr", sm: "2fr 1fr 1fr" }, pt: 1 }}>
          <TextField label="Name" value={name} onChange={(event) => setName(event.target.value)} />
          <TextField label="Length, mm" value={length} onChange={(event) => setLength(event.target.value)} />
          <TextField
            label="Give or take, mm"
            value={uncertainty}
            onChange={(event) => setUncertainty(event.target.value)}
          />
        </Box>
        {problem && (
          <Typography role="alert" color="error" sx={{ mt: 1 }}>
            ✕ {problem}
          </Typography>
        )}
      </DialogContent>
      <DialogActions>
        <Button variant="contained" onClick={add}>
          Calibrate
        </Button>
        <Button onClick={onClose}>Close</Button>
      </DialogActions>
    </Dialog>
  );
}
