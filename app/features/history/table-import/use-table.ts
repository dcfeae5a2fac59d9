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

const outOfReach = msg`The server did not answer, or it was stopped: nothing was imported`;

/** Asks the server, one question at a time: how far it has come, and what it refused. */
function useAsk() {
  const [problem, setProblem] = useState<Phrase | null>(null);
  const [asksEncoding, setAsksEncoding] = useState(false);
  const [progress, setProgress] = useState<Progress | null>(null);
  const stop = useRef<AbortController | null>(null);
  const ask = async (asked: Readonly<Record<string, string>>, of: TableSource): Promise<TableLine | null> => {
    stop.current?.abort();
    const controller = new AbortController();
    stop.current = controller;
    setProblem(null);
    setProgress({ what: "reading", done: 0, of: 0 });
    const last = await askTable(of, asked, controller.signal, (line) => {
      if (line.status === "working") setProgress(line);
    });
    // Another question was asked meanwhile.
    if (stop.current !== controller) return null;
    setProgress(null);
    if (last === null) setProblem(outOfReach);
    if (last?.status === "refused") {
      setProblem(last.message);
      setAsksEncoding(last.encoding === true || of.encoding !== "");
    }
    return last;
  };
  return { ask, problem, setProblem, asksEncoding, progress, cancel: () => stop.current?.abort() };
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

/** A table on its way into the lab: opened, its columns said, looked at, imported. */
export function useTable(stages: readonly TableStage[]) {
  const { ask, problem, setProblem, asksEncoding, progress, cancel } = useAsk();
  const of = useMapping();
  const { source, setSource, table, setTable, targets, setTargets, mapping, setMapping } = of;

  const follow = async (from: Mapping, at: TableSource, keep: boolean) => {
    const { methodId: method, stageKey: stage } = from;
    const answer = await ask({ intent: "targets", method, stage }, at);
    if (answer?.status !== "targets") return;
    setTargets(answer.targets);
    setMapping(keep ? from : { ...from, columns: answer.guessed });
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

  const work = async (intent: "look" | "take", person: string) => {
    if (!mapping || !table) return;
    const answer = await ask({ intent, person, mapping: JSON.stringify(mapping) }, source);
    if (answer?.status === "looked") of.setLooked(answer.table);
    if (answer?.status === "taken") {
      of.setTaken(answer);
      of.setLooked(null);
      const key = memoryOf(table);
      if (key !== null) writeStored(key, JSON.stringify(mapping));
    }
  };

  return {
    ...{ source, table, targets, mapping, looked: of.looked, taken: of.taken },
    ...{ problem, setProblem, asksEncoding, progress, open, change, cancel },
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
    look: (person: string) => work("look", person),
    take: (person: string) => work("take", person),
  };
}

export type Table = ReturnType<typeof useTable>;
