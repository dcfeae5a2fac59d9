import { useCallback, useEffect, useRef, useState } from "react";
import type { Drawn } from "~/core/montecarlo";
import type { RunRecord } from "~/core/run";
import type { DrawMessage, DrawRequest } from "~/workers/monte-carlo";

export type Draws =
  | { readonly state: "idle" }
  | { readonly state: "running"; readonly part: number }
  | { readonly state: "done"; readonly drawn: Drawn; readonly milliseconds: number }
  | { readonly state: "failed"; readonly message: string };

const draws = 1_000_000;

/** A million draws of a stage's result in a worker of their own, with progress; ending the worker cancels them. */
export function useDraws(record: RunRecord, stageKey: string) {
  const [now, setNow] = useState<Draws>({ state: "idle" });
  const worker = useRef<Worker | null>(null);
  const cancel = useCallback(() => {
    worker.current?.terminate();
    worker.current = null;
    setNow({ state: "idle" });
  }, []);
  const start = () => {
    worker.current?.terminate();
    const fresh = new Worker(new URL("../../../workers/monte-carlo.ts", import.meta.url), {
      type: "module",
    });
    worker.current = fresh;
    setNow({ state: "running", part: 0 });
    fresh.addEventListener("message", ({ data }: MessageEvent<DrawMessage>) => {
      if (worker.current !== fresh) return;
      if (data.kind === "progress") return setNow({ state: "running", part: data.part });
      fresh.terminate();
      worker.current = null;
      setNow(data.kind === "done" ? { ...data, state: "done" } : { state: "failed", message: data.message });
    });
    fresh.addEventListener("error", () => {
      setNow({ state: "failed", message: "The drawing did not start: reload the page and try again" });
    });
    // The same run draws the same numbers, so that two people see one picture.
    const request: DrawRequest = { record, stageKey, draws, seed: 20_261_125 };
    fresh.postMessage(request);
  };
  useEffect(() => () => worker.current?.terminate(), []);
  return { now, start, cancel };
}
