import type { UsedSolution } from "~/core/run";
import { sayWho, sayWhy } from "./answers";
import type { Valid } from "../formats/compile";
import { valid as validEdit } from "./compiled/edit-solution";
import { valid as validRequest } from "./compiled/shelf-request";
import type { AddSolution, EditSolution, MakeSolution } from "./shelf-schemas";
import { pathChecker } from "../formats/validate";
import { msg, type Phrase } from "~/core/text";

export type * from "./shelf-schemas";

/** What the shelf tells, and what the screens may ask of it. */

export type AmountUnit = "mL" | "g";

/** How a concentration, or a purity, is known. */
export type How = UsedSolution["how"];

/** One result of a run, before and after it was computed again. */
export interface ResultChange {
  readonly stage: string;
  readonly name: Phrase;
  readonly before: Phrase;
  readonly after: Phrase;
}

export interface AssignmentView {
  readonly id: string;
  readonly solutionId: string;
  readonly at: Date;
  readonly person: string;
  readonly how: How;
  readonly value: string;
  readonly plusMinus: string;
  readonly shape: "rectangular" | "normal";
  readonly unit: string;
  readonly runId: string | null;
  readonly runTitle: string | null;
  readonly stageKey: string | null;
}

export type SolutionState = "in use" | "past its date" | "used up";

export interface SolutionView {
  readonly id: string;
  /** What stands on its label: S-12. */
  readonly code: string;
  readonly form: "solution" | "solid";
  readonly formula: string;
  readonly name: string;
  readonly madeAt: Date;
  readonly madeBy: string;
  readonly amountMade: string | null;
  readonly amountLeft: string | null;
  readonly amountUnit: AmountUnit;
  /** A day: 2026-12-01. */
  readonly restandardizeBy: string | null;
  readonly state: SolutionState;
  readonly hazards: string;
  readonly note: string;
  readonly revision: number;
  /** The concentration that holds now; null where none has been given yet. */
  readonly current: AssignmentView | null;
}

/** What is wrong with a form, by field; `form` for what belongs to none. */
export type FormProblems = Readonly<Record<string, Phrase>>;

/** The fields of a form that a person fills in, and what to say where nothing is there. */
const fillIn: FormProblems = {
  person: sayWho,
  name: msg`Give it a name`,
  formula: msg`Give its formula`,
  reason: sayWhy,
};

function formChecker<T>(valid: Valid) {
  const problemsOf = pathChecker(valid);
  return (value: unknown): { value: T } | { problems: FormProblems } => {
    const found = problemsOf(value);
    if (found.length === 0) return { value: value as T };
    return {
      problems: Object.fromEntries(
        found.map(({ path, message }) => [
          path in fillIn ? path : "form",
          fillIn[path] ?? msg`${path}: ${message}`,
        ]),
      ),
    };
  };
}

export const checkShelfRequest = formChecker<AddSolution | MakeSolution>(validRequest);
export const checkEditSolution = formChecker<EditSolution>(validEdit);

/** What the shelf has to do with one run. */
export interface RunShelf {
  /** Bottles of the substances that the method names. */
  readonly bottles: readonly SolutionView[];
  /** What this run's stages have put on the shelf. */
  readonly shelved: readonly {
    readonly stageKey: string;
    readonly solutionId: string;
    readonly code: string;
    readonly name: string;
    readonly value: string;
    readonly unit: string;
  }[];
  /** Bottles that it used and that have been given another concentration since. */
  readonly newer: readonly {
    readonly code: string;
    readonly solutionId: string;
    readonly name: string;
    readonly unit: string;
    readonly was: string;
    readonly now: string;
  }[];
  readonly recomputations: readonly {
    readonly id: string;
    readonly at: Date;
    readonly person: string;
    readonly changes: readonly ResultChange[];
    readonly replaced: readonly string[];
  }[];
}

/** What stands on what, as the lineage picture draws it. */
export interface LineageGraph {
  readonly bottles: readonly { readonly bottle: SolutionView; readonly standsOn: readonly string[] }[];
  readonly runs: readonly {
    readonly id: string;
    readonly title: string;
    readonly sample: string;
    readonly at: Date;
    readonly result: Phrase | null;
    readonly standsOn: readonly string[];
  }[];
}

/** One line of what a bottle stands on, or of what depends on it. */
export interface Related {
  readonly id: string;
  readonly to: string;
  readonly title: string;
  readonly fact: Phrase;
}
