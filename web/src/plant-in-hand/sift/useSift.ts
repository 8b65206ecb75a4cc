import { useMemo } from "react";
import type { Schemas } from "../../api/client";
import { useAskedEither } from "../../offline/hosts";
import type { AskedFlora } from "../../offline/taxa";
import { usePlaces } from "../../offline/documents";
import type { SiftSettings, PlantInHand } from "../../offline/store";
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
      },
    };
  }, [walk, floraId, version, settings, place, atHand, why]);
  const { answer, failure } = useAskedEither("sift", question, host);
  return { answer, failure, settings, place, places: places.data ?? [], atHand, changeAtHand };
}
