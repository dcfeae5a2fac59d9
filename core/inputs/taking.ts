import { withUnit } from "../quantity";
import { msg, type Phrase } from "../text";
import type { Input } from "./schema";
import { measuredBy } from "./table";

/* How a person is told to take an amount, by what it is measured with. */

/** A step begins with an amount: "[take V_a] of the acid into a flask". */
const takes = /^\[take ([^[\]]+)\] ([^]+)$/;

/** The symbol of the amount that a step begins with taking; null for a step that stands as it is. */
export const takenIn = (step: string): string | null => takes.exec(step)?.[1]?.trim() ?? null;

/** How much of an amount is usually taken, as it is measured: 25.00 mL, 50 drops; null where nothing is usual. */
export function amountOf(input: Input): { readonly text: string; readonly unit: "mL" | "drops" } | null {
  switch (input.is) {
    case "pipette":
    case "graduated":
    case "by-mass":
      return input.presumed === undefined ? null : { text: input.presumed, unit: "mL" };
    case "drops": {
      const count = Math.round(Number(input.presumedMl ?? "NaN") * Number(input.perMl.value));
      return count > 0 ? { text: String(count), unit: "drops" } : null;
    }
    default:
      return null;
  }
}

/** How a sentence begins that tells to take an amount: "Pipette 25.00 mL", "Count 50 drops". */
function taking(input: Input): Phrase {
  const usual = amountOf(input);
  const amount = usual ? withUnit(usual.text, usual.unit) : msg`a portion`;
  switch (measuredBy(input)) {
    case "pipette":
      return msg`Pipette ${amount}`;
    case "graduated pipette":
      return msg`With a graduated pipette, measure ${amount}`;
    case "cylinder":
      return msg`With a cylinder at eye level, measure ${amount}`;
    case "burette":
      return msg`From a burette of its own, read before and after, run a portion`;
    case "mass":
      return msg`Weigh about ${amount}`;
    case "drops":
      return msg`Count ${amount}`;
    default:
      return msg`Take ${amount}`;
  }
}

/** The steps of a stage as its inputs are measured now. */
export function stepsOf(steps: readonly string[], inputs: readonly Input[]): readonly Phrase[] {
  return steps.map((step): Phrase => {
    const [, symbol, rest] = takes.exec(step) ?? [];
    if (symbol === undefined || rest === undefined) return step;
    const input = inputs.find((one) => one.symbol === symbol.trim());
    return input ? msg`${taking(input)} ${rest}` : rest;
  });
}
