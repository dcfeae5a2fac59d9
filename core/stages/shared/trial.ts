import {
  type Quantity,
  type Significant,
  unitOf,
  scaled,
  standardUncertainty,
  isMeasurable,
} from "../../quantity";
import {
  type Observation,
  presentObservation,
  type StageRecord,
  type TrialRecord,
  trialName,
  trialWords,
} from "../../record";
import {
  type Read,
  presumedOf,
  type Input,
  takenOver,
  figuresOfInput,
  isPhotometric,
  quantityOfInput,
  isOptional,
  cautionsOfInput,
  type Field,
} from "../../inputs";
import {
  type ComputedStage,
  perOf,
  type Method,
  unitOfInput,
  fieldKey,
  stageFields,
  trialFields,
} from "../../method";
import { type CompiledStage, type CompiledMethod } from "../compiled";
import type { HouseRules } from "../../rules";
import type { MeasuredAt, Check } from "../../measure";
import type { FieldState, TrialEvaluation } from "./evaluation";
import { uncapitalized, msg, type Phrase, joined } from "../../text";
import { evaluateRelations, significanceOf } from "../../relation";
import { showQuantity } from "./show";

/** The quantities of earlier stages' results, by stage and by symbol. */
export type Earlier = ReadonlyMap<string, ReadonlyMap<string, EarlierResult>>;

export interface EarlierResult {
  readonly quantity: Quantity;
  readonly significant?: Significant;
}

const reader =
  (observations: readonly Observation[], symbol: string): Read =>
  (kind) => {
    const present = presentObservation(observations, symbol, kind);
    return present ? Number(present.value) : null;
  };

/** Symbols with their quantities and, where the house counts them, their significant figures. */
export interface KnownQuantities {
  readonly quantities: Map<string, Quantity>;
  readonly significance: Map<string, Significant>;
  /** Volumes that all trials use and that nobody has confirmed: until someone does, no trial of an open run counts. */
  readonly unconfirmed?: readonly Unconfirmed[];
  /** Why nothing is computed in this stage, though its readings are shown: an evaluation of it failed. */
  readonly suspended?: Phrase;
}

/** A volume that is only presumed, as the method has it. */
export interface Unconfirmed {
  readonly symbol: string;
  readonly label: Phrase;
  readonly text: string;
}

/** What is asked before anything rests on presumed volumes, in words. */
export const confirmWords = (unconfirmed: readonly Unconfirmed[]): Phrase =>
  msg`${joined(
    unconfirmed.map(({ label, text }) => msg`${label}: ${text} mL is presumed`),
    "; ",
  )}. Confirm ${unconfirmed.length === 1 ? msg`it` : msg`them`}, or type what was used`;

/** The volumes of a stage that are taken once, presumed by its method, and neither typed nor confirmed. */
export function unconfirmedVolumes(
  { inputs }: ComputedStage,
  observations: readonly Observation[],
): Unconfirmed[] {
  return inputs.flatMap((input) => {
    if (perOf(input) !== "run") return [];
    const text = presumedOf(input)["volume.taken"];
    const typed = presentObservation(observations, input.symbol, "volume.taken");
    return text === undefined || typed ? [] : [{ symbol: input.symbol, label: input.label, text }];
  });
}

/** The result of an earlier stage that an input takes over. */
function earlierOf(input: Input, method: Method, earlier: Earlier): EarlierResult | undefined {
  const taken = takenOver(input);
  if (!taken || taken.readBy !== undefined) return undefined;
  const main = method.stages.find((s) => s.key === taken.stage)?.result.symbol ?? "";
  return earlier.get(taken.stage)?.get(taken.result ?? main);
}

/** Figures of what was typed for an input, in base units. */
function typedFigures(
  input: Input,
  observations: readonly Observation[],
  method: Method,
  value: number,
): Significant {
  const { factor } = unitOf(unitOfInput(input, method));
  const text = (kind: Observation["kind"]) =>
    presentObservation(observations, input.symbol, kind)?.value ?? null;
  return scaled(figuresOfInput(input, text, value / factor), factor);
}

export interface ReadingPlace {
  readonly method: Method;
  readonly rules: HouseRules;
  readonly place: MeasuredAt;
}

/** Adds what readings say of the inputs that are read here, trial or stage; true when none is missing. */
function readInputs(
  inputs: readonly Input[],
  observations: readonly Observation[],
  known: KnownQuantities,
  { method, rules, place }: ReadingPlace,
): boolean {
  let whole = true;
  for (const input of inputs) {
    if (isPhotometric(input)) continue;
    const quantity = quantityOfInput(input, reader(observations, input.symbol), place, rules);
    if (!quantity) {
      whole = whole && isOptional(input);
      continue;
    }
    known.quantities.set(input.symbol, quantity);
    if (rules.digits === "significant-figures") {
      known.significance.set(input.symbol, typedFigures(input, observations, method, quantity.value));
    }
  }
  return whole;
}

