import { Link, Typography } from "@mui/material";
import { Link as RouterLink } from "react-router";
import { Page } from "../shared/ui/Page";

export function NotFound() {
  return (
    <Page title="There is nothing at this address">
      <Typography>
        Go to{" "}
        <Link component={RouterLink} to="/bench">
          Identify
        </Link>
        , where a plant and a key are chosen.
      </Typography>
    </Page>
  );
}
