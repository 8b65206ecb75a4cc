import { Box, Button, MenuItem, TextField, Typography } from "@mui/material";
import { useState } from "react";
import type { Schemas } from "../../api/client";
import { timeNow, today } from "../../api/today";
import { offered, usePlaces } from "../../offline/documents";
import { useSend } from "../../offline/mending";
import { personOf } from "../../offline/people";
import { usePeople } from "../../offline/queries";
import type { Command } from "../../offline/store";
import { lastPlace, lastRecorder, RECORDER } from "../../shared/form/last";
import { useFields } from "../../shared/form/useFields";
import { WeatherAsked } from "./WeatherAsked";

type Head = Extract<Command, { kind?: "saveSiteVisit" }>;

interface Props {
  /** The visit that is changed; nothing to begin one. */
  visit?: Schemas["SiteVisit"];
  /** What was typed before and refused. */
  refused?: { id: string; command: Head };
  make: (typed: Omit<Head, "kind" | "id" | "siteVisitId" | "pauses" | "version">) => Head;
  submitName: string;
  /** It begins at this moment: its day is known. */
  isNow?: boolean;
  onDone: (sent: Head) => void;
  onCancel: () => void;
}

const named = (people: Schemas["PersonReference"][] | undefined) => people?.map((it) => it.name).join(", ") ?? "";

/** The head of a visit: where, when, who, what for, and who expects one back. Also for a visit that is entered afterwards. */
export function VisitForm({ visit, refused, make, submitName, isNow, onDone, onCancel }: Props) {
  const places = usePlaces().data ?? [];
  const people = usePeople();
  const send = useSend(refused?.id);
  const typed = refused?.command;
  const { values, field, set, refuse, elsewhere, submit } = useFields(
    {
      placeId: typed?.placeId ?? visit?.place.id ?? lastPlace(),
      date: typed?.date ?? visit?.date ?? today(),
      until: typed?.until ?? visit?.until ?? "",
      startedAt: typed?.startedAt ?? visit?.startedAt ?? timeNow(),
      people: named(typed?.people ?? visit?.people) || lastRecorder(),
      purpose: typed?.purpose ?? visit?.purpose ?? "",
      weather: typed?.weather ?? visit?.weather ?? "",
      contact: (typed?.safety ?? visit?.safety)?.contact ?? "",
      backBy: (typed?.safety ?? visit?.safety)?.backBy ?? "",
    },
    { safety: "backBy" },
  );
  const [isTried, setTried] = useState(false);
  const placeMissing = isTried && !values.placeId;
  const keep = async (it: typeof values) => {
    if (!it.placeId) return;
    const names = it.people
      .split(",")
      .map((name) => name.trim())
      .filter(Boolean);
    const command = make({
      placeId: it.placeId,
      date: it.date,
      until: it.until > it.date ? it.until : "",
      startedAt: it.startedAt,
      people: await Promise.all([...new Set(names)].map((name) => personOf(name, people.data))),
      purpose: it.purpose.trim(),
      weather: it.weather.trim(),
      safety: it.contact.trim() || it.backBy ? { contact: it.contact.trim(), backBy: it.backBy } : null,
    });
    const sent = await send(command, { creates: command.version ? [] : [command.siteVisitId] });
    if (sent.kind === "refused") return refuse(sent.problem);
    if (names[0]) localStorage.setItem(RECORDER, names[0]);
    onDone(command);
  };
  return (
    <Box
      component="form"
      noValidate
      onSubmit={(event) => {
        setTried(true);
        void submit(keep)(event);
      }}
      sx={{
        display: "grid",
        gap: 2,
        gridTemplateColumns: { xs: "1fr 1fr", sm: "repeat(4, 1fr)" },
        maxWidth: 880,
        mb: 2,
      }}
    >
      <TextField
        select
        required
        label="Place"
        value={places.some((it) => it.id === values.placeId) ? values.placeId : ""}
        onChange={(event) => set({ placeId: event.target.value })}
        error={placeMissing}
        helperText={placeMissing ? "✕ Choose a place." : undefined}
        sx={{ gridColumn: { xs: "1 / -1", sm: "span 2" } }}
      >
        {offered(places, values.placeId).map((it) => (
          <MenuItem key={it.id} value={it.id}>
            {it.name}
          </MenuItem>
        ))}
      </TextField>
      <TextField
        type="date"
        label="Day"
        {...field("date", { required: "Say on which day." })}
        slotProps={{ htmlInput: { max: today() }, inputLabel: { shrink: true } }}
      />
      <TextField type="time" label="Began at" {...field("startedAt")} slotProps={{ inputLabel: { shrink: true } }} />
      <TextField
        label={isNow ? "Who is there?" : "Who was there?"}
        {...field("people", { required: "Write who was there.", help: "Names with commas, the leader first." })}
        sx={{ gridColumn: "1 / -1" }}
      />
      <TextField label="What for" {...field("purpose")} sx={{ gridColumn: { xs: "1 / -1", sm: "span 2" } }} />
      <Box sx={{ gridColumn: { xs: "1 / -1", sm: "span 2" } }}>
        <TextField fullWidth label="Weather" {...field("weather")} />
        <WeatherAsked
          placeId={values.placeId}
          at={`${values.date}T${values.startedAt}`}
          onTake={(weather) => set({ weather })}
        />
      </Box>
      <TextField
        label="Who expects you back?"
        {...field("contact", {
          check: (text, all) => (all.backBy && !text.trim() ? "Say who expects you back." : undefined),
          help: "And how they are reached. Garten calls nobody: tell them yourself.",
        })}
        sx={{ gridColumn: { xs: "1 / -1", sm: "span 3" } }}
      />
      <TextField
        type="time"
        label="Back by"
        {...field("backBy", {
          check: (text, all) => (all.contact.trim() && !text ? "Say by when." : undefined),
        })}
        slotProps={{ inputLabel: { shrink: true } }}
      />
      {!isNow && (
        <TextField
          type="date"
          label="Only a span is known: its last day"
          {...field("until", {
            check: (text, all) => (text && text < all.date ? "The last day comes after the first." : undefined),
            help: "Leave it empty where the day is known.",
          })}
          slotProps={{ htmlInput: { max: today() }, inputLabel: { shrink: true } }}
          sx={{ gridColumn: { xs: "1 / -1", sm: "span 2" } }}
        />
      )}
      {elsewhere && (
        <Typography role="alert" color="error" sx={{ gridColumn: "1 / -1" }}>
          ✕ {elsewhere}
        </Typography>
      )}
      <Box sx={{ display: "flex", gap: 1.5, gridColumn: "1 / -1" }}>
        <Button type="submit" variant="contained" sx={{ minHeight: 48 }}>
          {submitName}
        </Button>
        <Button onClick={onCancel}>Leave it</Button>
      </Box>
    </Box>
  );
}
