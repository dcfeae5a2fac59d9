import { withStrayLight } from "~/core/calibration";
import { randomStream, type RandomStream } from "~/core/montecarlo";
import { failure, type Result, success } from "~/core/result";
import { type Absorber, epsilonAt } from "./absorbers";
import {
  type Clock,
  type InstrumentConnection,
  type Instrument,
  type InstrumentReading,
  wallClock,
} from "./instrument";
import { msg } from "~/core/text";

/** What stands in the light: how much of an absorber, which may change while it stands there. */
export interface Cuvette {
  readonly absorber: Absorber | null;
  /** Concentration in mol/L after so many seconds in the light. */
  readonly molPerL: (seconds: number) => number;
  readonly pathCm?: number;
}

export const clearCuvette: Cuvette = { absorber: null, molPerL: () => 0 };

/** Decimals of an absorbance on the display. */
export const shownDecimals = 3;

/** A cuvette that shows a given absorbance at a wavelength. */
export const cuvetteOf = (absorber: Absorber, nm: number, absorbance: number): Cuvette => ({
  absorber,
  molPerL: () => absorbance / epsilonAt(absorber, nm),
});

export interface PhotometerOptions {
  readonly seed: number;
  /** Noise of the light that gets through, one standard deviation, as a part of full light. */
  readonly noise?: number;
  readonly strayLight?: number;
  /** Absorbance per hour after warming up. */
  readonly driftPerHour?: number;
  /** Time in which most of the warming up is done, s; a warm instrument has none. */
  readonly warmUpSeconds?: number;
  /** Wavelengths of its filters, nm; without them it is continuous. */
  readonly filtersNm?: readonly number[];
  readonly wavelengthNm?: number;
}

export interface PhotometerConnection extends InstrumentConnection {
  /** Null where there is no such filter. */
  readonly setWavelength: (nm: number) => Result<number>;
  readonly insert: (cuvette: Cuvette) => void;
  /** Takes what it shows now for nothing. */
  readonly zero: () => void;
  /** A spectrum, step by step, and its end. */
  readonly scan: (
    range: { readonly fromNm: number; readonly toNm: number; readonly stepNm: number },
    each: (nm: number, absorbance: number) => void,
    done: () => void,
  ) => () => void;
}

const settleSeconds = 1.2;
const secondsPerReading = 0.25;

/**
 * A simulated photometer: Beer and Lambert's law, stray light, noise of the light, a lamp that warms up and drifts, steps of
 * filters. Two of the same seed show the same.
 */
export class SimulatedPhotometer {
  private readonly random: RandomStream;
  private zeroed = 0;
  nm: number;

  constructor(private readonly options: PhotometerOptions) {
    this.random = randomStream(options.seed);
    this.nm = options.wavelengthNm ?? options.filtersNm?.[0] ?? 500;
  }

  setWavelength(nm: number): Result<number> {
    const { filtersNm } = this.options;
    if (!(nm >= 190 && nm <= 1100)) return failure(msg`${nm} nm is beyond the instrument's 190 to 1100 nm`);
    if (filtersNm && !filtersNm.includes(nm)) {
      return failure(msg`There is no filter for ${nm} nm: the instrument has ${filtersNm.join(", ")} nm`);
    }
    this.nm = nm;
    return success(nm);
  }

  /** What the detector sees of a cuvette, before zeroing, without its noise. */
  private baseline(seconds: number): number {
    const { driftPerHour = 0.002, warmUpSeconds = 0 } = this.options;
    const warming = warmUpSeconds > 0 ? 0.03 * Math.exp(-seconds / warmUpSeconds) : 0;
    return warming + (driftPerHour * seconds) / 3600;
  }

  private seen(
    { absorber, molPerL, pathCm = 1 }: Cuvette,
    seconds: number,
    inLight: number,
    nm: number,
  ): number {
    const truth = absorber ? epsilonAt(absorber, nm) * molPerL(inLight) * pathCm : 0;
    return withStrayLight(truth, this.options.strayLight ?? 0.0005) + this.baseline(seconds);
  }

  zero(cuvette: Cuvette, seconds: number): void {
    this.zeroed = this.seen(cuvette, seconds, 0, this.nm);
  }

  /** What the display shows, to 0.001; the less light gets through, the more it flickers. */
  show(cuvette: Cuvette, seconds: number, inLight = 0, nm = this.nm): number {
    const { noise = 0.0006 } = this.options;
    const absorbance = this.seen(cuvette, seconds, inLight, nm) - this.zeroed;
    const light = Math.max(1e-5, 10 ** -absorbance + noise * this.random.normal());
    return Number((-Math.log10(light)).toFixed(shownDecimals));
  }
}

/** The simulated photometer behind the interface of all instruments. Two of a name can not be connected at once. */
export function simulatedPhotometer(options: PhotometerOptions): Instrument<PhotometerConnection> {
  let taken = false;
  return {
    id: "simulated-photometer",
    name: options.filtersNm ? msg`Simulated colorimeter` : msg`Simulated spectrometer`,
    unit: "",
    connect: (clock: Clock = wallClock) => {
      if (taken) return Promise.resolve(failure(msg`The instrument is in use already`));
      taken = true;
      const model = new SimulatedPhotometer(options);
      const start = clock.now();
      let [cuvette, since, connected]: [Cuvette, number, boolean] = [clearCuvette, start, true];
      const stops = new Set<() => void>();
      const every = (seconds: number, call: () => void) => {
        const stop = clock.every(seconds, call);
        stops.add(stop);
        return () => {
          stop();
          stops.delete(stop);
        };
      };
      const reading = (): InstrumentReading => {
        const now = clock.now();
        const inLight = now - since;
        const settled = inLight >= settleSeconds;
        // The lid has just closed: the display still runs up to its value.
        const part = settled ? 1 : inLight / settleSeconds;
        const value = Math.round(1000 * part * model.show(cuvette, now - start, inLight)) / 1000;
        return { seconds: now - start, value, text: value.toFixed(shownDecimals), unit: "", stable: settled };
      };
      return Promise.resolve(
        success({
          connected: () => connected,
          stream: (listener: (r: Result<InstrumentReading>) => void) => {
            if (!connected) {
              listener(failure(msg`The instrument is not connected any more`));
              return () => undefined;
            }
            return every(secondsPerReading, () => listener(success(reading())));
          },
          setWavelength: (nm: number) => model.setWavelength(nm),
          insert: (next: Cuvette) => {
            cuvette = next;
            since = clock.now();
          },
          zero: () => model.zero(cuvette, clock.now() - start),
          scan: (
            { fromNm, toNm, stepNm }: { fromNm: number; toNm: number; stepNm: number },
            each: (nm: number, absorbance: number) => void,
            done: () => void,
          ) => {
            let at = fromNm;
            const stop = every(0.02, () => {
              for (let i = 0; i < 10 && at <= toNm; i++, at += stepNm)
                each(at, model.show(cuvette, clock.now() - start, 0, at));
              if (at > toNm) {
                stop();
                done();
              }
            });
            return stop;
          },
          disconnect: () => {
            connected = taken = false;
            for (const stop of stops) stop();
            stops.clear();
          },
        }),
      );
    },
  };
}
