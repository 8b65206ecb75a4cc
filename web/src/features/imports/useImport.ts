import { keepPreviousData, useQuery, useQueryClient } from "@tanstack/react-query";
import { useDeferredValue, useState } from "react";
import { v7 as uuid } from "uuid";
import { answerOf, api, ProblemError, type Schemas } from "../../api/client";

export type Draft = Schemas["ImportDraft"];
export type Choices = Schemas["ImportChoices"];
export type Preview = Schemas["ImportPreview"];
export type Field = Schemas["ImportField"];

export const IMPORTS = ["imports"];

// What a script could wait for at most: a million records take a minute or two.
const PATIENCE_MS = 3_600_000;
const EVERY_MS = 500;

/** What was taken in from files, newest first. */
export const useImports = () =>
  useQuery({
    queryKey: IMPORTS,
    queryFn: () => answerOf((signal) => api.GET("/api/v1/imports", { signal })),
    retry: false,
  });

/** What would become of a file by what is chosen now. */
export function usePreview(draft: Draft, choices: Choices) {
  const asked = useDeferredValue(choices);
  return useQuery({
    queryKey: ["import", draft.id, asked],
    placeholderData: keepPreviousData,
    retry: false,
    queryFn: () =>
      answerOf(() =>
        api.POST("/api/v1/imports/{id}/preview", {
          params: { path: { id: draft.id } },
          body: asked,
          signal: AbortSignal.timeout(PATIENCE_MS),
        }),
      ),
  });
}

export interface Taking {
  /** Lines done and lines in all; nothing where none are being taken in. */
  progress: Schemas["ImportProgress"] | undefined;
  failure: string;
  take: (draft: Draft, choices: Choices, by: Schemas["PersonReference"]) => Promise<boolean>;
  /** Nothing of the file is kept then. */
  stop: () => void;
}

/** Takes a file in: wholly, or not at all. */
export function useTaking(): Taking {
  const client = useQueryClient();
  const [progress, setProgress] = useState<Schemas["ImportProgress"]>();
  const [running, setRunning] = useState<AbortController>();
  const [failure, setFailure] = useState("");
  const take: Taking["take"] = async (draft, choices, by) => {
    const controller = new AbortController();
    setRunning(controller);
    setFailure("");
    setProgress({ done: 0, of: 0 });
    const path = { path: { id: draft.id } };
    const asking = setInterval(() => {
      void api.GET("/api/v1/imports/{id}/progress", { params: path }).then(({ data }) => data?.of && setProgress(data));
    }, EVERY_MS);
    try {
      const command = { kind: "takeIn" as const, id: uuid(), importId: draft.id, choices, by };
      const { results } = await answerOf(() =>
        api.POST("/api/v1/commands", { body: { commands: [command] }, signal: controller.signal }),
      );
      const problem = results[0]?.problem;
      if (problem) throw new ProblemError(problem);
      await client.invalidateQueries();
      return true;
    } catch (error) {
      setFailure(
        controller.signal.aborted
          ? "Stopped: nothing of it was taken in."
          : error instanceof ProblemError
            ? `${error.problem.title} ${error.problem.detail}`
            : "The server didn’t answer to the end. Look below whether the file stands there; nothing of it is half kept.",
      );
      await client.invalidateQueries({ queryKey: IMPORTS });
      return false;
    } finally {
      clearInterval(asking);
      setProgress(undefined);
      setRunning(undefined);
    }
  };
  return { progress, failure, take, stop: () => running?.abort() };
}
