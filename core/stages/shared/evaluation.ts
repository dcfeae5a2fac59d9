import type { Bottle, ClassLine, IsothermFit, Law } from "../../adsorption";
import type {
  CalibrationFit,
  DetectionLimits,
  FittedPoint,
  LackOfFit,
  LineAdvice,
  LineModel,
  ReadOff,
  Weighting,
} from "../../calibration";
import type {
  CombinedResult,
  DilutionDecision,
  LimitVerdict,
  OutlierAdvice,
  Share,
  Window,
} from "../../judgement";
import type {
  Crossing,
  CurvePoint,
  CurveReading,
  CurveSetting,
  EndByWay,
  NextAddition,
  Way,
} from "../../curves";
import type { Dependence, Order, OrderComparison } from "../../kinetics";
import type { Check } from "../../measure";
import type { Quantity, Significant } from "../../quantity";
import type { Result } from "../../result";
import type { Field } from "../../inputs";
import type {
  CalibrationStage,
  CurveStage,
  FurtherResultDefinition,
  IsothermStage,
  PreparationStage,
  RateStage,
  TitrationStage,
  UnknownStage,
} from "../../method";
import type { Observation, PointView, TraceRecord, TrialRecord, ReadingView } from "../../record";
import type { Implausibility } from "./plausibility";
import { type Phrase } from "../../text";

/** A value with its ± rounded for people, by the house's style. */
export interface Shown {
  readonly value: string;
  readonly plusMinus: string;
  readonly unit: string;
  /** "0.10214 ± 0.00020 mol/L" */
  readonly text: Phrase;
  /** The nearest whole number, for a count. */
  readonly nearestWhole?: string;
}

export interface FieldState {
  readonly field: Field;
  /** What holds now, or null where nothing has been read yet. */
  readonly present: Observation | null;
  readonly history: readonly Observation[];
  /** All readings that stand, of what is read many times. */
  readonly readings?: readonly Observation[];
}

export interface TrialEvaluation {
  readonly id: string;
  readonly record: TrialRecord;
  /** "rough", "1", or the label that people gave it. */
  readonly name: Phrase;
  /** The same in a sentence: "the rough trial", "trial 1". */
  readonly words: Phrase;
  readonly fields: readonly FieldState[];
  /** The first field that is still to be read; null when the trial is complete. */
  readonly missing: Field | null;
  /** True when it may be judged and averaged: complete, fine, not struck out. */
  readonly eligible: boolean;
  /** Every symbol that could be computed. */
  readonly symbols: ReadonlyMap<string, Quantity>;
  /** As it is read: final minus initial reading, less what was taken back. */
  readonly titerMl: number | null;
  /** True where its end was overshot: its titer is more than the true one. */
  readonly overshot: boolean;
  readonly result: Quantity | null;
  readonly shownResult: Shown | null;
  /** What must agree, in the unit of the agreement: the titer, the titer per reference amount, or the result. */
  readonly compared: number | null;
  /** Significant figures of every symbol by the taught rules; empty where the house rounds to the uncertainty. */
  readonly significance: ReadonlyMap<string, Significant>;
  /** Why nothing could be computed although all was read, in words. */
  readonly problem: Phrase | null;
  readonly cautions: readonly Check[];
}

export interface AgreementView {
  /** "titer, mL" or "titer, mL, per 0.50 g" or "result, as mL of titer" */
  readonly label: Phrase;
  /** Unit of the values compared: mL, or the result's own. */
  readonly unit: string;
  /** Decimals that the values compared are shown with. */
  readonly decimals: number;
  /** The house's rule in words. */
  readonly rule: Phrase;
  readonly needed: number;
  /**
   * How the trials that count stand: none; one alone; several of which no two agree; several sets that speak against each
   * other; or one concordant set.
   */
  readonly state: "none" | "one" | "apart" | "rivals" | "set";
  /** Ids of the trials that make the result: the concordant set, or the one trial there is. Empty while nothing agrees. */
  readonly members: readonly string[];
  /** Ids of the sets that speak against each other; empty where there is one set, or none. */
  readonly rivals: readonly (readonly string[])[];
  /** True when another set, that shares trials with this one, is as large and just as tight. */
  readonly tied: boolean;
  /** Highest minus lowest of the set, or of all that count where there is none; in the unit. */
  readonly spread: number;
  /** Where the next compared value would join or make a set, or close it where one is missing; rising, in the unit. */
  readonly windows: readonly Window[];
  /** How many more trials the rule asks for at least. */
  readonly missing: number;
  readonly closed: boolean;
  /** What the house's test for outliers says; it advises only. */
  readonly outlier: OutlierAdvice | null;
  /** Why that test says nothing of so many trials; null where it does. */
  readonly noOutlierTest: Phrase | null;
}

