import { type Method, stageFields, trialFields } from "~/core/method";
import { type Observation, trialName, type TrialRecord } from "~/core/record";
import { methodOf, type RunRecord } from "~/core/run";
import { inEnglish } from "~/core/text";
import { csvOf } from "../csv";

/** One reading with where it belongs and what became of it. */
interface ReadingRow {
  readonly stage: string;
  readonly trial: TrialRecord | null;
  readonly what: string;
  readonly state: "stands" | "corrected" | "taken back" | "in a trial struck out";
  readonly observation: Observation;
  readonly bottle: string;
}

/** What a field is called, by the symbol and kind of its readings. */
function labelsOf(
  stage: Method["stages"][number],
  rules: RunRecord["houseRules"],
): ReadonlyMap<string, string> {
  const fields = [...stageFields(stage, rules), ...trialFields(stage, rules)];
  return new Map(fields.map(({ symbol, kind, label }) => [`${symbol}:${kind}`, inEnglish(label)]));
}

/** Every reading of a run in the order in which it is kept, corrected ones and those of trials struck out among them. */
export function readingRows(record: RunRecord): ReadingRow[] {
  const method = methodOf(record);
  const bottles = new Map((record.solutions ?? []).map((used) => [used.assignmentId, used.code]));
  return record.stages.flatMap((stage) => {
    const definition = method.stages.find(({ key }) => key === stage.key);
    const labels = definition ? labelsOf(definition, record.houseRules) : new Map<string, string>();
    const rowsOf = (observations: readonly Observation[], trial: TrialRecord | null): ReadingRow[] => {
      const superseded = new Set(observations.map(({ supersedes }) => supersedes));
      const stateOf = ({ id, value }: Observation): ReadingRow["state"] => {
        if (superseded.has(id)) return "corrected";
        if (value === null) return "taken back";
        return trial?.struck ? "in a trial struck out" : "stands";
      };
      return observations.map((observation) => ({
        ...{ stage: definition?.title ?? stage.key, trial, observation, state: stateOf(observation) },
        what: labels.get(`${observation.symbol}:${observation.kind}`) ?? observation.kind,
        bottle: bottles.get(observation.assignment ?? "") ?? "",
      }));
    };
    return [
      ...rowsOf(stage.observations, null),
      ...stage.trials.flatMap((trial) => rowsOf(trial.observations, trial)),
    ];
  });
}

const columns: readonly (readonly [head: string, of: (row: ReadingRow) => string | null])[] = [
  ["stage", ({ stage }) => stage],
  ["trial", ({ trial }) => trial && inEnglish(trialName(trial))],
  ["letter", ({ observation }) => observation.symbol],
  ["what", ({ what }) => what],
  ["kind", ({ observation }) => observation.kind],
  ["as typed", ({ observation }) => observation.text],
  ["value", ({ observation }) => observation.value],
  ["unit", ({ observation }) => observation.unit],
  ["burette, mL", ({ observation }) => observation.point?.burette ?? null],
  ["state", ({ state }) => state],
  ["reason", ({ observation }) => observation.reason],
  ["why the trial was struck out", ({ trial }) => trial?.struck?.reason ?? null],
  ["source", ({ observation }) => observation.source],
  ["bottle", ({ bottle }) => bottle],
  ["person", ({ observation }) => observation.person],
  ["at", ({ observation }) => observation.at],
  ["id", ({ observation }) => observation.id],
  ["corrects", ({ observation }) => observation.supersedes],
];

/** Every reading as it was typed, a line each: also those that were corrected or struck out. */
export const readingsCsv = (record: RunRecord): string => csvOf(columns, readingRows(record));
