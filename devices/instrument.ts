import type { Result } from "~/core/result";
import { type Phrase } from "~/core/text";

/** One value that an instrument shows. */
export interface InstrumentReading {
  /** Since the connection was made, s. */
  readonly seconds: number;
  readonly value: number;
  /** As the display shows it. */
  readonly text: string;
  readonly unit: string;
  /** True when the display has stopped moving: only then is it a reading to take. */
  readonly stable: boolean;
}

/** A connected instrument. What goes wrong comes as a value, in words; whether it goes on after that, `connected` tells. */
export interface InstrumentConnection {
  readonly connected: () => boolean;
  readonly stream: (listener: (reading: Result<InstrumentReading>) => void) => () => void;
  readonly disconnect: () => void;
}

/** Anything on the bench that tells numbers by itself. */
export interface Instrument<C extends InstrumentConnection = InstrumentConnection> {
  readonly id: string;
  readonly name: Phrase;
  readonly unit: string;
  readonly connect: (clock?: Clock) => Promise<Result<C>>;
}

/** Time as an instrument feels it; tests bring their own. */
export interface Clock {
  /** Seconds from any beginning. */
  readonly now: () => number;
  /** Calls again and again until stopped. */
  readonly every: (seconds: number, call: () => void) => () => void;
}

export const wallClock: Clock = {
  now: () => performance.now() / 1000,
  every: (seconds, call) => {
    const timer = setInterval(call, seconds * 1000);
    return () => clearInterval(timer);
  },
};
