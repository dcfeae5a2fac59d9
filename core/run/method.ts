import type { Input, FurtherResultDefinition, ComputedStage, Method } from "./method-schema";

// What a screen computes with stands apart from the schema, which only forms and files need.
export type {
  Input,
  InputOf,
  FurtherResultDefinition,
  AcceptanceDefinition,
  Reagent,
  Condition,
  Plausibility,
  TitrationStage,
  PreparationStage,
  CalibrationStage,
  UnknownStage,
  RateStage,
  AssayStage,
  ComputedStage,
  StageDefinition,
  Method,
} from "./method-schema";

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
