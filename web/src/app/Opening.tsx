import { Typography } from "@mui/material";
import { Page } from "../shared/ui/Page";

/** Stands in the place of the first page while its code is fetched. */
export function Opening() {
  return (
    <Page title="Opening">
      <Typography role="status">Fetching the page …</Typography>
    </Page>
  );
}
