import { useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { v7 as uuid } from "uuid";
import type { Schemas } from "../../api/client";
import { useKeyReadings } from "../../offline/keyReadings";
import { useSend } from "../../offline/mending";
import { useShelfInShort } from "../../offline/shelf";

// The first couplets are there at once; a large key takes some seconds.
const FIRST = 20;

/** A key as its statements are read, its beginning first; read again when words are taught, readings set or the vocabulary changes. */
export function useKeyReading(hash: string) {
  const found = useKeyReadings(hash, FIRST);
  const whole = useKeyReadings(hash, 0, found.isSuccess && !found.isPlaceholderData && !found.data.isWhole);
  return found.data?.isWhole ? found.data : (whole.data ?? found.data);
}

/** The characters that a key's claims are of, once they are wanted. */
export const useKeyCharacters = (hash: string | undefined) =>
  useShelfInShort(hash === undefined ? undefined : [hash]).data?.characters;

/** Sets readings and teaches words; what is set stays so, whatever the grammar or the glossary make of it later. */
export function useTeaching() {
  const client = useQueryClient();
  const send = useSend();
  const [refused, setRefused] = useState("");
  const tell = async (command: Schemas["Command"]) => {
    const sent = await send(command);
    setRefused(sent.kind === "refused" ? `${sent.problem.title} ${sent.problem.detail}` : "");
    void client.invalidateQueries({ queryKey: ["shelf"] });
  };
  return {
    refused,
    set: (text: string, claims: Schemas["StatementClaim"][]) =>
      void tell({ kind: "correctStatement", id: uuid(), text, claims }),
    teach: ({ term, character, state, book }: Schemas["TaughtTerm"]) =>
      void tell({ kind: "teachTerm", id: uuid(), character, state, term, ...(book && { book }) }),
  };
}
