import { Box, Button, Link, Typography } from "@mui/material";
import { Autocomplete } from "../../shared/form/Autocomplete";
import { TextField } from "../../shared/form/TextField";
import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { Link as RouterLink } from "react-router";
import { answerOf, api, ask, ProblemError, type Schemas } from "../../api/client";
import { personOf } from "../../offline/people";
import { usePeople } from "../../offline/queries";
import { day } from "../../shared/calendar/day";
import { lastRecorder } from "../../shared/form/last";
import { Page, Part } from "../../shared/ui/Page";
import { QuietButton } from "../../shared/ui/QuietButton";
import { CalliperChoice } from "./CalliperChoice";
import { ReceiverChoice } from "./ReceiverChoice";

const LIST = ["devices"];

/** The devices that may reach this server from elsewhere: a code pairs one, and one that is lost is taken out. */
export function DevicesPage() {
  const list = useQuery({
    queryKey: LIST,
    queryFn: () => answerOf((signal) => api.GET("/api/v1/devices", { signal })),
    refetchInterval: 3_000,
    retry: false,
  });
  const elsewhere = list.error instanceof ProblemError ? list.error.problem : undefined;
  return (
    <Page title="Devices">
      {elsewhere && (
        <Typography sx={{ maxWidth: 720 }}>
          {elsewhere.title} {elsewhere.detail}{" "}
          <Link component={RouterLink} to="/pair">
            Whose device this is
          </Link>
        </Typography>
      )}
      {list.isError && !elsewhere && <Typography>Out of reach: devices are looked after on the server.</Typography>}
      {list.data && (
        <>
          <Typography sx={{ maxWidth: 720, mb: 2 }}>
            Which phones and laptops reach this server from elsewhere. Each is paired once, with a code, and belongs to
            a person; what it sends carries both. One that was lost is taken out here: what it has sent stays.
          </Typography>
          {list.data.addresses.length === 0 ? <Alone /> : <Pairing list={list.data} />}
          <Paired devices={list.data.devices} />
        </>
      )}
      <ReceiverChoice />
      <CalliperChoice />
    </Page>
  );
}

const Alone = () => (
  <Typography sx={{ maxWidth: 720, mb: 2 }}>
    <strong>◌ This server answers on its own machine alone.</strong> For a phone to reach it, stop it and start it with
    the address of this machine in your network: <code>./garten serve --listen 192.168.1.20</code>
  </Typography>
);

function Pairing({ list }: { list: Schemas["DeviceList"] }) {
  const people = usePeople();
  const [person, setPerson] = useState(lastRecorder());
  const offer = useMutation({
    mutationFn: async () => {
      const body = { person: await personOf(person, people.data) };
      return answerOf((signal) => api.POST("/api/v1/devices/codes", { body, signal }));
    },
  });
  return (
    <Part id="pair" title="Pair a device">
      <Box sx={{ display: "grid", gridTemplateColumns: { md: "minmax(0, 1fr) 300px" }, gap: 4, alignItems: "start" }}>
        <Box component="ol" sx={{ pl: 2.5, my: 0, maxWidth: 720, "& > li": { mb: 1 } }}>
          {list.hasOwnAuthority && (
            <li>
              Once for each device: have it trust this server. Fetch{" "}
              <Link href="/authority.crt" download>
                the certificate of its authority
              </Link>{" "}
              ({list.addresses[0]}/authority.crt on the device itself; it will warn before that) and install it there as
              a certificate of an authority, or the device can’t keep the program for where there is no signal. Compare
              its SHA-256 first:
              <Box component="code" sx={{ display: "block", fontSize: "0.8rem", overflowWrap: "anywhere", mt: 0.5 }}>
                {list.authorityFingerprint}
              </Box>
              It vouches for addresses in private networks alone, never for a site of the internet.
            </li>
          )}
          <li>
            Say whose it is, and have a code shown.
            <Box sx={{ display: "flex", gap: 1, alignItems: "flex-start", flexWrap: "wrap", mt: 1 }}>
              <Autocomplete
                freeSolo
                options={(people.data ?? []).map((it) => it.name).filter((name) => name !== "(erased)")}
                inputValue={person}
                onInputChange={(_, value) => setPerson(value)}
                renderInput={(field) => <TextField {...field} label="Whose device it is" />}
                sx={{ width: 280 }}
              />
              <Button
                variant="contained"
                sx={{ minHeight: 48 }}
                disabled={person.trim() === "" || offer.isPending}
                onClick={() => offer.mutate()}
              >
                Show a code
              </Button>
            </Box>
            {offer.isError && (
              <Typography role="alert" sx={{ mt: 1 }}>
                ✕ {offer.error.message}
              </Typography>
            )}
          </li>
          <li>Have the device read the picture with its camera, or open the address and type the code.</li>
        </Box>
        {offer.data && <Offer it={offer.data} />}
      </Box>
    </Part>
  );
}

