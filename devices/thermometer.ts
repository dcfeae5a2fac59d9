import { randomStream } from "~/core/montecarlo";
import { type Fault, simulated } from "./streaming";
import { msg } from "~/core/text";

export interface ThermometerOptions {
  readonly seed: number;
  /** Of the flask when it is taken off the plate, and of the room, °C. */
  readonly startC: number;
  readonly roomC: number;
  /** In this time the flask loses most of what it is warmer than the room, s. */
  readonly coolingSeconds?: number;
  readonly fault?: Fault | undefined;
}

export interface ThermometerActs {
  /** Heats the flask up to this again. */
  readonly heat: (celsius: number) => void;
}

/** A simulated thermometer in a flask that cools by Newton's law: its excess over the room falls by e in a given time. */
export const simulatedThermometer = (options: ThermometerOptions) =>
  simulated<ThermometerActs>({
    id: "simulated-thermometer",
    name: msg`Simulated thermometer`,
    unit: "°C",
    secondsPerReading: 0.5,
    fault: options.fault,
    switchOn: (seconds) => {
      const { startC, roomC, coolingSeconds = 900 } = options;
      const random = randomStream(options.seed);
      let [fromC, since] = [startC, 0];
      const flask = () => roomC + (fromC - roomC) * Math.exp(-(seconds() - since) / coolingSeconds);
      return {
        show: () => {
          const value = Math.round(10 * (flask() + 0.03 * random.normal())) / 10;
          // The probe takes on the warmth of the flask in a few seconds.
          return { value, text: value.toFixed(1), unit: "°C", stable: seconds() - since >= 3 };
        },
        act: {
          heat: (celsius) => {
            [fromC, since] = [celsius, seconds()];
          },
        },
      };
    },
  });
