import { type GlasswareKind, sizesMl } from "../measure";
import { unitOf } from "../quantity";
import { msg, type Phrase } from "../text";
import type { Input } from "./schema";
import type { Way } from "./kind";
import { dropsPerMl, type HouseRules } from "../rules";
import { coarsenessOf } from "./pieces";
import { measuredBy, typedIn, usualOf } from "./table";
import { wayNames, wayOf } from "./way-names";

/* The ways in which an amount can be measured at a bench in place of the method's. */

/** One way to measure an amount, and the input that is read then; what it asks for besides is in `detailsOf`. */
export interface WayToMeasure {
  readonly key: Way;
  readonly name: Phrase;
  readonly input: Input;
}

/** A tolerance above this part of the volume outweighs that of a titer. Common practice, no source. */
const coarse = 0.003;

/** Above this nobody counts drops, mL. Common practice, no source. */
const mostInDropsMl = 5;

const delivering = ["pipette", "graduated pipette", "burette", "cylinder", "mass", "drops"] as const;
const volumes: Readonly<Partial<Record<Input["is"], readonly Way[]>>> = {
  pipette: delivering,
  graduated: delivering,
  delivered: delivering,
  "by-mass": delivering,
  drops: delivering,
  flask: ["flask", "cylinder"],
};
const weighings = ["transfer", "addition", "tared"] as const;

/** The smallest piece that holds a volume, mL; null where none does. */
const sizeFor = (kind: GlasswareKind, volumeMl: number): number | null =>
  sizesMl(kind).find((size) => size >= volumeMl - 1e-9) ?? null;

/** The input for a volume that is measured in another way; null where nothing measures it so. */
function volumeBy(
  way: Way,
  own: Input & { readonly of: string },
  per: "trial" | "run",
  usualMl: number,
  rules: HouseRules,
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
    case "mass":
      // Its density is asked for: nobody's is presumed.
      return {
        ...parts,
        is: "by-mass",
        weighing: "tared",
        density: { value: "0", plusMinus: "0" },
        presumed: usualMl.toFixed(2),
      };
    case "drops":
      return usualMl > mostInDropsMl
        ? null
        : {
            ...{ ...parts, is: "drops", presumedMl: usualMl.toFixed(2) },
            perMl: { value: dropsPerMl(rules), plusMinus: "1" },
          };
    default:
      return null;
  }
}

/** What is usually taken of an amount, mL; null where nothing is usual. */
function usualMlOf(input: Input): number | null {
  const usual = usualOf(input);
  const typed = typedIn(input);
  return usual === null || typed === null ? usual : (usual * typed.size) / unitOf("mL").factor;
}

/**
 * The ways in which an amount may be measured in a run, the method's own among them; empty for what is stated, counted or follows
 * from elsewhere. The volume stays what the method takes: a piece of glass that does not measure it is not offered.
 *
 * @param own The input as the method has it.
 * @param rules Those of the house: how many drops of its burette are one mL.
 */
export function waysToMeasure(own: Input, rules: HouseRules): readonly WayToMeasure[] {
  const key = measuredBy(own);
  if (key === null) return [];
  if (own.is === "mass") {
    const { before, after, ...rest } = own;
    return weighings.map((weighing) => ({
      ...{ key: weighing, name: wayNames[weighing] },
      input: weighing === key ? own : { ...rest, weighing },
    }));
  }
  const usualMl = usualMlOf(own);
  if (usualMl === null || !("of" in own) || !("per" in own) || own.of === undefined) return [];
  const { of, per } = own;
  return (volumes[own.is] ?? []).flatMap((way) => {
    const input = way === key ? own : volumeBy(way, { ...own, of }, per, usualMl, rules);
    return input ? [{ key: way, name: wayOf(input) ?? wayNames[way], input }] : [];
  });
}

/** Which of the ways an input is measured in now. */
export const isWay = ({ input }: WayToMeasure, now: Input): boolean => measuredBy(input) === measuredBy(now);

/** Why it would be unwise to measure an amount so: what it is measured with outweighs all else. Null where nothing speaks against it. */
export function unwise(input: Input, rules: HouseRules): Phrase | null {
  const limit = coarsenessOf(input, rules);
  return limit === null || !(limit.part >= coarse)
    ? null
    : msg`Good to ${(100 * limit.part).toPrecision(2)} % at best: ${limit.because}.`;
}
