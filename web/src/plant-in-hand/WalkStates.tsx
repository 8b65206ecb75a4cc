import { Button, Box, Link, Typography } from "@mui/material";
import { Link as RouterLink } from "react-router";
import { Page } from "../shared/ui/Page";
import type { Schemas } from "../api/client";
import { useKeys } from "../offline/documents";
import type { PlantInHand } from "../offline/store";
import { ModeBar } from "./ModeBar";
import { counted } from "../shared/ui/counted";

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
              {key.title} ({counted(key.taxa, "taxon", "taxa")})
            </Button>
          </li>
        ))}
      </Box>
      {keys.data?.length === 0 && <Typography>There is no key yet.</Typography>}
    </Page>
  );
}

/** The flora that a plant was held against isn’t here any more, or there is none yet: which one is it to be held against? */
export function FloraMissing({
  walk,
  floras,
  onChoose,
}: {
  walk: PlantInHand;
  floras: Schemas["FloraSummary"][];
  onChoose: (walk: PlantInHand) => void;
}) {
  return (
    <Page title={plantTitle(walk)} aside={<ModeBar walkId={walk.id} />}>
      <Typography variant="h2">{floras.length > 0 ? "Which flora?" : "There is no flora here yet"}</Typography>
      {floras.length > 0 ? (
        <>
          <Typography role="status" sx={{ mb: 1 }}>
            The one that this plant was held against isn’t here. What you have seen is kept, and goes along to another
            one.
          </Typography>
          <Box component="ul" sx={{ listStyle: "none", p: 0, m: 0, display: "grid", gap: 1, justifyItems: "start" }}>
            {floras.map((flora) => (
              <li key={flora.id}>
                <Button onClick={() => onChoose(withFlora(walk, flora.id))} sx={{ minHeight: 44 }}>
                  {flora.name}
                </Button>
              </li>
            ))}
          </Box>
        </>
      ) : (
        <Typography role="status">
          A plant is held against the descriptions of a flora.{" "}
          <Link component={RouterLink} to="/flora/bring">
            Bring one as a table
          </Link>
          . What you have seen is kept, and a key can be followed without one.
        </Typography>
      )}
    </Page>
  );
}

/** A plant held against another flora: what was chosen among the taxa of the one before goes. */
export const withFlora = (walk: PlantInHand, floraId: string): PlantInHand => ({
  ...walk,
  floraId,
  sift: undefined,
  inQuestion: undefined,
  confirm: walk.confirm && { ...walk.confirm, taxon: undefined },
});
