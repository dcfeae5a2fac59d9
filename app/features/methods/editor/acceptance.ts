import { withPoint } from "~/core/text";
import type { StageDraft } from "./draft-types";
import type { Row } from "./row";

/* What a result is held against, as the editor writes it. */

type Accept = NonNullable<StageDraft["accept"]>;
export type AcceptValue = Extract<Accept, { against: "value" }>;

export type Against = "nothing" | "value" | "at most" | "at least";

export const against = (accept: StageDraft["accept"]): Against =>
  accept === undefined ? "nothing" : accept.against === "value" ? "value" : accept.bound;

/** What a stage states, or takes over, and a result can be held against. */
export const acceptedIn = ({ inputs }: StageDraft): readonly Row[] =>
  inputs.filter(({ is, symbol }) => (is === "given" || is === "result") && (symbol ?? "") !== "");

const labels = { value: "Known value", "at most": "Limit", "at least": "Limit" } as const;

/**
 * A stage whose result is held against something of a kind. Where nothing is stated in the unit of its result yet, a reading for it is
 * added, that can be left out in a run.
 */
export function withAcceptance(stage: StageDraft, kind: Against): Partial<StageDraft> {
  if (kind === "nothing") return { accept: undefined };
  const unit = stage.results[0]?.unit ?? "1";
  const there = acceptedIn(stage);
  const own = there.find(({ symbol }) => symbol === stage.accept?.symbol);
  const stated =
    own ?? there.find((row) => row.is === "given" && row.optional === "yes" && row.unit === unit);
  const symbol = stated?.symbol ?? "ref";
  const row: Row = {
    ...{ is: "given", symbol, label: labels[kind], unit, per: "run", optional: "yes" },
  };
  const accept: Accept =
    kind === "value"
      ? { against: "value", symbol, whenOff: "tell" }
      : { against: "limit", symbol, bound: kind };
  return { accept, ...(stated ? {} : { inputs: [...stage.inputs, row] }) };
}

/** What is allowed, in percent or in the unit of the result; nothing where no number above zero is typed. */
export function withTolerance(accept: AcceptValue, typed: string, absolute: boolean): AcceptValue {
  const { tolerancePercent: _p, toleranceAbsolute: _a, ...rest } = accept;
  const number = Number(withPoint(typed.trim() || "NaN"));
  if (!(number > 0)) return rest;
  return absolute ? { ...rest, toleranceAbsolute: number } : { ...rest, tolerancePercent: number };
}
