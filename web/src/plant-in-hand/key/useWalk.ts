import { useHeldVocabulary } from "../../offline/vocabulary";
import { useEffect, useMemo, useRef, useState } from "react";
import type { Schemas } from "../../api/client";
import { askEither, useHost } from "../../offline/hosts";
import { useWaitingKeys } from "../../offline/documents";
import { useHeldShelf, useShelfInShort } from "../../offline/shelf";
import type { PlantInHand } from "../../offline/store";
import { useStoredWalk } from "../useStoredWalk";
import { today } from "../../shared/calendar/day";

export type OpenCouplet = Schemas["OpenCouplet"];
export type TrailStep = Schemas["TrailStep"];

/** Names a couplet of a key version. */
export interface CoupletName {
  keyVersion: string;
  couplet: string;
}

interface View {
  bench: Schemas["BenchState"];
  state: Schemas["WalkState"];
  /** An answered couplet that is open again to be changed, with its answer. */
  reopened?: { open: OpenCouplet; lead: number | null; sureness: Schemas["Sureness"] };
}

/** What the answers that may come next bring: asked for, and known, by their requests. */
interface Ahead {
  of: string;
  asked: Map<string, Promise<Schemas["BenchState"]>>;
  known: Map<string, Schemas["BenchState"]>;
}

// What follows the couplet on the page is asked for first.
const AHEAD_MS = 150;

const NO_TAXA: Schemas["Taxon"][] = [];

type Request = Schemas["CoreCalls"]["bench"]["request"];
type Answer = Request["answers"][number];

const requestOf = (walk: PlantInHand, reopened?: CoupletName): Request => ({
  start: walk.start,
  answers: walk.answers,
  observations: walk.observations ?? [],
  hand: walk.hand ?? [],
  day: walk.form.date || today(),
  reopened: reopened ?? null,
});

const names = (a: CoupletName, b: CoupletName) => a.keyVersion === b.keyVersion && a.couplet === b.couplet;

/** The plant with an answer more, or with another one in place of that which the couplet had. */
const answeredWith = (walk: PlantInHand, given: Answer): PlantInHand => {
  const at = walk.answers.findIndex((a) => names(a, given));
  return {
    ...walk,
    answers: at < 0 ? [...walk.answers, given] : walk.answers.map((a, i) => (i === at ? given : a)),
  };
};

