import dayjs from "dayjs";
import { v7 as newId } from "uuid";
import {
  clockMinutes,
  noteKey,
  type PaperRow,
  type SheetColumn,
  type SheetStage,
  timeColumn,
} from "~/core/paper";

/** The texts of the form, by their place. */
export type Texts = Readonly<Record<string, string>>;

/** The row of what is read once for a stage. */
export const onceRow = "once";

/** Where a text of the form is kept. */
export const placeOf = (stage: string, row: string, column: string) => `${stage} ${noteKey(row, column)}`;

/** Today as a field for a date takes it. */
export const today = () => dayjs().format("YYYY-MM-DD");

/** The instant of a time on the sheet's day; null where none was written, undefined where what was written is none. */
function instantOf(date: string, time: string): string | null | undefined {
  if (time.trim() === "") return null;
  const minutes = clockMinutes(time);
  const at = dayjs(date)
    .startOf("day")
    .add(minutes ?? NaN, "minute");
  return minutes !== null && at.isValid() ? at.toISOString() : undefined;
}

/** The rows of a stage as they were typed; what is offered counts once something else of its row was typed. */
export function typedRows(stage: SheetStage, texts: Texts, date: string): PaperRow[] {
  const text = (row: string, column: string) => texts[placeOf(stage.key, row, column)] ?? "";
  const cells = (row: string, columns: readonly SheetColumn[]) =>
    columns.map((column) => ({ column, text: text(row, column.key), id: newId() }));
  const timeNeeded = date !== today();
  const time = (row: string) => ({ at: instantOf(date, text(row, timeColumn)), timeNeeded });
  const once = { key: onceRow, trial: null, ...time(onceRow), cells: cells(onceRow, stage.once) };
  return [
    once,
    ...stage.rows.map(({ key, kind, trialId, offered }): PaperRow => {
      const typed = cells(key, stage.columns);
      const begun = typed.some((cell) => cell.text.trim() !== "");
      return {
        ...{ key, trial: { id: trialId ?? newId(), kind }, ...time(key) },
        cells: begun
          ? typed.map((cell) =>
              cell.text === "" ? { ...cell, text: offered.get(cell.column.key) ?? "" } : cell,
            )
          : typed,
      };
    }),
  ];
}
