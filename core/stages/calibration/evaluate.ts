import { judgeOnce } from "../shared/accept";
import { isOptional } from "../../inputs";
import { mean, standardDeviation } from "../../statistics";
import {
  adviseLine,
  lackOfFit,
  limitsFromBlanks,
  limitsFromLine,
  type LineModel,
  offTheLine,
  strayLightFrom,
  studentizedLimit,
  type Weighting,
} from "../../calibration";
import { sharesOfVariance } from "../../judgement";
import type { Check } from "../../measure";
import { inUnit, leaf, type Quantity } from "../../quantity";
import { evaluateRelations, symbolsIn } from "../../relation";
import { type CalibrationStage, perOf, trialFields } from "../../method";
import type { CompiledCalibration } from "./compile";
import { furtherResults, shareGroups, type StageContext } from "../shared/stage";
import {
  brokenLine,
  confirmWords,
  placeOfUncertainty,
  readHolder,
  stageFieldStates,
  stageInputs,
  states,
} from "../shared/trial";
import {
  type CalibrationEvaluation,
  type LevelEvaluation,
  type LineChoice,
  type LinePoint,
  type LineView,
  unjudged,
} from "../shared/evaluation";
import { type Deducted, stageLine, type StageLine } from "./line";
import {
  presentObservation,
  type StageRecord,
  type TrialRecord,
  type ReadingView,
  counting,
  readingsOf,
} from "../../record";
import { nextCuvette, seriesKind, seriesWords } from "./series";
import { showQuantity } from "../shared/show";
import { msg, type Phrase } from "../../text";

/** The line as somebody chose it, else as the method takes it. */
export function lineChoice({ line }: CalibrationStage, { choices = {} }: StageRecord): LineChoice {
  return {
    model: (choices.model ?? line.model) as LineModel,
    weighting: (choices.weighting ?? line.weighting) as Weighting,
    zero: choices.zero !== "out",
    blank: choices.blank === "deducted" || choices.blank === "zeroed" ? choices.blank : "zeroed",
  };
}

/** "standard 2", or what people call the flask. */
export const levelName = ({ label, number }: Pick<TrialRecord, "label" | "number">): Phrase =>
  label ?? msg`standard ${number ?? "?"}`;

/** Inputs by which the amount in each standard is computed and that have no value yet. */
function unknownInputs(
  { axis, definition }: CompiledCalibration,
  known: ReadonlyMap<string, Quantity>,
): CalibrationStage["inputs"] {
  const read = new Set(axis.flatMap(({ expression }) => symbolsIn(expression)));
  return definition.inputs.filter(({ symbol }) => read.has(symbol) && !known.has(symbol));
}

/** Why an input of the whole stage has no value, in words. */
function wantingWords(input: CalibrationStage["inputs"][number], { method }: StageContext): Phrase {
  if (input.is !== "result") return msg`${input.label} is still to be typed`;
  const from = method.method.stages.find(({ key }) => key === input.stage);
  return msg`${input.label} is not known yet: finish the stage "${from?.title ?? input.stage}". Readings are kept meanwhile`;
}

function evaluateLevel(
  record: TrialRecord,
  stage: CompiledCalibration,
  shared: ReturnType<typeof stageInputs>,
  context: StageContext,
  choice: LineChoice,
): LevelEvaluation {
  const { definition } = stage;
  const { method, rules } = context;
  const fields = states(trialFields(definition, rules), record.observations);
  const place = { stage: definition.key, trial: record.id };
  const { known, whole } = readHolder(definition, record.observations, shared, {
    method: method.method,
    rules,
    place,
  });
  const symbols: ReadonlyMap<string, Quantity> =
    whole && unknownInputs(stage, known.quantities).length === 0
      ? evaluateRelations(stage.axis, known.quantities, method.stoichiometry)
      : known.quantities;
  const amount = symbols.get(definition.axis.symbol) ?? null;
  const x = amount && Number.isFinite(amount.value) ? inUnit(amount, definition.axis.unit) : null;
  const symbol = definition.inputs.find((i) => i.is === "absorbance")?.symbol ?? "";
  const readings = readingsOf(record.observations, symbol);
  const ys = counting(readings);
  const again = presentObservation(record.observations, symbol, "absorbance.again");
  const leftOut = record.struck
    ? msg`struck out: ${record.struck.reason}`
    : x === 0 && !choice.zero
      ? msg`the zero standard is left out`
      : null;
  return {
    id: record.id,
    record,
    name: levelName(record),
    words: levelName(record),
    fields,
    missing: fields.find(({ present, field }) => !present && !field.optional)?.field ?? null,
    amount,
    x,
    symbols,
    readings,
    mean: ys.length > 0 ? ys.reduce((a, b) => a + b, 0) / ys.length : null,
    again: again ? Number(again.value) : null,
    leftOut,
  };
}

