import "~/core/stages/engines";
import { evaluateRun } from "~/core/evaluate";
import { plusMinus } from "~/core/judgement";
import { inUnit, unitOf } from "~/core/quantity";
import { methodOf, type RunRecord } from "~/core/run";
import {
  compiledMethod,
  type ComputedEvaluation,
  isOnce,
  plusMinusWords,
  resultQuantity,
} from "~/core/stages";
import { inEnglish } from "~/core/text";
import { writeCalibration } from "./calibration";
import { writeOnce } from "./once";
import { type Book, type CellName, Sheet, sheetName } from "./sheet";
import { beginSheet, type LineCells, type Placed, placedKey, type StageSheet } from "./stage-sheet";
import { writeReplicates } from "./trials";
import { writeUnknown } from "./unknown";

/** How a stage is written, by its kind; those that are not named here by whether their result is had once. */
const writers: {
  readonly [K in ComputedEvaluation["kind"]]?: (
    into: StageSheet,
    stage: Extract<ComputedEvaluation, { kind: K }>,
  ) => void;
} = {
  calibration: writeCalibration,
  unknown: writeUnknown,
};

function writeStage(into: StageSheet, stage: ComputedEvaluation): void {
  const own = writers[stage.kind] as ((into: StageSheet, stage: ComputedEvaluation) => void) | undefined;
  if (own) own(into, stage);
  else if (isOnce(stage)) writeOnce(into, stage.symbols);
  else writeReplicates(into, stage);
}

/** The first sheet: what the run is, and its results as they stand on the others. */
function front(sheet: Sheet, record: RunRecord, stages: readonly ComputedEvaluation[], placed: Placed): void {
  sheet.line("title", [record.title]);
  sheet.line("note", [
    `${record.method.title}, version ${record.method.version}; run ${record.id}, begun ${record.startedAt}`,
  ]);
  sheet.line("note", [
    `± is ${inEnglish(plusMinusWords[record.houseRules.plusMinus])}. Readings stand in cells, all else is formulas over them: change a reading, or what is included, and the results follow.`,
  ]);
  sheet.line("note", [
    "The parts that the causes have in a ± were computed by Steady Bead and stay as they are. Factors in formulas of volumes and masses bring them to 20 °C and take the buoyancy of air away, where this lab does that.",
  ]);
  sheet.row++;
  sheet.line("head", ["Stage", "Result", "Value", "±", "Unit", "As shown by Steady Bead"]);
  for (const stage of stages) {
    const quantity = resultQuantity(stage);
    const results = [
      ...(stage.shown && quantity ? [{ ...stage.definition.result, shown: stage.shown, quantity }] : []),
      ...stage.also.map(({ definition, ...found }) => ({ ...definition, ...found })),
    ];
    for (const { symbol, name, unit, shown, quantity: q } of results) {
      const there = placed.get(placedKey(stage.key, symbol));
      const half = placed.get(placedKey(stage.key, `± ${symbol}`));
      const { row } = sheet;
      sheet.put(row, 1, { value: stage.definition.title, look: "label" });
      sheet.put(row, 2, { value: inEnglish(name), look: "label" });
      const value = (reference: string | undefined, number: number) =>
        ({
          value: number,
          ...(reference === undefined ? {} : { formula: reference }),
          look: "result",
        }) as const;
      sheet.put(row, 3, value(there?.reference, inUnit(q, unit)));
      const plusMinusHere = plusMinus(q, record.houseRules.plusMinus) / unitOf(unit).factor;
      if (shown.plusMinus !== "0") sheet.put(row, 4, value(half?.reference, plusMinusHere));
      sheet.put(row, 5, { value: unit === "1" ? "" : unit, look: "label" });
      sheet.put(row, 6, { value: inEnglish(shown.text), look: "note" });
      sheet.row++;
    }
  }
}

/** A run as sheets: readings in cells, and each step of its working a formula over them. */
export function bookOf(record: RunRecord): Book {
  const method = compiledMethod(methodOf(record));
  const { stages } = evaluateRun(record);
  const placed: Placed = new Map();
  const lines = new Map<string, LineCells>();
  const names: CellName[] = [];
  const first = new Sheet("Results");
  const sheets = [first];
  for (const stage of stages) {
    const name = sheetName(stage.definition.title, new Set(sheets.map((one) => one.name.toLowerCase())));
    const into = beginSheet({ record, method, stage, placed, names, lines }, name);
    if (!into) continue;
    writeStage(into, stage);
    placed.set(`line of ${stage.key}`, { reference: into.sheet.reference(""), unit: "" });
    sheets.push(into.sheet);
  }
  front(first, record, stages, placed);
  return { sheets, names };
}
