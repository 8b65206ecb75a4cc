import { useEffect } from "react";
import { useLocation, useNavigate } from "react-router";
import { usePlaces } from "../offline/documents";
import { choosePlace, useHere } from "../shared/place/here";

/** Where the place that was chosen, or that an address names, was merged into another one, that one takes its stead. */
export function useMergedPlaces(): void {
  const places = usePlaces().data;
  const { placeId } = useHere();
  const { pathname, search, hash } = useLocation();
  const navigate = useNavigate();
  useEffect(() => {
    const address = pathname + search;
    let now = address;
    for (const { id, merged } of places ?? [])
      for (const gone of merged ?? []) {
        if (gone.id === placeId) choosePlace(id);
        now = now.replaceAll(gone.id, id);
      }
    if (now !== address) void navigate(now + hash, { replace: true });
  }, [places, placeId, pathname, search, hash, navigate]);
}
