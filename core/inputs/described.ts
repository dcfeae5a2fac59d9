import { msg, type Phrase } from "../text";
import type { Input, InputOf } from "./schema";

/* How what is read is described on the page of a method: a table of its own, since only that page needs it. */

const weighings = {
  transfer: "difference",
  addition: msg`difference, vessel first`,
  tared: "taring",
} as const;

const kinds: { readonly [K in Input["is"]]: (input: InputOf<K>) => Phrase } = {
  mass: ({ expect, weighing }) =>
    msg`${expect ? msg`, ${expect[0]} to ${expect[1]} g` : ""}, weighed by ${weighings[weighing ?? "transfer"]}`,
  purity: () => "",
  titer: () => msg`, initial and final reading`,
  pipette: ({ presumed }) => msg`, ${presumed} mL`,
  graduated: () => "",
  flask: ({ presumed }) => msg`, ${presumed} mL`,
  delivered: () => msg`, by a burette of its own`,
  "by-mass": ({ density }) => msg`, weighed, ${density.value} g/mL`,
  drops: () => "",
  count: () => "",
  temperature: () => "",
  pH: () => "",
  absorbance: () => msg`, any number of readings`,
  blank: () => msg`, first and last`,
  "read-off": () => msg`, read off the line`,
  trace: () => msg`, each second`,
  curve: ({ titrant }) => msg`, point by point while ${titrant} is added`,
  meter: () => msg`, slope and potential at pH 7`,
  given: ({ of, optional }) =>
    msg`${of === undefined ? "" : msg`, from the shelf or typed`}${optional ? msg`, where there is one` : ""}`,
  result: () => msg`, from an earlier stage`,
  constant: () => "",
};

/** Nobody would think that these are read for each flask: it is not said that they are had once. */
const plainlyOnce: ReadonlySet<Input["is"]> = new Set(["blank", "given", "result"]);

/** How it is read: "Mass of phthalate, 0.4 to 0.8 g, weighed by difference, once". */
export function describedInput(input: Input): Phrase {
  const described = kinds[input.is] as (input: Input) => Phrase;
  const once = "per" in input && input.per === "trial" ? "" : msg`, once`;
  return msg`${input.label}${described(input)}${plainlyOnce.has(input.is) ? "" : once}`;
}
