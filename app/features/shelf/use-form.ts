import { useState } from "react";
import type { FormProblems } from "~/protocol/shelf";
import { type Phrase } from "~/core/text";

export interface FormField {
  readonly name: string;
  readonly value: string;
  readonly problem: Phrase | undefined;
  readonly change: (value: string) => void;
}

export interface FormState {
  readonly values: Readonly<Record<string, string>>;
  readonly field: (name: string, problem?: Phrase) => FormField;
  readonly set: (changes: Readonly<Record<string, string>>) => void;
}

/** Texts of a form by name; what the server found wrong stands by its field until that is changed. */
export function useFormState(initial: Readonly<Record<string, string>>, problems: FormProblems): FormState {
  const [values, setValues] = useState(initial);
  const [changedSince, setChangedSince] = useState<{ problems: FormProblems; names: readonly string[] }>({
    problems,
    names: [],
  });
  const mended = changedSince.problems === problems ? changedSince.names : [];
  const set = (changes: Readonly<Record<string, string>>) => {
    setValues((before) => ({ ...before, ...changes }));
    setChangedSince({ problems, names: [...mended, ...Object.keys(changes)] });
  };
  return {
    values,
    set,
    field: (name, problem) => ({
      name,
      value: values[name] ?? "",
      problem: problem ?? (mended.includes(name) ? undefined : problems[name]),
      change: (value) => set({ [name]: value }),
    }),
  };
}
