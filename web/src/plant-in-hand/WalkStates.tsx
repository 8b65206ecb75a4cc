import { Button, Box, Link, Typography } from "@mui/material";
import { Link as RouterLink } from "react-router";
import { Page } from "../shared/ui/Page";
import { useKeys } from "../offline/documents";
import type { PlantInHand } from "../offline/store";
import { ModeBar } from "./ModeBar";

/** What the plant in hand is called above its pages. */
export const plantTitle = (walk: PlantInHand) =>
  walk.plant ? `${walk.plant.label || "A plant"}, ${walk.plant.placeName}` : walk.form.label || "A plant in hand";

export function WalkGone() {
  return (
    <Page title="This plant isn’t on this device">
      <Typography>
        It was kept or thrown away.{" "}
        <Link component={RouterLink} to="/bench">
          Begin with another one
        </Link>
        , or look among the{" "}
        <Link component={RouterLink} to="/records">
          records
        </Link>
        .
      </Typography>
    </Page>
  );
}

export function WalkSending() {
  return (
    <Page title="Kept on this device">
      <Typography>
        This record is sent by itself as soon as the database answers.{" "}
        <Link component={RouterLink} to="/records">
          To the records
        </Link>
      </Typography>
    </Page>
  );
}

/** A plant that was begun without a key: which one is it to be taken through? */
export function ChooseKey({
  walk,
  onChoose,
}: {
  walk: PlantInHand;
  onChoose: (key: { hash: string; title: string }) => void;
}) {
  const keys = useKeys();
  return (
    <Page title={plantTitle(walk)} aside={<ModeBar walkId={walk.id} />}>
      <Typography variant="h2">Which key?</Typography>
      <Typography variant="body2" sx={{ mb: 1 }}>
        The evidence goes along: it answers couplets by itself.
      </Typography>
      <Box component="ul" sx={{ listStyle: "none", p: 0, m: 0, display: "grid", gap: 1, justifyItems: "start" }}>
        {(keys.data ?? []).map((key) => (
          <li key={key.hash}>
            <Button onClick={() => onChoose(key)}>
              {key.title} ({key.taxa} taxa)
            </Button>
          </li>
        ))}
      </Box>
      {keys.data?.length === 0 && <Typography>There is no key yet.</Typography>}
    </Page>
  );
}
