import { exact } from "../quantity";
import { cautionsOfInput } from "../inputs";
import {
  type Check,
  type Expected,
  glasswareTolerance,
  parseReading,
  pipettedBy,
  type Reading,
  sameReadingCheck,
  sizesMl,
  slipChecks,
} from "../measure";
import type { Field, Input } from "../inputs";
import type { ComputedStage } from "./schema";
import { inputOf } from "./method";
import {
  type Observation,
  type ObservationKind,
  presentObservation,
  type StageRecord,
  trialName,
  type TrialRecord,
} from "../record";
import { secondReadingChecks, startChecks, temperatureChecks } from "./practice";
import type { HouseRules } from "../rules";
import { trialWords } from "../text";
import { titerMayBeZero } from "./zero-titer";

export type FieldCheck =
  | { readonly ok: true; readonly value: number; readonly text: string; readonly cautions: readonly Check[] }
  | { readonly ok: false; readonly check: Check };

/** What else is known of the trial that a reading is checked against. */
export interface FieldContext {
  readonly stage: ComputedStage;
  readonly houseRules: HouseRules;
  /** The other readings of the same trial (or of the stage), as they stand. */
  readonly holder: Pick<TrialRecord | StageRecord, "observations">;
  /** Where the reading should come, by trials that were made before. */
  readonly expected?: Expected | null;
  /** Other trials of the stage, for readings that repeat to the last digit. */
  readonly others?: readonly Pick<TrialRecord, "observations" | "label" | "kind" | "number">[];
}

type Lookup = (kind: ObservationKind) => Observation | null;

const stop = (message: string, kind: Check["kind"]): FieldCheck => ({
  ok: false,
  check: { severity: "stop", message, ...(kind ? { kind } : {}) },
});

/** The two readings of a pair with the one that was just typed in its place; null while one is missing. */
function pair(
  kinds: readonly [ObservationKind, ObservationKind],
  typed: ObservationKind,
  value: number,
  read: Lookup,
): [number, number] | null {
  if (!kinds.includes(typed)) return null;
  const [first, second] = kinds.map((kind) => {
    const there = read(kind);
    return kind === typed ? value : there ? Number(there.value) : null;
  });
  return first == null || second == null ? null : [first, second];
}

/** Stops what cannot be: a burette that ran backwards, a boat that gained weight in the transfer. */
function orderProblem(stage: ComputedStage, field: Field, value: number, read: Lookup): FieldCheck | null {
  const input = inputOf(stage, field.symbol);
  const decimals = field.rules.decimals ?? 2;
  const burette = pair(["burette.initial", "burette.final"], field.kind, value, read);
  const nothing = burette && burette[1] === burette[0] && input?.is === "titer" && titerMayBeZero(stage);
  if (burette && burette[1] <= burette[0] && !nothing) {
    return stop(
      `The final reading ${burette[1].toFixed(decimals)} is not above the initial ${burette[0].toFixed(decimals)}: ` +
        "was the burette refilled, or are the two swapped?",
      "order",
    );
  }
  const start = field.kind === "burette.maybe" ? read("burette.initial") : null;
  if (start && value <= Number(start.value)) {
    return stop(`${value.toFixed(decimals)} is not beyond the start, ${start.text}`, "order");
  }
  const weighings = pair(["mass.before", "mass.after"], field.kind, value, read);
  if (!weighings) return null;
  const [before, after] = weighings;
  const [b, a] = [before.toFixed(decimals), after.toFixed(decimals)];
  const addition = input?.is === "mass" && input.weighing === "addition";
  if (before === after) {
    return stop(`Both weighings are ${b} g: nothing was ${addition ? "added" : "transferred"}`, "order");
  }
  if (addition && after < before) {
    return stop(`It weighs less with the sample (${a} g) than empty (${b} g): are the two swapped?`, "order");
  }
  if (!addition && after > before) {
    return stop(
      `It weighs more after the transfer (${a} g) than before (${b} g): are the two swapped?`,
      "order",
    );
  }
  return null;
}

