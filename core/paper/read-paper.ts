import { applyChange, type ChangeContext, type Enter, openStage, problemOfTime } from "../change";
import { checkField } from "../method";
import type { Observation, TrialRecord } from "../record";
import type { RunRecord } from "../run";
import type { SheetColumn } from "./data-sheet";
import { msg, type Phrase } from "../text";

/** One row of a sheet as it was written: a flask, or what is read once for the stage. */
export interface PaperRow {
  readonly key: string;
  /** The trial that it goes on with or begins; null for what is read once. */
  readonly trial: Pick<TrialRecord, "id" | "kind"> | null;
  /** When it was read, as an instant; null where no time was written; undefined where what was written is none. */
  readonly at: string | null | undefined;
  /** True where a time has to be given: it was another day than that of the entry. */
  readonly timeNeeded?: boolean;
  readonly cells: readonly PaperCell[];
}

export interface PaperCell {
  readonly column: SheetColumn;
  readonly text: string;
  /** Of the reading that it becomes. */
  readonly id: string;
}

/** What is to be said beside a place of the form: what keeps it from being entered, or what looks like a slip. */
export interface PaperNote {
  readonly grave: boolean;
  readonly message: Phrase;
}

export interface PaperRead {
  /** By row and column, see `noteKey`. */
  readonly notes: ReadonlyMap<string, PaperNote>;
  /** How many readings there are. */
  readonly count: number;
  /** What enters them, all or none; null where nothing was written, or something stands in the way. */
  readonly request: Enter | null;
}

/** The column of the time in `noteKey`. */
export const timeColumn = "time";

export const noteKey = (row: string, column: string): string => `${row} ${column}`;

const observationsOf = (
  record: RunRecord,
  stageKey: string,
  trial: PaperRow["trial"],
): readonly Observation[] => {
  const stage = record.stages.find(({ key }) => key === stageKey);
  return (trial ? stage?.trials.find(({ id }) => id === trial.id) : stage)?.observations ?? [];
};

/**
 * Reads what was written on paper for one stage, place by place, by the checks that the run makes: each reading is entered into
 * the record as it would be on the server, in the order of the sheet, so that a final reading is held against its initial one.
 */
export function readPaper(
  record: RunRecord,
  stageKey: string,
  rows: readonly PaperRow[],
  context: ChangeContext,
): PaperRead {
  const notes = new Map<string, PaperNote>();
  const opened = openStage(record, stageKey);
  const entered: Enter["rows"] = [];
  let now = record;
  for (const { key, trial, at, timeNeeded, cells } of rows) {
    const written = cells.filter(({ text }) => text.trim() !== "");
    if (!opened.ok || written.length === 0) continue;
    const wrong = timeNote(at, timeNeeded === true, context.now);
    if (wrong !== null) notes.set(noteKey(key, timeColumn), { grave: true, message: wrong });
    const when = at && wrong === null ? { at } : {};
    const readings: Enter["rows"][number]["readings"] = [];
    for (const { column, text, id } of written) {
      const { symbol, kind } = column.field;
      const place = noteKey(key, column.key);
      const checked = checkField(column.field, text, {
        stage: opened.value.definition,
        houseRules: record.houseRules,
        holder: { observations: [...observationsOf(now, stageKey, trial)] },
      });
      if (!checked.ok) {
        notes.set(place, { grave: true, message: checked.problem.message });
        continue;
      }
      const reading = { id, symbol, kind, text: text.trim(), person: context.person };
      const applied = applyChange(
        now,
        paperRequest(stageKey, [{ trial, readings: [reading], ...when }]),
        context,
      );
      if (!applied.ok) {
        notes.set(place, { grave: true, message: applied.problem.message });
        continue;
      }
      now = applied.value?.record ?? now;
      const [caution] = checked.value.cautions;
      if (caution) notes.set(place, { grave: false, message: caution.message });
      readings.push(reading);
    }
    if (readings.length > 0) entered.push({ trial, readings, ...when });
  }
  const grave = [...notes.values()].some((note) => note.grave);
  return {
    notes,
    count: entered.reduce((sum, { readings }) => sum + readings.length, 0),
    request: grave || entered.length === 0 ? null : paperRequest(stageKey, entered),
  };
}

function timeNote(at: PaperRow["at"], needed: boolean, now: string): Phrase | null {
  if (at === undefined) return msg`Enter a time such as 9:40 or 14:05`;
  if (at === null) return needed ? msg`Enter the approximate time: it was another day` : null;
  return problemOfTime(at, now);
}

const paperRequest = (stageKey: string, rows: Enter["rows"]): Enter => ({
  intent: "enter",
  stageKey,
  source: "paper",
  rows,
});

/** Minutes since midnight of a time as people write it, "9:40", "14.05" or "2:05 pm"; null where it is none. */
export function clockMinutes(text: string): number | null {
  const found = /^(\d{1,2})[:.](\d{2})\s*(am|pm)?$/i.exec(text.trim());
  if (!found) return null;
  const [hours, minutes] = [Number(found[1]), Number(found[2])];
  const half = found[3]?.toLowerCase();
  if (minutes > 59 || hours > 23 || (half && (hours < 1 || hours > 12))) return null;
  return 60 * (half ? (hours % 12) + (half === "pm" ? 12 : 0) : hours) + minutes;
}