/** The result held against what it should be. */
export type AcceptanceView =
  | {
      readonly against: "value";
      /** What it should be. */
      readonly known: Quantity;
      /** How far off is allowed, in percent; null where nothing is said of that. */
      readonly allowedPercent: number | null;
      /** With its sign, or without, as the house has it. */
      readonly errorPercent: number;
      readonly recoveryPercent: number;
      readonly within: boolean | null;
      readonly decision: DilutionDecision | null;
      readonly text: Phrase;
    }
  | {
      readonly against: "limit";
      readonly verdict: LimitVerdict;
      /** True when it passes, false when it fails, null when that cannot be told. */
      readonly passes: boolean | null;
      readonly text: Phrase;
    };

/** A result beside the main one, or the same in other units. */
export interface FurtherResult {
  readonly definition: Omit<FurtherResultDefinition, "name"> & { readonly name: Phrase };
  readonly quantity: Quantity;
  readonly shown: Shown;
}

/** What would make the ± smaller. */
export interface Improvement {
  /** Id of the largest contribution to the variance. */
  readonly share: string;
  readonly part: number;
  /** What to do about it, as the end of a sentence: "to halve it: weighing 0.8 g instead of 0.4 g". */
  readonly remedy: Phrase;
  /** All of it in words. */
  readonly text: Phrase;
}

export interface Verdict {
  /** "impossible": the trials agree, and their result cannot be. */
  readonly state: "empty" | "collecting" | "agreed" | "impossible";
  readonly reason: Phrase;
  /** True where the reason tells what the result was held against, too. */
  readonly tellsAcceptance?: boolean;
  /** What to do next. */
  readonly next: Phrase;
}

export interface Guidance {
  readonly titerMl: number;
  /** By trials that count, by a rough one, by what is known or expected of the result; or merely as the method presumes. */
  readonly from: "trials" | "rough" | "expected" | "presumed";
  /** True where it is only known that the end comes before that: by a rough trial that was overshot. */
  readonly before: boolean;
  /** Expected end point; the first one where trials that disagree give several. */
  readonly endNear: number | null;
  /** All places that are named, rising. */
  readonly ends: readonly number[];
  /** Where the end would come if the trial in hand repeated one of the complete trials that count, whichever. */
  readonly repeats: readonly number[];
  /** The same as it is told: to the burette's decimals by earlier trials, to the first by anything else; empty where it is not known. */
  readonly endTexts: readonly string[];
  readonly slowAt: number | null;
  /** False when the end lies beyond the last mark. */
  readonly roomLeft: boolean;
  /** Titers of this flask that would join or make a set: windows, rising. */
  readonly joins: readonly Window[];
  readonly text: Phrase;
}

/** A further result that cannot be told, and why. */
export interface Withheld {
  readonly name: Phrase;
  readonly why: Phrase;
}

/** What every stage that computes something shows, whatever its kind. */
interface StageViews {
  /** Further results that cannot be told. */
  readonly withheld: readonly Withheld[];
  /** The result held against a known value, a target or a limit; null where there is none, or no result yet. */
  readonly acceptance: AcceptanceView | null;
  /** Results that cannot be, or that lie outside what the method holds for. */
  readonly implausible: readonly Implausibility[];
  /** Values that nobody stated and the result rests on, here or in an earlier stage. */
  readonly restsOn: readonly Phrase[];
  /** What is not counted in the ±, since nobody stated it. */
  readonly leftOut: readonly Phrase[];
  /** Masses that are not corrected for buoyancy, though the house does it, since no density is stated. */
  readonly uncorrected: readonly Phrase[];
  readonly key: string;
  readonly done: boolean;
  readonly stageFields: readonly FieldState[];
  readonly shown: Shown | null;
  readonly also: readonly FurtherResult[];
  readonly shares: readonly Share[];
  /** Why there is no result although something was read, in words. */
  readonly problem: Phrase | null;
  readonly cautions: readonly Check[];
}

