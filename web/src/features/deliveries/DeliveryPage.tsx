import { Box, Button, Link, TextField, Typography } from "@mui/material";
import { useInfiniteQuery, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { Link as RouterLink, useParams } from "react-router";
import { v7 as uuid } from "uuid";
import { answerOf, api, type Schemas } from "../../api/client";
import words from "../../api/words";
import { useSend } from "../../offline/mending";
import { personOf } from "../../offline/people";
import { usePeople } from "../../offline/queries";
import { TaxonLabel } from "../../shared/botany/TaxonLabel";
import { spoken, today } from "../../shared/calendar/day";
import { Choice } from "../../shared/form/Choice";
import { lastRecorder } from "../../shared/form/last";
import { useProblem } from "../../shared/form/useProblem";
import { Page, Part } from "../../shared/ui/Page";
import { QuietButton } from "../../shared/ui/QuietButton";
import { counted, LIST, useDeliveries } from "./deliveries";

type Item = Schemas["DeliveredItem"];

const ITEMS_AT_A_TIME = 200;
const verdicts = Object.entries(words.partnerVerdicts) as [Schemas["PartnerVerdict"], string][];

/** A delivery: what was sent, and what the partner says of each record. */
export function DeliveryPage() {
  const { deliveryId = "" } = useParams();
  const list = useDeliveries();
  const it = list.data?.find((one) => one.id === deliveryId);
  const items = useInfiniteQuery({
    queryKey: [LIST, deliveryId],
    initialPageParam: 0,
    queryFn: ({ pageParam }) =>
      answerOf((signal) =>
        api.GET("/api/v1/deliveries/{id}/items", {
          params: { path: { id: deliveryId }, query: { from: pageParam } },
          signal,
        }),
      ),
    getNextPageParam: (last, all) => (last.length === ITEMS_AT_A_TIME ? all.length * ITEMS_AT_A_TIME : undefined),
  });
  const [asked, setAsked] = useState<string>();
  return (
    <Page title={it ? `Passed on to ${it.partner}, no. ${it.number}` : "Passed on"}>
      {list.isError && <Typography>Out of reach: deliveries are kept on the server.</Typography>}
      {list.data && !it && <Typography role="alert">There is no such delivery.</Typography>}
      {it && (
        <>
          <Typography>
            {spoken(it.on.slice(0, 10))}, by {it.by}: {counted(it.counts)}
            {it.counts.unchanged > 0 && `; ${it.counts.unchanged} they had as they are`}.{" "}
            {[it.placeName || "All places", it.scope.taxon, it.note].filter(Boolean).join(" · ")}
          </Typography>
          {it.scope.isExact && (
            <Typography sx={{ color: "signal.caution" }}>△ With the exact places of sensitive taxa.</Typography>
          )}
          <Typography sx={{ my: 1 }}>
            <Link href={`/api/v1/deliveries/${it.id}/records.csv`} download sx={{ mr: 2, py: 1 }}>
              New and changed (CSV, Darwin Core terms)
            </Link>
            {it.counts.withdrawn > 0 && (
              <Link href={`/api/v1/deliveries/${it.id}/withdrawn.csv`} download sx={{ py: 1 }}>
                Withdrawn (CSV)
              </Link>
            )}
          </Typography>
          <Part id="records" title="Its records">
            <Box component="ul" sx={{ listStyle: "none", p: 0, m: 0, maxWidth: 960 }}>
              {items.data?.pages.flat().map((item) => (
                <Box
                  component="li"
                  key={item.occurrenceId}
                  sx={{ py: 0.5, borderTop: "1px dotted", borderColor: "rule" }}
                >
                  <Box sx={{ display: "flex", flexWrap: "wrap", alignItems: "baseline", columnGap: 1.5 }}>
                    <Box sx={{ flex: "1 1 16rem" }}>
                      {item.address ? (
                        <Link component={RouterLink} to={item.address}>
                          <TaxonLabel name={item.name || "without a name"} />
                        </Link>
                      ) : (
                        <TaxonLabel name={item.name || "erased"} />
                      )}{" "}
                      <Typography component="span" variant="body2" color="text.secondary">
                        {[item.date, item.locality, item.state].filter(Boolean).join(", ")}
                        {item.nameBefore && item.nameBefore !== item.name && `, was ${item.nameBefore}`}
                      </Typography>
                    </Box>
                    <Said said={item.said} />
                    <QuietButton
                      name={`Note what they say of ${item.name}`}
                      expanded={asked === item.occurrenceId}
                      onClick={() => setAsked(asked === item.occurrenceId ? undefined : item.occurrenceId)}
                    >
                      Note what they say
                    </QuietButton>
                  </Box>
                  {asked === item.occurrenceId && (
                    <VerdictForm item={item} partner={it.partner} onDone={() => setAsked(undefined)} />
                  )}
                </Box>
              ))}
            </Box>
            {items.hasNextPage && <Button onClick={() => void items.fetchNextPage()}>Show more</Button>}
          </Part>
        </>
      )}
    </Page>
  );
}

const signs: Record<Schemas["PartnerVerdict"], [string, string]> = {
  accepted: ["✓", "signal.support"],
  queried: ["△", "signal.open"],
  rejected: ["✕", "signal.conflict"],
};

function Said({ said }: { said: Item["said"] }) {
  if (!said) return null;
  const [sign, color] = signs[said.verdict];
  return (
    <Typography variant="body2">
      <Box component="span" sx={{ color, fontWeight: 700 }}>
        {sign} {words.partnerVerdicts[said.verdict].toLowerCase()}
      </Box>{" "}
      {spoken(said.on)}
      {said.says && `: “${said.says}”`}
    </Typography>
  );
}

function VerdictForm({ item, partner, onDone }: { item: Item; partner: string; onDone: () => void }) {
  const client = useQueryClient();
  const people = usePeople();
  const send = useSend();
  const [verdict, setVerdict] = useState<Schemas["PartnerVerdict"]>(item.said?.verdict ?? "accepted");
  const [says, setSays] = useState("");
  const [on, setOn] = useState(today());
  const { at, elsewhere, setProblem } = useProblem(["says", "on"]);
  const keep = async () => {
    const by = await personOf(lastRecorder() || "unnamed", people.data);
    const sent = await send({
      kind: "noteVerdict",
      id: uuid(),
      partner,
      occurrenceId: item.occurrenceId,
      verdict,
      says: says.trim(),
      on,
      by,
    });
    if (sent.kind === "refused") return setProblem(sent.problem);
    await client.invalidateQueries({ queryKey: [LIST] });
    onDone();
  };
  return (
    <Box sx={{ display: "grid", gap: 1.5, my: 1, maxWidth: 640 }}>
      <Choice label="They say" choices={verdicts} value={verdict} onChoose={(it) => it && setVerdict(it)} />
      <TextField
        label="In their words"
        multiline
        value={says}
        onChange={(event) => setSays(event.target.value)}
        {...at("says")}
      />
      <TextField
        type="date"
        label="On"
        value={on}
        onChange={(event) => setOn(event.target.value)}
        slotProps={{ htmlInput: { max: today() }, inputLabel: { shrink: true } }}
        sx={{ width: 200 }}
        {...at("on")}
      />
      {elsewhere && (
        <Typography role="alert" color="error">
          ✕ {elsewhere}
        </Typography>
      )}
      <Box sx={{ display: "flex", gap: 1.5 }}>
        <Button variant="contained" onClick={() => void keep()} sx={{ minHeight: 48 }}>
          Keep it
        </Button>
        <Button onClick={onDone}>Leave it</Button>
      </Box>
    </Box>
  );
}
