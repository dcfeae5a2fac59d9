import { useCallback, useEffect, useRef, useState } from "react";

/** What a worker of this product tells: how far it is, then what it found, or why not. */
export type WorkerMessage<T> =
  | { readonly kind: "progress"; readonly part: number }
  | ({ readonly kind: "done" } & T)
  | { readonly kind: "failed"; readonly message: string };

export type WorkerState<T> =
  | { readonly state: "idle" }
  | { readonly state: "running"; readonly part: number }
  | { readonly state: "done"; readonly found: T }
  | { readonly state: "failed"; readonly message: string };

/** One piece of work in a worker of its own, with progress; ending the worker cancels it. */
export function useWorker<T>() {
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
  const start = (make: () => Worker, request: unknown) => {
    end();
    const fresh = make();
    worker.current = fresh;
    setNow({ state: "running", part: 0 });
    fresh.addEventListener("message", ({ data }: MessageEvent<WorkerMessage<T>>) => {
      if (worker.current !== fresh) return;
      if (data.kind === "progress") return setNow({ state: "running", part: data.part });
      end();
      setNow(
        data.kind === "done" ? { state: "done", found: data } : { state: "failed", message: data.message },
      );
    });
    fresh.addEventListener("error", () => {
      setNow({ state: "failed", message: "The drawing did not start: reload the page and try again" });
    });
    fresh.postMessage(request);
  };
  useEffect(() => end, []);
  return { now, start, cancel };
}
