import { msg, type Phrase } from "../text";
import type { Way } from "./kind";
import type { Input } from "./schema";
import { measuredBy } from "./table";

/* How an amount is measured, in words. */

export const wayNames: Readonly<Record<Way, Phrase>> = {
  pipette: msg`one-mark pipette`,
  "graduated pipette": msg`graduated pipette`,
  burette: msg`burette, by difference`,
  cylinder: msg`measuring cylinder`,
  flask: msg`volumetric flask`,
  transfer: msg`boat or bottle, weighed before and after`,
  addition: msg`vessel weighed empty, then with the sample`,
  tared: msg`tared balance`,
  mass: msg`by mass, with its density`,
  drops: msg`counted in drops`,
};

/** How an input is measured, in words: "25 mL measuring cylinder"; null for what is not measured. */
export function wayOf(input: Input): Phrase | null {
  const key = measuredBy(input);
  if (key === null) return null;
  return input.is === "graduated" ? msg`${input.capacityMl} mL ${wayNames[key]}` : wayNames[key];
}
