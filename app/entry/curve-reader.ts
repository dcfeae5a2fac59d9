import { wrap } from "comlink";
import { useEffect, useSyncExternalStore } from "react";
import { type CurveToRead, type PointsRead, readCurvesInWorker } from "~/core/stages";

/* Whole curves of the run on the screen are read in a worker; what is shown of the run is worked out again when one has been read. */

type Away = (curve: CurveToRead) => Promise<PointsRead>;

let read = 0;
const listeners = new Set<() => void>();
const subscribe = (listener: () => void) => {
  listeners.add(listener);
  return () => void listeners.delete(listener);
};

/** One worker, from the first whole curve on for as long as the page is there: what it was asked for is never lost. */
let worker: { readonly away: Away; readonly lost: Promise<null> } | null = null;

function begun() {
  if (worker) return worker;
  const own = new Worker(new URL("../../workers/curve-read.ts", import.meta.url), { type: "module" });
  // A worker whose program cannot be fetched never answers: then the page reads the curve itself.
  const lost = new Promise<null>((resolve) => own.addEventListener("error", () => resolve(null)));
  worker = { away: wrap<(curve: CurveToRead) => PointsRead>(own) as unknown as Away, lost };
  return worker;
}

function readAway(curve: CurveToRead, found: (answer: PointsRead | null) => void): void {
  const { away, lost } = begun();
  void Promise.race([away(curve).catch(() => null), lost]).then((answer) => {
    found(answer);
    read++;
    listeners.forEach((listener) => listener());
  });
}

/** How many curves were read in the worker so far: an evaluation that waited for one is worked out again when that changes. */
export function useCurvesRead(): number {
  // Only once the page is there: until then it shows what the server wrote, which had read its curves.
  useEffect(() => {
    readCurvesInWorker(readAway);
    return () => readCurvesInWorker(null);
  }, []);
  return useSyncExternalStore(
    subscribe,
    () => read,
    () => 0,
  );
}
