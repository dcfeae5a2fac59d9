import { leaf, measured, type Quantity, type Sensitivity } from "../quantity";
import { uncertaintyFromHalfWidth } from "./distribution";
import type { MeasuredAt } from "./volume";
import { msg, type Phrase, inEnglish } from "../text";

export interface Balance {
  /** Smallest step of the display, g. */
  readonly readabilityG: number;
  /** Greatest departure from linearity, ± g. */
  readonly linearityG: number;
}

/**
 * The factor that turns a mass shown in air into the true mass: (1 - ρa/ρw) / (1 - ρa/ρ), with air of 0.0012 g/mL and the
 * balance's weights of 8.0 g/mL (conventional values, OIML D 28, from memory). `densityGPerMl` is that of what is weighed.
 */
export function buoyancyFactor(densityGPerMl: number): number {
  const air = 0.0012;
  return (1 - air / 8) / (1 - air / densityGPerMl);
}

function weighing(
  end: Phrase,
  symbol: string,
  by: number,
  { stage, trial, once }: MeasuredAt,
  balance: Balance,
): Sensitivity[] {
  const which = msg`${end} (${symbol})`;
  const key = inEnglish(which);
  return [
    {
      leaf: leaf({
        id: `linearity:${trial}:${key}`,
        kind: "linearity",
        symbol,
        label: msg`Balance linearity, ${which}`,
        group: msg`Balance`,
        shape: "rectangular",
        u: uncertaintyFromHalfWidth(balance.linearityG, "rectangular"),
        stage,
      }),
      by,
    },
    {
      leaf: leaf({
        id: `weighing:${trial}:${key}`,
        kind: "weighing",
        symbol,
        label: msg`Last digit of the balance, ${which}`,
        group: msg`Balance`,
        shape: "rectangular",
        u: uncertaintyFromHalfWidth(balance.readabilityG / 2, "rectangular"),
        random: !once,
        stage,
      }),
      by,
    },
  ];
}

/**
 * A mass by difference in g: boat (or bottle) before the transfer minus after it; for an addition, the vessel with the
 * sample minus the vessel empty, given in that order too. Each weighing brings the balance's linearity (rectangular; two
 * weighings, taken as independent: QUAM, example A2, step 3) and half a display step. `factor` corrects for buoyancy.
 */
export function massByDifference(
  largerG: number,
  smallerG: number,
  place: MeasuredAt,
  balance: Balance,
  symbol = "m",
  [larger, smaller]: readonly [Phrase, Phrase] = [msg`before the transfer`, msg`after the transfer`],
  factor = 1,
): Quantity {
  return measured((largerG - smallerG) * factor, "g", [
    ...weighing(larger, symbol, factor, place, balance),
    ...weighing(smaller, symbol, -factor, place, balance),
  ]);
}

/** A mass in g on a balance set to zero on the empty vessel: setting and reading bring the same causes as two weighings. */
export function massTared(
  shownG: number,
  place: MeasuredAt,
  balance: Balance,
  symbol = "m",
  factor = 1,
): Quantity {
  return massByDifference(shownG, 0, place, balance, symbol, [msg`of the sample`, msg`at the tare`], factor);
}

/** A fraction such as a purity, known within ± halfWidth (rectangular; QUAM, example A2, step 3). */
export function purity(fraction: number, halfWidth: number, of: string, stage: string): Quantity {
  return measured(fraction, "1", [
    {
      leaf: leaf({
        id: `purity:${of}`,
        kind: "purity",
        label: msg`Purity of ${of}`,
        group: msg`Purity`,
        shape: "rectangular",
        u: uncertaintyFromHalfWidth(halfWidth, "rectangular"),
        stage,
      }),
      by: 1,
    },
  ]);
}
