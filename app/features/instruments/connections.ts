import { useSyncExternalStore } from "react";
import {
  type BalanceActs,
  type BuretteActs,
  type InstrumentConnection,
  type Fault,
  type Instrument,
  type InstrumentReading,
  serialInstrument,
  type SerialPortLike,
  simulatedBalance,
  simulatedBurette,
  simulatedThermometer,
  type ThermometerActs,
  watched,
} from "~/devices";
import { type InstrumentChoice, readSettings, type Role, roleUnits } from "./settings";
import { msg, type Phrase } from "~/core/text";

interface Acts {
  readonly balance?: BalanceActs;
  readonly burette?: BuretteActs;
  readonly thermometer?: ThermometerActs;
}

/** An instrument as screens see it. */
export interface InstrumentState {
  readonly state: "off" | "connecting" | "on" | "failed";
  /** What is wrong, or was a moment ago. */
  readonly message: Phrase;
  readonly reading: InstrumentReading | null;
  /** What can be done to a simulated one. */
  readonly acts: Acts;
}

const off: InstrumentState = { state: "off", message: "", reading: null, acts: {} };
const states = new Map<Role, InstrumentState>();
const open = new Map<Role, { connection: InstrumentConnection; stop: () => void }>();
const listeners = new Set<() => void>();

function setInstrument(role: Role, change: Partial<InstrumentState>): void {
  states.set(role, { ...(states.get(role) ?? off), ...change });
  listeners.forEach((listener) => listener());
}

const faultOf = ({ fault }: InstrumentChoice): Fault | undefined =>
  fault === "none" ? undefined : { kind: fault, afterSeconds: 30 };

/** The serial port that the browser lets the person choose. */
async function chosenPort(): Promise<SerialPortLike> {
  const { serial } = navigator as { serial?: { requestPort: () => Promise<SerialPortLike> } };
  if (!serial) throw new Error("no serial ports");
  return serial.requestPort();
}

const names: Record<Role, string> = {
  balance: "The balance",
  burette: "The burette",
  thermometer: "The thermometer",
};

async function connectSimulated(
  role: Role,
  choice: InstrumentChoice,
): Promise<readonly [InstrumentConnection, Acts] | Phrase> {
  const seed = Date.now() >>> 0;
  const fault = faultOf(choice);
  switch (role) {
    case "balance": {
      const made = await simulatedBalance({ seed, readabilityG: 0.0001, fault }).connect();
      return made.ok ? [made.value, { balance: made.value.act }] : made.problem.message;
    }
    case "burette": {
      const made = await simulatedBurette({ seed, capacityMl: 50, resolutionMl: 0.01, fault }).connect();
      return made.ok ? [made.value, { burette: made.value.act }] : made.problem.message;
    }
    case "thermometer": {
      const made = await simulatedThermometer({ seed, startC: 72, roomC: 21, fault }).connect();
      return made.ok ? [made.value, { thermometer: made.value.act }] : made.problem.message;
    }
  }
}

async function connectSerial(
  role: Role,
  { line, baudRate }: InstrumentChoice,
): Promise<readonly [InstrumentConnection, Acts] | Phrase> {
  if (!("serial" in navigator)) {
    return msg`This browser gives no access to serial ports: use one that does, or the simulated instrument`;
  }
  const instrument: Instrument = serialInstrument(
    names[role],
    chosenPort,
    { line, unit: roleUnits[role] },
    baudRate,
  );
  const made = await instrument.connect();
  return made.ok ? [made.value, {}] : made.problem.message;
}

const isMade = (
  made: readonly [InstrumentConnection, Acts] | Phrase,
): made is readonly [InstrumentConnection, Acts] => Array.isArray(made);

/** Connects the instrument that is chosen for a role; it stays connected from screen to screen. */
export async function connectInstrument(role: Role): Promise<void> {
  disconnectInstrument(role);
  setInstrument(role, { ...off, state: "connecting" });
  const choice = readSettings()[role];
  const made = await (choice.source === "serial" ? connectSerial : connectSimulated)(role, choice);
  if (!isMade(made)) return setInstrument(role, { state: "failed", message: made });
  const [connection, acts] = made;
  setInstrument(role, { state: "on", acts });
  const stop = watched(connection, (next) => {
    if (next.ok) return setInstrument(role, { reading: next.value, message: "" });
    // A reading from before is no reading any more.
    setInstrument(role, {
      message: next.problem.message,
      reading: null,
      ...(connection.connected() ? {} : { state: "failed" }),
    });
  });
  open.set(role, { connection, stop });
}

export function disconnectInstrument(role: Role): void {
  const there = open.get(role);
  there?.stop();
  there?.connection.disconnect();
  open.delete(role);
  setInstrument(role, off);
}

const subscribe = (listener: () => void) => {
  listeners.add(listener);
  return () => listeners.delete(listener);
};

export const useInstrument = (role: Role): InstrumentState =>
  useSyncExternalStore(
    subscribe,
    () => states.get(role) ?? off,
    () => off,
  );
