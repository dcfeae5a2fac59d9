import "~/core/stages/engines";
import { evaluateRun } from "~/core/evaluate";
import { inUnit, type Quantity } from "~/core/quantity";
import type { RunRecord } from "~/core/run";
import { compiledMethod, compiledStage, type ComputedEvaluation, isOnce, membersOf } from "~/core/stages";
import { unitOfInput } from "~/core/method";
import { methodOf } from "~/core/run";
import { inEnglish } from "~/core/text";
import { csvText } from "../csv";

/** A symbol of a stage with the unit that its numbers are told in. */
interface Letter {
  readonly symbol: string;
  readonly unit: string;
}

/** A line of the table: a trial, or what is had once in a stage. */
interface TrialRow {
  readonly stage: string;
  readonly trial: string;
  readonly counts: string;
  readonly inResult: string;
  readonly struck: string;
  readonly problem: string;
  readonly values: ReadonlyMap<string, Quantity>;
  readonly letters: readonly Letter[];
}

/** The letters of each stage in the order of its working: what is read, then what is computed. */
function lettersOf(record: RunRecord, stageKey: string): Letter[] {
  const method = compiledMethod(methodOf(record));
  const compiled = compiledStage(method, stageKey);
  if (!compiled) return [];
  return [
    ...compiled.definition.inputs.map((input) => ({
      symbol: input.symbol,
      unit: unitOfInput(input, method.method),
    })),
    ...compiled.lines.map(({ symbol, unit }) => ({ symbol, unit })),
  ];
}

function rowsOf(stage: ComputedEvaluation, letters: readonly Letter[]): TrialRow[] {
  const { title } = stage.definition;
  if (isOnce(stage)) {
    if (stage.symbols.size === 0) return [];
    const problem = stage.problem === null ? "" : inEnglish(stage.problem);
    return [
      {
        ...{ stage: title, trial: "", counts: "", inResult: "", struck: "" },
        problem,
        values: stage.symbols,
        letters,
      },
    ];
  }
  const members = new Set(membersOf(stage).map(({ id }) => id));
  return stage.trials.map((trial) => ({
    stage: title,
    trial: inEnglish(trial.name),
    counts: trial.eligible ? "yes" : "no",
    inResult: members.has(trial.id) ? "yes" : "no",
    struck: trial.record.struck?.reason ?? "",
    problem: trial.problem === null ? "" : inEnglish(trial.problem),
    values: trial.symbols,
    letters,
  }));
}

const head = ({ symbol, unit }: Letter): string => (unit === "1" ? symbol : `${symbol}, ${unit}`);

/** Trials of all stages as a table: a column for each letter with its unit, empty where a stage has no such letter. */
export function trialsCsv(record: RunRecord): string {
  const { stages } = evaluateRun(record);
  const rows = stages.flatMap((stage) => rowsOf(stage, lettersOf(record, stage.key)));
  const heads = [...new Set(rows.flatMap(({ letters }) => letters.map(head)))];
  const valueAt = (row: TrialRow, column: string): string => {
    const letter = row.letters.find((one) => head(one) === column);
    const quantity = letter && row.values.get(letter.symbol);
    return letter && quantity ? String(Number(inUnit(quantity, letter.unit).toPrecision(12))) : "";
  };
  return csvText(
    ["stage", "trial", "counts", "in the result", "why it was struck out", "problem", ...heads],
    rows.map((row) => [
      ...[row.stage, row.trial, row.counts, row.inResult, row.struck, row.problem],
      ...heads.map((column) => valueAt(row, column)),
    ]),
  );
}
