import { electrodeMv, shownPH } from "~/core/measure";
import { randomStream } from "~/core/montecarlo";
import { msg } from "~/core/text";
import type { InstrumentReading } from "./instrument";
import { type Fault, simulated } from "./streaming";

/** What a simulated meter reads: pH through a glass electrode, or something that it shows as it is. */
export type MeterReads = "pH" | "mV" | "absorbance" | "conductance";

export interface MeterOptions {
  readonly seed: number;
  readonly reads: MeterReads;
  readonly celsius: number;
  /** How the electrode truly answers; one that is a little worn where nothing is said. */
  readonly electrode?: { readonly slopePercent: number; readonly offsetMv: number };
  readonly fault?: Fault | undefined;
}

export interface MeterActs {
  /** What is in the beaker: what a true meter would show after an addition of titrant, mL. */
  readonly dip: (truth: (addedMl: number) => number) => void;
  /** Titrant that is in the beaker altogether, mL. */
  readonly added: (ml: number) => void;
  /** Into a buffer of this pH; out of it, back into the beaker, with null. */
  readonly buffer: (pH: number | null) => void;
  readonly stir: (on: boolean) => void;
  /** Whether the bulb is covered. */
  readonly cover: (on: boolean) => void;
  /** What the meter takes its electrode for. */
  readonly calibrate: (to: { readonly slopePercent: number; readonly offsetMv: number }) => void;
  /** The potential of the electrode at this moment, mV. */
  readonly mV: () => number;
}

/** A reading is steady when it has moved by no more than this for so many seconds. Common practice, no source. */
export const steadyFor = 5;
export const steadyWithin: Readonly<Record<MeterReads, number>> = {
  pH: 0.01,
  mV: 1,
  absorbance: 0.002,
  conductance: 0.005,
};

const decimalsOf: Readonly<Record<MeterReads, number>> = { pH: 2, mV: 0, absorbance: 3, conductance: 3 };
const unitsOf: Readonly<Record<MeterReads, string>> = { pH: "", mV: "mV", absorbance: "", conductance: "mS" };
/** Noise of the display, one standard deviation. */
const noiseOf: Readonly<Record<MeterReads, number>> = {
  pH: 0.003,
  mV: 0.3,
  absorbance: 0.0006,
  conductance: 0.001,
};

const secondsPerReading = 0.5;
/** Most of the way to a new value is done in this time, s: stirred, on the flat. */
const quickest = 1.5;
/** For each pH (59 mV) per mL of slope the electrode takes so much longer, up to a bound, s. */
const [slower, slowest] = [0.12, 6];
/** Without stirring the titrant takes this many times as long to come to the bulb. */
const unstirred = 5;
/** pH that the electrode drifts by in an hour of its own clock, which may run many times ahead of the world's while somebody thinks. */
const driftPerHour = 0.001;
/**
 * Above this pH the beaker takes up carbon dioxide: so much pH in a second for each pH above it. It is covered again so many seconds after an
 * addition, for whoever thinks on does so in their own time, not in that of the simulation: a curve that is taken without haste is still one
 * that a fit describes.
 */
const [airFrom, airPerSecond, coveredAfter] = [8.5, 4e-5, 20];

/** Display of a meter, and whether it has come to rest: by what it showed in the last seconds. */
class Display {
  private readonly shown: { at: number; value: number }[] = [];
  private steady = false;
  private since = 0;

  constructor(private readonly reads: MeterReads) {}

  show(value: number, at: number, since: number, covered: boolean): Omit<InstrumentReading, "seconds"> {
    const text = value.toFixed(decimalsOf[this.reads]);
    if (since !== this.since) [this.since, this.steady, this.shown.length] = [since, false, 0];
    this.shown.push({ at, value: Number(text) });
    while (this.shown.length > 0 && at - this.shown[0]!.at > steadyFor) this.shown.shift();
    const values = this.shown.map((one) => one.value);
    const range = Math.max(...values) - Math.min(...values);
    // A busy computer draws late: a third of the readings of that time are enough to tell, and one to see that it is steady still.
    const enough = this.steady ? 1 : steadyFor / secondsPerReading / 3;
    const isLong = at - since >= steadyFor && this.shown.length >= enough;
    // Once steady it stays so while it flickers by no more than twice as much.
    const within = steadyWithin[this.reads] * (this.steady ? 2 : 1) + 1e-9;
    this.steady = covered && isLong && range <= within;
    return { value: Number(text), text, unit: unitsOf[this.reads], stable: this.steady };
  }
}

