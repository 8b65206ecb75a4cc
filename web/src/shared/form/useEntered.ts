import { useCallback, useEffect, useRef, useState } from "react";
import { v7 as uuid } from "uuid";
import type { Schemas } from "../../api/client";
import { askEither, type Host } from "../../offline/hosts";
import { kept as keptOn } from "../../offline/store";
import { useStable } from "../ui/useStable";
import { useTyped } from "./useTyped";

type Calls = Schemas["CoreCalls"];

/** The calls that say what some letters mean. */
export type Naming = "shortNames" | "plotName";

/** A line that was entered before it was known what it means. */
export interface Entered<N extends Naming, W> {
  id: string;
  question: Calls[N]["request"];
  /** Where and when it was entered. */
  where: W;
}

/** One that isn't settled, with what it may mean; null where it couldn't be looked up. */
export interface Unsettled<N extends Naming, W> extends Entered<N, W> {
  answer: Calls[N]["answer"] | null;
}

const enteredIn = (list: string) => `entered:${list}`;

/** What was entered at a list and isn't settled yet, as it was typed. */
export const unsettledOf = async (list: string): Promise<string[]> =>
  ((await keptOn<Entered<Naming, unknown>[]>(enteredIn(list))) ?? []).map((it) => it.question.typed.trim());

/**
 * Lines that are entered faster than they are looked up. Each is kept on this device until it is taken or put away, so that it outlives the
 * page: one that a page of before left behind is asked about, and never taken by itself.
 *
 * @param list The list that they belong to.
 * @param take Takes a line whose meaning is clear; false where it isn't.
 */
export function useEntered<N extends Naming, W>(
  call: N,
  list: string,
  host: Host,
  take: (answer: Calls[N]["answer"], entered: Entered<N, W>) => Promise<boolean>,
) {
  const [kept, setKept] = useTyped<Entered<N, W>[]>(enteredIn(list), () => []);
  const [answers, setAnswers] = useState<Record<string, Calls[N]["answer"] | null | undefined>>({});
  const asked = useRef(new Set<string>());
  // Entered on this page, not left behind by one of before.
  const own = useRef(new Set<string>());
  const isHere = useRef(true);
  useEffect(() => {
    isHere.current = true;
    return () => void (isHere.current = false);
  }, []);
  const settle = useCallback((id: string) => setKept((all) => (all ?? []).filter((it) => it.id !== id)), [setKept]);
  const lookUp = useStable(async (it: Entered<N, W>) => {
    asked.current.add(it.id);
    setAnswers((all) => ({ ...all, [it.id]: undefined }));
    const answer = await askEither(call, it.question, host).catch(() => null);
    // A page that was left takes nothing any more: the next one asks.
    if (!isHere.current) return answer;
    if (own.current.has(it.id) && answer && (await take(answer, it))) settle(it.id);
    else setAnswers((all) => ({ ...all, [it.id]: answer }));
    return answer;
  });
  useEffect(() => {
    for (const it of kept ?? []) if (!asked.current.has(it.id)) void lookUp(it);
  }, [kept, lookUp]);
  /** Keeps a line and looks it up; what came of it. */
  const enter = (question: Calls[N]["request"], where: W) => {
    const it: Entered<N, W> = { id: uuid(), question, where };
    own.current.add(it.id);
    asked.current.add(it.id);
    setKept((all) => [...(all ?? []), it]);
    return lookUp(it).then((answer) => ({ id: it.id, answer }));
  };
  const unsettled: Unsettled<N, W>[] = (kept ?? []).flatMap((it) => {
    const answer = answers[it.id];
    return answer === undefined ? [] : [{ ...it, answer }];
  });
  return { unsettled, enter, settle, again: (it: Entered<N, W>) => void lookUp(it) };
}
