import { useSyncExternalStore } from "react";
import type { ObservationKind } from "~/core/record";
import { readStored, writeStored } from "../../live/browser-store";

/** What an instrument on the bench reads. */
export type Role = "balance" | "burette" | "thermometer";
export const roles: readonly Role[] = ["balance", "burette", "thermometer"];

/** How an instrument is read: by eye, by a simulated stand-in, or a real one over the serial port. */
export interface InstrumentChoice {
  readonly source: "none" | "simulated" | "serial";
  /** What the simulated one does wrong after half a minute, for practice. */
  readonly fault: "none" | "garbage" | "freeze" | "unplug";
  readonly line: string;
  readonly baudRate: number;
}

export interface PhotometerChoice {
  readonly kind: "continuous" | "filters";
  readonly warmUp: "warm" | "cold";
}

export interface InstrumentSettings extends Record<Role, InstrumentChoice> {
  readonly photometer: PhotometerChoice;
}

const choice = (line: string): InstrumentChoice => ({ source: "none", fault: "none", line, baudRate: 9600 });

const usual: InstrumentSettings = {
  balance: choice("{stable:S} {value} g"),
  burette: choice("{any}{value} mL"),
  thermometer: choice("{value} C"),
  photometer: { kind: "continuous", warmUp: "warm" },
};

/** Unit and name of each, as fields and messages have them. */
export const roleUnits: Record<Role, string> = { balance: "g", burette: "mL", thermometer: "°C" };

/** The instrument that reads this kind of thing, where there is one. */
export function roleOf(kind: ObservationKind): Role | null {
  if (kind.startsWith("mass.")) return "balance";
  if (kind.startsWith("burette.")) return "burette";
  return kind.startsWith("temperature") ? "thermometer" : null;
}

const key = "steady-bead.instruments";
const listeners = new Set<() => void>();
let known: { raw: string | null; settings: InstrumentSettings } = { raw: null, settings: usual };

/** The instruments that were chosen for this device: they stand beside it, so the choice stays in its browser. */
export function readSettings(): InstrumentSettings {
  const raw = readStored(key);
  if (raw === known.raw) return known.settings;
  let settings = usual;
  try {
    const stored = JSON.parse(raw ?? "{}") as Partial<InstrumentSettings>;
    settings = {
      balance: { ...usual.balance, ...stored.balance },
      burette: { ...usual.burette, ...stored.burette },
      thermometer: { ...usual.thermometer, ...stored.thermometer },
      photometer: { ...usual.photometer, ...stored.photometer },
    };
  } catch {
    // Settings that cannot be read are none.
  }
  known = { raw, settings };
  return settings;
}

export function writeSettings(settings: InstrumentSettings): void {
  writeStored(key, JSON.stringify(settings));
  listeners.forEach((listener) => listener());
}

export function useInstrumentSettings(): InstrumentSettings {
  return useSyncExternalStore(
    (listener) => {
      listeners.add(listener);
      return () => listeners.delete(listener);
    },
    readSettings,
    () => usual,
  );
}

/** Puts simulated stand-ins in the place of all instruments of this device. */
export function simulateInstruments(): void {
  const now = readSettings();
  const simulated = (role: Role): InstrumentChoice => ({ ...now[role], source: "simulated" });
  writeSettings({
    ...now,
    ...{
      balance: simulated("balance"),
      burette: simulated("burette"),
      thermometer: simulated("thermometer"),
    },
  });
}