/** A walk that is under way: kept on this device at every step, worked out by the core. */
export function useWalk(walkId: string) {
  const { walk, first, setWalk, change } = useStoredWalk(walkId);
  const [view, setView] = useState<View>();
  const [reopenedName, setReopenedName] = useState<CoupletName>();
  const [chosenPath, setChosenPath] = useState<CoupletName>();
  const [failure, setFailure] = useState<string>();
  const asked = useRef(0);
  const ahead = useRef<Ahead>({ of: "", asked: new Map(), known: new Map() });

  // The versions that it has followed so far; those that it comes to later are the newest and on the shelf anyway.
  const wanted = useMemo(
    () =>
      first === undefined
        ? undefined
        : first
          ? // What was answered by an older reading of a key keeps it.
            [
              first.start,
              ...first.answers.map((a) => (a.reading ? `${a.keyVersion}~${a.reading}` : a.keyVersion)),
            ].filter(Boolean)
          : [],
    [first],
  );
  const shelf = useShelfInShort(wanted);
  const held = useHeldShelf(wanted);
  // Keys are read by it, and looks at parts and qualities can't be weighed without.
  const vocabulary = useHeldVocabulary();
  const waiting = useWaitingKeys();
  const isAlone = walk
    ? [walk.start, ...walk.answers.map((a) => a.keyVersion)].some((it) => waiting.includes(it))
    : false;
  const host = useHost(held.data !== undefined && vocabulary.isSettled, `keys ${wanted?.join() ?? ""}`, isAlone);
  const readBy = `${held.data} ${vocabulary.version}`;
  useEffect(() => {
    if (!walk?.start || wanted === undefined) return;
    const ask = ++asked.current;
    if (ahead.current.of !== readBy) ahead.current = { of: readBy, asked: new Map(), known: new Map() };
    const work = async () => {
      const request = requestOf(walk, reopenedName);
      const bench = await (ahead.current.asked.get(JSON.stringify(request)) ?? askEither("bench", request, host));
      const next: View = { bench, state: bench.walk };
      const all = bench.answers;
      const given = reopenedName && all.find((a) => names(a, reopenedName));
      if (given) {
        const others = all.filter((a) => !names(a, given));
        const open = (await askEither("walk", { start: walk.start, answers: others }, host)).open;
        const couplet = open.find((o) => o.keyVersion === given.keyVersion && o.couplet.label === given.couplet);
        if (couplet) next.reopened = { open: couplet, lead: given.lead, sureness: given.sureness ?? "sure" };
      }
      // An answer that has been overtaken by a newer one is dropped; one that was known ahead is shown already.
      if (ask === asked.current)
        setView((now) => (now && now.bench === bench && !next.reopened && !now.reopened ? now : next));
    };
    work().catch((error: unknown) => setFailure(error instanceof Error ? error.message : String(error)));
  }, [walk, wanted, host, readBy, reopenedName]);

  const open = view?.state.open ?? [];
  const path =
    open.find((o) => chosenPath && names({ keyVersion: o.keyVersion, couplet: o.couplet.label }, chosenPath)) ??
    open[0];
  const verdictOf = (name: CoupletName | undefined) => name && view?.bench.verdicts.find((v) => names(v, name));

  const readingOf = (keyVersion: string) =>
    walk?.answers.find((a) => a.keyVersion === keyVersion && a.reading)?.reading ??
    shelf.data?.versions.find((v) => v.hash === keyVersion)?.reading ??
    0;

  // While a couplet is read the core works out what each lead brings, so that nobody waits behind a tap.
  useEffect(() => {
    if (!walk || !path || view?.reopened || ahead.current.of !== readBy) return;
    const { keyVersion, couplet } = path;
    const leads = [...couplet.leads.keys(), null];
    let isWanted = true;
    // One after the other, so that a tap that comes sooner waits behind one at most.
    const work = async () => {
      const before = ahead.current;
      const now: Ahead = { of: readBy, asked: new Map(), known: new Map() };
      ahead.current = now;
      for (const lead of leads) {
        if (!isWanted) return;
        const given = { keyVersion, couplet: couplet.label, lead, sureness: "sure" as const };
        const request = requestOf(answeredWith(walk, { ...given, reading: readingOf(keyVersion) }));
        const name = JSON.stringify(request);
        const found = before.asked.get(name) ?? askEither("bench", request, host);
        now.asked.set(name, found);
        // What can't be worked out ahead is asked for again when it is wanted.
        await found.then(
          (bench) => now.known.set(name, bench),
          () => now.asked.delete(name),
        );
      }
    };
    const timer = setTimeout(() => void work(), AHEAD_MS);
    return () => {
      isWanted = false;
      clearTimeout(timer);
    };
  });

  return {
    walk,
    setWalk,
    failure:
      failure ??
      (held.isError && !held.data && !view
        ? "The keys can’t be fetched just now. The walk is kept on this device; it opens when the server answers."
        : undefined),
    taxa: shelf.data?.taxa ?? NO_TAXA,
    characters: shelf.data?.characters,
    bench: view?.bench,
    verdictOf,
    state: view?.state,
    reopened: view?.reopened,
    path,
    choosePath: setChosenPath,
    reopen: setReopenedName,
    change,
    answer: (couplet: CoupletName, lead: number | null, sureness: Schemas["Sureness"]) => {
      if (!walk) return;
      const given = { ...couplet, lead, sureness, reading: readingOf(couplet.keyVersion) };
      setReopenedName(undefined);
      setChosenPath(undefined);
      const next = answeredWith(walk, given);
      const known = ahead.current.known.get(JSON.stringify(requestOf(next)));
      if (known) setView({ bench: known, state: known.walk });
      change(next);
    },
    stepBack: () => {
      if (!walk) return;
      if (reopenedName) {
        setReopenedName(undefined);
        return;
      }
      // The last answer on the way; dormant ones aren't on it.
      const onTheWay = walk.answers.filter((a) => view?.state.steps.some((s) => names(s, a)));
      const last = onTheWay.at(-1);
      if (!last) {
        // What the sheet has answered can only be overruled: it is opened again.
        const step = view?.state.steps.at(-1);
        if (step) setReopenedName({ keyVersion: step.keyVersion, couplet: step.couplet });
        return;
      }
      setChosenPath({ keyVersion: last.keyVersion, couplet: last.couplet });
      change({ ...walk, answers: walk.answers.filter((a) => a !== last) });
    },
  };
}