function Offer({ it }: { it: Schemas["PairingOffer"] }) {
  const until = new Date(it.expiresAt).toLocaleTimeString("en-GB", { hour: "2-digit", minute: "2-digit" });
  return (
    <Box role="status" sx={{ display: "grid", gap: 1 }}>
      <Box
        component="img"
        src={`data:image/svg+xml,${encodeURIComponent(it.qr)}`}
        alt={`QR code of ${it.address}`}
        sx={{ width: 240, height: 240, bgcolor: "#fff", border: 1, borderColor: "rule" }}
      />
      <Box>
        <Typography component="div" data-code="" sx={{ fontSize: "2.4rem", fontFamily: "monospace", letterSpacing: 2 }}>
          {it.code}
        </Typography>
        <Typography sx={{ overflowWrap: "anywhere" }}>{it.address.replace(/#.*/, "")}</Typography>
        <Typography variant="body2">Good once, until {until}.</Typography>
      </Box>
    </Box>
  );
}

function Paired({ devices }: { devices: Schemas["PairedDevice"][] }) {
  const client = useQueryClient();
  const [asked, setAsked] = useState<string>();
  const revoke = async (id: string) => {
    await ask((signal) => api.POST("/api/v1/devices/{id}/revoke", { params: { path: { id } }, signal }));
    setAsked(undefined);
    await client.invalidateQueries({ queryKey: LIST });
  };
  return (
    <Part id="paired" title="Paired devices">
      {devices.length === 0 && <Typography>None yet.</Typography>}
      <Box component="ul" sx={{ listStyle: "none", p: 0, m: 0, maxWidth: 820 }}>
        {devices.map((it) => (
          <Box
            component="li"
            key={it.id}
            sx={{
              display: "flex",
              flexWrap: "wrap",
              columnGap: 2,
              alignItems: "center",
              minHeight: 52,
              borderBottom: "1px dotted",
              borderColor: "rule",
            }}
          >
            <Box sx={{ flex: "1 1 16rem" }}>
              <strong>{it.name}</strong>, {it.person.name}
              <Typography variant="body2">
                Paired {day(it.pairedAt.slice(0, 10))}, here last {day(it.seenAt.slice(0, 10))}
                {it.revokedAt && `, taken out ${day(it.revokedAt.slice(0, 10))}`}
              </Typography>
            </Box>
            {it.revokedAt ? (
              <Typography component="span">✕ may not come here any more</Typography>
            ) : asked === it.id ? (
              <Box sx={{ display: "flex", gap: 1 }}>
                <Button variant="contained" onClick={() => void revoke(it.id)}>
                  Take it out
                </Button>
                <Button onClick={() => setAsked(undefined)}>Cancel</Button>
              </Box>
            ) : (
              <QuietButton name={`Take out …: ${it.name}`} onClick={() => setAsked(it.id)}>
                Take out …
              </QuietButton>
            )}
          </Box>
        ))}
      </Box>
    </Part>
  );
}
