import type { Check, ReadingRules } from "../measure";
import { glasswareTolerance, parseReading, type Reading } from "../measure";
import { type Input, inputOf, type TitrationStage } from "./method";
import { type ObservationKind, presentObservation, type StageRecord, type TrialRecord } from "./record";
import { type HouseRules, massDecimals } from "./rules";

/** One thing to read, in the order of the work. */
export interface Field {
  readonly symbol: string;
  readonly kind: ObservationKind;
  readonly label: string;
  readonly unit: string;
  /** How to read it, in a few words. */
  readonly hint: string;
  readonly rules: ReadingRules;
}

export const fieldKey = ({ symbol, kind }: Pick<Field, "symbol" | "kind">) => `${symbol}:${kind}`;

function fieldsOf(input: Input, stage: TitrationStage, rules: HouseRules): Field[] {
  const { symbol } = input;
  switch (input.is) {
    case "mass": {
      const reading: ReadingRules = {
        instrument: "The balance",
        unit: "g",
        decimals: massDecimals(rules),
        least: 0,
      };
      const hint = `${massDecimals(rules)} decimals`;
      return [
        { symbol, kind: "mass.before", label: input.before, unit: "g", hint, rules: reading },
        { symbol, kind: "mass.after", label: input.after, unit: "g", hint, rules: reading },
      ];
    }
    case "pipette":
      return [
        {
          symbol,
          kind: "volume.taken",
          label: input.label,
          unit: "mL",
          hint: `class ${rules.glassware.toleranceClass} pipette`,
          rules: { instrument: "The pipette", unit: "mL", decimals: null, aboveZero: true, most: 100 },
        },
      ];
    case "titer": {
      const { decimals, capacityMl } = rules.burette;
      const words = ["", "one decimal", "two decimals", "three decimals"][decimals] ?? `${decimals} decimals`;
      const reading = {
        instrument: "The burette",
        unit: "mL",
        decimals,
        least: 0,
        most: capacityMl,
      };
      const hint = `${words}, ${stage.meniscus} of the meniscus`;
      return [
        { symbol, kind: "burette.initial", label: "Initial reading", unit: "mL", hint, rules: reading },
        { symbol, kind: "burette.final", label: "Final reading", unit: "mL", hint, rules: reading },
      ];
    }
    case "purity":
      return [
        {
          symbol,
          kind: "purity",
          label: input.label,
          unit: "%",
          hint: "from the label of the bottle",
          rules: { instrument: "The label", unit: "%", decimals: null, aboveZero: true, most: 100 },
        },
        {
          symbol,
          kind: "purity.plus-minus",
          label: "give or take",
          unit: "%",
          hint: "half the width",
          rules: { instrument: "The label", unit: "%", decimals: null, least: 0, most: 10 },
        },
      ];
    case "result":
      return [];
  }
}

/** What is read in each trial of a stage, in the order of the work: weigh or take, then titrate. */
export function trialFields(stage: TitrationStage, rules: HouseRules): Field[] {
  return stage.inputs
    .filter((input) => input.per === "trial")
    .flatMap((input) => fieldsOf(input, stage, rules));
}

/** What is read once for a stage. */
export function stageFields(stage: TitrationStage, rules: HouseRules): Field[] {
  return stage.inputs
    .filter((input) => input.per === "run")
    .flatMap((input) => fieldsOf(input, stage, rules));
}

export type FieldCheck =
  | { readonly ok: true; readonly value: number; readonly text: string; readonly cautions: readonly Check[] }
  | { readonly ok: false; readonly check: Check };

/** What else is known of the trial that a reading is checked against. */
export interface FieldContext {
  readonly stage: TitrationStage;
  readonly houseRules: HouseRules;
  /** The other readings of the same trial (or of the stage), as they stand. */
  readonly holder: Pick<TrialRecord | StageRecord, "observations">;
}

const stop = (message: string): FieldCheck => ({ ok: false, check: { severity: "stop", message } });

/**
 * Checks what was typed into a field: by itself first, then against the trial's other readings, so that a final reading
 * lies beyond the initial one and a boat weighs less after the transfer. Cautions let it pass.
 */
export function checkField(field: Field, typed: string, context: FieldContext): FieldCheck {
  const reading: Reading = parseReading(typed, field.rules);
  if (!reading.ok) return reading;
  const { value, text } = reading;
  const other = (kind: ObservationKind): number | null => {
    const found = presentObservation(context.holder.observations, field.symbol, kind);
    return found ? Number(found.value) : null;
  };
  const cautions: Check[] = [];
  const [initial, final] = pairOf(field.kind, value, other);
  const decimals = field.rules.decimals ?? 2;
  if (initial !== null && final !== null && final <= initial) {
    return stop(
      `The final reading ${final.toFixed(decimals)} is not above the initial ${initial.toFixed(decimals)}: ` +
        "was the burette refilled, or are the two swapped?",
    );
  }
  const [before, after] = weighingsOf(field.kind, value, other);
  if (before !== null && after !== null) {
    const [b, a] = [before.toFixed(decimals), after.toFixed(decimals)];
    if (after > before)
      return stop(`It weighs more after the transfer (${a} g) than before (${b} g): are the two swapped?`);
    if (after === before) return stop(`Both weighings are ${b} g: nothing was transferred`);
    cautions.push(...massCautions(inputOf(context.stage, field.symbol), before - after, decimals));
  }
  if (field.kind === "volume.taken") {
    const { standardSize, capacityMl } = glasswareTolerance(
      "pipette",
      value,
      context.houseRules.glassware.toleranceClass,
    );
    if (!standardSize) {
      cautions.push({
        severity: "caution",
        message: `No one-mark pipette holds ${text} mL: the tolerance of a ${capacityMl} mL one is used`,
      });
    }
  }
  return { ok: true, value, text, cautions };
}

type Lookup = (kind: ObservationKind) => number | null;

function pairOf(kind: ObservationKind, value: number, other: Lookup): [number | null, number | null] {
  if (kind === "burette.final") return [other("burette.initial"), value];
  if (kind === "burette.initial") return [value, other("burette.final")];
  return [null, null];
}

function weighingsOf(kind: ObservationKind, value: number, other: Lookup): [number | null, number | null] {
  if (kind === "mass.after") return [other("mass.before"), value];
  if (kind === "mass.before") return [value, other("mass.after")];
  return [null, null];
}

/** Cautions about a mass outside the method's window: it can be used, but it should be known. */
export function massCautions(input: Input | undefined, massG: number, decimals: number): Check[] {
  if (input?.is !== "mass" || !input.expect) return [];
  const [low, high] = input.expect;
  if (massG >= low && massG <= high) return [];
  return [
    {
      severity: "caution",
      message:
        `${massG.toFixed(decimals)} g is ${massG < low ? "below" : "above"} the ${low} to ${high} g that this method ` +
        "asks for: it can be used, the titer will be unusual",
    },
  ];
}
