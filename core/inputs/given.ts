import { Type } from "@sinclair/typebox";
import { statedQuantity } from "../measure";
import { leaf, measured } from "../quantity";
import type { Field } from "./field";
import { figuresOf } from "./figures";
import type { InputKind } from "./kind";
import { Closed, Decimal, inputSchema, type Made, Per, ShortText } from "./parts";
import { statedSuspect } from "./suspect";
import { msg } from "../text";

/** A number that someone states: a certificate's concentration, a density, a target, a limit, a count of drops. */
export const givenSchema = () =>
  inputSchema("given", {
    per: Per,
    unit: ShortText,
    /** Formula of the solution whose concentration it is: it can be taken from a bottle on the shelf. */
    of: Type.Optional(ShortText),
    /** Taken until something else is typed. */
    presumed: Type.Optional(Type.Object({ value: Decimal, plusMinus: Decimal }, Closed)),
    /** What a plan and a simulated bench take where nothing is presumed at the real one, as of a target. */
    usual: Type.Optional(Decimal),
    /** True where the stage can do without it, as without a target. */
    optional: Type.Optional(Type.Boolean()),
    /** True for what is counted or chosen, as drops or a wavelength: it has no ±. */
    exact: Type.Optional(Type.Boolean()),
  });
export type GivenInput = Made<typeof givenSchema>;

/** ± of what is stated once, typed or brought by a bottle. */
const statedSpread = (symbol: string, unit: string): Field[] => {
  const rules = { instrument: msg`It`, unit, decimals: null, least: 0 };
  const field = { symbol, unit, rules, optional: true };
  return [
    { ...field, kind: "given.plus-minus", label: msg`±`, hint: msg`half the width` },
    {
      ...field,
      kind: "given.standard-uncertainty",
      label: msg`standard uncertainty`,
      hint: msg`from the shelf`,
      hidden: true,
    },
  ];
};

export const given: InputKind<GivenInput> = {
  unit: ({ unit }) => unit,
  decimals: () => null,
  fields: ({ symbol, label, unit, presumed, optional, per, exact }) => {
    const can = optional || (presumed && per === "run") ? { optional: true } : {};
    const least = per === "trial" ? { least: 0 } : { aboveZero: true };
    const shown = unit === "1" ? "" : unit;
    return [
      {
        symbol,
        kind: "given",
        label,
        unit: shown,
        hint: optional ? msg`where there is one` : msg`as stated`,
        rules: { instrument: msg`It`, unit: shown, decimals: null, ...least },
        ...can,
      },
      // What is counted or chosen has no ±; a bottle's belongs to what is stated once.
      ...(exact ? [] : statedSpread(symbol, shown).filter(({ hidden }) => per === "run" || !hidden)),
    ];
  },
  quantity: ({ symbol, label, unit, presumed, per }, read, place) => {
    // What is stated for each flask is typed for each; only what is stated once can be presumed.
    const usual = presumed && per === "run" ? Number(presumed.value) : null;
    const value = read("given") ?? usual;
    if (value === null) return null;
    // The presumed ± belongs to the presumed value: one that was typed brings its own.
    const half = read("given.plus-minus") ?? (read("given") === null ? Number(presumed?.plusMinus ?? 0) : 0);
    const whose = per === "trial" ? `:${place.trial}` : "";
    const cause = {
      id: `given:${place.stage}:${symbol}${whose}`,
      kind: "given" as const,
      label,
      group: label,
    };
    const u = read("given.standard-uncertainty");
    if (u !== null)
      return measured(value, unit, [{ leaf: leaf({ ...cause, u, stage: place.stage }), by: 1 }]);
    return statedQuantity(value, unit, half, cause, place);
  },
  figures: ({ presumed }, typed) => figuresOf(typed, "given", presumed?.value),
  presumed: ({ presumed }) =>
    presumed ? { given: presumed.value, "given.plus-minus": presumed.plusMinus } : {},
  usual: ({ presumed, usual }) => {
    const value = presumed?.value ?? usual;
    return value === undefined ? null : Number(value);
  },
  planned: { measured: false, consumed: false },
  stated: ({ of, unit, exact }) => ({
    value: "given",
    spreads: ["given.plus-minus", "given.standard-uncertainty"],
    shelf: of === undefined ? null : { formula: of, unit },
    exact: exact === true,
  }),
  optional: ({ optional }) => optional === true,
  suspect: (input) =>
    input.of === undefined ? statedSuspect(input, 0.8) : statedSuspect(input, 2.5, msg`; standardize it`),
  series: ({ unit }) => ({ kind: "given", unit: unit === "1" ? "" : unit }),
};