/** What lets a reading pass but should be known: a mass outside its window, glass of no standard size, a likely slip. */
function cautionsOf(field: Field, text: string, context: FieldContext, read: Lookup): Check[] {
  const { stage, houseRules, expected = null, others = [] } = context;
  const input = inputOf(stage, field.symbol);
  const decimals = field.rules.decimals ?? 2;
  const value = Number(text);
  const cautions: Check[] = [];
  const weighings = pair(["mass.before", "mass.after"], field.kind, value, read);
  if (weighings) cautions.push(...massChecks(input, Math.abs(weighings[0] - weighings[1]), houseRules));
  if (field.kind === "mass.tared") cautions.push(...massChecks(input, value, houseRules));
  cautions.push(...practiceChecks(field, text, context, read));
  const burette = pair(["burette.initial", "burette.final"], field.kind, value, read);
  if (burette && burette[0] === burette[1]) {
    cautions.push({
      severity: "caution",
      kind: "zero",
      message: `Both readings are ${text}: no titrant was used. Is that so, as for a blank?`,
    });
  }
  if (field.kind === "volume.taken") cautions.push(...glassChecks(input, text, houseRules));
  if ((field.kind === "absorbance" || field.kind === "absorbance.again") && value < -0.005) {
    cautions.push({
      severity: "caution",
      kind: "scale",
      message: `${text} is below zero: zero on the blank again?`,
    });
  }
  cautions.push(...slipChecks(text, field.unit, decimals, expected));
  // Equal titers from zero are common; equal masses, or equal end readings after unequal starts, are not.
  const told = others.flatMap((other) => {
    const twin = presentObservation(other.observations, field.symbol, field.kind);
    const start = presentObservation(other.observations, field.symbol, "burette.initial");
    if (!twin || (field.kind === "burette.final" && start?.text === read("burette.initial")?.text)) return [];
    return [{ name: trialWords(trialName(other)), text: twin.text }];
  });
  if (field.kind === "mass.before" || field.kind === "mass.tared" || field.kind === "burette.final") {
    cautions.push(...sameReadingCheck(text, field.unit, told));
  }
  return cautions;
}

/** The size of standard glass nearest to a volume, written as that was. */
function nearestSize(kind: "pipette" | "flask", text: string): string {
  const value = Number(text);
  const [nearest = value] = [...sizesMl(kind)].sort((a, b) => Math.abs(a - value) - Math.abs(b - value));
  return nearest.toFixed(text.split(".")[1]?.length ?? 0);
}

/** A volume that no one-mark pipette or flask has: what was probably taken, how else it can be measured, and how it is counted. */
function glassChecks(input: Input | undefined, text: string, { glassware }: HouseRules): Check[] {
  const value = Number(text);
  if (!(value > 0)) return [];
  const caution = { severity: "caution", kind: "glass" } as const;
  if (input?.is === "flask") {
    const { standardSize, capacityMl } = glasswareTolerance("flask", value, glassware.toleranceClass);
    const proposal = nearestSize("flask", text);
    return standardSize
      ? []
      : [
          {
            ...caution,
            proposal,
            message: `No volumetric flask holds ${text} mL: is ${proposal} meant? Kept, it has the tolerance of a ${capacityMl} mL flask.`,
          },
        ];
  }
  if (input?.is !== "pipette") return [];
  const by = pipettedBy(value);
  if ("pipettes" in by) {
    const [larger, smaller] = by.pipettes;
    return smaller === undefined
      ? []
      : [
          {
            ...caution,
            message: `No pipette holds ${text} mL: was it taken with two, ${larger} and ${smaller} mL?`,
          },
        ];
  }
  const proposal = nearestSize("pipette", text);
  const glass = by.kind === "cylinder" ? "measuring cylinder" : by.kind;
  return [
    {
      ...caution,
      proposal,
      message:
        `No one-mark pipette holds ${text} mL: is ${proposal} meant? A burette, a graduated pipette or a cylinder measures it; ` +
        `kept, it has the tolerance of a ${by.capacityMl} mL ${glass}.`,
    },
  ];
}

/** What the house and the method ask of the way it is done. */
function practiceChecks({ kind }: Field, text: string, context: FieldContext, read: Lookup): Check[] {
  const { stage, houseRules } = context;
  const first = {
    "burette.initial.again": "burette.initial",
    "burette.final.again": "burette.final",
  } as const;
  if (kind === "burette.initial") return startChecks(houseRules, text);
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
  const text = typed.trim().replace(",", ".");
  const decimals = field.rules.decimals ?? 2;
  // Nobody reads an absorbance of 62: it is what the other scale of the display shows.
  const otherScale = field.kind.startsWith("absorbance") && check.kind === "scale" && Number(text) > 0;
  if (otherScale) return stop(`${check.message}. Is it a transmittance in percent?`, "scale");
  const slip = check.kind === "scale" ? slipChecks(text, field.unit, decimals, expected)[0] : undefined;
  return {
    ok: false,
    check: slip?.proposal === undefined ? check : { ...slip, severity: "stop" },
  };
}

/**
 * Checks what was typed into a field: by itself first, then against the trial's other readings, so that a final reading
 * lies beyond the initial one and a boat weighs less after the transfer, then against what was expected. Cautions let it
 * pass.
 */
export function checkField(field: Field, typed: string, context: FieldContext): FieldCheck {
  const reading: Reading = parseReading(typed, field.rules);
  if (!reading.ok) return withLikelyMeaning(reading.check, field, typed, context);
  const { value, text } = reading;
  const read: Lookup = (kind) => presentObservation(context.holder.observations, field.symbol, kind);
  const problem = orderProblem(context.stage, field, value, read);
  return problem ?? { ok: true, value, text, cautions: cautionsOf(field, text, context, read) };
}

/** What should be known of a mass, g. */
const massChecks = (input: Input | undefined, massG: number, rules: HouseRules): Check[] =>
  input ? cautionsOfInput(input, exact(massG, "g"), rules) : [];