/** What a stage shows of these before it was judged. */
export const unjudged: Pick<
  StageViews,
  "acceptance" | "withheld" | "implausible" | "restsOn" | "leftOut" | "uncorrected"
> = {
  acceptance: null,
  withheld: [],
  implausible: [],
  restsOn: [],
  leftOut: [],
  uncorrected: [],
};

/** A result that is had once, from all that was read. */
interface OnceViews extends StageViews {
  /** The first field that is still to be read. */
  readonly missing: Field | null;
  readonly symbols: ReadonlyMap<string, Quantity>;
  readonly significance: ReadonlyMap<string, Significant>;
  readonly quantity: Quantity | null;
}

/** A result that is a mean over trials. */
interface ReplicateViews extends StageViews {
  readonly combined: CombinedResult | null;
}

export interface TitrationEvaluation extends ReplicateViews {
  readonly kind: "titration";
  readonly definition: TitrationStage;
  /** Symbol of the titer. */
  readonly titer: string;
  readonly trials: readonly TrialEvaluation[];
  /** The trial that is being carried out: the one in hand, else the last one that lacks a reading and is not struck out. */
  readonly current: TrialEvaluation | null;
  /** All trials that are begun and not complete, as flasks that stand: the one in hand among them. */
  readonly begun: readonly TrialEvaluation[];
  /** The mean titer from which the result follows, mL, where the house averages titers; null where it averages results. */
  readonly meanTiterMl: number | null;
  readonly agreement: AgreementView;
  readonly improvement: Improvement | null;
  readonly verdict: Verdict;
  /** For the trial that is being carried out, or for the next one. */
  readonly guidance: Guidance | null;
  /** What each field of the current or next trial is likely to be, by field key: carried from the trial before. */
  readonly proposals: ReadonlyMap<string, string>;
}

/** Something made once: what was read, and what follows. */
export interface PreparationEvaluation extends OnceViews {
  readonly kind: "preparation";
  readonly definition: PreparationStage;
  /** What to take so that it comes to its target, or how what was taken compares; null where it has no target. */
  readonly aim: AimView | null;
}

export interface AimView {
  readonly text: Phrase;
  /** "take" before it is taken, "made" after, "problem" where the target cannot be met so. */
  readonly state: "take" | "made" | "problem";
}

/** One flask of a calibration. */
export interface LevelEvaluation {
  readonly id: string;
  readonly record: TrialRecord;
  readonly name: Phrase;
  /** The same in a sentence. */
  readonly words: Phrase;
  readonly fields: readonly FieldState[];
  /** The first field of its making that is still to be typed. */
  readonly missing: Field | null;
  /** The amount in it; null while something is still to be typed. */
  readonly amount: Quantity | null;
  /** The same in the unit of the axis. */
  readonly x: number | null;
  readonly symbols: ReadonlyMap<string, Quantity>;
  readonly readings: readonly ReadingView[];
  /** Mean of the readings that count. */
  readonly mean: number | null;
  /** Absorbance of the recheck at the end. */
  readonly again: number | null;
  /** Why it is no part of the line although it was read; null where it is. */
  readonly leftOut: Phrase | null;
}

/** A point of the line: which reading it is of which flask. */
export interface LinePoint extends FittedPoint {
  readonly levelId: string;
  readonly readingId: string;
  readonly person: string;
  /** True where it lies off the line by more than chance allows. */
  readonly off: boolean;
}

export interface LineView {
  readonly fit: CalibrationFit;
  readonly points: readonly LinePoint[];
  readonly advice: readonly LineAdvice[];
  readonly lackOfFit: LackOfFit | null;
  readonly limits: {
    readonly line: DetectionLimits | null;
    readonly blanks: DetectionLimits | null;
  };
  /** |studentized residual| beyond which a reading is off the line. */
  readonly offBeyond: number;
}

/** What was chosen for a line. */
export interface LineChoice {
  readonly model: LineModel;
  readonly weighting: Weighting;
  /** False where the zero standard is left out of the line. */
  readonly zero: boolean;
  /** Whether the cuvettes were read against the blank, or its reading is deducted from theirs. */
  readonly blank: "zeroed" | "deducted";
}

