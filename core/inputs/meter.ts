import { Type } from "@sinclair/typebox";
import { type Check, soundOffsetMv, soundSlope } from "../measure";
import type { InputKind, Typed } from "./kind";
import { inputSchema, type Made } from "./parts";
import { msg } from "../text";

/** How the electrode of a pH meter was calibrated: slope and offset, as the meter tells them or as its buffers give them. */
export const meterSchema = () => inputSchema("meter", { per: Type.Literal("run") });
export type MeterInput = Made<typeof meterSchema>;

/** An electrode that is worn, or buffers that are not fresh. */
function electrodeChecks({ kind, value }: Typed): Check[] {
  const [least, most] = soundSlope;
  if (kind === "meter.slope" && (value < least || value > most))
    return [
      {
        severity: "caution",
        kind: "scale",
        message: msg`A slope of ${value} % is outside ${least} to ${most} %: fresh buffers, or another electrode?`,
      },
    ];
  if (kind === "meter.offset" && Math.abs(value) > soundOffsetMv)
    return [
      {
        severity: "caution",
        kind: "scale",
        message: msg`${value} mV at pH 7 is far from zero: is the electrode filled, and its bulb sound?`,
      },
    ];
  return [];
}

export const meter: InputKind<MeterInput> = {
  unit: () => "1",
  decimals: () => null,
  fields: ({ symbol }) => [
    {
      ...{ symbol, kind: "meter.slope", label: msg`Slope of the electrode`, unit: "%", optional: true },
      ...{ short: msg`slope in %`, named: true },
      hint: msg`in percent of theory, from the buffers`,
      rules: { instrument: msg`The slope`, unit: "%", decimals: null, least: 1, most: 200 },
    },
    {
      ...{ symbol, kind: "meter.offset", label: msg`Potential at pH 7`, unit: "mV", optional: true },
      ...{ short: msg`mV at pH 7`, named: true },
      hint: msg`from the buffers`,
      rules: { instrument: msg`The meter`, unit: "mV", decimals: null, least: -500, most: 500 },
    },
  ],
  quantity: () => null,
  photometric: true,
  optional: () => true,
  checks: (_input, typed) => electrodeChecks(typed),
};
