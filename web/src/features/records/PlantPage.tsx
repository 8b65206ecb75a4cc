import { Box, Button, Dialog, DialogActions, DialogContent, DialogTitle, Typography } from "@mui/material";
import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { useNavigate, useParams } from "react-router";
import { answerOf, api, ProblemError } from "../../api/client";
import { Page } from "../../app/Page";
import { useKeys } from "../../offline/queries";
import { TrailRibbon } from "../bench/TrailRibbon";
import { beginWalk, WITHOUT_KEY } from "../bench/walks";
import { GradeShoot } from "../confirm/GradeShoot";
import { CautionNotes, GroundCaution } from "../taxa/Cautions";
import { NamesLabel } from "../taxa/TaxonLabel";
import { PlantSheet } from "./PlantSheet";
import { day } from "./RecordList";

/** A plant with its whole history: nothing that was said of it is overwritten. */
export function PlantPage() {
  const { plantId = "" } = useParams();
  const [choosing, setChoosing] = useState(false);
  const navigate = useNavigate();
  const keys = useKeys();
  const found = useQuery({
    queryKey: ["plant", plantId],
    queryFn: () => answerOf((signal) => api.GET("/api/v1/plants/{id}", { params: { path: { id: plantId } }, signal })),
  });
  if (found.isError && !found.data) {
    return (
      <Page title="This plant can’t be shown">
        <Typography role="alert">
          {found.error instanceof ProblemError
            ? found.error.problem.detail
            : "The server doesn’t answer just now; the plant appears as soon as it does."}
        </Typography>
      </Page>
    );
  }
  if (!found.data)
    return (
      <Page title="Plant">
        <Typography role="status">Fetching the plant …</Typography>
      </Page>
    );
  const plant = found.data;
  const again = async (key: { hash: string; title: string }) => {
    const looks = plant.determinations.map((d) => ({ id: d.occurrenceId, date: d.eventDate }));
    const id = await beginWalk(
      key,
      { id: plant.id, label: plant.label, placeId: plant.place.id, placeName: plant.place.name, looks },
      plant.observations,
    );
    void navigate(`/bench/${id}${key.hash ? "" : "/sift"}`);
  };
  return (
    <Page
      title={plant.label ? `${plant.label}, ${plant.place.name}` : `A plant at ${plant.place.name}`}
      aside={
        <Button variant="contained" onClick={() => setChoosing(true)}>
          Determine it again
        </Button>
      }
    >
      <Typography variant="body2" color="text.secondary">
        {plant.place.locality && <>{plant.place.locality}; </>}
        {plant.place.latitude}, {plant.place.longitude} ± {plant.place.uncertaintyMetres} m (WGS 84)
      </Typography>
      <GroundCaution text={plant.place.caution} />
      <Box sx={{ mt: 1 }}>
        <CautionNotes taxa={plant.taxa} />
      </Box>
      {plant.determinations.map((it, i) => (
        <Box
          key={it.id}
          component="article"
          aria-labelledby={it.id}
          sx={{ borderTop: 1, borderColor: "rule", pt: 1.5, mt: 2 }}
        >
          <Typography variant="body2" color="text.secondary">
            {i === 0 ? "Stands now" : "Earlier"} · seen on {day(it.eventDate)} · determined by {it.recorder.name}
            {Object.entries(it.floras).length > 0 &&
              ` · flora: ${Object.entries(it.floras)
                .map(([id, version]) => `${id} ${version}`)
                .join(", ")}`}
          </Typography>
          <Typography variant="h1" component="h2" id={it.id} sx={{ my: 0.5, fontSize: i === 0 ? "1.55rem" : "1.2rem" }}>
            <NamesLabel names={it.names} />
          </Typography>
          {it.names.length > 1 && (
            <Typography variant="body2" sx={{ color: "signal.open", fontWeight: 700 }}>
              ◐ {it.names.length} taxa open{it.name && ` within ${it.name}`}
            </Typography>
          )}
          {it.confirmation && (
            <Box sx={{ my: 1 }}>
              <GradeShoot grade={it.confirmation.grade} />
              <Typography variant="body2" color="text.secondary">
                {it.confirmation.rule}
              </Typography>
              {it.confirmation.checks
                .filter((check) => check.explained)
                .map((check) => (
                  <Typography key={check.kind} variant="body2">
                    {check.reason} Explained: “{check.explained}”
                  </Typography>
                ))}
            </Box>
          )}
          {it.note && <Typography sx={{ mb: 1 }}>{it.note}</Typography>}
          <Box sx={{ maxWidth: 620 }}>
            {it.steps.length > 0 ? (
              <TrailRibbon steps={it.steps} />
            ) : (
              <Typography variant="body2" color="text.secondary">
                {it.confirmation ? "Confirmed by what was seen" : "Named by what was seen"}, without a key.
              </Typography>
            )}
          </Box>
        </Box>
      ))}
      <PlantSheet observations={plant.observations} />
      <Dialog open={choosing} onClose={() => setChoosing(false)} aria-labelledby="choose-key">
        <DialogTitle id="choose-key">By which key?</DialogTitle>
        <DialogContent sx={{ display: "grid", gap: 1 }}>
          <Button
            variant="contained"
            onClick={() => void again(WITHOUT_KEY)}
            sx={{ justifyContent: "flex-start", textAlign: "left" }}
          >
            Without a key: sift by what can be seen
          </Button>
          {(keys.data ?? []).map((key) => (
            <Button
              key={key.hash}
              onClick={() => void again(key)}
              sx={{ justifyContent: "flex-start", textAlign: "left" }}
            >
              {key.title}
            </Button>
          ))}
        </DialogContent>
        <DialogActions>
          <Button onClick={() => setChoosing(false)}>Cancel</Button>
        </DialogActions>
      </Dialog>
    </Page>
  );
}
