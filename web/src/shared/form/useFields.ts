import type { ReactNode } from "react";
import { useForm, useWatch, type DefaultValues, type FieldValues, type Path, type PathValue } from "react-hook-form";
import type { Wrong } from "./useProblem";

interface Rules<T> {
  /** What is said where it is left empty; left out: it may be. */
  required?: string;
  /** What is wrong with it, in words; nothing where it can be so. */
  check?: (value: string, all: T) => string | undefined;
  /** What stands below it while nothing is wrong. */
  help?: ReactNode;
}

/**
 * The typed fields of a form: `field` gives a text field its value, its rules and the words of what is wrong with it; the first that is
 * wrong gets the focus. What the server refuses stands at its field too, by the name that it has there.
 */
export function useFields<T extends FieldValues>(start: T, named: Partial<Record<string, Path<T>>> = {}) {
  const { control, register, setValue, setError, handleSubmit, formState } = useForm<T>({
    defaultValues: start as DefaultValues<T>,
  });
  const values = useWatch({ control }) as T;
  const field = (name: Path<T>, { required, check, help }: Rules<T> = {}) => {
    const { ref, ...rest } = register(name, {
      validate: (value: string, all: T) =>
        required !== undefined && !value.trim() ? required : (check?.(value, all) ?? true),
    });
    const wrong = formState.errors[name]?.message;
    return {
      ...rest,
      inputRef: ref,
      required: required !== undefined,
      value: values[name] as string,
      error: wrong !== undefined,
      helperText: typeof wrong === "string" ? `✕ ${wrong}` : help,
    };
  };
  return {
    values,
    field,
    set: (part: Partial<T>) => {
      for (const [name, value] of Object.entries(part)) setValue(name as Path<T>, value as PathValue<T, Path<T>>);
    },
    /** Says what is wrong, at its field or, where it is of none, of the form. */
    refuse: ({ field: at, title, detail }: Wrong) => {
      const of = Object.keys(named).find((it) => at === it || at.startsWith(`${it}.`));
      const name = of === undefined ? (at in start ? (at as Path<T>) : undefined) : named[of];
      setError(name ?? "root", { message: `${title} ${detail}`.trim() }, { shouldFocus: true });
    },
    elsewhere: formState.errors.root?.message,
    submit: (send: (values: T) => Promise<void>) => handleSubmit(send),
  };
}

/** A number as it is typed, with a comma or a point; undefined where nothing stands there, NaN where it is none. */
export const numberOf = (text: string) => (text.trim() === "" ? undefined : Number(text.trim().replace(",", ".")));

/** A rule for numbers: says the words where what is typed is none. */
export const isNumber = (words: string) => (text: string) => (Number.isNaN(numberOf(text)) ? words : undefined);
