import { Link, Typography } from "@mui/material";
import { useQuery } from "@tanstack/react-query";
import { Link as RouterLink, useSearchParams } from "react-router";
import { core } from "../../core/coreClient";
import { useVocabulary } from "../../offline/vocabulary";
import { Page } from "../../shared/ui/Page";
import { useInSteps } from "../../shared/ui/useInSteps";
import { QualityEntry } from "./QualityEntry";

// A few at a time, so that the page goes on meanwhile.
const AT_ONCE = 6;

/** Every quality with its states, drawn on a part that shows it; or those of one part, drawn on that. */
export function AllQualities() {
  const held = useVocabulary();
  const [params] = useSearchParams();
  const part = params.get("part") ?? "";
  const name = held.data?.vocabulary.parts.find((it) => it.id === part.split("/").at(-1))?.nouns[0];
  const { data } = useQuery({
    enabled: held.data !== undefined,
    queryKey: ["qualities", held.data?.tag, part],
    staleTime: Infinity,
    queryFn: () => (part ? core.partQualities({ part, region: "" }) : core.qualities({})),
  });
  const all = data?.length ?? 0;
  const drawn = useInSteps(all, AT_ONCE, part);
  return (
    <Page
      title={name ? `All qualities: ${name}` : "All qualities"}
      aside={
        <Link component={RouterLink} to="/glossary">
          To parts and qualities
        </Link>
      }
    >
      <Typography role="status" sx={{ mb: 1 }}>
        {held.isError
          ? "The vocabulary can’t be fetched just now."
          : data
            ? `${all} qualities${part ? "" : ", each on a part that shows it"}; a state without a drawing has no form that could be drawn.`
            : "Fetching the vocabulary …"}
      </Typography>
      {held.data &&
        data
          ?.slice(0, drawn)
          .map((character) => (
            <QualityEntry key={character.id} character={character} vocabulary={held.data.vocabulary} isListed />
          ))}
    </Page>
  );
}