/** How a stage is read: by which rules, whether its run goes on, and why nothing is computed where an evaluation failed. */
export interface StageReading {
  readonly rules: HouseRules;
  readonly open: boolean;
  readonly suspended?: Phrase;
}

/** Readings of the whole stage and results of earlier ones, by symbol. */
export function stageInputs(
  { definition }: CompiledStage,
  record: StageRecord,
  earlier: Earlier,
  { method, rules, open, suspended }: StageReading & { readonly method: Method },
): KnownQuantities {
  const known: KnownQuantities = {
    quantities: new Map(),
    significance: new Map(),
    unconfirmed: open ? unconfirmedVolumes(definition, record.observations) : [],
    ...(suspended === undefined ? {} : { suspended }),
  };
  if (suspended !== undefined) return known;
  const place = { stage: definition.key, trial: record.id, once: true };
  const read = definition.inputs.filter((input) => perOf(input) === "run" && !takenOver(input));
  readInputs(read, record.observations, known, { method, rules, place });
  for (const input of definition.inputs) {
    const there = earlierOf(input, method, earlier);
    if (there) known.quantities.set(input.symbol, there.quantity);
    if (there?.significant) known.significance.set(input.symbol, there.significant);
  }
  return known;
}

/** What stands in each field and all that was ever written there; each observation is looked at once. */
export function states(
  fields: readonly FieldState["field"][],
  observations: readonly Observation[],
): FieldState[] {
  const superseded = new Set(observations.map((o) => o.supersedes));
  const written = new Map<string, Observation[]>();
  for (const o of observations) {
    const key = fieldKey(o);
    const there = written.get(key);
    if (there) there.push(o);
    else written.set(key, [o]);
  }
  return fields.map((field) => {
    const history = written.get(fieldKey(field)) ?? [];
    const readings = history.filter((o) => o.value !== null && !superseded.has(o.id));
    return { field, present: readings.at(-1) ?? null, history, ...(field.many ? { readings } : {}) };
  });
}

export const stageFieldStates = (stage: ComputedStage, record: StageRecord, rules: HouseRules) =>
  states(stageFields(stage, rules), record.observations);

/** Inputs without which nothing can be computed: all but what is optional, and what the result is only held against. */
const needed = (stage: ComputedStage) =>
  stage.inputs.filter(
    (input) =>
      !isOptional(input) &&
      (!isPhotometric(input) || takenOver(input) !== null) &&
      !("accept" in stage && stage.accept?.symbol === input.symbol),
  );

/** What is read of one holder on top of what is shared; `whole` when nothing but the photometer's readings is missing. */
export function readHolder(
  { inputs }: ComputedStage,
  observations: readonly Observation[],
  shared: KnownQuantities,
  at: ReadingPlace,
): { readonly known: KnownQuantities; readonly whole: boolean } {
  const known = {
    quantities: new Map(shared.quantities),
    significance: new Map(shared.significance),
    ...(shared.suspended === undefined ? {} : { suspended: shared.suspended }),
  };
  if (shared.suspended !== undefined) return { known, whole: false };
  const own = inputs.filter((input) => perOf(input) === "trial");
  return { known, whole: readInputs(own, observations, known, at) };
}

/** The place of the second figure of a quantity's u, where nothing was typed that would tell it. */
export function placeOfUncertainty(q: Quantity): number {
  const u = standardUncertainty(q);
  return u > 0 ? Math.floor(Math.log10(u)) - 1 : -Infinity;
}

interface Computed extends KnownQuantities {
  readonly problem: Phrase | null;
  /** True where a line came out as no number. */
  readonly broken: boolean;
}

/** Why nothing can be computed although all was read here: an earlier stage has no result. */
function waitingFor(missing: readonly Input[], method: Method): Phrase | null {
  const [first, ...others] = missing.map((input) => ({ input, taken: takenOver(input) }));
  const waits = (m: typeof first) => m?.taken != null && m.taken.readBy === undefined;
  if (!first?.taken || !waits(first) || !others.every(waits)) return null;
  const { stage } = first.taken;
  const title = method.stages.find((s) => s.key === stage)?.title ?? stage;
  return msg`${first.input.label} is not known yet: ${title} has no result`;
}

