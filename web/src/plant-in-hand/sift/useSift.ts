import { useQuery, useQueryClient } from "@tanstack/react-query";
import { useMemo } from "react";
import type { Schemas } from "../../api/client";
import { useAskedEither } from "../../offline/hosts";
import type { AskedFlora } from "../../offline/taxa";
import { usePlaces } from "../../offline/documents";
import { keep, kept, type SiftSettings, type PlantInHand } from "../../offline/store";
import { useAtHand } from "../key/Outlook";

/** Stands among taxa for a plant that isn't on the list. */
export const NOT_ON_LIST = "not-on-this-list";

export const plainSettings: SiftSettings = {
  prior: "equal",
  narrowing: { recordedHere: false },
  missing: [],
  skip: [],
};

/** What the core has to know of a place. */
export const siftPlace = (place: Schemas["Place"] | undefined): Schemas["SiftPlace"] | null =>
  place ? { cell: place.cell, elevation: place.elevationMetres, habitats: place.habitats } : null;

/** A plant's sheet sifted against the flora that the core holds. */
export function useSift(
  walk: PlantInHand | null | undefined,
  { floraId, version, host }: AskedFlora,
  /** Taxa whose reasons are open, besides the first one's. */
  why: string[],
) {
  const places = usePlaces();
  const { atHand, change: changeAtHand } = useAtHand();
  const place = places.data?.find((p) => p.id === walk?.form.placeId);
  const settings = walk?.sift ?? plainSettings;
  const client = useQueryClient();
  // What plants named at the place have shown of the list, as far as this device knows.
  const strangersName = `strangers:${floraId}:${place?.id ?? ""}`;
  const strangers = useQuery({
    enabled: floraId !== undefined && place !== undefined,
    queryKey: [strangersName],
    queryFn: async () => (await kept<Schemas["Strangers"]>(strangersName)) ?? null,
  });
  const known = strangers.data;
  const question = useMemo((): Schemas["SiftRequest"] | undefined => {
    if (!walk || !floraId || !version) return undefined;
    return {
      floraId,
      sheet: walk.observations ?? [],
      options: {
        prior: settings.prior,
        at: siftPlace(place),
        date: walk.form.date || null,
        tolerance: settings.tolerance ?? null,
        tools: atHand.tools,
        handling: atHand.most,
        missing: settings.missing,
        skip: settings.skip,
        narrowing: settings.narrowing,
        looks: true,
        why,
        strangers: known ?? null,
      },
    };
  }, [walk, floraId, version, settings, place, atHand, why, known]);
  const { answer, failure } = useAskedEither("sift", question, host);
  /** A new plant was named: what its sheet leaves for "not on this list" is kept for the next one of the place. */
  const learn = async () => {
    if (!answer || !place || walk?.plant) return;
    await keep(strangersName, answer.strangersAfter);
    await client.invalidateQueries({ queryKey: [strangersName] });
  };
  return { learn, strangers: known, answer, failure, settings, place, places: places.data ?? [], atHand, changeAtHand };
}
