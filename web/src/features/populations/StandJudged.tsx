import { Box, Button, Table, TableBody, TableCell, TableHead, TableRow, Typography } from "@mui/material";
import { useQueries, useQuery } from "@tanstack/react-query";
import { useState } from "react";
import type { Schemas } from "../../api/client";
import { plantServed } from "../../offline/documents";
import { askEither } from "../../offline/hosts";
import { useBenchFlora } from "../../shared/botany/useBenchFlora";
import { Part } from "../../shared/ui/Page";

/** The marked plants judged together: what most of the stand is, and which plant is another. */
export function StandJudged({ it }: { it: Schemas["PopulationDetail"] }) {
  const [isWanted, setWanted] = useState(false);
  return (
    <Part id="stand" title="Judged together">
      {isWanted ? (
        <Judged it={it} />
      ) : (
        <>
          <Typography sx={{ maxWidth: 720, mb: 1 }}>
            One odd plant overturns nothing that the others say, and one that was not looked at follows them. A mixed
            stand is found where one taxon won’t do.
          </Typography>
          <Button variant="outlined" onClick={() => setWanted(true)}>
            Judge the stand as a whole
          </Button>
        </>
      )}
    </Part>
  );
}

function Judged({ it }: { it: Schemas["PopulationDetail"] }) {
  const { flora, asked: of, failure } = useBenchFlora(undefined);
  const plants = useQueries({ queries: it.pegs.map((peg) => plantServed(peg.id)) });
  const isHere = plants.every((plant) => plant.data !== undefined);
  const failed = plants.some((plant) => plant.isError);
  const judged = useQuery({
    enabled: flora !== undefined && of.version !== undefined && isHere,
    queryKey: ["stand", it.id, of.version, plants.map((plant) => plant.dataUpdatedAt).join()],
    queryFn: () =>
      askEither(
        "stand",
        {
          floraId: flora?.id ?? "",
          plants: plants.map((plant) => ({ label: plant.data?.label ?? "", sheet: plant.data?.observations ?? [] })),
        },
        of.host,
      ),
  });
  if (failure) return <Typography role="alert">{failure}</Typography>;
  if (failed && !isHere)
    return (
      <Typography role="alert">The plants’ sheets aren’t on this device; they are judged once they are.</Typography>
    );
  if (judged.isError) return <Typography role="alert">✕ {judged.error.message}</Typography>;
  if (!judged.data) return <Typography role="status">Judging {it.pegs.length} plants together …</Typography>;
  const answer = judged.data;
  return (
    <Box sx={{ maxWidth: 820 }}>
      <Typography role="status" sx={{ fontWeight: 600, mb: 1 }}>
        {answer.inWords}
      </Typography>
      <Typography variant="body2" sx={{ mb: 1 }}>
        {answer.standing
          .slice(0, 3)
          .map((taxon) => `${taxon.name || taxon.taxon}: ${taxon.inWords}`)
          .join(" · ")}
      </Typography>
      <Table size="small" aria-label="The plants of the stand">
        <TableHead>
          <TableRow>
            <TableCell>Plant</TableCell>
            <TableCell align="right">Looks</TableCell>
            <TableCell>Of the stand’s taxon</TableCell>
          </TableRow>
        </TableHead>
        <TableBody>
          {answer.plants.map((plant) => (
            <TableRow key={plant.label}>
              <TableCell component="th" scope="row">
                {plant.label}
              </TableCell>
              <TableCell align="right">{plant.looks}</TableCell>
              <TableCell>{plant.inWords}</TableCell>
            </TableRow>
          ))}
        </TableBody>
      </Table>
    </Box>
  );
}
