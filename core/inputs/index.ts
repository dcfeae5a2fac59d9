export * from "./field";
export { volumeConditions } from "./glass";
export type { Column, InputKind, Read, Row, SimulatedHand, Stated, TakenOver, Texts } from "./kind";
export { weighingNames } from "./mass";
export { InputSchema, type Input, type InputOf } from "./schema";
export * from "./table";
