import { Type } from "@sinclair/typebox";
import { weighedVolume } from "../measure";
import { significantFromText, significantProduct, unitOf } from "../quantity";
import { msg } from "../text";
import type { InputKind, QuotientTerm } from "./kind";
import { mass, type MassInput, weighingParts } from "./mass";
import { Closed, Decimal, inputSchema, type Made, Per, ShortText } from "./parts";

/** A volume that is had by weighing: a mass over the density of the liquid. */
export const byMassSchema = () =>
  inputSchema("by-mass", {
    of: ShortText,
    per: Per,
    ...weighingParts(),
    /** Density at 20 °C in g/mL, and its ±. */
    density: Type.Object({ value: Decimal, plusMinus: Decimal }, Closed),
    /** The usual volume in mL. */
    presumed: Type.Optional(Decimal),
  });
export type ByMassInput = Made<typeof byMassSchema>;

/** What is weighed of it. */
export function massOf({ symbol, label, of, per, weighing, decimals, density }: ByMassInput): MassInput {
  return {
    ...{ is: "mass", symbol, label, of, per },
    weighing: weighing ?? "tared",
    ...(decimals === undefined ? {} : { decimals }),
    densityGPerMl: Number(density.value),
  };
}

const usualMl = ({ presumed }: ByMassInput) => (presumed === undefined ? null : Number(presumed));

export const byMass: InputKind<ByMassInput> = {
  unit: () => "mL",
  typedIn: ({ density }) => ({ unit: "g", size: unitOf("mL").factor / Number(density.value) }),
  decimals: () => 3,
  fields: (input, setting, rules) =>
    mass.fields(massOf(input), setting, rules).map((field) => ({
      ...field,
      label:
        input.weighing === undefined || input.weighing === "tared"
          ? msg`${input.label}, weighed`
          : field.label,
    })),
  quantity: (input, read, place, rules) => {
    const { density, of } = input;
    const weighed = mass.quantity(massOf(input), read, place, rules);
    const known = { value: Number(density.value), plusMinus: Number(density.plusMinus) };
    return weighed && weighedVolume(weighed, known, place, of);
  },
  checks: (input, typed) => mass.checks?.(massOf(input), typed) ?? [],
  figures: (input, typed, size) => {
    const weighed = mass.figures?.(massOf(input), typed, size * Number(input.density.value));
    return weighed ? significantProduct(size, weighed, significantFromText(input.density.value)) : null;
  },
  usual: (input) => {
    const volumeMl = usualMl(input);
    return volumeMl === null ? null : volumeMl * Number(input.density.value);
  },
  measuredBy: () => "mass",
  buoyancy: (input, rules) => mass.buoyancy?.(massOf(input), rules) ?? null,
  quotient: (input) => {
    const { symbol, density } = input;
    const difference = mass.difference?.(massOf(input));
    const over: readonly QuotientTerm[] = difference
      ? [difference.minuend, difference.subtrahend].map(({ kind, name }) => ({
          ...{ symbol: `m_${name}`, kind, unit: "g" },
        }))
      : [{ symbol: `m_${symbol}`, kind: "mass.tared", unit: "g" }];
    return { over, under: { symbol: "ρ", text: density.value, unit: "g/mL" } };
  },
  problem: ({ symbol, density }) =>
    Number(density.value) > 0 ? null : { message: msg`${symbol} needs the density of what is weighed` },
  planned: { measured: true, consumed: true },
  amountUnit: "mL",
  suspect: (input) => mass.suspect?.(massOf(input)) ?? { often: 1, words: () => "" },
  ledger: (input) =>
    (mass.ledger?.(massOf(input)) ?? []).map(({ head, kind }) =>
      kind === null ? { head: msg`${input.label}, mL`, kind } : { head, kind },
    ),
};
