import { useState } from "react";
import type { Problem } from "../../api/client";

/** What is wrong with a form: found here, or said by the server. */
export type Wrong = Pick<Problem, "title" | "detail" | "field">;

/**
 * The problem of a form and where it stands: `at` gives a field its error and its words, `elsewhere` is a problem of none of the form's fields.
 */
export function useProblem(fields: string[]) {
  const [problem, setProblem] = useState<Wrong>();
  const words = problem && `✕ ${problem.title} ${problem.detail}`.trim();
  const isAt = (field: string) => problem?.field === field || problem?.field.startsWith(`${field}.`);
  return {
    setProblem,
    /** Says that something is missing or can't be so. */
    miss: (field: string, title: string) => setProblem({ field, title, detail: "" }),
    clear: () => setProblem(undefined),
    at: (field: string) => (isAt(field) ? { error: true, helperText: words } : {}),
    elsewhere: problem && !fields.some(isAt) ? words : undefined,
  };
}
