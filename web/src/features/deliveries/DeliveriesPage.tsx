import { Box, Button, Checkbox, FormControlLabel, Link, MenuItem, Typography } from "@mui/material";
import { useQuery, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { Link as RouterLink } from "react-router";
import { v7 as uuid } from "uuid";
import { answerOf, api, type Schemas } from "../../api/client";
import { usePlaces } from "../../offline/documents";
import { useMending, useSend } from "../../offline/mending";
import { personOf } from "../../offline/people";
import { usePeople } from "../../offline/queries";
import { useAllTaxa } from "../../offline/taxa";
import { useFlora } from "../../shared/botany/queries";
import { TaxonLabel } from "../../shared/botany/TaxonLabel";
import { useBenchFlora } from "../../shared/botany/useBenchFlora";
import { spoken } from "../../shared/calendar/day";
import { lastRecorder } from "../../shared/form/last";
import { Autocomplete } from "../../shared/form/Autocomplete";
import { TextField } from "../../shared/form/TextField";
import { useProblem } from "../../shared/form/useProblem";
import { Page, Part } from "../../shared/ui/Page";
import { counted, LIST, useDeliveries } from "./deliveries";

type Scope = Schemas["DeliveryScope"];

/** What was passed on to whom, and what has to follow. */
export function DeliveriesPage() {
  const list = useDeliveries();
  const mend = useMending("keepDelivery");
  return (
    <Page title="Passed on">
      <Typography sx={{ maxWidth: 720, mb: 1 }}>
        What you pass on is kept as it was. The next time only what is new goes to the same partner, and with it what
        was named anew and what holds no more, under the same ids. What they say of it stands beside your own records.
      </Typography>
      {mend !== undefined && (
        <NextDelivery
          key={mend?.id ?? ""}
          partners={[...new Set(list.data?.map((it) => it.partner))]}
          refused={mend ? { ...mend.command, id: mend.id } : undefined}
        />
      )}
      <Part id="sent" title="Deliveries">
        {list.isError && <Typography>Out of reach: deliveries are kept on the server.</Typography>}
        {list.data?.length === 0 && <Typography color="text.secondary">Nothing was passed on yet.</Typography>}
        <Box component="ul" sx={{ listStyle: "none", p: 0, m: 0, maxWidth: 960 }}>
          {list.data?.map((it) => (
            <Box component="li" key={it.id} sx={{ py: 1, borderTop: "1px dotted", borderColor: "rule" }}>
              <Link component={RouterLink} to={`/deliveries/${it.id}`} sx={{ fontWeight: 600 }}>
                {it.partner}, no. {it.number}
              </Link>{" "}
              <Typography component="span">
                {spoken(it.on.slice(0, 10))}, by {it.by}: {counted(it.counts)}
              </Typography>
              <Typography variant="body2" color="text.secondary">
                {[
                  it.placeName || "all places",
                  it.scope.taxon,
                  it.scope.isExact && "with exact places of sensitive taxa",
                  it.note,
                ]
                  .filter(Boolean)
                  .join(" · ")}
                {it.queried > 0 && (
                  <Box component="span" sx={{ color: "signal.open", fontWeight: 700 }}>
                    {" "}
                    △ {it.queried} asked about or not taken in
                  </Box>
                )}
              </Typography>
            </Box>
          ))}
        </Box>
      </Part>
    </Page>
  );
}

interface NextProps {
  partners: string[];
  refused?: { id: string; partner: string; scope: Scope; note?: string };
}

/** Says to whom what is to go, shows what that comes to, and keeps it. */
function NextDelivery({ partners, refused }: NextProps) {
  const client = useQueryClient();
  const places = usePlaces().data ?? [];
  const people = usePeople();
  const { flora } = useFlora(undefined);
  const { asked } = useBenchFlora(undefined, undefined, flora !== undefined);
  const taxa = useAllTaxa(asked);
  const send = useSend(refused?.id);
  const [partner, setPartner] = useState(refused?.partner ?? "");
  const [scope, setScope] = useState<Scope>(refused?.scope ?? { placeId: null, taxon: "", isExact: false });
  const [note, setNote] = useState(refused?.note ?? "");
  const [isShown, setShown] = useState(false);
  const { at, elsewhere, miss, setProblem, clear } = useProblem(["partner", "scope", "note"]);
  const preview = useQuery({
    enabled: isShown && partner.trim() !== "",
    queryKey: [LIST, "next", partner.trim(), scope],
    queryFn: () =>
      answerOf((signal) =>
        api.GET("/api/v1/deliveries/next", {
          params: {
            query: {
              partner: partner.trim(),
              place: scope.placeId ?? undefined,
              taxon: scope.taxon || undefined,
              exact: scope.isExact,
            },
          },
          signal,
        }),
      ),
    retry: false,
    staleTime: 0,
  });
  const change = (part: Partial<Scope>) => {
    setShown(false);
    setScope({ ...scope, ...part });
  };
  const look = () => {
    clear();
    if (!partner.trim()) return miss("partner", "Say to whom it goes.");
    setShown(true);
    void preview.refetch();
  };
  const keep = async () => {
    const by = await personOf(lastRecorder() || "unnamed", people.data);
    const sent = await send({
      kind: "keepDelivery",
      id: uuid(),
      deliveryId: uuid(),
      partner: partner.trim(),
      scope,
      by,
      note: note.trim(),
    });
    if (sent.kind === "refused") return setProblem(sent.problem);
    setShown(false);
    setNote("");
    await client.invalidateQueries({ queryKey: [LIST] });
  };
  const it = isShown ? preview.data : undefined;
  const isNothing = it !== undefined && it.counts.new + it.counts.changed + it.counts.withdrawn === 0;
  return (
    <Part id="next" title="Pass records on">
      <Box
        sx={{ display: "grid", gap: 2, gridTemplateColumns: { xs: "1fr", sm: "repeat(3, 1fr)" }, maxWidth: 960, mb: 1 }}
      >
        <Autocomplete
          freeSolo
          options={partners}
          inputValue={partner}
          onInputChange={(_, value) => {
            setShown(false);
            setPartner(value);
          }}
          renderInput={(params) => <TextField {...params} required label="To whom" {...at("partner")} />}
        />
        <TextField
          select
          label="Records of"
          value={places.some((place) => place.id === scope.placeId) ? scope.placeId : ""}
          onChange={(event) => change({ placeId: event.target.value || null })}
          slotProps={{ inputLabel: { shrink: true }, select: { displayEmpty: true } }}
        >
          <MenuItem value="">all places</MenuItem>
          {places.map((place) => (
            <MenuItem key={place.id} value={place.id}>
              {place.name}
            </MenuItem>
          ))}
        </TextField>
        <Autocomplete
          options={taxa.map((taxon) => taxon.name)}
          value={scope.taxon || null}
          onChange={(_, value) => change({ taxon: value ?? "" })}
          isOptionEqualToValue={(option, value) => option === value}
          renderInput={(params) => <TextField {...params} label="Only of the taxon" />}
        />
        <TextField
          label="What was agreed"
          value={note}
          onChange={(event) => setNote(event.target.value)}
          sx={{ gridColumn: { sm: "1 / -1" } }}
          {...at("note")}
        />
      </Box>
      <FormControlLabel
        control={<Checkbox checked={scope.isExact} onChange={(_, on) => change({ isExact: on })} />}
        label="With the exact places of sensitive taxa"
      />
      {scope.isExact && (
        <Typography role="alert" sx={{ color: "signal.caution", maxWidth: 720 }}>
          △ Only to whom the law and the holder of the land allow it. What is out can’t be taken back.
        </Typography>
      )}
      <Box sx={{ my: 1 }}>
        <Button onClick={look}>See what would go</Button>
      </Box>
      {isShown && preview.isPending && <Typography role="status">Holding it against what they have …</Typography>}
      {isShown && preview.isError && (
        <Typography role="alert" color="error">
          ✕ {preview.error instanceof Error ? preview.error.message : "The server doesn’t answer just now."}
        </Typography>
      )}
      {it && (
        <Box role="group" aria-label="What would go">
          <Typography role="status">
            <strong>{counted(it.counts)}</strong>
            {it.counts.unchanged > 0 && `; ${it.counts.unchanged} they have as they are`}.
          </Typography>
          {it.changes.length > 0 && (
            <Box component="ul" aria-label="Changed and withdrawn" sx={{ pl: 2.5, my: 0.5 }}>
              {it.changes.map(({ record, state, nameBefore }) => (
                <li key={record.id}>
                  {state === "withdrawn" ? (
                    <>
                      withdrawn: <TaxonLabel name={nameBefore || "erased"} />
                    </>
                  ) : nameBefore === record.name ? (
                    <>
                      told otherwise: <TaxonLabel name={record.name} />
                    </>
                  ) : (
                    <>
                      <TaxonLabel name={nameBefore} />, now <TaxonLabel name={record.name} />
                    </>
                  )}
                </li>
              ))}
            </Box>
          )}
          <Typography variant="body2">What the holders of the land said of passing records on:</Typography>
          <Box component="ul" sx={{ pl: 2.5, mt: 0 }}>
            {it.places.map((place) => (
              <Typography component="li" variant="body2" key={place.placeName}>
                {place.placeName}:{" "}
                {place.passingOn || (
                  <Box component="span" sx={{ color: "signal.open" }}>
                    △ nobody said
                  </Box>
                )}
              </Typography>
            ))}
          </Box>
          <Button variant="contained" disabled={isNothing} onClick={() => void keep()} sx={{ minHeight: 48 }}>
            Keep it as passed on
          </Button>
          {isNothing && <Typography variant="body2">They have all of it as it is.</Typography>}
        </Box>
      )}
      {(elsewhere ?? at("scope").helperText) && (
        <Typography role="alert" color="error">
          ✕ {elsewhere ?? at("scope").helperText}
        </Typography>
      )}
    </Part>
  );
}
