import { methodOf } from "../run";
import { problemText } from "../result";
import { checkField, type ComputedStage, stageFields, trialFields } from "../method";
import { compileMethod } from "../stages";
import type { Field } from "../inputs";
import { type Observation, presentObservation, type StageRecord, stands } from "../record";
import type { RunRecord } from "../run";

/** Something in a record that cannot be, and where: keys and indices joined by points. */
export interface RecordProblem {
  readonly path: string;
  readonly message: string;
}

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
    if (ids.has(id)) problems.push({ path: `${at}.id`, message: `Two observations are called ${id}` });
    ids.add(id);
    const field = fields.find((f) => f.symbol === symbol && f.kind === kind);
    if (!field) return [...problems, { path: at, message: `Nothing is read here as ${kind} of ${symbol}` }];
    if (supersedes !== null && !observations.slice(0, i).some((o) => o.id === supersedes)) {
      problems.push({ path: `${at}.supersedes`, message: `No earlier observation is called ${supersedes}` });
    }
    if (value === null) return problems;
    if (unit !== field.unit && !(field.unit === "" && unit === "1")) {
      problems.push({ path: `${at}.unit`, message: `It is read in ${field.unit}, not in ${unit}` });
    }
    if (Number(text.replace(",", ".")) !== Number(value)) {
      problems.push({ path: `${at}.value`, message: `The text "${text}" does not mean ${value}` });
    }
    const standing = field.many
      ? stands(observations, id)
      : presentObservation(observations, symbol, kind) === observation;
    if (!standing) return problems;
    const checked = checkField(field, text, {
      stage,
      houseRules: record.houseRules,
      holder: { observations: [...observations] },
    });
    return checked.ok ? problems : [...problems, { path: at, message: checked.check.message }];
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
            {
              path: `${at}.absorbance`,
              message: `There are ${x.length} points but ${absorbance.length} absorbances`,
            },
          ]),
      ...(back === -1
        ? []
        : [{ path: `${at}.x.${back}`, message: `${x[back]} does not lie beyond ${x[back - 1]}` }]),
      ...(trialId === null || trials.some((t) => t.id === trialId)
        ? []
        : [{ path: `${at}.trialId`, message: `No trial of this stage is called ${trialId}` }]),
    ];
  });
}

/**
 * Everything that keeps a record of the right shape from being evaluated: a method that does not hold together, stages that
 * it has not, readings that nobody reads there, values that their texts do not mean, readings that cannot be. Empty when
 * all is well.
 */
export function checkRecord(record: RunRecord): RecordProblem[] {
  const compiled = compileMethod(methodOf(record));
  if (!compiled.ok)
    return [{ path: record.choices ? "choices" : "method", message: problemText(compiled.problem) }];
  const keys = new Set<string>();
  return record.stages.flatMap((stageRecord, i): RecordProblem[] => {
    const path = `stages.${i}`;
    const { key } = stageRecord;
    const definition = methodOf(record).stages.find((s) => s.key === key);
    if (!definition) return [{ path: `${path}.key`, message: `The method has no stage "${key}"` }];
    if (keys.has(key)) return [{ path: `${path}.key`, message: `Stage "${key}" is there twice` }];
    keys.add(key);
    const { houseRules } = record;
    const holders: Holder[] = [
      { path, fields: stageFields(definition, houseRules), observations: stageRecord.observations },
      ...stageRecord.trials.map((trial, j) => ({
        path: `${path}.trials.${j}`,
        fields: trialFields(definition, houseRules),
        observations: trial.observations,
      })),
    ];
    return [
      ...holders.flatMap((holder) => observationProblems(holder, definition, record)),
      ...traceProblems(path, stageRecord),
    ];
  });
}
