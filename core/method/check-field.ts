import { type Result, success } from "../result";
import { withPoint, msg, type Phrase } from "../text";
import { checksOfInput, type Field, pointBurette } from "../inputs";
import {
  type Check,
  type Expected,
  type NumberRead,
  parseReading,
  type CheckedReading,
  sameReadingCheck,
  slipChecks,
} from "../measure";
import type { ComputedStage, Method } from "./schema";
import { fromNormality } from "./normality";
import { inputOf } from "./method";
import {
  type CurvePlace,
  type Observation,
  type ObservationKind,
  presentObservation,
  type StageRecord,
  type TrialRecord,
  trialWords,
} from "../record";
import { secondReadingChecks, startChecks, temperatureChecks } from "./practice";
import type { HouseRules } from "../rules";
import { titerMayBeZero } from "./zero-titer";

/** What a field takes, with what should be known of it; or why it does not. */
export type FieldCheck = Result<NumberRead & { readonly cautions: readonly Check[] }, Check>;

/** What else is known of the trial that a reading is checked against. */
export interface FieldContext {
  readonly stage: ComputedStage;
  readonly houseRules: HouseRules;
  /** The method, for what is typed as a normality; left out where nobody types. */
  readonly method?: Method;
  /** The other readings of the same trial (or of the stage), as they stand. */
  readonly holder: Pick<TrialRecord | StageRecord, "observations">;
  /** Where it is read, for a point of a titration curve. */
  readonly place?: CurvePlace;
  /** The expected reading, from earlier trials. */
  readonly expected?: Expected | null;
  /** Other trials of the stage, for readings that repeat to the last digit. */
  readonly others?: readonly Pick<TrialRecord, "observations" | "label" | "kind" | "number">[];
}

type Lookup = (kind: ObservationKind) => Observation | null;

const stop = (message: Phrase, kind: Check["kind"]): FieldCheck => ({
  ok: false,
  problem: { severity: "stop", message, ...(kind ? { kind } : {}) },
});

/** What lets a reading pass but should be known of the way it was done, or is a likely slip. */
function cautionsOf(field: Field, text: string, context: FieldContext, read: Lookup): Check[] {
  const { expected = null, others = [] } = context;
  const decimals = field.rules.decimals ?? 2;
  const cautions = [
    ...practiceChecks(field, text, context, read),
    ...slipChecks(text, field.unit, decimals, expected),
  ];
  // Equal titers from zero are common; equal masses, or equal end readings after unequal starts, are not.
  const twins = others.flatMap((other) => {
    const twin = presentObservation(other.observations, field.symbol, field.kind);
    const start = presentObservation(other.observations, field.symbol, "burette.initial");
    if (!twin || (field.kind === "burette.final" && start?.text === read("burette.initial")?.text)) return [];
    return [{ name: trialWords(other), text: twin.text }];
  });
  if (field.kind === "mass.before" || field.kind === "mass.tared" || field.kind === "burette.final") {
    cautions.push(...sameReadingCheck(text, field.unit, twins));
  }
  return cautions;
}

/** What the house and the method ask of the way it is done. */
function practiceChecks({ kind }: Field, text: string, context: FieldContext, read: Lookup): Check[] {
  const { stage, houseRules } = context;
  const first = {
    "burette.initial.again": "burette.initial",
    "burette.final.again": "burette.final",
  } as const;
  if (kind === "burette.initial" || kind === "burette.after-refill") return startChecks(houseRules, text);
  if (kind === "temperature.flask") return temperatureChecks(stage, Number(text));
  if (kind !== "burette.initial.again" && kind !== "burette.final.again") return [];
  const before = read(first[kind]);
  return before ? secondReadingChecks(houseRules, before.text, text) : [];
}

/** A reading beyond the scale is refused; where it looks like a slip, what was probably meant is proposed with it. */
function withLikelyMeaning(
  check: Check,
  field: Field,
  typed: string,
  { expected = null }: FieldContext,
): FieldCheck {
  const text = withPoint(typed);
  const decimals = field.rules.decimals ?? 2;
  // Nobody reads an absorbance of 62: it is what the other scale of the display shows.
  const otherScale = field.kind.startsWith("absorbance") && check.kind === "scale" && Number(text) > 0;
  if (otherScale) return stop(msg`${check.message}. Is it a transmittance in percent?`, "scale");
  const slip = check.kind === "scale" ? slipChecks(text, field.unit, decimals, expected)[0] : undefined;
  return {
    ok: false,
    problem: slip?.proposal === undefined ? check : { ...slip, severity: "stop" },
  };
}

/** What a concentration typed as "0.1 N" is in mol/L, which is proposed; null for what is no normality. */
function normalityOf({ unit, symbol }: Field, typed: string, { method, stage }: FieldContext) {
  if (!method || unit !== "mol/L") return null;
  const input = inputOf(stage, symbol);
  return input && "of" in input && input.of !== undefined ? fromNormality(typed, input.of, method) : null;
}

/** What is wrong with where a point was read: it is a reading of the burette. */
function wrongPlace({ kind, symbol }: Field, { place, stage, houseRules }: FieldContext): Check | null {
  const input = inputOf(stage, symbol);
  if (kind !== "point" || input?.is !== "curve") return null;
  if (!place) return { severity: "stop", message: msg`A point of a curve needs the reading of the burette` };
  // A file may be finer than the eye, or coarser: how many decimals a hand writes is looked at where it types.
  const { step: _, ...rules } = pointBurette(input, houseRules).rules;
  const read = parseReading(place.burette, { ...rules, decimals: null });
  return read.ok ? null : read.problem;
}

/**
 * Checks what was typed into a field: by itself first, then against the trial's other readings, so that a final reading
 * lies beyond the initial one and a boat weighs less after the transfer, then against what was expected. Cautions let it
 * pass.
 */
export function checkField(field: Field, typed: string, context: FieldContext): FieldCheck {
  const normal = normalityOf(field, typed, context);
  if (normal) return { ok: false, problem: { severity: "stop", ...normal } };
  const reading: CheckedReading = parseReading(typed, field.rules);
  if (!reading.ok) return withLikelyMeaning(reading.problem, field, typed, context);
  const misplaced = wrongPlace(field, context);
  if (misplaced) return { ok: false, problem: misplaced };
  const { value, text } = reading.value;
  const read: Lookup = (kind) => presentObservation(context.holder.observations, field.symbol, kind);
  const { stage, houseRules } = context;
  const input = inputOf(stage, field.symbol);
  const beside = (kind: ObservationKind) => {
    const there = read(kind);
    const place = there?.point ? { place: there.point } : {};
    return there && { value: Number(there.value), text: there.text, ...place };
  };
  const own = input
    ? checksOfInput(input, {
        ...{ kind: field.kind, value, text, decimals: field.rules.decimals ?? 2, beside },
        ...{ rules: houseRules, mayBeZero: input.is === "titer" && titerMayBeZero(stage) },
        ...(context.place ? { place: context.place } : {}),
      })
    : [];
  const wrong = own.find(({ severity }) => severity === "stop");
  if (wrong) return { ok: false, problem: wrong };
  return success({ value, text, cautions: [...own, ...cautionsOf(field, text, context, read)] });
}
