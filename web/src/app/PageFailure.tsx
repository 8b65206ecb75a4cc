import { Button, Typography } from "@mui/material";
import { useRouteError } from "react-router";
import { Page } from "../shared/ui/Page";

/** Stands in the place of a page that can't be shown; the frame and the other pages go on. */
export function PageFailure() {
  const error = useRouteError();
  const reason = error instanceof Error ? error.message : "";
  const fetching = reason.includes("dynamically imported module");
  return (
    <Page title="This page can’t be shown">
      <Typography role="alert">
        {fetching
          ? "It wasn’t fetched to this device yet, and the server doesn’t answer. Come back when there is signal; the other pages work."
          : `Something in it went wrong${reason ? `: ${reason}` : ""}. The other pages work.`}{" "}
        What you typed is kept on this device.
      </Typography>
      <Button variant="contained" sx={{ mt: 2 }} onClick={() => window.location.reload()}>
        Try again
      </Button>
    </Page>
  );
}
