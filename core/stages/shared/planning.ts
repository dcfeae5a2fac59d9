import { type Input, typedIn } from "../../inputs";
import { type ComputedStage, unitOfInput } from "../../method";
import { unitOf } from "../../quantity";
import { evaluateNumber } from "../../relation";
import type { ObservationKind } from "../../record";
import type { HouseRules } from "../../rules";
import type { CompiledMethod, CompiledStage } from "../compiled";
import { type Phrase } from "../../text";

/** What somebody has, or wants, where it is not what the method takes as usual. Numbers in the unit that is shown. */
export interface StageChoices {
  /** Expected result of the stage. */
  readonly result?: number;
  /** By symbol: a mass, a volume, a concentration that is at hand. */
  readonly amounts?: Readonly<Record<string, number>>;
  /** The titer that is wanted, mL. */
  readonly targetMl?: number;
  /** Concentration of the stock that the titrant is diluted from, mol/L. */
  readonly stockMolPerL?: number;
}

export interface PlanChoices {
  readonly buretteMl: number;
  readonly benches: number;
  /** Trials of each bench, the rough one with them. */
  readonly trials: number;
  readonly marginPercent: number;
  readonly stages: Readonly<Record<string, StageChoices>>;
}

export interface PlannedAmount {
  readonly symbol: string;
  readonly label: Phrase;
  readonly unit: string;
  readonly value: number;
  readonly per: "trial" | "run";
  /** For all benches and trials, margin included. */
  readonly total: number;
  /** True for what is used up: a mass or a volume, but not the flask that something is made up in. */
  readonly consumed: boolean;
}

export interface StagePlan {
  readonly key: string;
  readonly title: string;
  readonly kind: ComputedStage["kind"];
  /** Everything that a number can be chosen for, with the number taken now. */
  readonly amounts: readonly PlannedAmount[];
  readonly result: { readonly name: string; readonly unit: string; readonly value: number | null };
  readonly titrant: string | null;
  readonly titerMl: number | null;
  /** Whether the burette holds the expected titer; null where none is expected. */
  readonly suffices: boolean | null;
  /** What the plan comes to, in a sentence. */
  readonly message: Phrase;
  /** What to take so that the wanted titer comes out; null where it cannot be had, or none is wanted. */
  readonly forTarget: { readonly label: Phrase; readonly unit: string; readonly value: number } | null;
  /** Titrant for all, mL, with what rinsing and filling use up. */
  readonly titrantMl: number | null;
  /** Stock to be diluted to so much titrant. */
  readonly stock: { readonly ml: number; readonly toMl: number } | null;
}

/** What is known of a stage while its plan is made. Numbers by symbol, in base units. */
export interface Planning {
  readonly compiled: CompiledMethod;
  readonly choices: PlanChoices;
  readonly chosen: StageChoices;
  readonly numbers: ReadonlyMap<string, number>;
  /** Labels of what has no number yet. */
  readonly missing: readonly string[];
  /** Keeps what a stage gives, for those that build on it. */
  readonly keep: (found: ReadonlyMap<string, number>) => void;
}

/** What a kind adds to the plan of a stage. */
export type PlannedByKind = Pick<StagePlan, "message"> & {
  /** The result in its unit; null where it is not known. */
  readonly value: number | null;
} & Partial<Pick<StagePlan, "titrant" | "titerMl" | "suffices" | "forTarget" | "titrantMl" | "stock">>;

/** How a kind of stage is planned. */
export interface StagePlanning<C extends CompiledStage> {
  readonly plan: (stage: C, planning: Planning) => PlannedByKind;
  /** Flasks of one bench that what is read in each trial is taken for, of so many trials. */
  readonly flasks: (definition: C["definition"], trials: number) => number;
  /** Flasks of one bench that its reagents go into. */
  readonly reagentFlasks: (definition: C["definition"], trials: number) => number;
  /** True where the first trial is made to find the end, and does not count. */
  readonly startsRough?: (definition: C["definition"], rules: HouseRules) => boolean;
  /** What is taken for each flask of a series, where a symbol makes one, as it is typed. */
  readonly series?: (definition: C["definition"]) => {
    readonly symbol: string;
    readonly kind: ObservationKind;
    readonly texts: readonly string[];
  };
}

/** Unit in which a number is chosen for an input. */
export const chosenUnit = (input: Input, compiled: CompiledMethod): string =>
  typedIn(input)?.unit ?? unitOfInput(input, compiled.method);

export const inBaseUnits = (input: Input, value: number, compiled: CompiledMethod): number =>
  value * (typedIn(input)?.size ?? unitOf(unitOfInput(input, compiled.method)).factor);

/** All symbols of a stage that follow from those that are known; base units. */
export function followed(
  { lines }: CompiledStage,
  numbers: ReadonlyMap<string, number>,
  { compiled: { stoichiometry } }: Pick<Planning, "compiled">,
): Map<string, number> {
  const all = new Map(numbers);
  for (const { symbol, expression } of lines)
    all.set(symbol, evaluateNumber(expression, { numbers: all, stoichiometry }));
  return all;
}
