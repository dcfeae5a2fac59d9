import { type EarlierUnits, type InputSetting, unitAmong, type Input } from "../inputs";
import type { Condition, FurtherResultDefinition, ComputedStage, Method } from "./schema";
import { msg } from "../text";

// What a screen computes with stands apart from the schema, which only forms and files need.
export type {
  FurtherResultDefinition,
  AcceptanceDefinition,
  Expected,
  Reagent,
  Condition,
  Plausibility,
  TitrationStage,
  PreparationStage,
  CalibrationStage,
  UnknownStage,
  RateStage,
  CurveStage,
  IsothermStage,
  AssayStage,
  ComputedStage,
  Method,
} from "./schema";

/** The input of a stage with this symbol, where there is one. */
export const inputOf = (stage: ComputedStage, symbol: string): Input | undefined =>
  stage.inputs.find((input) => input.symbol === symbol);

/** The main result of a stage and those beside it. */
export const resultsOf = ({ result, also = [] }: ComputedStage): readonly FurtherResultDefinition[] => [
  result,
  ...also,
];

/** Constants have no place in the work: they are there from the start. */
export const perOf = (input: Input): "trial" | "run" => ("per" in input ? input.per : "run");

/** For methods written in TypeScript: checks the shape at compile time and returns the data as it is. */
export const defineMethod = (method: Method): Method => method;

/** True for a temperature that the flask must have while it is titrated; that of a solid's drying is none. */
export const isOfFlask = ({ celsius, of = "flask" }: Condition): boolean =>
  celsius !== undefined && of === "flask";

/** What the fields of a stage's inputs depend on. */
export const settingOf = (stage: ComputedStage): InputSetting => ({
  meniscus: "meniscus" in stage ? stage.meniscus : "bottom",
  series: "series" in stage,
  hotFlask: stage.conditions?.find(isOfFlask)?.what ?? null,
});

/** Units of what the stages of a method find. */
export const unitsOf = ({ stages }: Method): EarlierUnits => ({
  ofResult: (key, symbol) => {
    const stage = stages.find((s) => s.key === key);
    if (!stage || !("result" in stage)) return "1";
    return resultsOf(stage).find((r) => r.symbol === symbol)?.unit ?? stage.result.unit;
  },
  ofAxis: (key) => {
    const stage = stages.find((s) => s.key === key);
    return stage && "axis" in stage ? stage.axis.unit : "1";
  },
});

/** Unit in which an input's value is shown, and in which relations are followed in a spreadsheet. */
export const unitOfInput = (input: Input, method: Method): string => unitAmong(input, unitsOf(method));

/** How the end of every run is called, as a key and in words: no stage reads it, the chain shows it behind the last one. */
export const concluding = { key: "conclude", title: msg`Conclude` } as const;
