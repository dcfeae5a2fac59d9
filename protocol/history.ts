import type { RunStatus } from "~/core/run";
import type { Phrase } from "~/core/text";

/** What the history of a lab is asked for, and what it tells. */

export const historySorts = [
  "started",
  "finished",
  "title",
  "sample",
  "method",
  "people",
  "state",
  "result",
] as const;
export interface HistorySort {
  readonly by: (typeof historySorts)[number];
  readonly down: boolean;
}

export const historyStates = ["open", "finished", "countersigned", "archived"] as const;
export type HistoryState = (typeof historyStates)[number];

/** A result by its name, in one unit: the same of whatever method. */
export interface ResultName {
  readonly name: string;
  readonly unit: string;
}

export interface HistoryQuery {
  /** In title, sample or bench. */
  readonly text: string;
  readonly sample: string;
  /** Who read something in it, or whose bench it was. */
  readonly person: string;
  readonly methodId: string | null;
  /** Number of a bottle that was used in it, or that got a concentration by it. */
  readonly solution: number | null;
  /** Days, as 2026-11-30: begun on or after, on or before. */
  readonly from: string | null;
  readonly to: string | null;
  /** Null for all that are not archived. */
  readonly state: HistoryState | null;
  readonly result: ResultName | null;
  /** Bounds of that result, in its unit. */
  readonly least: number | null;
  readonly most: number | null;
  readonly sort: HistorySort;
  readonly page: number;
  readonly size: number;
}

export interface HistoryRow {
  readonly id: string;
  readonly title: string;
  readonly sample: string;
  readonly bench: string;
  readonly status: RunStatus;
  /** Who countersigned it; null where nobody did. */
  readonly countersigned: string | null;
  readonly state: Phrase;
  readonly methodTitle: string;
  readonly startedAt: Date;
  readonly finishedAt: Date | null;
  readonly people: string;
  readonly result:
    (ResultName & { readonly value: number; readonly u: number; readonly shown: Phrase }) | null;
}

export interface HistoryResult {
  readonly rows: readonly HistoryRow[];
  readonly total: number;
}

export interface ResultChoice extends ResultName {
  readonly count: number;
}

/** One result of a run at the time when the run ended. */
export interface TimedResult {
  readonly id: string;
  readonly title: string;
  readonly sample: string;
  readonly at: Date | null;
  readonly value: number;
  readonly u: number;
}

export const pageSizes = [25, 50, 100] as const;

const day = (text: string | null) =>
  text !== null && /^\d{4}-\d{2}-\d{2}$/.test(text) && !Number.isNaN(Date.parse(text)) ? text : null;

const number = (text: string | null): number | null => {
  const plain = (text ?? "").trim().replace(",", ".");
  return plain === "" || !Number.isFinite(Number(plain)) ? null : Number(plain);
};

const among = <T extends string>(all: readonly T[], text: string | null): T | null =>
  all.find((one) => one === text) ?? null;

/** A result in an address: its unit, a bar, its name. */
export const resultKey = ({ name, unit }: ResultName): string => `${unit}|${name}`;

/** What an address asks for; whatever makes no sense in it is left out. */
export function historyAsked(search: URLSearchParams): HistoryQuery {
  const text = (name: string) => (search.get(name) ?? "").slice(0, 200);
  const [unit, ...name] = text("result").split("|");
  const size = number(search.get("size"));
  const bottle = /^(?:s-?)?(\d{1,9})$/i.exec(text("solution").trim());
  return {
    ...{ text: text("q"), sample: text("sample"), person: text("person") },
    methodId: text("method") || null,
    solution: bottle ? Number(bottle[1]) : null,
    ...{ from: day(search.get("from")), to: day(search.get("to")) },
    state: among(historyStates, search.get("state")),
    result: name.length > 0 ? { name: name.join("|"), unit: unit ?? "" } : null,
    ...{ least: number(search.get("least")), most: number(search.get("most")) },
    sort: {
      by: among(historySorts, search.get("sort")) ?? "started",
      down: search.get("order") !== "up",
    },
    page: Math.max(0, Math.min(1_000_000, Math.trunc(number(search.get("page")) ?? 0))),
    size: pageSizes.find((one) => one === size) ?? pageSizes[0],
  };
}
