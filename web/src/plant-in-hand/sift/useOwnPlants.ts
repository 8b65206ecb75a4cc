import { useQuery } from "@tanstack/react-query";
import { useMemo } from "react";
import { answerOf, api, type Schemas } from "../../api/client";
import { core } from "../../core/coreClient";
import { useAsked } from "../../offline/flora";
import { orKept } from "../../offline/queries";

// As many as the server tells at once: the nearest plant may not be among the newest.
const MOST_RECORDS = 200;

/** Of each taxon the own plant to hold the plant in hand against. */
export function useOwnPlants(
  taxa: { id: string; name: string }[],
  placeId: string | undefined,
  places: Schemas["Place"][],
  except: string | undefined,
): Schemas["OwnPlant"][] {
  const named = JSON.stringify(taxa.map(({ id, name }) => ({ id, name })));
  const { data } = useQuery({
    enabled: taxa.length > 0,
    queryKey: ["own-plants", named],
    queryFn: () =>
      orKept<Schemas["OwnRecords"][]>(`own-plants:${named}`, () =>
        Promise.all(
          (JSON.parse(named) as { id: string; name: string }[]).map(async ({ id, name }) => {
            const page = await answerOf((signal) =>
              api.GET("/api/v1/records", {
                params: { query: { taxon: name, of: "plants", size: MOST_RECORDS } },
                signal,
              }),
            );
            return { taxon: id, name, records: page.records };
          }),
        ),
      ),
  });
  const question = useMemo(
    () => data && { taxa: data, places, placeId: placeId ?? null, except: except ?? null },
    [data, places, placeId, except],
  );
  const { answer, of } = useAsked(question, core.ownPlants);
  return answer && of === question ? answer : NONE;
}

const NONE: Schemas["OwnPlant"][] = [];

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
