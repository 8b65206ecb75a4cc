import { Box, Button, TextField, Typography } from "@mui/material";
import { useState } from "react";
import type { Schemas } from "../../api/client";
import { askEither, type Host } from "../../offline/hosts";
import { TaxonLabel } from "../../shared/botany/TaxonLabel";
import { detailsTyped } from "./useVisitCommands";

type Named = Schemas["ListedName"];

interface Props {
  floraId: string;
  host: Host;
  onList: (lines: { taxon: string; details?: Schemas["LineDetails"] }[]) => Promise<void>;
  onDone: () => void;
}

/** A list out of a notebook or a table, one name a line: shown as it is read before any of it is kept. */
export function PasteList({ floraId, host, onList, onDone }: Props) {
  const [text, setText] = useState("");
  const [read, setRead] = useState<Named[]>();
  const [chosen, setChosen] = useState<Record<number, string>>({});
  const [failure, setFailure] = useState("");
  const [isKeeping, setKeeping] = useState(false);
  const show = () => {
    setFailure("");
    askEither("nameList", { floraId, text }, host).then(
      (names) => {
        setRead(names);
        setChosen({});
      },
      (error: unknown) => setFailure(error instanceof Error ? error.message : String(error)),
    );
  };
  const nameOf = (it: Named, at: number) => chosen[at] ?? (it.isAgain ? "" : it.answer.meant);
  const taken = (read ?? []).flatMap((it, at) => {
    const name = nameOf(it, at);
    return name ? [{ taxon: name, details: detailsTyped(it.answer) }] : [];
  });
  // What couldn’t be kept stays as it was pasted.
  const keep = async () => {
    setKeeping(true);
    try {
      await onList(taken);
      onDone();
    } catch (error) {
      setFailure(error instanceof Error ? error.message : String(error));
      setKeeping(false);
    }
  };
  return (
    <Box sx={{ my: 1.5 }}>
      <TextField
        fullWidth
        multiline
        minRows={4}
        maxRows={14}
        label="Names, one a line"
        value={text}
        onChange={(event) => {
          setText(event.target.value);
          setRead(undefined);
        }}
      />
      <Box sx={{ display: "flex", flexWrap: "wrap", gap: 1, my: 1 }}>
        <Button variant={read ? "outlined" : "contained"} disabled={!text.trim()} onClick={show}>
          Show how it is read
        </Button>
        {read && (
          <Button variant="contained" disabled={taken.length === 0 || isKeeping} onClick={() => void keep()}>
            Put {taken.length} on the list
          </Button>
        )}
        <Button onClick={onDone}>Leave it</Button>
      </Box>
      {failure && (
        <Typography role="alert" color="error">
          ✕ {failure}
        </Typography>
      )}
      {read && (
        <Box component="ol" aria-label="As it is read" sx={{ m: 0, pl: 3 }}>
          {read.map((it, at) => {
            const name = nameOf(it, at);
            const pick = (one: string) => setChosen((all) => ({ ...all, [at]: one }));
            return (
              <li key={at}>
                <Typography component="span">{it.text}</Typography>{" "}
                {name ? (
                  <Typography component="span" sx={{ color: "signal.support", fontWeight: 700 }}>
                    ✓ {name === it.text ? name : <TaxonLabel name={name} />}
                  </Typography>
                ) : it.isAgain ? (
                  <Typography component="span" color="text.secondary">
                    stands above already
                  </Typography>
                ) : (
                  <Box
                    component="span"
                    sx={{ display: "inline-flex", flexWrap: "wrap", gap: 0.5, alignItems: "center" }}
                  >
                    <Box component="span" sx={{ color: "signal.open", fontWeight: 700 }}>
                      △ {it.answer.found.length > 0 ? "several fit" : "no taxon of the flora fits"}
                    </Box>
                    {it.answer.found.map((one) => (
                      <Button key={one.taxon} onClick={() => pick(one.name)}>
                        {one.name}
                      </Button>
                    ))}
                    <Button onClick={() => pick(it.text)}>as it is written</Button>
                  </Box>
                )}
              </li>
            );
          })}
        </Box>
      )}
    </Box>
  );
}
