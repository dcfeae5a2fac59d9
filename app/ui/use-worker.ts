import { proxy, wrap } from "comlink";
import { useCallback, useEffect, useRef, useState } from "react";
import type { Result } from "~/core/result";
import { useSay } from "../words/text";
import { type Phrase } from "~/core/text";

/** What a worker of this product does: it tells how far it is, from 0 to 1, and gives what it found, or why not. */
type Work<Q, T> = (request: Q, onProgress: (part: number) => void) => Result<T>;

export type WorkerState<T> =
  | { readonly state: "idle" }
  | { readonly state: "running"; readonly part: number }
  | { readonly state: "done"; readonly found: T }
  | { readonly state: "failed"; readonly message: Phrase };

/** One piece of work in a worker of its own, with progress; ending the worker cancels it. */
export function useWorker<Q, T>() {
  const say = useSay();
  const [now, setNow] = useState<WorkerState<T>>({ state: "idle" });
  const worker = useRef<Worker | null>(null);
  const end = () => {
    worker.current?.terminate();
    worker.current = null;
  };
  const cancel = useCallback(() => {
    end();
    setNow({ state: "idle" });
  }, []);
  const start = (make: () => Worker, request: Q) => {
    end();
    const fresh = make();
    worker.current = fresh;
    /** What comes of a worker that was ended meanwhile is nobody's any more. */
    const publish = (state: WorkerState<T>) => {
      if (worker.current !== fresh) return;
      if (state.state !== "running") end();
      setNow(state);
    };
    publish({ state: "running", part: 0 });
    const lost = () =>
      publish({ state: "failed", message: say`The drawing did not start: reload the page and try again` });
    // A worker whose program cannot be fetched says so by this event alone.
    fresh.addEventListener("error", lost);
    const work = wrap<Work<Q, T>>(fresh) as unknown as (...of: Parameters<Work<Q, T>>) => Promise<Result<T>>;
    const onProgress = proxy((part: number) => publish({ state: "running", part }));
    void work(request, onProgress).then(
      (result) =>
        publish(
          result.ok
            ? { state: "done", found: result.value }
            : { state: "failed", message: result.problem.message },
        ),
      lost,
    );
  };
  useEffect(() => end, []);
  return { now, start, cancel };
}
