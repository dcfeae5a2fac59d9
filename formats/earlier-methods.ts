import type { Method, Reagent } from "~/core/method";

/* Methods as they were written before the amounts of reagents were numbers: the one place that reads them out of words. */

const units = { mL: "mL", L: "L", g: "g", mg: "mg", drop: "drops", drops: "drops" } as const;

/** The most that words tell: "2 to 3 drops" is up to 3 drops; "about 50 mL" is 50 mL. */
function quantityIn(words: string): Reagent["quantity"] {
  const found = /([\d.]+)(?:\s+to\s+([\d.]+))?\s*(mL|g|mg|L|drops?)\b/.exec(words);
  const most = Number(found?.[2] ?? found?.[1]);
  return found && most > 0 ? { most, unit: units[found[3] as keyof typeof units] } : undefined;
}

/** A method with a number for each reagent whose words tell one and that has none yet. */
export const withQuantities = (method: Method): Method => ({
  ...method,
  stages: method.stages.map((stage) => {
    if (!stage.reagents) return stage;
    const reagents = stage.reagents.map((reagent): Reagent => {
      const amount = reagent.quantity ? undefined : quantityIn(reagent.amount);
      if (!amount) return reagent;
      // What is exact and yet a range is what the series is made of: all of its flasks together.
      const series = stage.kind === "calibration" && reagent.exact && /\bto\b/.test(reagent.amount);
      return { ...reagent, quantity: series ? { ...amount, of: "series" } : amount };
    });
    return { ...stage, reagents };
  }),
});
