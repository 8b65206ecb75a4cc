import { Box, Button, Link, Typography } from "@mui/material";
import { Link as RouterLink } from "react-router";
import { twoColumns } from "../../shared/ui/twoColumns";
import { Page } from "../../shared/ui/Page";
import { useKeys } from "../../offline/queries";
import { useOutlook } from "../../plant-in-hand/key/Outlook";
import { KeyDrawing } from "../../shared/botany/KeyDrawing";

export function KeyList() {
  const keys = useKeys();
  const { outlook } = useOutlook(keys.data?.map((key) => key.hash));
  const blockedOf = (hash: string) =>
    outlook
      ?.get(hash)
      ?.blocked.filter((it) => it.keyVersion === hash)
      .map((it) => it.couplet);
  return (
    <Page
      title="Keys"
      aside={
        <Button component={RouterLink} to="/keys/new" variant="contained">
          Paste a key
        </Button>
      }
    >
      {keys.isError && (
        <Typography role="alert">
          The keys can’t be fetched just now. They appear here as soon as the server answers.
        </Typography>
      )}
      {keys.data?.length === 0 && (
        <Typography>There is no key yet. Paste one as text out of a book; both layouts are understood.</Typography>
      )}
      <Box component="ul" sx={twoColumns}>
        {keys.data?.map((key) => (
          <Box
            component="li"
            key={key.hash}
            sx={{ display: "flex", gap: 2, py: 1.25, borderBottom: "1px dotted", borderColor: "rule" }}
          >
            <KeyDrawing title={key.title} nodes={key.shape} blocked={blockedOf(key.hash)} />
            <Box sx={{ minWidth: 0 }}>
              <Link component={RouterLink} to={`/keys/${key.hash}`} variant="h2">
                {key.title}
              </Link>
              <Typography variant="body2" color="text.secondary">
                {key.couplets} couplets, {key.taxa} taxa, version {key.version}
                {key.handsOverTo.length > 0 && <>; hands over to {key.handsOverTo.join(" and ")}</>}
                {key.enteredFrom.length > 0 && <>; entered from {key.enteredFrom.join(" and ")}</>}
              </Typography>
            </Box>
          </Box>
        ))}
      </Box>
    </Page>
  );
}