/** What the electrode feels: on its way from what it was to what is around it. */
class Electrode {
  truth: (addedMl: number) => number = () => 7;
  addedMl = 0;
  buffer: number | null = null;
  stirred = true;
  /** Where it came from, since when it is on its way, and how long most of that takes. */
  private from = 7;
  private tau = quickest;
  since = 0;
  /** How long what is in the beaker has stood open while it took up carbon dioxide, but for the addition in hand, s. */
  private airBefore = 0;

  constructor(
    private readonly reads: MeterReads,
    private readonly seconds: () => number,
  ) {}

  private target(): number {
    if (this.buffer !== null) return this.buffer;
    const value = this.truth(this.addedMl);
    if (this.reads !== "pH" || value <= airFrom) return value;
    return value - airPerSecond * (value - airFrom) * (this.airBefore + this.airNow());
  }

  /** How long it has stood open since the last change, s. */
  private airNow(): number {
    return this.truth(this.addedMl) > airFrom ? Math.min(coveredAfter, this.seconds() - this.since) : 0;
  }

  /** A fresh beaker, which has taken up nothing. */
  dip(truth: (addedMl: number) => number): void {
    this.moved(() => (this.truth = truth));
    this.airBefore = 0;
  }

  felt(): number {
    const target = this.target();
    return target + (this.from - target) * Math.exp(-(this.seconds() - this.since) / this.tau);
  }

  /** Makes a change around it: it sets out from what it feels now, and takes longer where a drop changes much. */
  moved(change: () => void): void {
    this.from = this.felt();
    this.airBefore += this.airNow();
    change();
    this.since = this.seconds();
    const step = this.reads === "pH" ? 1 : this.reads === "mV" ? 59 : Infinity;
    const { addedMl, truth } = this;
    const slope = Math.abs(truth(addedMl + 0.05) - truth(Math.max(0, addedMl - 0.05))) / 0.1 / step;
    const still = this.buffer === null && !this.stirred ? unstirred : 1;
    this.tau = still * (quickest + (this.buffer === null ? Math.min(slowest, slower * slope) : 0));
  }
}

/**
 * A simulated meter with its electrode in a beaker: it comes slowly to its value, more slowly where a drop changes much; it drifts and flickers; base
 * takes up carbon dioxide from the air; a bulb that is not covered shows nothing of use. Two of the same seed show the same.
 */
export const simulatedMeter = (options: MeterOptions) =>
  simulated<MeterActs>({
    id: `simulated-meter-${options.reads}`,
    name: options.reads === "pH" ? msg`Simulated pH meter` : msg`Simulated meter`,
    unit: unitsOf[options.reads],
    secondsPerReading,
    fault: options.fault,
    switchOn: (seconds) => {
      const { reads, celsius, electrode: ofBulb = { slopePercent: 97.5, offsetMv: 7 } } = options;
      const random = randomStream(options.seed);
      const [bulb, display] = [new Electrode(reads, seconds), new Display(reads)];
      let [covered, taken] = [true, { slopePercent: 100, offsetMv: 0 }];
      const mV = () => electrodeMv(bulb.felt() + (driftPerHour * seconds()) / 3600, ofBulb, celsius);
      const around = (change: () => void) => bulb.moved(change);
      return {
        show: () => {
          const value = reads === "pH" ? shownPH(mV(), taken, celsius) : bulb.felt();
          const flicker = noiseOf[reads] * (covered ? 1 : 60) * random.normal();
          return display.show(value + flicker, seconds(), bulb.since, covered);
        },
        act: {
          dip: (truth) => bulb.dip(truth),
          added: (addedMl) => {
            if (addedMl !== bulb.addedMl) around(() => Object.assign(bulb, { addedMl }));
          },
          buffer: (buffer) => around(() => Object.assign(bulb, { buffer })),
          stir: (stirred) => around(() => Object.assign(bulb, { stirred })),
          cover: (on) => around(() => void (covered = on)),
          calibrate: (to) => void (taken = to),
          mV,
        },
      };
    },
  });
