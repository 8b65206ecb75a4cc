import { useQuery } from "@tanstack/react-query";
import { answerOf, api, type Schemas } from "../../api/client";
import { orKept } from "../../offline/queries";

export interface OwnPlant {
  taxon: string;
  line: Schemas["RecordLine"];
  /** Kilometres from the plant in hand; undefined where its place is unknown. */
  away?: number;
}

const KM_PER_DEGREE = 111.2;

// On one island the earth may be taken for flat.
function kilometres(a: Schemas["Place"], b: Schemas["Place"]): number {
  const [dy, dx] = [a.latitude - b.latitude, (a.longitude - b.longitude) * Math.cos((a.latitude * Math.PI) / 180)];
  return Math.hypot(dx, dy) * KM_PER_DEGREE;
}

const isSure = (line: Schemas["RecordLine"]) => line.grade === "confirmed" || line.grade === "verified";

/** Of each taxon the nearest confirmed plant, else the nearest that was determined as it alone; newest first where several are as near. */
export function useOwnPlants(
  taxa: Schemas["Taxon"][],
  here: Schemas["Place"] | undefined,
  places: Schemas["Place"][],
  except: string | undefined,
): OwnPlant[] {
  const names = taxa.map((t) => t.name);
  const { data } = useQuery({
    enabled: names.length > 0,
    queryKey: ["own-plants", ...names],
    queryFn: () =>
      orKept<Schemas["RecordLine"][][]>(`own-plants:${names.join()}`, () =>
        Promise.all(
          names.map(
            async (taxon) =>
              (await answerOf((signal) => api.GET("/api/v1/records", { params: { query: { taxon } }, signal })))
                .records,
          ),
        ),
      ),
  });
  return taxa.flatMap((taxon, i): OwnPlant[] => {
    const own = (data?.[i] ?? [])
      .filter((line) => line.names.length === 1 && line.name === taxon.name && line.plantId !== except)
      .map((line) => {
        const there = places.find((p) => p.id === line.placeId);
        return { taxon: taxon.id, line, away: here && there ? kilometres(here, there) : undefined };
      })
      // A confirmed one before others, the nearest of them.
      .sort((a, b) => Number(isSure(b.line)) - Number(isSure(a.line)) || (a.away ?? 0) - (b.away ?? 0));
    return own.slice(0, 1);
  });
}

/** The sheets of plants that are compared with. */
export const useSheets = (plants: string[]) =>
  useQuery({
    enabled: plants.length > 0,
    queryKey: ["sheets", ...plants],
    queryFn: () =>
      orKept<Schemas["Observation"][][]>(`sheets:${plants.join()}`, () =>
        Promise.all(
          plants.map(
            async (id) =>
              (await answerOf((signal) => api.GET("/api/v1/plants/{id}", { params: { path: { id } }, signal })))
                .observations,
          ),
        ),
      ),
  });