/** A display shows thousandths: a blank off by two of them may be rounding. Common practice, no source. */
const blankIsZero = 0.002;

interface BlankTaken {
  readonly deducted: Deducted | null;
  readonly question: Phrase | null;
}

/** What the readings of the blank mean for the others: deducted with its ±, nothing, or a question. */
function takeBlank(
  definition: CalibrationStage,
  record: StageRecord,
  blanks: readonly ReadingView[],
  choice: LineChoice,
): BlankTaken {
  const input = definition.inputs.find((i) => i.is === "blank");
  const readings = counting(blanks);
  if (!input || readings.length === 0) return { deducted: null, question: null };
  const absorbance = mean(readings);
  const chosen = record.choices?.blank !== undefined;
  const taken = chosen ? choice.blank : (input.readings ?? "zeroed");
  if (taken === "deducted") {
    const scatter = standardDeviation(readings) / Math.sqrt(readings.length);
    const rounding = 0.0005 / Math.sqrt(3);
    const cause = leaf({
      id: `blank:${definition.key}`,
      kind: "blank",
      label: msg`Absorbance of the blank`,
      group: msg`Absorbance of the blank`,
      u: Math.max(scatter, rounding),
      degreesOfFreedom: scatter > rounding ? readings.length - 1 : Infinity,
      stage: definition.key,
    });
    return { deducted: { absorbance, cause }, question: null };
  }
  const question =
    chosen || Math.abs(absorbance) <= blankIsZero
      ? null
      : msg`The blank reads ${absorbance.toFixed(3)}, not zero. Were the cuvettes read against it, or should it be subtracted from them?`;
  return { deducted: null, question };
}

/** A blank that moved by more than this drifted; of a standard, two percent more. Common practice, no source. */
const driftLimit = 0.005;

/** The blank and standards that were rechecked: how far they drifted. */
function driftChecks(blanks: readonly ReadingView[], levels: readonly LevelEvaluation[]): Check[] {
  const counted = blanks.filter((b) => !b.struck);
  const [first, last] = [counted[0], counted.at(-1)];
  const checks: Check[] = [];
  if (first && last && Math.abs(last.absorbance - first.absorbance) > driftLimit) {
    checks.push({
      severity: "caution",
      message: msg`The blank moved from ${first.text} to ${last.text} while you read: zero again and reread the standards`,
    });
  }
  for (const { again, mean, name } of levels) {
    if (again === null || mean === null || Math.abs(again - mean) <= driftLimit + 0.02 * mean) continue;
    checks.push({
      severity: "caution",
      message: msg`At the end ${name} read ${again.toFixed(3)} and not ${mean.toFixed(3)}: the instrument, or the color, drifted`,
    });
  }
  return checks;
}

function readingChecks(levels: readonly LevelEvaluation[]): Check[] {
  return levels.flatMap(({ name, mean, readings, leftOut }): Check[] => {
    if (mean === null || leftOut !== null) return [];
    if (mean > strayLightFrom) {
      return [
        {
          severity: "caution",
          message: msg`${name} reads ${mean.toFixed(2)}: above ${strayLightFrom}, stray light bends the line; leave it out, or dilute the series`,
        },
      ];
    }
    const low = readings.find((r) => !r.struck && r.absorbance < -0.005);
    return low
      ? [
          {
            severity: "caution",
            message: msg`${name} reads below zero (${low.text}): was it zeroed on the blank?`,
          },
        ]
      : [];
  });
}

