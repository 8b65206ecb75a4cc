import { Box, Button, Link, Typography } from "@mui/material";
import { useState } from "react";
import { Link as RouterLink } from "react-router";
import { twoColumns } from "../../shared/ui/twoColumns";
import { Page } from "../../shared/ui/Page";
import { useIsPhone } from "../../shared/ui/useIsPhone";
import { useKeys } from "../../offline/documents";
import { useOutlook } from "../../plant-in-hand/key/Outlook";
import { KeyDrawing } from "../../shared/botany/KeyDrawing";
import { counted } from "../../shared/ui/counted";

/** More keys than this that others lead to are folded on a phone. */
const FOLDED_FROM = 3;

export function KeyList() {
  const keys = useKeys();
  const { outlook } = useOutlook(keys.data?.map((key) => key.hash));
  const blockedOf = (hash: string) =>
    outlook
      ?.get(hash)
      ?.blocked.filter((it) => it.keyVersion === hash)
      .map((it) => it.couplet);
  const isPhone = useIsPhone();
  const [all, setAll] = useState(false);
  // Those that one begins with stand on a phone; the others are led to by them.
  const entered = keys.data?.filter((key) => key.enteredFrom.length > 0) ?? [];
  const isFolded = isPhone && !all && entered.length > FOLDED_FROM && entered.length < (keys.data?.length ?? 0);
  const shown = isFolded ? keys.data?.filter((key) => key.enteredFrom.length === 0) : keys.data;
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
        {shown?.map((key) => (
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
                {counted(key.couplets, "couplet")}, {counted(key.taxa, "taxon", "taxa")}, version {key.version}
                {key.handsOverTo.length > 0 && <>; hands over to {key.handsOverTo.join(" and ")}</>}
                {key.enteredFrom.length > 0 && <>; entered from {key.enteredFrom.join(" and ")}</>}
              </Typography>
            </Box>
          </Box>
        ))}
      </Box>
      {isFolded && (
        <Button onClick={() => setAll(true)} sx={{ mt: 1, minHeight: 48 }}>
          Show the {entered.length} that these lead to
        </Button>
      )}
    </Page>
  );
}
