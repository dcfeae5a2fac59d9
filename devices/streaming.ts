import { failure, type Result, success } from "~/core/result";
import type { Clock, InstrumentConnection, Instrument, InstrumentReading } from "./instrument";
import { wallClock } from "./instrument";
import { msg, type Phrase } from "~/core/text";

/** What a simulated instrument can be made to do wrong, and after how many seconds. */
export interface Fault {
  readonly kind: "garbage" | "freeze" | "unplug";
  readonly afterSeconds: number;
}

/** A connection with whatever else a simulated instrument lets one do, as tare it or open its tap. */
export interface Simulated<A> extends InstrumentConnection {
  readonly act: A;
}

interface Model<A> {
  readonly id: string;
  readonly name: Phrase;
  readonly unit: string;
  readonly secondsPerReading: number;
  readonly fault?: Fault | undefined;
  /** A fresh instrument, switched on at this moment: what it shows after so many seconds, and what can be done to it. */
  readonly switchOn: (seconds: () => number) => {
    readonly show: () => Omit<InstrumentReading, "seconds">;
    readonly act: A;
  };
}

/** A simulated instrument behind the interface of all: it can be connected once at a time, and go wrong when told to. */
export function simulated<A>(model: Model<A>): Instrument<Simulated<A>> {
  const { id, name, unit, fault, secondsPerReading, switchOn } = model;
  let taken = false;
  return {
    id,
    name,
    unit,
    connect: (clock: Clock = wallClock) => {
      if (taken) return Promise.resolve(failure(msg`The instrument is in use already`));
      taken = true;
      const start = clock.now();
      const seconds = () => clock.now() - start;
      const { show, act } = switchOn(seconds);
      const stops = new Set<() => void>();
      let plugged = true;
      const disconnect = () => {
        plugged = taken = false;
        for (const stop of stops) stop();
        stops.clear();
      };
      const one = (listener: (reading: Result<InstrumentReading>) => void) => {
        const wrong = fault && seconds() >= fault.afterSeconds ? fault.kind : null;
        if (wrong === "freeze") return;
        if (wrong === "garbage") return listener(failure(msg`${name} sent "?#~0" and no number`));
        if (wrong === "unplug") {
          disconnect();
          return listener(failure(msg`${name} is not connected any more: look at its cable`));
        }
        listener(success({ ...show(), seconds: seconds() }));
      };
      return Promise.resolve(
        success({
          connected: () => plugged,
          act,
          disconnect,
          stream: (listener: (reading: Result<InstrumentReading>) => void) => {
            if (!plugged) {
              listener(failure(msg`The instrument is not connected any more`));
              return () => undefined;
            }
            const stop = clock.every(secondsPerReading, () => one(listener));
            stops.add(stop);
            return () => {
              stop();
              stops.delete(stop);
            };
          },
        }),
      );
    },
  };
}
