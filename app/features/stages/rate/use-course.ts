import { useEffect, useRef, useState } from "react";
import { rateLaw } from "~/core/kinetics";
import {
  absorberNear,
  type Clock,
  epsilonAt,
  type PhotometerConnection,
  simulatedPhotometer,
} from "~/devices";
import { type Phrase } from "~/core/text";

/** How much faster than the world the simulated instrument lives: 200 s are over in ten. */
const speed = 20;

const fastClock: Clock = {
  now: () => (performance.now() / 1000) * speed,
  every: (seconds, call) => {
    const timer = setInterval(call, (seconds * 1000) / speed);
    return () => clearInterval(timer);
  },
};

export const courseSeconds = 200;

export interface RunningCourse {
  readonly points: readonly (readonly [number, number])[];
  readonly running: boolean;
  readonly trouble: Phrase | null;
  readonly start: (
    k: number,
    nm: number,
    done: (points: readonly (readonly [number, number])[]) => void,
  ) => void;
  readonly stop: () => void;
}

/** A cuvette in the simulated photometer that fades by a true rate law, read each second. */
export function useCourse(seed: number): RunningCourse {
  const [points, setPoints] = useState<readonly (readonly [number, number])[]>([]);
  const [running, setRunning] = useState(false);
  const [trouble, setTrouble] = useState<Phrase | null>(null);
  const connection = useRef<PhotometerConnection | null>(null);
  const stop = () => {
    connection.current?.disconnect();
    connection.current = null;
    setRunning(false);
    setPoints([]);
  };
  useEffect(() => () => connection.current?.disconnect(), []);
  const start: RunningCourse["start"] = (k, nm, done) => {
    setTrouble(null);
    setRunning(true);
    void (async () => {
      const made = await simulatedPhotometer({ seed, wavelengthNm: nm, noise: 0.0012 }).connect(fastClock);
      if (!made.ok) {
        setRunning(false);
        return setTrouble(made.problem.message);
      }
      connection.current = made.value;
      const absorber = absorberNear(nm);
      made.value.zero();
      made.value.insert({ absorber, molPerL: (t) => rateLaw(1, 0.92, k, t) / epsilonAt(absorber, nm) });
      const read: (readonly [number, number])[] = [];
      let [first, finished]: [number | null, boolean] = [null, false];
      made.value.stream((next) => {
        if (finished) return;
        if (!next.ok) {
          finished = true;
          setRunning(false);
          return setTrouble(next.problem.message);
        }
        const { seconds, value, stable } = next.value;
        first ??= seconds;
        const at = Math.floor(seconds - first);
        if (!stable || at <= (read.at(-1)?.[0] ?? -1)) return;
        read.push([at, value]);
        if (read.length % 8 === 0) setPoints([...read]);
        if (at < courseSeconds) return;
        finished = true;
        made.value.disconnect();
        connection.current = null;
        setRunning(false);
        setPoints([]);
        done(read);
      });
    })();
  };
  return { points, running, trouble, start, stop };
}
