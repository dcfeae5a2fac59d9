/** What is wrong with what was sent, where the database found it and no check before: a status and a sentence. */
export interface Refusal {
  readonly status: "malformed" | "conflict" | "missing";
  readonly message: string;
}

/** By the classes of PostgreSQL's error codes (manual, appendix A). */
const refusals: readonly (readonly [code: RegExp, refusal: Refusal])[] = [
  [/^23505$/, { status: "conflict", message: "An id in this request is in use already, for something else" }],
  [/^23503$/, { status: "missing", message: "This request names something that is not there" }],
  [/^22003$/, { status: "malformed", message: "A number in this request is too large to be kept" }],
  [/^2200[78]$/, { status: "malformed", message: "A day or a time in this request does not exist" }],
  [/^22/, { status: "malformed", message: "Something in this request cannot be kept" }],
];

/** What the client did wrong, where that is what a database error is about; null for any other error. */
export function refusalOf(error: unknown): Refusal | null {
  for (let e = error; e instanceof Error; e = e.cause) {
    const { code } = e as { code?: unknown };
    const found = typeof code === "string" && refusals.find(([pattern]) => pattern.test(code));
    if (found) return found[1];
  }
  return null;
}
