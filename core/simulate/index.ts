export * from "./simulate-run";
export * from "./world";
export { type Photometer, quietPhotometer } from "./simulate-assay";
