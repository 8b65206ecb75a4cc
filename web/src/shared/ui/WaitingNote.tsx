import { Typography } from "@mui/material";
import { useWaitingIds } from "../../offline/documents";

/** Says of a plant, a population or a place that something of it waits on this device to be sent. */
export function WaitingNote({ id }: { id: string }) {
  const waiting = useWaitingIds();
  if (!waiting.has(id)) return null;
  return (
    <Typography variant="body2" component="span" sx={{ color: "signal.open", fontWeight: 700 }}>
      ◌ on this device, waiting to be sent
    </Typography>
  );
}
