import { v7 as uuid } from "uuid";
import words from "../../api/words";
import { spoken } from "../../shared/calendar/day";

import type { Kind } from "../../offline/mending";
import { usePlaces, usePlant, usePopulations } from "../../offline/documents";

import { announce } from "../../offline/outbox";
import { store, type Command, type RefusedCommand } from "../../offline/store";

const names: Record<Kind, string> = words.commands;

export function whatItIs(command: Command): string {
  switch (command.kind) {
    case "recordDetermination":
      return `${names[command.kind]}: ${command.names.join(" or ")}`;
    case "tagPlant":
      return `${names[command.kind]}: ${command.label}`;
    case "savePlace":
    case "saveSurvey":
    case "savePopulation":
      return `${names[command.kind]}: ${command.name}`;
    case "keepDelivery":
    case "noteVerdict":
      return `${names[command.kind]}: ${command.partner}`;
    case "countPopulation":
      return `${names[command.kind]}: ${command.number} ${command.unit}`;
    case "listTaxon":
      return `${names[command.kind]}: ${command.taxon || command.unnamed}`;
    case "savePlot":
      return `${names[command.kind]}: ${command.label}`;
    case "recordPlot":
      return `${names[command.kind]}: ${command.finds.length} lines`;
    default:
      return command.kind ? names[command.kind] : "A change";
  }
}

const quoted = (text: string | undefined) => (text ? `“${text}”.` : "");

// What was typed, in a line.
export function said(command: Command): string {
  switch (command.kind) {
    case "recordDetermination":
      return [`Seen on ${spoken(command.eventDate)}.`, quoted(command.note)].filter(Boolean).join(" ");
    case "visitPlant":
      return [`On ${spoken(command.date)}.`, quoted(command.note)].filter(Boolean).join(" ");
    case "countPopulation":
      return [`Counted on ${spoken(command.date)}.`, quoted(command.note)].filter(Boolean).join(" ");
    case "saveSiteVisit":
      return [`On ${spoken(command.date)}.`, quoted(command.purpose)].filter(Boolean).join(" ");
    case "listTaxon":
      return quoted(command.details?.note);
    case "closeSiteVisit":
      return quoted(command.closing.note);
    case "tagPlant":
      return `Tagged on ${spoken(command.taggedOn)}.`;
    case "noteThreat":
    case "correctStatement":
    case "writeSurveyText":
      return `“${command.text}”.`;
    case "recordPlot":
      return [command.finds.map((it) => it.taxon).join(", "), quoted(command.note)].filter(Boolean).join(" ");
    case "saveSurvey":
      return quoted(command.question);
    case "teachTerm":
      return `“${command.term}” for ${command.state}.`;
    case "savePopulation":
      return [`${command.taxon}.`, quoted(command.bounds)].filter(Boolean).join(" ");
    case "savePlace":
      return quoted(command.locality);
    default:
      return "";
  }
}

// The plant, population or place that it is about, as far as this device knows it.
export function useWhere(command: Command): string {
  const plant = usePlant(command.kind === "visitPlant" ? command.plantId : undefined);
  const populations = usePopulations();
  const places = usePlaces();
  if ("populationId" in command && command.kind !== "tagPlant" && command.kind !== "savePopulation")
    return populations.data?.find((p) => p.id === command.populationId)?.name ?? "";
  if (command.kind === "visitPlant") return plant.data?.label ?? "";
  if ("placeId" in command && command.kind !== "savePlace")
    return places.data?.find((p) => p.id === command.placeId)?.name ?? "";
  return "";
}

// The address of its own form with what was typed; undefined where it is mended in place.
export async function formOf(it: RefusedCommand): Promise<string | undefined> {
  const { command, id } = it;
  switch (command.kind) {
    case "visitPlant":
      return `/plants/${command.plantId}/visit?mend=${id}`;
    case "countPopulation":
    case "noteThreat":
      return `/populations/${command.populationId}?mend=${id}`;
    case "tagPlant":
      return typeof command.version === "number" ? `/plants/${command.plantId}?mend=${id}` : `/plants?mend=${id}`;
    case "savePopulation":
      return `/plants?mend=${id}`;
    case "describePlace":
      return `/map?place=${command.placeId}&mend=${id}`;
    case "saveSiteVisit":
    case "listTaxon":
      return `/site-visits/${command.siteVisitId}?mend=${id}`;
    case "closeSiteVisit":
      return `/site-visits/${command.siteVisitId}/end?mend=${id}`;
    case "saveKeys":
      return `/keys/new?mend=${id}`;
    case "recordDetermination": {
      const db = await store();
      const walkId = it.walkId ?? uuid();
      // The plant in hand is still here, or is made of what was sent.
      if (!(await db.get("walks", walkId))) {
        await db.put("walks", {
          id: walkId,
          start: command.startKey,
          title: "",
          answers: command.answers,
          observations: command.observations ?? [],
          hand: command.hand ?? [],
          inQuestion: undefined,
          form: {
            placeId: command.placeId,
            date: command.eventDate,
            recorder: command.recorder.name,
            label: command.plantLabel,
            note: command.note,
          },
          problem: it.problem,
          updatedAt: Date.now(),
        });
        await db.put("refused", { ...it, walkId });
        announce();
      }
      return `/bench/${walkId}${command.startKey ? "" : command.confirming ? "/confirm" : "/sift"}`;
    }
    default:
      return undefined;
  }
}
