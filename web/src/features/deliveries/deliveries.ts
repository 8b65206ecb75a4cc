import { useQuery } from "@tanstack/react-query";
import { answerOf, api, type Schemas } from "../../api/client";

export const LIST = "deliveries";

/** What was passed on to whom, newest first. */
export const useDeliveries = () =>
  useQuery({
    queryKey: [LIST],
    queryFn: () => answerOf((signal) => api.GET("/api/v1/deliveries", { signal })),
    retry: false,
  });

/** How many records of which kind, in words. */
export const counted = ({ new: fresh, changed, withdrawn }: Schemas["DeliveryCounts"]) =>
  [`${fresh} new`, changed > 0 && `${changed} changed`, withdrawn > 0 && `${withdrawn} withdrawn`]
    .filter(Boolean)
    .join(", ");
