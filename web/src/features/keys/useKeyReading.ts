import { useQuery, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { v7 as uuid } from "uuid";
import type { Schemas } from "../../api/client";
import { core, fillShelf } from "../../core/coreClient";
import { useSend } from "../../offline/mending";
import { useShelf } from "../../offline/queries";
import { useVocabulary } from "../../offline/vocabulary";

// The first couplets are there at once; a large key takes some seconds.
const FIRST = 20;

/** A key as its statements are read, its beginning first; read again when words are taught, readings set or the vocabulary changes. */
export function useKeyReading(hash: string) {
  const [wanted] = useState([hash]);
  const shelf = useShelf(wanted);
  const vocabulary = useVocabulary();
  const found = useQuery({
    enabled: shelf.data !== undefined && vocabulary.isSettled,
    queryKey: ["key-reading", hash, shelf.dataUpdatedAt, vocabulary.data?.tag],
    staleTime: Infinity,
    placeholderData: (before: Awaited<ReturnType<typeof core.keyReading>> | undefined) => before,
    queryFn: async () => {
      if (shelf.data) await fillShelf(shelf.data);
      return core.keyReading({ hash, first: FIRST });
    },
  });
  const whole = useQuery({
    enabled: found.isSuccess && !found.isPlaceholderData && !found.data.isWhole,
    queryKey: ["key-reading-whole", hash, shelf.dataUpdatedAt, vocabulary.data?.tag],
    staleTime: Infinity,
    placeholderData: (before: Awaited<ReturnType<typeof core.keyReading>> | undefined) => before,
    queryFn: () => core.keyReading({ hash, first: 0 }),
  });
  return { reading: found.data?.isWhole ? found.data : (whole.data ?? found.data), table: shelf.data?.table };
}

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