/** The points of the line, each with the reading that it is. */
function pointsOf(line: StageLine, levels: readonly LevelEvaluation[]): LinePoint[] {
  const off = new Set(offTheLine(line.fit));
  const owners = levels.flatMap((level) =>
    level.readings.filter((r) => !r.struck).map((reading) => ({ level, reading })),
  );
  return line.fit.points.flatMap((point, i) => {
    const owner = owners[i];
    if (!owner) return [];
    const { level, reading } = owner;
    return [{ ...point, levelId: level.id, readingId: reading.id, person: reading.person, off: off.has(i) }];
  });
}

function nextWords(
  standing: Parameters<typeof nextCuvette>[0],
  line: LineView | null,
  problem: Phrase | null,
): Phrase {
  const { definition, levels, blanks } = standing;
  const next = nextCuvette(standing);
  switch (next.what) {
    case "blank":
      return msg`Zero the instrument on the blank, and read it`;
    case "flask":
      return msg`Rinse the cuvette with ${levels.find((l) => l.id === next.id)?.name ?? ""}, wipe it, and read it`;
    case "ahead":
      return msg`Next: the flask with ${seriesWords(definition, next.value)}. Rinse the cuvette with it, wipe it, read it`;
    case "another":
      break;
  }
  if (problem) return problem;
  if (blanks.filter((b) => !b.struck).length < 2 && blanks.length > 0)
    return msg`Reread the blank or a standard to check for drift; then read the unknown`;
  const bad = line?.advice.find((a) => !a.good);
  return bad
    ? msg`Check what the data say about the line, then go on`
    : msg`The line is ready: go on to the unknown`;
}

/** The usual amounts that no flask holds yet. */
function stillAhead(definition: CalibrationStage, levels: readonly LevelEvaluation[]): string[] {
  const { symbol, values } = definition.series;
  const kind = seriesKind(definition);
  const there = levels
    .filter((l) => !l.record.struck)
    .map((l) => Number(presentObservation(l.record.observations, symbol, kind)?.value));
  return values.filter((value) => !there.includes(Number(value)));
}

type Shared = ReturnType<typeof stageInputs>;

/** What is told of a line that stands. */
const lineView = (
  found: StageLine,
  used: readonly LevelEvaluation[],
  blanks: readonly ReadingView[],
): LineView => ({
  fit: found.fit,
  points: pointsOf(found, used),
  advice: adviseLine(found.fit),
  lackOfFit: lackOfFit(found.fit),
  limits: { line: limitsFromLine(found.fit), blanks: limitsFromBlanks(counting(blanks), found.fit) },
  offBeyond: studentizedLimit(found.fit),
});

/** What follows from a line by the relations of its stage; why nothing does, where nothing does. */
function followFrom(
  stage: CompiledCalibration,
  found: StageLine | null,
  shared: Shared,
  { method }: StageContext,
) {
  const { inputs, line, result } = stage.definition;
  const known = new Map(shared.quantities);
  if (found) {
    known.set(line.intercept, found.intercept);
    known.set(line.slope, found.slope);
    if (line.cut !== undefined && found.cut) known.set(line.cut, found.cut);
  }
  const wanting = inputs.find(
    (i) => perOf(i) === "run" && i.is !== "blank" && !known.has(i.symbol) && !isOptional(i),
  );
  const whole = found && !wanting;
  const symbols = whole ? evaluateRelations(stage.lines, known, method.stoichiometry) : known;
  const broken = whole ? brokenLine(stage, symbols) : null;
  const stands = !broken && (shared.unconfirmed ?? []).length === 0;
  return { symbols, wanting, broken, quantity: stands ? (symbols.get(result.symbol) ?? null) : null };
}

/** Why there is no result although standards were read; null while nothing was, and where there is one. */
function problemOfLine(
  stage: CompiledCalibration,
  levels: readonly LevelEvaluation[],
  shared: Shared,
  { wanting, broken }: ReturnType<typeof followFrom>,
  fitted: { readonly failed: Phrase | null; readonly used: number },
  context: StageContext,
): Phrase | null {
  // Without it no standard has an amount, so that its readings cannot make a line yet.
  const axisWaits = unknownInputs(stage, shared.quantities).find((i) => perOf(i) === "run");
  if (axisWaits) return levels.some((l) => l.readings.length > 0) ? wantingWords(axisWaits, context) : null;
  if (fitted.failed !== null) return fitted.used === 0 ? null : fitted.failed;
  if (wanting) return wantingWords(wanting, context);
  const unconfirmed = shared.unconfirmed ?? [];
  return broken ?? (unconfirmed.length > 0 ? confirmWords(unconfirmed) : null);
}

