import { Box, Typography } from "@mui/material";
import { usePeople } from "../../offline/queries";
import { Erase } from "../../shared/form/Erase";
import { Page } from "../../shared/ui/Page";
import { twoColumns } from "../../shared/ui/twoColumns";

/** Who has recorded: each name stands in one place, and can be erased there. */
export function PeoplePage() {
  const people = usePeople();
  return (
    <Page title="People">
      <Typography sx={{ maxWidth: 720, mb: 2 }}>
        Who has recorded here. A name stands in this one place: erased on request it is gone from every record, and the
        records stay.
      </Typography>
      {people.data?.length === 0 && <Typography>Nobody has recorded yet.</Typography>}
      <Box component="ul" aria-label="People" sx={twoColumns}>
        {people.data?.map((it) => (
          <Box
            component="li"
            key={it.id}
            sx={{
              display: "flex",
              justifyContent: "space-between",
              alignItems: "center",
              minHeight: 48,
              borderBottom: "1px dotted",
              borderColor: "rule",
            }}
          >
            <span>{it.name}</span>
            {it.name !== "(erased)" && (
              <Erase
                subjectId={it.id}
                what="the name"
                of={it.name}
                goes="The name goes from every record; the records stay."
              />
            )}
          </Box>
        ))}
      </Box>
    </Page>
  );
}
