import { Button, Dialog, DialogActions, DialogContent, DialogTitle } from "@mui/material";
import { WITHOUT_KEY } from "../../plant-in-hand/walks";

interface Key {
  hash: string;
  title: string;
}

/** By which key a plant is determined again, or by none. */
export function ChooseKey({
  keys,
  onChoose,
  onClose,
}: {
  keys: Key[];
  onChoose: (key: Key) => void;
  onClose: () => void;
}) {
  return (
    <Dialog open onClose={onClose} aria-labelledby="choose-key">
      <DialogTitle id="choose-key">By which key?</DialogTitle>
      <DialogContent sx={{ display: "grid", gap: 1 }}>
        <Button
          variant="contained"
          onClick={() => onChoose(WITHOUT_KEY)}
          sx={{ justifyContent: "flex-start", textAlign: "left" }}
        >
          Without a key: sift by what can be seen
        </Button>
        {keys.map((key) => (
          <Button key={key.hash} onClick={() => onChoose(key)} sx={{ justifyContent: "flex-start", textAlign: "left" }}>
            {key.title}
          </Button>
        ))}
      </DialogContent>
      <DialogActions>
        <Button onClick={onClose}>Cancel</Button>
      </DialogActions>
    </Dialog>
  );
}
