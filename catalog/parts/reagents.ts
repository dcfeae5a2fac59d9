import type { Reagent } from "~/core/method";

/* Reagents added during a titration: how much and when. Common practice, no source. */

type Unit = NonNullable<Reagent["quantity"]>["unit"];
type Amount = Pick<Reagent, "amount" | "quantity">;

const amountIn =
  (unit: Unit) =>
  (least: string, most?: string): Amount => ({
    amount: `${most === undefined ? least : `${least} to ${most}`} ${unit}`,
    quantity: { most: Number(most ?? least), unit },
  });

/** So much of it, or between two amounts, as people write them. */
export const mL = amountIn("mL");
export const g = amountIn("g");
export const drops = amountIn("drops");

/** Not measured closely. */
export const roughly = (amount: Amount): Amount => ({ ...amount, amount: `about ${amount.amount}` });

/** As much as the flasks of a series take together. */
export const series = (amount: Amount, words = amount.amount): Amount => ({
  amount: words,
  ...(amount.quantity ? { quantity: { ...amount.quantity, of: "series" } } : {}),
});

/** An amount in other words; one that is no number makes no total. */
export const inWords = (words: string, amount?: Amount): Amount => ({
  amount: words,
  ...(amount?.quantity ? { quantity: amount.quantity } : {}),
});

/** What must be measured out exactly, since the result rests on it; `measured` is the symbol of the input that says how. */
export const exactly = (name: string, amount: Amount, when: string, measured?: string): Reagent => ({
  name,
  ...(measured === undefined ? {} : { measured }),
  ...amount,
  exact: true,
  when,
});

/** What only has to be enough. */
export const about = (name: string, amount: Amount, when: string): Reagent => ({
  name,
  ...amount,
  exact: false,
  when,
});

/** The same of what is added only when all else is ready, since it does not keep. */
export const atLast = (name: string, amount: Amount, when: string): Reagent => ({
  ...about(name, amount, when),
  last: true,
});

export const indicatorReagent = about("phenolphthalein", drops("2", "3"), "before the titration");

export const buffer = atLast("ammonia buffer, pH 10", mL("5"), "in the hood, just before the titration");

export const magnesiumEdta = about(
  "Mg-EDTA, 0.05 mol/L",
  mL("0.5"),
  "so that calcium alone gives a sharp end",
);
