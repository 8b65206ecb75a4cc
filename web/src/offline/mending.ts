import { useEffect, useRef, useState } from "react";
import { useSearchParams } from "react-router";
import { send, type SendOptions, type Sent } from "./outbox";
import { store, type Command, type RefusedCommand } from "./store";

/** What kinds of commands there are. */
export type Kind = NonNullable<Command["kind"]>;

type OfKind<K extends Kind> = Extract<Command, { kind?: K }>;

type Refused<K extends Kind> = Omit<RefusedCommand, "command"> & { command: OfKind<K> };

/** The refused command that a form is opened with, by the address; undefined while it is looked up, null where there is none. */
export function useMending<K extends Kind>(...kinds: K[]): Refused<K> | null | undefined {
  const [search] = useSearchParams();
  const id = search.get("mend");
  const [found, setFound] = useState<{ id: string; it: RefusedCommand | null }>();
  useEffect(() => {
    if (!id) return;
    let current = true;
    void store()
      .then((db) => db.get("refused", id))
      .then((it) => current && setFound({ id, it: it ?? null }));
    return () => {
      current = false;
    };
  }, [id]);
  if (!id) return null;
  if (found?.id !== id) return undefined;
  const it = found.it;
  return it && it.command.kind && (kinds as string[]).includes(it.command.kind) ? (it as Refused<K>) : null;
}

/** Sends commands of a form: what it sends again after a refusal takes the place of what was refused. */
export function useSend(mends?: string): (command: Command, options?: SendOptions) => Promise<Sent> {
  const refused = useRef<string | undefined>(undefined);
  return async (command, options) => {
    const sent = await send(command, { ...options, mends: refused.current ?? mends });
    refused.current = sent.kind === "refused" ? sent.id : undefined;
    return sent;
  };
}