/** What is shown of the result, its further results and the shares of its ±. */
function resultShown(
  stage: CompiledCalibration,
  { symbols, quantity }: ReturnType<typeof followFrom>,
  { method, rules, earlier }: StageContext,
) {
  const { also, result } = stage.definition;
  if (!quantity) return { shown: null, also: furtherResults(also, () => null, rules), shares: [] };
  return {
    shown: showQuantity(quantity, result, rules),
    also: furtherResults(
      also,
      (symbol) => {
        const q = symbols.get(symbol);
        return q ? [q, undefined] : null;
      },
      rules,
    ),
    shares: sharesOfVariance(quantity, shareGroups(method.method, stage, earlier)),
  };
}

/** The standards, the line through them, what the data say of it, and what follows. */
export function evaluateCalibration(
  stage: CompiledCalibration,
  record: StageRecord,
  context: StageContext,
): CalibrationEvaluation {
  const { definition } = stage;
  const { key, axis, inputs } = definition;
  const { method, rules, earlier } = context;
  const shared = stageInputs(stage, record, earlier, { method: method.method, rules, open: context.open });
  const choice = lineChoice(definition, record);
  const levels = record.trials
    .map((trial) => evaluateLevel(trial, stage, shared, context, choice))
    .sort((a, b) => (a.x ?? Infinity) - (b.x ?? Infinity));
  const blank = inputs.find((i) => i.is === "blank");
  const blanks = blank ? readingsOf(record.observations, blank.symbol) : [];
  const used = usedLevels(levels);
  const taken = takeBlank(definition, record, blanks, choice);
  const points = used.map((l) => ({ amount: l.amount!, x: l.x ?? 0, ys: counting(l.readings) }));
  const fitted = stageLine(points, choice, key, axis.unit, taken.deducted);
  const found = fitted.ok ? fitted.value : null;
  const line = found && lineView(found, used, blanks);
  const follows = followFrom(stage, found, shared, context);
  const { symbols, quantity } = follows;
  const failed = { failed: fitted.ok ? null : fitted.problem.message, used: used.length };
  const problem = problemOfLine(stage, levels, shared, follows, failed, context);
  const stageFields = stageFieldStates(definition, record, rules);
  const ahead = stillAhead(definition, levels);
  // Through the origin, and where the line is read off at its axis, the blank decides the result.
  const blankDecides = choice.model === "origin" || definition.line.cut !== undefined;
  const { question } = taken;
  return {
    kind: "calibration",
    ...unjudged,
    acceptance: judgeOnce(definition, quantity, shared.quantities, rules),
    key,
    definition,
    done: quantity !== null && ahead.length === 0 && !(blankDecides && question !== null),
    stageFields,
    missing: stageFields.find(({ present, field }) => !present && !field.optional)?.field ?? null,
    levels,
    ahead,
    blanks,
    deducted: taken.deducted?.absorbance ?? null,
    blankQuestion: question,
    choice,
    line,
    readOff: (shared.unconfirmed ?? []).length > 0 ? null : (found?.readOff ?? null),
    symbols,
    significance: new Map(
      [...symbols].map(([symbol, q]) => [symbol, { value: q.value, place: placeOfUncertainty(q) }] as const),
    ),
    quantity,
    ...resultShown(stage, follows, context),
    problem,
    cautions: cautionsOn(question, blanks, levels),
    next:
      question && ahead.length === 0
        ? question
        : nextWords({ definition, levels, ahead, blanks }, line, problem),
  };
}

function usedLevels(levels: LevelEvaluation[]) {
  return levels.filter(
    (l) => l.leftOut === null && l.amount && l.x !== null && counting(l.readings).length > 0,
  );
}

function cautionsOn(question: Phrase | null, blanks: ReadingView[], levels: LevelEvaluation[]) {
  return [
    ...(question ? [{ severity: "caution" as const, message: question }] : []),
    ...driftChecks(blanks, levels),
    ...readingChecks(levels),
  ];
}
