import { takenOver } from "~/core/inputs";
import { type ComputedStage, inputOf } from "~/core/method";
import type { ObservationKind } from "~/core/record";
import {
  askable,
  type HeldAgainst,
  heldNow,
  heldSymbol,
  methodOf,
  resultAskedFor,
  type RunRecord,
} from "~/core/run";
import { msg, type Phrase, withPoint } from "~/core/text";
import type { Localized } from "../../words/text";
import { statedNow, stating, type Step, type StepProblem } from "./in-order";

/* What a result is held against, as it is typed, and the changes that it comes to. */

/** What can be held against a result, as it is called at first. */
const kinds = [
  { key: "known", label: msg`Known value`, against: "value" },
  { key: "target", label: msg`Target`, against: "value" },
  { key: "at most", label: msg`Limit`, against: "limit" },
  { key: "at least", label: msg`Limit`, against: "limit" },
] as const;
type Kind = (typeof kinds)[number]["key"] | "nothing";

export const kindWords: Readonly<Record<Kind, Phrase>> = {
  nothing: msg`nothing but what the method says`,
  known: msg`a known value: percent error and recovery`,
  target: msg`a target`,
  "at most": msg`a limit: at most`,
  "at least": msg`a limit: at least`,
};

/** Tolerances that are usual, in percent. */
export const usualTolerances = ["1", "5", "10"];

/** What is typed of it. */
export interface HeldForm {
  readonly kind: Kind;
  readonly value: string;
  readonly plusMinus: string;
  readonly tolerance: string;
  readonly in: "percent" | "unit";
  /** Symbol of the result that is asked for; empty for the method's own. */
  readonly result: string;
}

/** The result of a stage that is asked for, as the form stands. */
export const resultAsked = (stage: ComputedStage, { result }: HeldForm) =>
  askable(stage).find(({ symbol }) => symbol === result) ?? stage.result;

/** What a stage is held against by choice, with the value that stands. */
export function formOf(record: RunRecord, stageKey: string): HeldForm {
  const stage = methodOf(record).stages.find(({ key }) => key === stageKey);
  const held = stage ? heldNow(stage) : null;
  const result = resultAskedFor(record, stageKey) ?? "";
  const symbol = stage ? heldSymbol(stage, result === "" ? undefined : result) : "";
  const text = (kind: ObservationKind) => statedNow(record, { stageKey, symbol }, kind)?.text ?? "";
  const kind: Kind =
    held === null
      ? "known"
      : held.against === "limit"
        ? held.bound
        : held.label === "Target"
          ? "target"
          : "known";
  return {
    kind,
    value: text("given"),
    plusMinus: text("given.plus-minus"),
    tolerance: held?.against === "value" ? held.tolerance : "5",
    in: held?.against === "value" ? held.in : "percent",
    result,
  };
}

/** What is chosen; nothing where it is nothing. */
export const kindOf = (form: HeldForm) => kinds.find(({ key }) => key === form.kind);

/** The stage that yields what a result is held against, where it is not stated; null where it is. */
export function yieldedBy({ method }: RunRecord, stage: ComputedStage): string | null {
  const input = inputOf(stage, heldSymbol(stage));
  const from = input ? takenOver(input)?.stage : undefined;
  return method.stages.find(({ key }) => key === from)?.title ?? null;
}

/** What is wrong with what was typed; null where nothing is. */
export function wrongIn(form: HeldForm, stated: boolean): StepProblem<keyof HeldForm> | null {
  const kind = kindOf(form);
  if (!kind) return null;
  if (stated && form.value.trim() === "") return { at: "value", message: msg`Type the value` };
  const tolerance = withPoint(form.tolerance.trim());
  const isNumber = /^\d+(\.\d+)?$/.test(tolerance) && Number(tolerance) > 0;
  return kind.against === "value" && tolerance !== "" && !isNumber
    ? { at: "tolerance", message: msg`Type a number above zero, or nothing` }
    : null;
}

/** What holds the result of a stage against what was typed, each with the field that it is about. */
export function stepsFor(
  record: RunRecord,
  stage: ComputedStage,
  form: HeldForm,
  say: Localized,
): readonly Step<keyof HeldForm>[] {
  const kind = kindOf(form);
  const stageKey = stage.key;
  const holds = (heldAgainst: HeldAgainst | null): Step<keyof HeldForm> => ({
    at: "kind",
    change: () => ({ intent: "hold-against", stageKey, heldAgainst }),
  });
  if (!kind) return [holds(null)];
  const label = inputOf(stage, heldSymbol(stage))?.label ?? say(kind.label);
  const asked = form.result === "" ? {} : { result: form.result };
  const held = holds(
    kind.against === "limit"
      ? { against: "limit", label, ...asked, bound: kind.key }
      : { against: "value", label, ...asked, tolerance: withPoint(form.tolerance.trim()), in: form.in },
  );
  if (yieldedBy(record, stage) !== null) return [held];
  const place = { stageKey, symbol: heldSymbol(stage, asked.result) };
  return [
    held,
    { at: "value", change: stating(place, "given", form.value) },
    { at: "plusMinus", change: stating(place, "given.plus-minus", form.plusMinus) },
  ];
}
