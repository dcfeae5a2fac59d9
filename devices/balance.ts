import { randomStream } from "~/core/montecarlo";
import { type Fault, simulated } from "./streaming";
import { msg } from "~/core/text";

export interface BalanceOptions {
  readonly seed: number;
  /** The step of its display, g. */
  readonly readabilityG: number;
  /** Drift, g per hour. */
  readonly driftGPerHour?: number;
  /** Scatter of a settled reading, one standard deviation, in steps of the display. */
  readonly noiseSteps?: number;
  readonly capacityG?: number;
  readonly fault?: Fault | undefined;
}

export interface BalanceActs {
  /** Puts something on the pan in place of what is there, g. */
  readonly load: (massG: number) => void;
  readonly tare: () => void;
}

/** How fast the pan comes to rest: what is left of a step falls by e in this time, s. */
const restSeconds = 0.5;

/**
 * A simulated balance: it swings to rest after each load, flickers by a step, drifts slowly, and shows nothing but dashes
 * beyond its capacity. Two of one seed show the same.
 */
export const simulatedBalance = (options: BalanceOptions) =>
  simulated<BalanceActs>({
    id: "simulated-balance",
    name: msg`Simulated balance`,
    unit: "g",
    secondsPerReading: 0.25,
    fault: options.fault,
    switchOn: (seconds) => {
      const { readabilityG, driftGPerHour = 0.0002, noiseSteps = 0.3, capacityG = 220 } = options;
      const random = randomStream(options.seed);
      const decimals = Math.max(0, Math.round(-Math.log10(readabilityG)));
      let [massG, fromG, since, zeroG] = [0, 0, -10, 0];
      const resting = () => massG + (fromG - massG) * Math.exp(-(seconds() - since) / restSeconds);
      const settled = () => Math.abs(resting() - massG) < readabilityG / 2;
      const now = () => resting() + (driftGPerHour * seconds()) / 3600;
      return {
        show: () => {
          const steps = Math.round((now() - zeroG) / readabilityG + noiseSteps * random.normal());
          const value = Number((steps * readabilityG).toFixed(decimals));
          if (massG > capacityG) return { value: Infinity, text: "–––", unit: "g", stable: false };
          return { value, text: value.toFixed(decimals), unit: "g", stable: settled() };
        },
        act: {
          load: (next) => {
            [fromG, massG, since] = [resting(), next, seconds()];
          },
          tare: () => {
            zeroG = now();
          },
        },
      };
    },
  });
