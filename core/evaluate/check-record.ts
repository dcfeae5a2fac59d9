import { withPoint, inEnglish } from "../text";
import { heldStage, isKnowable, knownStage, methodOf, type RunRecord } from "../run";
import { checkField, type ComputedStage, stageFields, trialFields } from "../method";
import { compileMethod, type MethodProblem } from "../stages";
import type { Field } from "../inputs";
import { type Observation, presentObservation, type StageRecord, stands } from "../record";

/** Something in a record that cannot be, and where: keys and indices joined by points. */
export interface RecordProblem {
  readonly path: string;
  readonly code: RecordProblemCode;
  readonly facts: Readonly<Record<string, string | number>>;
  /** What is wrong with its method, where that is it. */
  readonly method?: MethodProblem;
}

type RecordProblemCode =
  | "method"
  | "observation-twice"
  | "field-missing"
  | "superseded-missing"
  | "other-unit"
  | "text-means-other"
  | "reading-refused"
  | "absorbances-missing"
  | "points-fall"
  | "trial-missing"
  | "stage-missing"
  | "stage-twice";

const problem = (
  path: string,
  code: RecordProblemCode,
  facts: RecordProblem["facts"] = {},
): RecordProblem => ({ path, code, facts });

interface Holder {
  readonly path: string;
  readonly fields: readonly Field[];
  readonly observations: readonly Observation[];
}

function observationProblems(
  { path, fields, observations }: Holder,
  stage: ComputedStage,
  record: RunRecord,
): RecordProblem[] {
  const ids = new Set<string>();
  return observations.flatMap((observation, i): RecordProblem[] => {
    const at = `${path}.observations.${i}`;
    const { id, symbol, kind, text, value, unit, supersedes } = observation;
    const problems: RecordProblem[] = [];
    if (ids.has(id)) problems.push(problem(`${at}.id`, "observation-twice", { id }));
    ids.add(id);
    const field = fields.find((f) => f.symbol === symbol && f.kind === kind);
    if (!field) {
      // What was taken back before the input was read another way belongs to no field of today.
      const past = value === null || !stands(observations, id);
      return past ? problems : [...problems, problem(at, "field-missing", { kind, symbol })];
    }
    if (supersedes !== null && !observations.slice(0, i).some((o) => o.id === supersedes)) {
      problems.push(problem(`${at}.supersedes`, "superseded-missing", { id: supersedes }));
    }
    if (value === null) return problems;
    if (unit !== field.unit && !(field.unit === "" && unit === "1")) {
      problems.push(problem(`${at}.unit`, "other-unit", { is: field.unit, unit }));
    }
    if (Number(withPoint(text)) !== Number(value)) {
      problems.push(problem(`${at}.value`, "text-means-other", { text, value }));
    }
    const standing = field.many
      ? stands(observations, id)
      : presentObservation(observations, symbol, kind) === observation;
    if (!standing) return problems;
    const checked = checkField(field, text, {
      stage,
      houseRules: record.houseRules,
      holder: { observations: [...observations] },
      ...(observation.point ? { place: observation.point } : {}),
    });
    return checked.ok
      ? problems
      : [...problems, problem(at, "reading-refused", { detail: inEnglish(checked.problem.message) })];
  });
}

/** Spectra and courses: as many absorbances as points, points that rise, trials that are there. */
function traceProblems(path: string, { traces = [], trials }: StageRecord): RecordProblem[] {
  return traces.flatMap(({ x, absorbance, trialId }, i): RecordProblem[] => {
    const at = `${path}.traces.${i}`;
    const back = x.findIndex((value, j) => j > 0 && value <= (x[j - 1] ?? 0));
    return [
      ...(x.length === absorbance.length
        ? []
        : [
            problem(`${at}.absorbance`, "absorbances-missing", {
              points: x.length,
              absorbances: absorbance.length,
            }),
          ]),
      ...(back === -1
        ? []
        : [problem(`${at}.x.${back}`, "points-fall", { x: x[back] ?? NaN, before: x[back - 1] ?? NaN })]),
      ...(trialId === null || trials.some((t) => t.id === trialId)
        ? []
        : [problem(`${at}.trialId`, "trial-missing", { id: trialId })]),
    ];
  });
}

/**
 * Everything that keeps a record of the right shape from being evaluated: a method that does not pass its check, stages that
 * it has not, readings that nobody reads there, values that their texts do not mean, readings that cannot be. Empty when
 * all is well.
 */
export function checkRecord(record: RunRecord): RecordProblem[] {
  const compiled = compileMethod(methodOf(record));
  if (!compiled.ok)
    return [{ ...problem(record.choices ? "choices" : "method", "method"), method: compiled.problem }];
  const keys = new Set<string>();
  return record.stages.flatMap((stageRecord, i): RecordProblem[] => {
    const path = `stages.${i}`;
    const { key } = stageRecord;
    const own = record.method.stages.find((s) => s.key === key);
    if (!own) return [problem(`${path}.key`, "stage-missing", { key })];
    const definition = methodOf(record).stages.find((s) => s.key === key) ?? own;
    if (keys.has(key)) return [problem(`${path}.key`, "stage-twice", { key })];
    keys.add(key);
    const { houseRules } = record;
    // What was read before the stage was known, stated before it was done, or held against something, is kept.
    const ways = [
      definition,
      own,
      ...(isKnowable(record.method, own) ? [knownStage(record.method, own)] : []),
      heldStage(own, { against: "limit", label: "limit", bound: "at most" }),
    ];
    const holders: Holder[] = [
      {
        path,
        fields: ways.flatMap((way) => stageFields(way, houseRules)),
        observations: stageRecord.observations,
      },
      ...stageRecord.trials.map((trial, j) => ({
        path: `${path}.trials.${j}`,
        fields: ways.flatMap((way) => trialFields(way, houseRules)),
        observations: trial.observations,
      })),
    ];
    return [
      ...holders.flatMap((holder) => observationProblems(holder, definition, record)),
      ...traceProblems(path, stageRecord),
    ];
  });
}
