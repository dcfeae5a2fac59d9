import { randomStream } from "~/core/montecarlo";
import { type Fault, simulated } from "./streaming";
import { msg } from "~/core/text";

export interface BuretteOptions {
  readonly seed: number;
  readonly capacityMl: number;
  /** The step of its display, mL. */
  readonly resolutionMl: number;
  /** Where it stands at the start. */
  readonly startMl?: number;
  /** How much runs out in a second with the tap open, mL. */
  readonly flowMlPerSecond?: number;
  readonly dropMl?: number;
  readonly fault?: Fault | undefined;
}

export interface BuretteActs {
  readonly open: () => void;
  readonly close: () => void;
  /** Lets one drop fall. */
  readonly drop: () => void;
  readonly refill: () => void;
  /** Drops counted by the light gate at the tip since the last filling. */
  readonly drops: () => number;
}

/** How long the film on the wall takes to run down: one reads after that, s. */
const drainSeconds = 2;

/**
 * A simulated burette with a float that is read and a light gate that counts drops: each drop is a little larger or smaller
 * than the last, and what clings to the wall runs down in two seconds.
 */
export const simulatedBurette = (options: BuretteOptions) =>
  simulated<BuretteActs>({
    id: "simulated-burette",
    name: msg`Simulated burette`,
    unit: "mL",
    secondsPerReading: 0.2,
    fault: options.fault,
    switchOn: (seconds) => {
      const { capacityMl, resolutionMl, startMl = 0, flowMlPerSecond = 0.5, dropMl = 0.05 } = options;
      const random = randomStream(options.seed);
      const decimals = Math.max(0, Math.ceil(-Math.log10(resolutionMl) - 1e-9));
      let [level, openSince, lastMoved, drops]: [number, number | null, number, number] = [
        startMl,
        null,
        -10,
        0,
      ];
      const least = (ml: number) => Math.min(capacityMl, ml);
      /** What has run out since the tap was opened is put into the level. */
      const run = () => {
        if (openSince === null) return;
        const out = (seconds() - openSince) * flowMlPerSecond;
        const before = level;
        [level, openSince] = [least(level + out), seconds()];
        drops += Math.round((level - before) / dropMl);
        if (level > before) lastMoved = seconds();
      };
      return {
        show: () => {
          run();
          const still = seconds() - lastMoved;
          const film = 0.03 * Math.exp((-3 * still) / drainSeconds);
          const steps = Math.round(Math.max(0, level - film) / resolutionMl);
          const value = Number((steps * resolutionMl).toFixed(decimals));
          return {
            value,
            text: value.toFixed(decimals),
            unit: "mL",
            stable: openSince === null && still >= drainSeconds,
          };
        },
        act: {
          open: () => {
            openSince ??= seconds();
          },
          close: () => {
            run();
            openSince = null;
          },
          drop: () => {
            level = least(level + dropMl * (1 + 0.05 * random.normal()));
            drops += 1;
            lastMoved = seconds();
          },
          refill: () => {
            [level, openSince, lastMoved, drops] = [0, null, seconds(), 0];
          },
          drops: () => {
            run();
            return drops;
          },
        },
      };
    },
  });
