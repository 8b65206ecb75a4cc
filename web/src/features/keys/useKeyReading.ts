import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { core, fillShelf } from "../../core/coreClient";
import { useShelf } from "../../offline/queries";
import { useVocabulary } from "../../offline/vocabulary";

/** A key as its statements are read; read again when words are taught, readings set or the vocabulary changes. */
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
      return core.keyReading({ hash });
    },
  });
  return { reading: found.data, table: shelf.data?.table };
}
