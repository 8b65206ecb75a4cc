import { v7 as uuid } from "uuid";
import { timeNow, today } from "../../api/today";
import type { Schemas } from "../../api/client";
import { send } from "../../offline/outbox";
import type { Sent } from "../../offline/outbox";

type Visit = Schemas["SiteVisit"];

/** What is listed: a name, or a plant without one; with what else was noted. */
export interface Listed {
  taxon: string;
  unnamed?: string;
  plantId?: string;
  compartment: string;
  details?: Schemas["LineDetails"];
  supersedes?: string;
  site?: Schemas["PlantSite"] | null;
  /** When it was seen; left out for now. */
  at?: string;
}

/** Where and when a line is entered. */
export type Where = Required<Pick<Listed, "compartment" | "site" | "at">>;

/** By which name what is entered at the list of a visit is kept. */
export const listOf = (visitId: string) => `visit:${visitId}`;

/** The time that a line has which is entered now: none on a visit of an earlier day, which is entered afterwards. */
export const lineTime = (visit: Visit) => (visit.date === today() && !visit.closing ? timeNow() : "");

/** The command that adds a line to a list. */
export const lineCommand = (visit: Visit, recorder: Schemas["PersonReference"], it: Listed, lineId: string = uuid()) =>
  ({
    kind: "listTaxon",
    id: uuid(),
    lineId,
    siteVisitId: visit.id,
    taxon: it.taxon,
    recorder,
    unnamed: it.unnamed ?? "",
    plantId: it.plantId ?? null,
    compartment: it.compartment,
    at: it.at ?? lineTime(visit),
    details: it.details ?? null,
    site: it.site ?? null,
    supersedes: it.supersedes ?? null,
  }) as const;

/** Nothing noted of a line but its name. */
export const NOTHING_NOTED: Schemas["LineDetails"] = {
  abundance: null,
  isLocal: false,
  count: null,
  unit: null,
  phase: null,
  sex: "unsaid",
  growth: null,
  growthReason: "",
  associates: null,
  note: "",
  determiner: "",
  typist: "",
};

/** Who named and who typed what is listed, where that was somebody else than who found it. */
export interface Hands {
  determiner: string;
  typist: string;
}

/** Details of a line with the hands it went through, which needn’t be said where there are none. */
export const through = (details: Schemas["LineDetails"] | undefined, hands: Hands) =>
  hands.determiner.trim() || hands.typist.trim()
    ? { ...(details ?? NOTHING_NOTED), determiner: hands.determiner.trim(), typist: hands.typist.trim() }
    : details;

/** What was typed behind a name, as details of its line. */
export const detailsTyped = (answer: Schemas["ShortNameAnswer"]): Schemas["LineDetails"] | undefined => {
  const { abundance, isLocal, count } = answer;
  return abundance || count
    ? { ...NOTHING_NOTED, abundance, isLocal, count, unit: count ? "individuals" : null }
    : undefined;
};

/** Where a line was seen, as a command takes it. */
export const siteOf = ({ latitude, longitude, uncertaintyMetres }: Schemas["ListLine"]): Schemas["PlantSite"] | null =>
  typeof latitude === "number" && typeof longitude === "number" && typeof uncertaintyMetres === "number"
    ? { latitude, longitude, uncertaintyMetres }
    : null;

export const withdraw = (visit: Visit, lineId: string): Promise<Sent> =>
  send({ kind: "withdrawLine", id: uuid(), siteVisitId: visit.id, lineId });

/** The head of a visit as a command changes it. */
export const headCommand = (visit: Visit, changed: Partial<Visit>) => {
  const it = { ...visit, ...changed };
  return {
    kind: "saveSiteVisit",
    id: uuid(),
    siteVisitId: visit.id,
    placeId: it.place.id,
    date: it.date,
    until: it.until ?? "",
    startedAt: it.startedAt,
    people: it.people,
    purpose: it.purpose,
    weather: it.weather,
    pauses: it.pauses,
    safety: it.safety ?? null,
    version: visit.version,
  } as const;
};
