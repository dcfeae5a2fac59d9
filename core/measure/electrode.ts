import { nernstSlope } from "../equilibria";
import { failure, type Result, success } from "../result";
import { msg } from "../text";

/* A glass electrode in its buffers: slope and offset, and what the buffers truly are at a temperature. */

/** A buffer, by the pH that it has at 25 °C. */
export interface Buffer {
  readonly name: string;
  /** pH at 0, 5, 10, … 40 °C. */
  readonly byTemperature: readonly number[];
}

/**
 * Buffers for the calibration of a pH meter, 0 to 40 °C in steps of 5: phthalate, phosphate 1:1, borax and carbonate as the primary standards of
 * the NBS (Bates, Determination of pH, from memory), and technical phosphate of pH 7.00 (from memory).
 */
export const buffers: readonly Buffer[] = [
  { name: "4.01", byTemperature: [4.003, 3.999, 3.998, 3.999, 4.002, 4.008, 4.015, 4.024, 4.035] },
  { name: "6.86", byTemperature: [6.984, 6.951, 6.923, 6.9, 6.881, 6.865, 6.853, 6.844, 6.838] },
  { name: "7.00", byTemperature: [7.12, 7.09, 7.06, 7.04, 7.02, 7.0, 6.99, 6.98, 6.97] },
  { name: "9.18", byTemperature: [9.464, 9.395, 9.332, 9.276, 9.225, 9.18, 9.139, 9.102, 9.068] },
  { name: "10.01", byTemperature: [10.317, 10.245, 10.179, 10.118, 10.062, 10.012, 9.966, 9.926, 9.889] },
];

/** Degrees between two entries of a buffer's table. */
const tableStepC = 5;

/** pH of a buffer at a temperature, by the straight line between the entries of its table; the nearest entry outside of them. */
export function bufferPH({ byTemperature }: Buffer, celsius: number): number {
  const place = Math.min(Math.max(celsius / tableStepC, 0), byTemperature.length - 1);
  const below = Math.min(Math.floor(place), byTemperature.length - 2);
  const [a = NaN, b = NaN] = byTemperature.slice(below, below + 2);
  return a + (b - a) * (place - below);
}

/** What a buffer showed: its pH at the temperature, and the potential of the electrode in it, mV. */
export interface BufferReading {
  readonly pH: number;
  readonly mV: number;
}

/** How an electrode answers: its slope in percent of Nernst's, and its potential at pH 7, mV. */
export interface ElectrodeCalibration {
  readonly slopePercent: number;
  readonly offsetMv: number;
  /** How far the buffers lie off the line at most, pH; zero for two. */
  readonly offLine: number;
}

/** The potential of an electrode, mV, in a solution of a pH: E = offset - slope · k · (pH - 7). */
export const electrodeMv = (
  pH: number,
  { slopePercent, offsetMv }: Omit<ElectrodeCalibration, "offLine">,
  celsius: number,
): number => offsetMv - (slopePercent / 100) * 1000 * nernstSlope(celsius) * (pH - 7);

/** The pH that a meter shows for a potential, by its calibration and the temperature. */
export const shownPH = (
  mV: number,
  { slopePercent, offsetMv }: Omit<ElectrodeCalibration, "offLine">,
  celsius: number,
): number => 7 - (mV - offsetMv) / ((slopePercent / 100) * 1000 * nernstSlope(celsius));

/** Slope and offset of an electrode by two buffers or more: the straight line of mV against pH. */
export function calibrateElectrode(
  readings: readonly BufferReading[],
  celsius: number,
): Result<ElectrodeCalibration> {
  const values = new Set(readings.map(({ pH }) => pH));
  if (values.size < 2) return failure(msg`A calibration needs two buffers at least`);
  const n = readings.length;
  const meanPH = readings.reduce((sum, { pH }) => sum + pH, 0) / n;
  const meanMv = readings.reduce((sum, { mV }) => sum + mV, 0) / n;
  const squares = readings.reduce((sum, { pH }) => sum + (pH - meanPH) ** 2, 0);
  const slope = readings.reduce((sum, { pH, mV }) => sum + (pH - meanPH) * (mV - meanMv), 0) / squares;
  if (!(slope < 0))
    return failure(msg`The potential must fall from one buffer to the next: are two swapped?`);
  const at7 = meanMv + slope * (7 - meanPH);
  return success({
    slopePercent: (-100 * slope) / (1000 * nernstSlope(celsius)),
    offsetMv: at7,
    offLine: Math.max(...readings.map(({ pH, mV }) => Math.abs((mV - at7) / slope + 7 - pH))),
  });
}
