import { useCallback, useEffect, useRef, useState } from "react";
import {
  type Cuvette,
  type PhotometerConnection,
  type InstrumentReading,
  simulatedPhotometer,
} from "~/devices";
import { readSettings } from "../../instruments/settings";
import { type Phrase } from "~/core/text";

export interface Photometer {
  readonly state: "off" | "connecting" | "on" | "failed";
  readonly message: Phrase;
  readonly reading: InstrumentReading | null;
  readonly connect: () => void;
  readonly disconnect: () => void;
  readonly zero: () => void;
  readonly connection: PhotometerConnection | null;
}

const filtersNm = [420, 470, 510, 560, 620, 690];
const nearestFilter = (nm: number) =>
  filtersNm.reduce((best, filter) => (Math.abs(filter - nm) < Math.abs(best - nm) ? filter : best));

const seedOf = (text: string) => [...text].reduce((h, c) => (h * 31 + c.charCodeAt(0)) >>> 0, 7);

/** A number between -1 and 1 that belongs to a text: what a simulated sample truly holds differs from run to run. */
export const hidden = (text: string): number => (seedOf(text) % 2001) / 1000 - 1;

/** The simulated photometer with a cuvette in it; the light falls on whatever is passed. */
export function usePhotometer(runId: string, nm: number, cuvette: Cuvette, which: string): Photometer {
  const [state, setState] = useState<Photometer["state"]>("off");
  const [message, setMessage] = useState<Phrase>("");
  const [shownReading, setReading] = useState<{
    readonly which: string;
    readonly reading: InstrumentReading;
  } | null>(null);
  const connection = useRef<PhotometerConnection | null>(null);
  const [shown, setShown] = useState<PhotometerConnection | null>(null);
  const latest = useRef({ cuvette, which });
  useEffect(() => {
    latest.current = { cuvette, which };
  });

  const connect = useCallback(() => {
    setState("connecting");
    void (async () => {
      const { kind, warmUp } = readSettings().photometer;
      const instrument = simulatedPhotometer({
        seed: seedOf(`${runId}${Date.now()}`),
        wavelengthNm: kind === "filters" ? nearestFilter(nm) : nm,
        ...(kind === "filters" ? { filtersNm } : {}),
        ...(warmUp === "cold" ? { warmUpSeconds: 240 } : {}),
      });
      const made = await instrument.connect();
      if (!made.ok) {
        setState("failed");
        return setMessage(made.problem.message);
      }
      connection.current = made.value;
      setShown(made.value);
      made.value.insert(latest.current.cuvette);
      made.value.stream((next) => {
        if (next.ok) return setReading({ which: latest.current.which, reading: next.value });
        setState("failed");
        setMessage(next.problem.message);
      });
      setState("on");
    })();
  }, [runId, nm]);
  const disconnect = useCallback(() => {
    connection.current?.disconnect();
    connection.current = null;
    setShown(null);
    setReading(null);
    setState("off");
  }, []);
  // Another flask: its cuvette goes into the light.
  useEffect(() => {
    connection.current?.insert(latest.current.cuvette);
  }, [which]);
  useEffect(() => () => connection.current?.disconnect(), []);
  return {
    state,
    message,
    // What was shown of the flask before is no reading of this one.
    reading: shownReading?.which === which ? shownReading.reading : null,
    connect,
    disconnect,
    zero: () => connection.current?.zero(),
    connection: shown,
  };
}