/** Says which line came out as no number to go on with, and why; null where all did. */
export function brokenLine(
  { definition, lines }: CompiledStage,
  quantities: ReadonlyMap<string, Quantity>,
): Phrase | null {
  const broken = lines.find(({ symbol }) => {
    const q = quantities.get(symbol);
    return !q || !isMeasurable(q);
  });
  if (!broken) return null;
  const zero = definition.inputs.find(({ symbol }) => quantities.get(symbol)?.value === 0);
  const why = zero
    ? msg`${uncapitalized(zero.label)} (${zero.symbol}) is zero`
    : Number.isFinite(quantities.get(broken.symbol)?.value)
      ? msg`with its ± it is not a number that could be measured`
      : msg`it is not a finite number`;
  return msg`${broken.title} cannot be calculated: ${why}, in "${broken.source}"`;
}

/** The relations on top of what was read. Says why where a value came out as no number. */
export function compute(
  stage: CompiledStage,
  known: KnownQuantities,
  { method, stoichiometry }: CompiledMethod,
): Computed {
  const { definition, lines } = stage;
  if (known.suspended !== undefined) return { ...known, problem: known.suspended, broken: true };
  const missing = needed(definition).filter(({ symbol }) => !known.quantities.has(symbol));
  if (missing.length > 0) return { ...known, problem: waitingFor(missing, method), broken: false };
  const quantities = evaluateRelations(lines, known.quantities, stoichiometry);
  const significance = new Map(known.significance);
  if (significance.size > 0) {
    for (const { symbol, expression } of lines) {
      significance.set(symbol, significanceOf(expression, significance, stoichiometry));
    }
  }
  const problem = brokenLine(stage, quantities);
  return problem === null
    ? { quantities, significance, problem, broken: false }
    : { ...known, broken: true, problem };
}

/** Adds what a stage found from the photometer's readings to what is known. */
function addFound(
  known: KnownQuantities,
  found: ReadonlyMap<string, Quantity>,
  { digits }: HouseRules,
): void {
  for (const [symbol, q] of found) {
    known.quantities.set(symbol, q);
    if (digits === "significant-figures")
      known.significance.set(symbol, { value: q.value, place: placeOfUncertainty(q) });
  }
}

/** The field that is read next; of a cuvette, one reading at least, while nothing was found from its readings. */
function stillUnread(fields: readonly FieldState[], found: boolean): Field | null {
  const begun = ({ field }: FieldState) =>
    fields.some(
      (other) => other.present && other.field.symbol === field.symbol && other.field.with === field.kind,
    );
  const unread = fields.find((state) => !state.present && (!state.field.optional || begun(state)));
  const many = found ? undefined : fields.find(({ field }) => field.many && !field.outOfTurn);
  return (unread ?? many)?.field ?? null;
}

/**
 * One flask: what was read, what follows from it, and whether it may be judged. `extra` are quantities that its stage
 * found from the photometer's readings; with `needsExtra` nothing is computed while there are none.
 */
export function evaluateSample(
  record: TrialRecord,
  stage: CompiledStage,
  shared: KnownQuantities,
  compiled: CompiledMethod,
  rules: HouseRules,
  extra: ReadonlyMap<string, Quantity> = new Map(),
  needsExtra = false,
): TrialEvaluation {
  const { definition } = stage;
  const fields = states(trialFields(definition, rules), record.observations);
  const place = { stage: definition.key, trial: record.id };
  const { known, whole } = readHolder(definition, record.observations, shared, {
    method: compiled.method,
    rules,
    place,
  });
  addFound(known, extra, rules);
  const cautions: Check[] = definition.inputs.flatMap((input) => {
    const q = perOf(input) === "trial" ? known.quantities.get(input.symbol) : undefined;
    return q ? cautionsOfInput(input, q, rules) : [];
  });
  const missing = stillUnread(fields, extra.size > 0);
  const waits = needsExtra && extra.size === 0;
  const { quantities, significance, problem, broken } = waits
    ? { ...known, problem: null, broken: true }
    : compute(stage, known, compiled);
  const { symbol } = definition.result;
  const result = quantities.get(symbol) ?? null;
  const unconfirmed = shared.unconfirmed ?? [];
  const complete = whole && missing === null && !broken && unconfirmed.length === 0;
  return {
    id: record.id,
    record,
    name: trialName(record),
    words: trialWords(record),
    fields,
    missing,
    cautions,
    titerMl: null,
    overshot: false,
    symbols: quantities,
    significance,
    problem: problem ?? (unconfirmed.length > 0 && missing === null ? confirmWords(unconfirmed) : null),
    eligible: complete && record.kind === "fine" && !record.struck,
    result,
    shownResult: result && showQuantity(result, definition.result, rules, significance.get(symbol)),
    compared: null,
  };
}
