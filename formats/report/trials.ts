import { buretteDecimals } from "~/core/rules";
import type { RunRecord } from "~/core/run";
import {
  type CalibrationEvaluation,
  type ComputedEvaluation,
  type FieldState,
  isOnce,
  type LevelEvaluation,
  membersOf,
  type TrialEvaluation,
} from "~/core/stages";
import { toSignificant, withUnit } from "~/core/quantity";
import { msg, type Phrase, unitText } from "~/core/text";

/** What stands in one place of a table: what holds now, and what stood there before and was struck through. */
export interface ReportCell {
  readonly text: Phrase;
  /** Corrected readings, oldest first, each with why. */
  readonly was: readonly { readonly text: string; readonly why: string | null }[];
}

export interface ReportRow {
  readonly name: Phrase;
  readonly cells: readonly ReportCell[];
  /** Whether it counts, and why not where it does not. */
  readonly remark: Phrase;
  /** True where it was struck out. */
  readonly struck: boolean;
  /** True where it is part of the result. */
  readonly inResult: boolean;
}

export interface ReportTable {
  readonly heads: readonly Phrase[];
  readonly rows: readonly ReportRow[];
}

const plain = (text: Phrase): ReportCell => ({ text, was: [] });

/** A reading as it was typed, with those that it replaced; of what is read many times, all that stand. */
function fieldCell({ present, history, readings }: FieldState): ReportCell {
  const standing =
    readings && readings.length > 1 ? readings.map(({ text }) => text).join(", ") : (present?.text ?? "");
  const replaced = history.filter(
    (o) => o.id !== present?.id && o.value !== null && !(readings ?? []).some(({ id }) => id === o.id),
  );
  const why = (id: string) => history.find(({ supersedes }) => supersedes === id)?.reason ?? null;
  return { text: standing, was: replaced.map(({ id, text }) => ({ text, why: why(id) })) };
}

type Holder = { readonly fields: readonly FieldState[] };

const sameField = (a: FieldState, b: FieldState) =>
  a.field.symbol === b.field.symbol && a.field.kind === b.field.kind;

/** The fields that any of them has a reading of, in the order of the work. */
function usedFields(holders: readonly Holder[]): readonly FieldState[] {
  const found: FieldState[] = [];
  for (const state of holders.flatMap(({ fields }) => fields)) {
    const shown = !state.field.hidden && state.field.kind !== "point" && state.history.length > 0;
    if (shown && !found.some((other) => sameField(other, state))) found.push(state);
  }
  // As a hand reads them, whichever flask has them.
  const [like] = holders;
  const place = (state: FieldState) => like?.fields.findIndex((other) => sameField(other, state)) ?? 0;
  return found.sort((a, b) => place(a) - place(b));
}

const headOf = ({ field: { label, unit } }: FieldState): Phrase =>
  unit === "" ? label : msg`${label}, ${unitText(unit)}`;

function readCells(columns: readonly FieldState[], { fields }: Holder): ReportCell[] {
  return columns.map((column) => {
    const state = fields.find((other) => sameField(other, column));
    return state ? fieldCell(state) : plain("");
  });
}

function remarkOf(trial: TrialEvaluation, members: ReadonlySet<string>): Phrase {
  const { record, missing, eligible } = trial;
  if (record.struck) return msg`struck out: ${record.struck.reason}`;
  if (members.has(trial.id)) return msg`in the result`;
  if (missing) return msg`not complete`;
  if (record.kind === "rough") return msg`rough, does not count`;
  return eligible ? msg`counts, outside the set` : (trial.problem ?? msg`does not count`);
}

/** The trials of a stage as a table; null where nothing was done in trials. */
export function trialTable(stage: ComputedEvaluation, record: RunRecord): ReportTable | null {
  if ("levels" in stage) return levelTable(stage);
  if (isOnce(stage) || stage.trials.length === 0) return null;
  const members = new Set(membersOf(stage).map(({ id }) => id));
  const columns = usedFields(stage.trials);
  const titrated = "titer" in stage;
  const titer = ({ titerMl }: TrialEvaluation) =>
    plain(titerMl === null ? "" : titerMl.toFixed(buretteDecimals(record.houseRules)));
  return {
    heads: [
      ...columns.map(headOf),
      ...(titrated ? [msg`Titer, ${unitText("mL")}`] : []),
      stage.definition.result.name,
    ],
    rows: stage.trials.map((trial) => ({
      name: trial.name,
      cells: [
        ...readCells(columns, trial),
        ...(titrated ? [titer(trial)] : []),
        plain(trial.shownResult?.text ?? ""),
      ],
      remark: remarkOf(trial, members),
      struck: trial.record.struck !== null,
      inResult: members.has(trial.id),
    })),
  };
}

/** The standards of a line: what was taken for each, the amount in it, its readings. */
function levelTable({ levels, definition }: CalibrationEvaluation): ReportTable | null {
  if (levels.length === 0) return null;
  const isAbsorbance = ({ field }: FieldState) => /^(absorbance|transmittance)/.test(field.kind);
  const columns = usedFields(levels).filter((state) => !isAbsorbance(state));
  const { name, unit } = definition.axis;
  const readings = ({ readings: all }: LevelEvaluation): ReportCell => ({
    text: all
      .filter(({ struck }) => !struck)
      .map(({ text }) => text)
      .join(", "),
    was: all.flatMap(({ text, struck }) => (struck ? [{ text, why: struck.reason }] : [])),
  });
  return {
    heads: [...columns.map(headOf), name, msg`Absorbance`],
    rows: levels.map((level) => ({
      name: level.name,
      cells: [
        ...readCells(columns, level),
        plain(level.x === null ? "" : withUnit(toSignificant(level.x, 4), unit)),
        readings(level),
      ],
      remark: level.leftOut ?? (level.mean === null ? msg`not read` : msg`part of the line`),
      struck: level.record.struck !== null,
      inResult: level.leftOut === null && level.mean !== null,
    })),
  };
}