export interface CalibrationEvaluation extends OnceViews {
  readonly kind: "calibration";
  readonly definition: CalibrationStage;
  readonly levels: readonly LevelEvaluation[];
  /** Usual amounts that no flask has been read for yet, as typed. */
  readonly ahead: readonly string[];
  readonly blanks: readonly ReadingView[];
  /** What is deducted from all readings, absorbance; null where nothing is. */
  readonly deducted: number | null;
  /** What must be said of a blank that is not zero before the line counts, in words; null where that is settled. */
  readonly blankQuestion: Phrase | null;
  readonly choice: LineChoice;
  readonly line: LineView | null;
  /** The amount that an absorbance stands for, with all its causes, in base units. */
  readonly readOff: ((readings: readonly number[], place: string) => Result<ReadQuantity>) | null;
  readonly next: Phrase;
}

export interface ReadQuantity {
  readonly quantity: Quantity;
  readonly off: ReadOff;
}

/** Where an unknown lies beside the standards. */
export interface RangeView {
  readonly place: "within" | "above" | "below" | "undetected";
  readonly text: Phrase;
}

/** One flask of an unknown. */
export interface SampleEvaluation extends TrialEvaluation {
  readonly readings: readonly ReadingView[];
  readonly off: ReadOff | null;
  readonly range: RangeView | null;
}

/** Whether the flasks of an unknown agree, by their results. */
export interface FlaskAgreement {
  readonly state: AgreementView["state"];
  readonly members: readonly string[];
  /** What was found, the rule, and what the house's test for outliers says. */
  readonly text: Phrase;
}

export interface UnknownEvaluation extends ReplicateViews {
  readonly kind: "unknown";
  readonly agreement: FlaskAgreement;
  readonly definition: UnknownStage;
  readonly trials: readonly SampleEvaluation[];
  readonly next: Phrase;
  /** Key of the stage whose line it is read off. */
  readonly lineOf: string;
}

/** One cuvette followed in time. */
export interface CourseEvaluation extends TrialEvaluation {
  readonly trace: TraceRecord | null;
  readonly window: readonly [number | null, number | null];
  readonly comparison: OrderComparison | null;
}

export interface RateEvaluation extends ReplicateViews {
  readonly kind: "rate";
  readonly definition: RateStage;
  readonly trials: readonly CourseEvaluation[];
  /** The order taken for the rate constants. */
  readonly order: Order;
  /** True where somebody chose it; else it is the one that most courses prefer. */
  readonly chosen: boolean;
  /** True where the absorbance that the courses level off at is fitted too. */
  readonly endFitted: boolean;
  readonly dependence: Result<Dependence> | null;
  readonly next: Phrase;
}

/** An equivalence point of a curve, as the relations use it. */
export interface CurveEnd {
  readonly symbol: string;
  readonly name: Phrase;
  /** How it comes out in each way that there is; the one that is taken first. */
  readonly ways: readonly EndByWay[];
  /** The one that is taken; null while the curve shows no such end. */
  readonly taken: EndByWay | null;
}

/** One titration curve: its points, what they tell, and what to add next. */
/** Where the jumps of a curve are to be expected, mL: by an earlier curve, or by what the method presumes. Empty where nothing tells. */
export interface ExpectedEnds {
  readonly by: "curve" | "theory";
  readonly ml: readonly number[];
}

export interface CurveEvaluation extends TrialEvaluation {
  /** Reading of the burette at the start, mL; null while it is not typed. */
  readonly startMl: number | null;
  /** All points as they were taken, those that are struck out among them. */
  readonly taken: readonly PointView[];
  /** Those that count, by the volume added. */
  readonly points: readonly CurvePoint[];
  readonly next: NextAddition;
  /** Where its jumps are to be expected. */
  readonly expected: ExpectedEnds;
  /** True while the whole curve is still being fitted: it has no result yet. */
  readonly fitting: boolean;
  /** What a pH curve or one of potentials tells; null for branches, and while there are too few points. */
  readonly reading: CurveReading | null;
  /** Where two branches cross. */
  readonly crossing: Crossing | null;
  readonly ends: readonly CurveEnd[];
  /** What is titrated and with what, for theory laid over it. */
  readonly setting: CurveSetting;
}

