/** A domain error: a value with a message for people and, where text was read, the position it speaks of. */
export interface Problem {
  readonly message: string;
  readonly position?: number;
}

export type Result<T> =
  { readonly ok: true; readonly value: T } | { readonly ok: false; readonly problem: Problem };

export const success = <T>(value: T): Result<T> => ({ ok: true, value });

export const failure = (message: string, position?: number): { ok: false; problem: Problem } => ({
  ok: false,
  problem: position === undefined ? { message } : { message, position },
});

/** The value, or an exception: for data that was checked before, where a problem is a bug. */
export function mustHold<T>(result: Result<T>): T {
  if (!result.ok) throw new Error(result.problem.message);
  return result.value;
}
