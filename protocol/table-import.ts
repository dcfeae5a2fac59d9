import type { Phrase } from "~/core/text";
import { checker } from "../formats/validate";
import { valid } from "../formats/compiled/table-mapping";
import type { Target } from "../formats/table/columns";
import type { Mapping } from "../formats/table/mapping";
import type { DateOrder } from "../formats/table/numbers";
import type { TableRun } from "../formats/table/runs";

/* How a table is brought in: what is asked, and what is answered line by line while the server works. */

export const checkMapping = checker<Mapping>(valid);

/** What a column can stand for, as the screen needs it. */
export type TargetView = Pick<Target, "key" | "label" | "unit" | "per" | "needed" | "usual" | "byMethod">;

/** A stage whose trials a table can hold. */
export interface TableStage {
  readonly methodId: string;
  readonly stageKey: string;
  readonly method: string;
  readonly stage: string;
}

/** A table that was read, before anybody says what it means. */
export interface OpenedTable {
  readonly rows: number;
  /** Its first rows. */
  readonly preview: readonly (readonly string[])[];
  readonly headings: boolean;
  readonly decimal: Mapping["decimal"];
  /** The orders in which the dates of each column can be read; none where it holds other things. */
  readonly orders: readonly (readonly DateOrder[])[];
}

export interface TableRunView {
  readonly title: string;
  readonly trials: number;
  readonly flasks: TableRun["flasks"];
  /** The first and the last of its rows. */
  readonly rows: readonly [number, number];
  readonly result: Phrase | null;
  readonly open: Phrase | null;
  readonly isHere: boolean;
}

/** What came of reading the table as runs. */
export interface LookedTable {
  readonly runs: number;
  readonly isHere: number;
  readonly withoutResult: number;
  /** The first of them. */
  readonly some: readonly TableRunView[];
  readonly problems: readonly {
    readonly row: number;
    readonly column: number | null;
    readonly message: Phrase;
  }[];
}

/** One line of the answer. */
export type TableLine =
  | {
      readonly status: "working";
      readonly done: number;
      readonly of: number;
      readonly what: "reading" | "writing";
    }
  | { readonly status: "opened"; readonly table: OpenedTable }
  | {
      readonly status: "targets";
      readonly targets: readonly TargetView[];
      readonly guessed: Mapping["columns"];
    }
  | { readonly status: "looked"; readonly table: LookedTable }
  | { readonly status: "taken"; readonly runs: number; readonly isHere: number }
  | { readonly status: "refused"; readonly message: Phrase; readonly encoding?: true };
