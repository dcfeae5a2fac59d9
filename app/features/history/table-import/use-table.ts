import { useRef, useState } from "react";
import type { Mapping } from "~/formats/table/mapping";
import { msg, type Phrase } from "~/core/text";
import type { LookedTable, OpenedTable, TableLine, TableStage, TargetView } from "~/protocol/table-import";
import { readStored, writeStored } from "../../../live/browser-store";
import { askTable, type TableSource } from "./ask-table";

/** What stands in a table whose columns were said before: its headings. */
const memoryOf = ({ preview, headings }: OpenedTable): string | null =>
  headings ? `steady-bead:table:${(preview[0] ?? []).join("|").toLowerCase().slice(0, 500)}` : null;

/** What was said of a table with the same headings the last time; null where nothing was, or its method is gone. */
function remembered(table: OpenedTable, stages: readonly TableStage[]): Mapping | null {
  const key = memoryOf(table);
  const stored = key === null ? null : readStored(key);
  if (stored === null) return null;
  const before = JSON.parse(stored) as Mapping;
  const known = stages.some((one) => one.methodId === before.methodId && one.stageKey === before.stageKey);
  return known ? { ...before, fixed: { ...before.fixed, date: today() } } : null;
}

/** Keeps what was said of a table for the next one with its headings. */
function remember(table: OpenedTable, mapping: Mapping): void {
  const key = memoryOf(table);
  if (key !== null) writeStored(key, JSON.stringify(mapping));
}

export const today = (): string => {
  const now = new Date();
  return new Date(now.getTime() - now.getTimezoneOffset() * 60_000).toISOString().slice(0, 10);
};

const nothingMapped = ({ preview, headings, decimal, orders }: OpenedTable): Mapping => ({
  ...{ methodId: "", stageKey: "", headings, decimal, zeros: false },
  dates: orders.find((possible) => possible.length > 0)?.[0] ?? "ymd",
  columns: (preview[0] ?? []).map(() => null),
  fixed: { date: today() },
});

export interface Progress {
  readonly what: "reading" | "writing";
  readonly done: number;
  readonly of: number;
}

const outOfReach = msg`The server did not answer`;
const stopped = msg`Stopped`;
const stoppedInTime = msg`Stopped: nothing was imported`;
const stoppedTooLate = msg`The import finished before it could be stopped`;

/** Asks the server, one question at a time: how far it has come, and what it refused. */
function useAsk() {
  const [problem, setProblem] = useState<Phrase | null>(null);
  const [notice, setNotice] = useState<Phrase | null>(null);
  const [asksEncoding, setAsksEncoding] = useState(false);
  const [progress, setProgress] = useState<Progress | null>(null);
  const stop = useRef<AbortController | null>(null);
  /** Gives the last line of the answer; null where none came, undefined where another question was asked meanwhile. */
  const ask = async (
    asked: Readonly<Record<string, string>>,
    of: TableSource,
  ): Promise<TableLine | null | undefined> => {
    stop.current?.abort();
    const controller = new AbortController();
    stop.current = controller;
    setProblem(null);
    setNotice(null);
    setProgress({ what: "reading", done: 0, of: 0 });
    const last = await askTable(of, asked, controller.signal, (line) => {
      if (line.status === "working") setProgress(line);
    });
    if (stop.current !== controller) return undefined;
    setProgress(null);
    if (last === null && controller.signal.aborted) setNotice(stopped);
    else if (last === null) setProblem(outOfReach);
    if (last?.status === "refused") {
      setProblem(last.message);
      setAsksEncoding(last.encoding === true || of.encoding !== "");
    }
    return last;
  };
  return {
    ask,
    problem,
    setProblem,
    notice,
    setNotice,
    asksEncoding,
    progress,
    cancel: () => stop.current?.abort(),
  };
}

