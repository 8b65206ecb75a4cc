import type { Schemas } from "../../api/client";
import { grouped } from "../ui/group";

/** Something to be answered on a visit: a character of a plant, a count that is due, fruit to come. */
export interface Question {
  id: string;
  need: Schemas["OpenNeed"];
  /** The plant or the population. */
  subject: string;
  link: string;
  name: string;
  label: string;
  grade?: Schemas["Grade"];
  placeId: string;
  placeName: string;
  placeCaution: string;
  cautions: Schemas["CautionLine"][];
  /** Whether its place is kept back in what is printed. */
  isSensitive: boolean;
  /** The day on which its plant was last confirmed. */
  lookedOn?: string;
}

/** All that is open, of plants and of populations. */
export function questionsOf(plants: Schemas["OpenPlant"][], populations: Schemas["PopulationDetail"][]): Question[] {
  return [
    ...plants.flatMap((p) =>
      p.needs.map((need) => ({
        id: `${p.plantId} ${need.id}`,
        need,
        subject: p.plantId,
        link: `/plants/${p.plantId}`,
        name: p.name,
        label: p.label,
        grade: p.grade,
        placeId: p.placeId,
        placeName: p.placeName,
        placeCaution: p.placeCaution,
        cautions: p.cautions,
        isSensitive: p.isSensitive ?? false,
        lookedOn: p.lookedOn,
      })),
    ),
    ...populations.flatMap((p) =>
      p.summary.due.map((need) => ({
        id: `${p.id} ${need.id}`,
        need,
        subject: p.id,
        link: `/populations/${p.id}`,
        name: p.taxon,
        label: p.name,
        placeId: p.place.id,
        placeName: p.place.name,
        placeCaution: p.place.caution,
        cautions: p.cautions,
        isSensitive: p.isSensitive ?? false,
      })),
    ),
  ];
}

/** The questions of one plant or population together, in their order. */
export const bySubject = (questions: Question[]) => [...grouped(questions, (q) => q.subject).values()];

/** What trips over several places are planned as: one place. */
export const TRIP = "trip";

/** The questions as needs of visits. */
export const asNeeds = (questions: Question[], asTrips: boolean): Schemas["RequestedNeed"][] =>
  questions.map((q) => ({ id: q.id, place: asTrips ? TRIP : q.placeId, windows: q.need.windows }));

/** The tools that questions ask for besides the eye. */
export const toolsOf = (questions: Question[], characters: Schemas["Character"][]) => [
  ...new Set(
    questions
      .map((q) => characters.find((c) => c.id === q.need.character)?.tool)
      .filter((tool): tool is Schemas["Tool"] => tool !== undefined && tool !== "eye"),
  ),
];

/** The organs that questions ask to be looked at. */
export const organsOf = (questions: Question[], characters: Schemas["Character"][]) => [
  ...new Set(questions.flatMap((q) => characters.find((c) => c.id === q.need.character)?.organ ?? [])),
];