export interface CurveStageEvaluation extends ReplicateViews {
  readonly kind: "curve";
  readonly definition: CurveStage;
  readonly trials: readonly CurveEvaluation[];
  /** The curve that is being taken: the last one that is neither struck out nor past its end. */
  readonly current: CurveEvaluation | null;
  readonly agreement: FlaskAgreement;
  /** The way that somebody chose for all ends; null where the best is taken. */
  readonly way: Way | null;
  /** The number of protons that somebody stated; null where the curve tells it. */
  readonly protons: number | null;
  /** What the fit of the whole curve asks for besides. */
  readonly fitted: { readonly offset: boolean; readonly carbonate: boolean };
  /** True where the first curve is taken towards the end that the method presumes. */
  readonly ahead: boolean;
  readonly next: Phrase;
}

/** One bottle of an isotherm. */
export interface BottleView {
  readonly name: Phrase;
  readonly bottle: Bottle;
  readonly shown: { readonly concentration: Shown; readonly uptake: Shown };
  /** Why it is no part of the isotherms; null where it is. */
  readonly leftOut: Phrase | null;
}

export interface IsothermEvaluation extends OnceViews {
  readonly kind: "isotherm";
  readonly definition: IsothermStage;
  readonly bottles: readonly BottleView[];
  /** Both laws, where the bottles determine them. */
  readonly fits: readonly IsothermFit[];
  readonly lines: Readonly<Record<Law, ClassLine | null>>;
  /** The law that describes the titers better; null where neither does, or while there are too few bottles. */
  readonly better: Law | null;
  /** How well each law describes the titers, and which is taken. */
  readonly finding: Phrase;
  readonly next: Phrase;
}

/** Stages whose result is a mean over trials. */
export type ReplicateEvaluation =
  TitrationEvaluation | UnknownEvaluation | RateEvaluation | CurveStageEvaluation;
/** Stages whose result is had once, from all that was read. */
export type OnceEvaluation = PreparationEvaluation | CalibrationEvaluation | IsothermEvaluation;
export type ComputedEvaluation = ReplicateEvaluation | OnceEvaluation;

export const isOnce = (stage: ComputedEvaluation): stage is OnceEvaluation => "quantity" in stage;

/** The trials that make a stage's result. */
export const membersOf = (stage: ReplicateEvaluation): readonly TrialEvaluation[] =>
  "agreement" in stage
    ? stage.trials.filter((t) => stage.agreement.members.includes(t.id) && t.result)
    : stage.trials.filter((t) => t.eligible && t.result);

/** A result of a stage as it is shown: the one of that symbol, or the main one where none is named. */
export const shownResult = (stage: ComputedEvaluation, symbol?: string): Shown | null =>
  symbol === undefined || symbol === stage.definition.result.symbol
    ? stage.shown
    : (stage.also.find((a) => a.definition.symbol === symbol)?.shown ?? null);

/** The quantity of a stage's main result, where there is one yet. */
export const resultQuantity = (stage: ComputedEvaluation): Quantity | null =>
  isOnce(stage) ? stage.quantity : (stage.combined?.quantity ?? null);

export interface Bead {
  readonly key: string;
  readonly title: Phrase;
  readonly state: "done" | "current" | "ahead";
  /** The stage's key number, or how far it is. */
  readonly fact: Phrase;
  /** Where that is from, for a stage that is known and not done in the run: the code of a bottle, or what a person said. */
  readonly source?: Phrase;
}

/** A stage that could not be evaluated, and what was thrown: a fault of the program, for its log. */
export interface StageFailure {
  readonly stageKey: string;
  readonly error: unknown;
}

export interface RunEvaluation {
  readonly stages: readonly ComputedEvaluation[];
  readonly chain: readonly Bead[];
  /** Key of the stage that the work is at; that of concluding once all are done. */
  readonly currentStage: string;
  readonly next: Phrase;
  /** State in words, for lists. */
  readonly state: Phrase;
  readonly result: Shown | null;
  /** Stages that could not be evaluated; empty as a rule. */
  readonly failures: readonly StageFailure[];
}

/** The bead that comes after a stage: the next stage, or concluding. */
export const beadAfter = ({ chain }: Pick<RunEvaluation, "chain">, key: string): Bead | undefined =>
  chain[chain.findIndex((bead) => bead.key === key) + 1];

/** What would make the ± of a stage smaller; null where its kind does not tell, or there is no result. */
export const improvementOfStage = (stage: ComputedEvaluation): Improvement | null =>
  "improvement" in stage ? stage.improvement : null;