/** A table, and what is said of it. */
function useMapping() {
  const [source, setSource] = useState<TableSource>({ file: null, text: "", encoding: "" });
  const [table, setTable] = useState<OpenedTable | null>(null);
  const [targets, setTargets] = useState<readonly TargetView[]>([]);
  const [mapping, setMapping] = useState<Mapping | null>(null);
  const [looked, setLooked] = useState<LookedTable | null>(null);
  const [taken, setTaken] = useState<{ readonly runs: number; readonly isHere: number } | null>(null);
  return {
    ...{ source, setSource, table, setTable, targets, setTargets, mapping, setMapping },
    ...{ looked, setLooked, taken, setTaken },
    /** What was found of it holds no longer. */
    afresh: () => {
      setLooked(null);
      setTaken(null);
    },
  };
}

/** Looks at a table as its columns were said to be, and imports it. */
function useLooking(
  { ask, setNotice }: ReturnType<typeof useAsk>,
  { source, table, mapping, looked, setLooked, setTaken }: ReturnType<typeof useMapping>,
) {
  const work = async (intent: "look" | "take", person = "") => {
    if (!mapping || !table) return;
    const answer = await ask({ intent, person, mapping: JSON.stringify(mapping) }, source);
    if (answer?.status === "looked") setLooked(answer.table);
    if (answer?.status === "taken") {
      setTaken(answer);
      setLooked(null);
      remember(table, mapping);
    }
    if (answer === null && intent === "take") await lookAfterStop();
  };

  /** An import that was cut off is there as a whole or not at all: only the lab can say which. */
  const lookAfterStop = async () => {
    const before = looked?.isHere ?? 0;
    const answer = await ask({ intent: "look", mapping: JSON.stringify(mapping) }, source);
    if (answer?.status !== "looked") return;
    setLooked(answer.table);
    setNotice(answer.table.isHere > before ? stoppedTooLate : stoppedInTime);
  };

  return { look: () => work("look"), take: (person: string) => work("take", person) };
}

/** A table on its way into the lab: opened, its columns said, looked at, imported. */
export function useTable(stages: readonly TableStage[]) {
  const asked = useAsk();
  const { ask, setNotice: _, ...asking } = asked;
  const of = useMapping();
  const { source, setSource, table, setTable, targets, setTargets, mapping, setMapping } = of;

  const follow = async (from: Mapping, at: TableSource, keep: boolean) => {
    const { methodId: method, stageKey: stage } = from;
    const answer = await ask({ intent: "targets", method, stage }, at);
    if (answer?.status !== "targets") return;
    setTargets(answer.targets);
    // What the method presumes stands there to be seen: importing it confirms it.
    const usual = Object.fromEntries(
      answer.targets.flatMap((one) => (one.usual ? [[one.key, one.usual]] : [])),
    );
    setMapping(keep ? from : { ...from, columns: answer.guessed, fixed: { ...usual, ...from.fixed } });
  };

  const open = async (from: TableSource) => {
    setSource(from);
    of.afresh();
    const answer = await ask({ intent: "open" }, from);
    if (answer?.status !== "opened") {
      setTable(null);
      return;
    }
    const opened = answer.table;
    setTable(opened);
    const before = remembered(opened, stages);
    if (before) return follow(before, from, true);
    setTargets([]);
    setMapping(nothingMapped(opened));
  };

  const change = (changed: Partial<Mapping>) => {
    of.afresh();
    setMapping((now) => now && { ...now, ...changed });
  };

  return {
    ...{ source, table, targets, mapping, looked: of.looked, taken: of.taken },
    ...{ ...asking, open, change },
    edit: (text: string) => {
      setSource({ file: null, text, encoding: "" });
      setTable(null);
      of.afresh();
    },
    choose: (methodId: string, stageKey: string) =>
      mapping &&
      follow(
        { ...mapping, methodId, stageKey, fixed: { date: mapping.fixed.date ?? today() } },
        source,
        false,
      ),
    ...useLooking(asked, of),
  };
}

export type Table = ReturnType<typeof useTable>;
