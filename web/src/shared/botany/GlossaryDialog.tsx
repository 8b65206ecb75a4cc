import { Button, Dialog, DialogActions, DialogContent, DialogTitle, Typography } from "@mui/material";
import type { Schemas } from "../../api/client";
import { HowToLook, StateRows } from "./CharacterEntry";

/** A term, opened where it was met. */
export function GlossaryDialog({
  characters,
  marked,
  onClose,
}: {
  characters: Schemas["Character"][];
  marked?: string[];
  onClose: () => void;
}) {
  return (
    <Dialog open onClose={onClose} aria-labelledby="term-title" fullWidth maxWidth="md">
      <DialogTitle id="term-title">{characters.map((c) => c.name).join(" · ")}</DialogTitle>
      <DialogContent tabIndex={0}>
        {characters.map((character) => (
          <section key={character.id} aria-label={character.name}>
            {characters.length > 1 && (
              <Typography variant="h2" sx={{ mt: 1 }}>
                {character.name}
              </Typography>
            )}
            <HowToLook character={character} />
            <StateRows character={character} marked={marked} />
          </section>
        ))}
      </DialogContent>
      <DialogActions>
        <Button onClick={onClose}>Close</Button>
      </DialogActions>
    </Dialog>
  );
}
