export * from "./check-record";
export * from "./compile";
export * from "./contradictions";
export * from "./draft";
export * from "./evaluate";
export { levelName } from "./evaluate-calibration";
export { unconfirmedVolumes, type Unconfirmed } from "./evaluate-trial";
export * from "./evaluation";
export * from "./fields";
export { expectedReading } from "./guidance";
export { decimalsOfInput, unitOfInput } from "./input-kinds";
export * from "./house-words";
export { footingWords } from "./judge-stage";
export * from "./method";
export {
  InputSchema,
  TitrationStageSchema,
  PreparationStageSchema,
  CalibrationStageSchema,
  UnknownStageSchema,
  RateStageSchema,
  ConcludeStageSchema,
  StageDefinitionSchema,
  MethodSchema,
} from "./method-schema";
export { type Implausibility, implausibleWords } from "./plausibility";
export * from "./practice";
export * from "./monte-carlo";
export * from "./readings";
export * from "./record";
export * from "./rules";
export { AgreementRuleSchema, HouseRulesSchema, WordsSchema } from "./rules-schema";
export * from "./rules-preview";
export * from "./series";
export * from "./show";
export * from "./words";
export * from "./working";
export type { CauseLine, Origin, WorkingInput, WorkingStep } from "./working-board";
