import { lineBefore, isReading, type Place, placeOf, type RowKind, type Target, targetsOf } from "./columns";
import type { ComputedStage, Method } from "~/core/method";
import type { HouseRules } from "~/core/rules";
import { inEnglish, msg, type Phrase, unitText } from "~/core/text";
import type { Mapping } from "./mapping";
import { dateOf, readingOf, unitsFor } from "./numbers";
import { type Cell, isRough, kindOf, type Row } from "./rows";

/* The cells of a table as readings and dates, and what is wrong with them. */

/** What is wrong with a row, counted as the spreadsheet counts; and in which column, where it is one. */
export interface RowProblem {
  readonly row: number;
  /** From 0; null where the row as a whole is meant. */
  readonly column: number | null;
  readonly message: Phrase;
}

/** What is wrong with a row as a text: the same for the same fault. */
export const faultOf = ({ row, column, message }: RowProblem): string =>
  [row, column, inEnglish(message)].join("\n");

export interface TableSetting {
  readonly mapping: Mapping;
  readonly method: Method;
  readonly rules: HouseRules;
  readonly now: Date;
}

/** What is wrong with a mapping as a whole; null where nothing is. */
export function problemOfMapping({ columns }: Mapping, targets: readonly Target[]): Phrase | null {
  const used = columns.flatMap((use) => (use ? [use.target] : []));
  const twice = targets.find(({ key, many }) => !many && used.filter((one) => one === key).length > 1);
  if (twice) return msg`Two columns stand for the same: ${twice.label}`;
  const unknown = used.find((key) => !targets.some((one) => one.key === key));
  if (unknown !== undefined) return msg`A column stands for something that this method does not have`;
  if (!targets.some((one) => isReading(one) && one.per === "row" && used.includes(one.key)))
    return msg`Say which columns hold the readings`;
  // What a heading calls a unit may be none, or one that takes chemistry to convert: nothing is taken for what it is not.
  for (const use of columns) {
    const target = targets.find(({ key, unit }) => key === use?.target && unit !== "");
    if (use && target && !unitsFor(target.unit).includes(use.unit))
      return msg`${target.label} is in "${use.unit}", and ${unitText(target.unit)} is needed: say which unit the column is in`;
  }
  return null;
}

/** A target with the field that it fills. */
export interface Filling {
  readonly target: Target;
  readonly place: Place;
}

/** Reads cells, and keeps what is wrong with them. */
export class CellReader {
  readonly problems: RowProblem[] = [];
  private readonly reported = new Set<string>();
  /** How many there were, counting those that were reported before. */
  protected faults = 0;
  protected readonly targets: readonly Target[];
  /** What is read once for a run, and in each row of a kind. */
  protected readonly ofRun: readonly Filling[];
  protected readonly ofRow: Readonly<Record<RowKind, readonly Filling[]>>;
  /** Keys of what only standards have: the amounts of their series. */
  private readonly amounts: readonly string[];
  /** The stage whose line the results are read off; null where there is none. */
  protected readonly line: ComputedStage | null;

  constructor(protected readonly setting: TableSetting) {
    const { method, mapping, rules } = setting;
    this.targets = targetsOf(method, mapping.stageKey, rules);
    this.line = lineBefore(method, mapping.stageKey);
    const filled = (per: Target["per"], placeIn: (target: Target) => Place | null) =>
      this.targets.flatMap((target): Filling[] => {
        const place = target.per === per ? placeIn(target) : null;
        return place ? [{ target, place }] : [];
      });
    const inRows = (kind: RowKind) => filled("row", (target) => placeOf(target, kind));
    this.ofRun = filled("run", ({ fills }) => fills);
    this.ofRow = { sample: inRows("sample"), standard: inRows("standard"), blank: inRows("blank") };
    this.amounts = this.ofRow.standard.flatMap(({ target }) => (target.fills ? [] : [target.key]));
  }

  /** What a cell means as a reading; null where it is empty, or no number. */
  private meant({ text, column }: Cell, { unit }: Target, { field }: Place): string | null {
    if (text === "") return null;
    // What is typed beside the table is typed with a point, or with a comma, as people do.
    const typed = text.includes(",") ? "comma" : "point";
    if (column === null) return readingOf(text, { decimal: typed, from: unit, to: unit, decimals: null });
    const { mapping } = this.setting;
    const { decimals = null } = field.rules;
    return readingOf(text, {
      decimal: mapping.decimal,
      from: mapping.columns[column]?.unit ?? unit,
      to: unit,
      decimals: mapping.zeros ? decimals : null,
    });
  }

  /** A reading of a cell; null where it is empty, or wrong, which is told. */
  protected reading(row: Row, cell: Cell, target: Target, place: Place): string | null {
    const read = this.meant(cell, target, place);
    const { text, column } = cell;
    if (read === null && text !== "")
      this.wrong(row, column, msg`"${text}" is not a number, or its decimals stand behind another sign`);
    return read;
  }

  /** What a row is; where results are read off no line, all rows are of samples. */
  protected kindOf(row: Row): RowKind {
    return this.line ? kindOf(row, this.amounts) : "sample";
  }

  /**
   * What a row says, as it is understood: the same rows with a unit corrected are another run. A day that the table does not say is no part
   * of it: imported on another day it is the same table.
   */
  protected meaning(row: Row): readonly string[] {
    const kind = this.kindOf(row);
    const parts: string[] = [];
    for (const target of this.targets) {
      const { key, per, many } = target;
      const place = per === "run" ? target.fills : placeOf(target, kind);
      if (place) {
        const cells = many ? row.all(key) : [row.at(key)];
        for (const cell of cells) parts.push(this.meant(cell, target, place) ?? "");
      } else if (!isReading(target) && key !== "what" && key !== "rough") {
        const { text, column } = row.at(key);
        const date = key === "date" && column !== null ? dateOf(text, this.setting.mapping.dates) : null;
        parts.push(key === "date" ? String(date?.getTime() ?? "") : text);
      }
    }
    return [...parts, ...(kind === "sample" ? [] : [kind]), ...(isRough(row) ? ["rough"] : [])];
  }

  wrong({ row }: Row, column: number | null, message: Phrase): void {
    this.faults++;
    // A standard that stands in many runs is reported once.
    const problem = { row, column, message };
    const fault = faultOf(problem);
    if (this.reported.has(fault)) return;
    this.reported.add(fault);
    this.problems.push(problem);
  }

  /** When the run of a row was begun; null where the date is wrong, which is told. */
  protected begun(row: Row): Date | null {
    const { text, column } = row.at("date");
    if (text === "") {
      this.wrong(row, column, msg`The date is missing`);
      return null;
    }
    const date = dateOf(text, column === null ? "ymd" : this.setting.mapping.dates);
    if (!date) this.wrong(row, column, msg`"${text}" is not a date`);
    else if (date.getTime() > this.setting.now.getTime() + 86_400_000)
      this.wrong(row, column, msg`${text} is in the future`);
    else return date;
    return null;
  }
}
