import { statedQuantity } from "../measure";
import { figuresOf } from "./figures";
import type { InputKind } from "./kind";
import { Decimal, inputSchema, type Made, Per } from "./parts";
import { msg } from "../text";

export const temperatureSchema = () =>
  inputSchema("temperature", {
    per: Per,
    /** ± of the thermometer, °C. */
    plusMinus: Decimal,
  });
export type TemperatureInput = Made<typeof temperatureSchema>;

/** A room in which nobody thinks of the temperature, °C. */
export const usualC = 25;

export const temperature: InputKind<TemperatureInput> = {
  unit: () => "°C",
  decimals: () => 1,
  fields: ({ symbol, label }) => [
    {
      symbol,
      kind: "temperature",
      label,
      unit: "°C",
      hint: msg`in the flask`,
      rules: { instrument: msg`The thermometer`, unit: "°C", decimals: null, least: -20, most: 150 },
    },
  ],
  quantity: ({ symbol, plusMinus }, read, place) => {
    const value = read("temperature");
    if (value === null) return null;
    const id = `thermometer:${place.stage}:${symbol}`;
    const cause = { id, kind: "thermometer" as const, label: msg`Thermometer`, group: msg`Thermometer` };
    return statedQuantity(value, "°C", Number(plusMinus), cause, place);
  },
  figures: (_input, text) => figuresOf(text, "temperature", undefined),
  usual: () => usualC,
  ledger: () => [{ head: "°C", kind: "temperature" }],
};
