import { type GlasswareKind, glasswareTolerance, sizesMl, type ToleranceClass } from "../measure";
import { msg, type Phrase } from "../text";
import type { Input } from "./schema";
import type { Way } from "./kind";
import { balanceOf } from "./mass";
import type { HouseRules } from "../rules";
import { measuredBy, usualOf } from "./table";

/* The ways in which an amount can be measured at a bench in place of the method's. */

/** One way to measure an amount: the input that is read then, and what speaks against it. */
export interface WayToMeasure {
  readonly key: Way;
  readonly name: Phrase;
  readonly input: Input;
  /** Why it would be unwise; null where nothing speaks against it. */
  readonly unwise: Phrase | null;
}

/** A tolerance above this part of the volume outweighs that of a titer. Common practice, no source. */
const coarse = 0.003;

const volumes: Readonly<Partial<Record<Input["is"], readonly Way[]>>> = {
  pipette: ["pipette", "graduated pipette", "burette", "cylinder"],
  graduated: ["pipette", "graduated pipette", "burette", "cylinder"],
  delivered: ["pipette", "graduated pipette", "burette", "cylinder"],
  flask: ["flask", "cylinder"],
};
const weighings = ["transfer", "addition", "tared"] as const;

const names: Readonly<Record<Way, Phrase>> = {
  pipette: msg`one-mark pipette`,
  "graduated pipette": msg`graduated pipette`,
  burette: msg`burette, by difference`,
  cylinder: msg`measuring cylinder`,
  flask: msg`volumetric flask`,
  transfer: msg`weighed before and after the transfer`,
  addition: msg`vessel weighed empty, then with the sample`,
  tared: msg`tared balance`,
};

/** How an input is measured, in words: "25 mL measuring cylinder"; null for what is not measured. */
export function wayOf(input: Input): Phrase | null {
  const key = measuredBy(input);
  if (key === null) return null;
  return input.is === "graduated" ? msg`${input.capacityMl} mL ${names[key]}` : names[key];
}

/** The smallest piece that holds a volume, mL; null where none does. */
const sizeFor = (kind: GlasswareKind, volumeMl: number): number | null =>
  sizesMl(kind).find((size) => size >= volumeMl - 1e-9) ?? null;

/** The input for a volume that is measured in another way; null where no piece of glass measures it so. */
function volumeBy(
  way: Way,
  own: Input & { readonly of: string },
  per: "trial" | "run",
  usualMl: number,
): Input | null {
  const { symbol, label, of } = own;
  const parts = { symbol, label, of, per };
  switch (way) {
    case "burette":
      return { ...parts, is: "delivered" };
    case "pipette":
      return sizesMl("pipette").some((size) => Math.abs(size - usualMl) < 1e-9)
        ? { ...parts, is: "pipette", presumed: usualMl.toFixed(2) }
        : null;
    case "graduated pipette":
    case "cylinder": {
      const capacityMl = sizeFor(way, usualMl);
      return capacityMl === null
        ? null
        : { ...parts, is: "graduated", glass: way, capacityMl, presumed: usualMl.toFixed(1) };
    }
    default:
      return null;
  }
}

/** Why a piece of graduated glass would be unwise for a volume: its tolerance outweighs all else. */
function unwiseFor(input: Input, usualMl: number, quality: ToleranceClass): Phrase | null {
  if (input.is !== "graduated") return null;
  const part = glasswareTolerance(input.glass, input.capacityMl, quality).toleranceMl / usualMl;
  if (part < coarse) return null;
  return msg`Good to ${(100 * part).toPrecision(2)} % at best: its tolerance would rule the result.`;
}

/**
 * The ways in which an amount may be measured in a run, the method's own among them; empty for what is stated, counted or follows
 * from elsewhere. The volume stays what the method takes: a piece of glass that does not measure it is not offered.
 *
 * @param own The input as the method has it.
 * @param quality The tolerance class of the house's glassware.
 */
export function waysToMeasure(own: Input, quality: ToleranceClass): readonly WayToMeasure[] {
  const key = measuredBy(own);
  if (key === null) return [];
  if (own.is === "mass") {
    const { before, after, ...rest } = own;
    return weighings.map((weighing) => ({
      ...{ key: weighing, name: names[weighing], unwise: null },
      input: weighing === key ? own : { ...rest, weighing },
    }));
  }
  const usualMl = usualOf(own);
  if (usualMl === null || !("of" in own) || !("per" in own) || own.of === undefined) return [];
  const { of, per } = own;
  return (volumes[own.is] ?? []).flatMap((way) => {
    const input = way === key ? own : volumeBy(way, { ...own, of }, per, usualMl);
    return input
      ? [{ key: way, name: wayOf(input) ?? names[way], input, unwise: unwiseFor(input, usualMl, quality) }]
      : [];
  });
}

/** Which of the ways an input is measured in now. */
export const isWay = ({ input }: WayToMeasure, now: Input): boolean => measuredBy(input) === measuredBy(now);

/** Decimals of balances that masses are weighed on, the coarsest first. */
export const balanceDecimals = [1, 2, 3, 4, 5] as const;

/** A mass weighed on a balance of so many decimals; null for that of the house rules. */
export function onBalance(input: Input, decimals: number | null): Input {
  if (input.is !== "mass") return input;
  const { decimals: _, ...rest } = input;
  return decimals === null ? rest : { ...rest, decimals };
}

/** Why a balance would be unwise for a mass: its last digits outweigh all else. Null where nothing is usual, or it does well. */
export function unwiseBalance(input: Input, rules: HouseRules): Phrase | null {
  const usualG = usualOf(input);
  if (input.is !== "mass" || usualG === null) return null;
  const { readabilityG, linearityG } = balanceOf(input, rules);
  const part =
    (Math.hypot(readabilityG / 2, linearityG) * (input.weighing === "tared" ? 1 : Math.SQRT2)) / usualG;
  return part < coarse
    ? null
    : msg`Good to ${(100 * part).toPrecision(2)} % at best: the balance would rule the result.`;
}
