import { leaf, measured, type Quantity, type Sensitivity } from "../quantity";
import { uncertaintyFromHalfWidth } from "./distribution";
import type { Place } from "./volume";

export interface Balance {
  /** Smallest step of the display, g. */
  readonly readabilityG: number;
  /** Greatest departure from linearity, ± g. */
  readonly linearityG: number;
}

/**
 * A mass by difference in g: boat (or bottle) before the transfer minus after it. Each weighing brings the balance's
 * linearity (rectangular; two weighings, taken as independent: QUAM, example A2, step 3) and half a display step.
 */
export function massByDifference(
  beforeG: number,
  afterG: number,
  { stage, trial }: Place,
  balance: Balance,
): Quantity {
  const weighing = (which: "before" | "after", by: number): Sensitivity[] => [
    {
      leaf: leaf({
        id: `linearity:${trial}:${which}`,
        label: `Balance linearity, ${which} the transfer`,
        group: "Balance",
        u: uncertaintyFromHalfWidth(balance.linearityG, "rectangular"),
        stage,
      }),
      by,
    },
    {
      leaf: leaf({
        id: `weighing:${trial}:${which}`,
        label: `Last digit of the balance, ${which} the transfer`,
        group: "Balance",
        u: uncertaintyFromHalfWidth(balance.readabilityG / 2, "rectangular"),
        random: true,
        stage,
      }),
      by,
    },
  ];
  return measured(beforeG - afterG, "g", [...weighing("before", 1), ...weighing("after", -1)]);
}

/** A fraction such as a purity, known within ± halfWidth (rectangular; QUAM, example A2, step 3). */
export function purity(fraction: number, halfWidth: number, of: string, stage: string): Quantity {
  return measured(fraction, "1", [
    {
      leaf: leaf({
        id: `purity:${of}`,
        label: `Purity of ${of}`,
        group: "Purity",
        u: uncertaintyFromHalfWidth(halfWidth, "rectangular"),
        stage,
      }),
      by: 1,
    },
  ]);
}
