export * from "./field";
export { volumeConditions } from "./glass";
export type {
  Column,
  Difference,
  InputKind,
  LedgerColumn,
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
export {
  balanceDecimals,
  isWay,
  onBalance,
  unwiseBalance,
  wayOf,
  waysToMeasure,
  type WayToMeasure,
} from "./ways";
