import { type Phrase, msg, inEnglish } from "./text";

/** A domain error: a value with a message for people; where text was read, the position it speaks of, and how to mend it. */
export interface Problem {
  readonly message: Phrase;
  readonly position?: number;
  /** What to write instead, where that can be guessed. */
  readonly hint?: Phrase;
}

/** A value, or what is wrong instead of one. */
export type Result<T, P = Problem> =
  { readonly ok: true; readonly value: T } | { readonly ok: false; readonly problem: P };

export const success = <T>(value: T): { readonly ok: true; readonly value: T } => ({ ok: true, value });

export const failure = (
  message: Phrase,
  position?: number,
  hint?: Phrase,
): { readonly ok: false; readonly problem: Problem } => ({
  ok: false,
  problem: {
    message,
    ...(position === undefined ? {} : { position }),
    ...(hint === undefined ? {} : { hint }),
  },
});

/** A problem in one sentence or two: what is wrong, then how to mend it. */
export const problemText = ({ message, hint }: Problem): Phrase =>
  hint === undefined ? message : msg`${message}. ${hint}`;

const bugWords = (problem: unknown): string => {
  if (typeof problem === "string") return problem;
  const named = problem as { readonly message?: unknown } | null;
  return named?.message === undefined ? JSON.stringify(problem) : inEnglish(named.message as Phrase);
};

/** What was taken for impossible has happened: a fault of the program, not of what somebody typed. */
export class Bug extends Error {
  constructor(readonly problem: unknown) {
    super(bugWords(problem));
    this.name = "Bug";
  }
}

/** The value, or an exception: for data that was checked before, where a problem is a bug. */
export function mustHold<T>(result: Result<T, unknown>): T {
  if (!result.ok) throw new Bug(result.problem);
  return result.value;
}
