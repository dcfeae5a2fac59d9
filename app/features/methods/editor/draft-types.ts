import type {
  AssayStage,
  CurveStage,
  IsothermStage,
  ComputedStage,
  Method,
  PreparationStage,
  TitrationStage,
} from "~/core/method";
import type { Row } from "./row";

/** A stage as it is being written: everything as text. */
export interface StageDraft {
  readonly key: string;
  readonly kind: ComputedStage["kind"];
  readonly title: string;
  readonly inputs: readonly Row[];
  readonly relations: readonly Row[];
  /** The first is the main one. */
  readonly results: readonly Row[];
  readonly assigns: string;
  /** "titers", "results", or the symbol of the amount that titers are taken per. */
  readonly agree: string;
  readonly presumed: string;
  readonly expectLow: string;
  readonly expectHigh: string;
  readonly indicator: string;
  /** What surrounds the reaction in the flask: pH, free ammonia and bound magnesium, mol/L. */
  readonly flaskPh: string;
  readonly flaskAmmonia: string;
  readonly flaskMagnesium: string;
  readonly equivalents: string;
  readonly persistSeconds: string;
  readonly persistence: string;
  readonly meniscus: string;
  readonly ribbon: readonly Row[];
  readonly reagents: readonly Row[];
  readonly conditions: readonly Row[];
  readonly steps: string;
  readonly cautions: string;
  /** What the result is held against. */
  readonly accept: TitrationStage["accept"];
  /** The earlier stage whose result is expected; what the editor does not touch is carried through. */
  readonly expectedFrom: TitrationStage["expectedFrom"];
  readonly plausible: readonly Row[];
  /** Where it is read on a photometer: what belongs to its line or its course. Spectra of a preparation likewise. */
  readonly carried: AssayStage | CurveStage | IsothermStage | PreparationStage | null;
}

export interface MethodDraft {
  readonly id: string;
  readonly title: string;
  readonly purpose: string;
  readonly family: Method["family"];
  readonly variantOf: string;
  readonly differs: string;
  readonly equations: readonly Row[];
  readonly substances: readonly Row[];
  readonly stages: readonly StageDraft[];
  readonly protection: string;
  readonly hazards: string;
  readonly waste: string;
  readonly glassware: string;
}

/** What the stages of all kinds say alike, once it is read from a draft. */
export type SharedParts = Omit<PreparationStage, "kind" | "spectra" | "aim">;
