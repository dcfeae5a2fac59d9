import type { Field } from "../inputs";
import { type ComputedStage, fieldKey, type Method, stageFields, trialFields } from "../method";
import {
  isTakenBack,
  type Observation,
  presentObservation,
  type StageRecord,
  type TrialRecord,
  trialName,
} from "../record";
import { type HouseRules, replicatesNeeded } from "../rules";
import { methodOf, type RunRecord } from "../run";
import { allowsOf, planningOf } from "../stages";
import { capitalized, msg, type Phrase, joined, unitText } from "../text";

/*
 * The data sheet of a method on paper: the fields of each stage in the order of the work, with room for what is read and for
 * the time. The same sheet is the form by which it is entered later.
 */

/** Readings of one cuvette that a sheet has room for. */
const readingsOnPaper = 2;

/** Flasks beyond those that are needed that a sheet has room for. */
const spareRows = 2;

/** A place for a reading: the field, and the how-manieth reading where one is read many times. */
export interface SheetColumn {
  readonly key: string;
  readonly field: Field;
  readonly label: Phrase;
}

/** A flask, or a trial, on the sheet. */
export interface SheetRow {
  readonly key: string;
  readonly name: Phrase;
  readonly kind: TrialRecord["kind"];
  /** The trial that it goes on with; null where it begins one. */
  readonly trialId: string | null;
  /** What is recorded already, by column. */
  readonly written: ReadonlyMap<string, string>;
  /** What will be written, unless something else is: the amounts of a series. */
  readonly offered: ReadonlyMap<string, string>;
}

export interface SheetStage {
  readonly key: string;
  readonly title: string;
  readonly definition: ComputedStage;
  /** What is read once, and what of it is recorded already. */
  readonly once: readonly SheetColumn[];
  readonly onceWritten: ReadonlyMap<string, string>;
  readonly columns: readonly SheetColumn[];
  readonly rows: readonly SheetRow[];
}

const columnsOf = (fields: readonly Field[]): SheetColumn[] =>
  fields
    // Points of a curve are pairs: they are written in a table of their own, and pasted.
    .filter(({ hidden, outOfTurn, otherWay, kind }) => !hidden && !outOfTurn && !otherWay && kind !== "point")
    .flatMap((field, i, all) => {
      // A recheck at the end is one reading.
      const first = all.findIndex(({ symbol, many }) => many && symbol === field.symbol) === i;
      const readings = field.many && first ? readingsOnPaper : 1;
      return Array.from({ length: readings }, (_, nth) => ({
        key: `${fieldKey(field)}${readings > 1 ? `:${nth + 1}` : ""}`,
        field,
        label: readings > 1 ? msg`${field.label}, ${nth + 1}` : field.label,
      }));
    });

/** What stands in a record for the columns of a sheet. Of what is read many times nothing does: each reading is one more. */
function writtenIn(columns: readonly SheetColumn[], observations: readonly Observation[]) {
  return new Map(
    columns.flatMap(({ key, field }): [string, string][] => {
      const present = field.many ? null : presentObservation(observations, field.symbol, field.kind);
      return present ? [[key, present.text]] : [];
    }),
  );
}

const empty: ReadonlyMap<string, string> = new Map();

/** Trials that were begun and miss something, so that paper may go on with them. */
function begunRows(columns: readonly SheetColumn[], stage: StageRecord): SheetRow[] {
  return stage.trials.flatMap((trial): SheetRow[] => {
    const written = writtenIn(columns, trial.observations);
    const isRead = ({ key, field }: SheetColumn) =>
      field.many
        ? trial.observations.some((o) => o.symbol === field.symbol && o.kind === field.kind)
        : written.has(key);
    if (
      trial.struck ||
      isTakenBack(trial, stage) ||
      columns.every((column) => column.field.optional || isRead(column))
    )
      return [];
    const name = capitalized(trialName(trial));
    return [{ key: trial.id, name, kind: trial.kind, trialId: trial.id, written, offered: empty }];
  });
}

/** Rows for trials that are not begun yet, numbered on from those that are there. */
function newRows(
  stage: ComputedStage,
  columns: readonly SheetColumn[],
  rules: HouseRules,
  there: StageRecord | null,
) {
  const { series, startsRough } = planningOf(stage);
  // A trial whose readings were all taken back is none.
  const trials = there?.trials.filter((trial) => !isTakenBack(trial, there)) ?? [];
  const first = 1 + Math.max(0, ...trials.map(({ number }) => number ?? 0));
  const row = (i: number, offered = empty, key = `new ${i}`): SheetRow => ({
    ...{ key, name: String(first + i), kind: "fine" as const },
    ...{ trialId: null, written: empty, offered },
  });
  if (series) {
    const { symbol, kind, texts } = series(stage);
    const column = columns.find(({ field }) => field.symbol === symbol && field.kind === kind);
    const made = new Set(trials.map((t) => Number(presentObservation(t.observations, symbol, kind)?.value)));
    const values = texts.filter((value) => !made.has(Number(value)));
    // Known by its amount: what was typed for a flask stays with it when another device makes the one before.
    const flasks = values.map((value, i) =>
      row(i, new Map(column ? [[column.key, value]] : []), `amount ${value}`),
    );
    return [...flasks, ...[0, 1].map((i) => row(values.length + i, empty, `spare ${i}`))];
  }
  const rough = trials.length === 0 && startsRough?.(stage, rules) === true;
  const rows = Array.from({ length: replicatesNeeded(rules.agreement) + spareRows }, (_, i) => row(i));
  return rough ? [{ ...row(0), key: "rough", name: msg`Rough`, kind: "rough" as const }, ...rows] : rows;
}

/** The data sheet of a method under house rules; of a run, with what is recorded in it already. */
export function dataSheet(method: Method, rules: HouseRules, record: RunRecord | null): SheetStage[] {
  const { stages } = record ? methodOf(record) : method;
  return stages.map((definition): SheetStage => {
    const there = record?.stages.find(({ key }) => key === definition.key) ?? null;
    const once = columnsOf(stageFields(definition, rules));
    const columns = allowsOf(definition).trials ? columnsOf(trialFields(definition, rules)) : [];
    return {
      ...{ key: definition.key, title: definition.title, definition, once, columns },
      onceWritten: writtenIn(once, there?.observations ?? []),
      rows:
        columns.length === 0
          ? []
          : [...(there ? begunRows(columns, there) : []), ...newRows(definition, columns, rules, there)],
    };
  });
}

/** The heading of a column with its unit. */
export const withUnit = ({ label, field }: SheetColumn): Phrase =>
  field.unit === "" ? label : joined([label, unitText(field.unit)], ", ");
