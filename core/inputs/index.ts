export { type CurveInput, meterOf, pointBurette } from "./curve";
export * from "./described";
export * from "./editing";
export * from "./field";
export { volumeConditions } from "./glass";
export type {
  Column,
  Detail,
  Difference,
  InputKind,
  LedgerColumn,
  QuotientTerm,
  Read,
  Row,
  SimulatedHand,
  Stated,
  Suspect,
  TakenOver,
  Texts,
  Typed,
} from "./kind";
export { inLegs, legsOf } from "./legs";
export { weighingNames } from "./mass";
export { InputSchema, type Input, type InputOf } from "./schema";
export * from "./table";
export * from "./pieces";
export * from "./simulated";
export { amountOf, stepsOf, takenIn } from "./taking";
export { wayOf } from "./way-names";
export { isWay, unwise, waysToMeasure, type WayToMeasure } from "./ways";
