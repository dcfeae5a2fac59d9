import type { TSchema } from "@sinclair/typebox";
import type { Check, MeasuredAt } from "../measure";
import type { Quantity, Significant } from "../quantity";
import type { CurvePlace, ObservationKind } from "../record";
import type { Problem, Result } from "../result";
import type { HouseRules } from "../rules";
import type { EarlierUnits, Field, InputSetting } from "./field";
import { type Phrase } from "../text";

/** What every input has, whatever its kind. */
export interface InputBase {
  readonly is: string;
  readonly symbol: string;
  readonly label: Phrase;
}

/**
 * What has been read of an input, by kind of observation; null where nothing has. A reading that goes on after a refill is taken in
 * legs, counted from 1; there is one where nothing is said.
 */
export interface Read {
  (kind: ObservationKind, leg?: number): number | null;
  readonly legs?: number;
}

/** The same as it was typed. */
export type ReadText = (kind: ObservationKind) => string | null;

/** Texts as a hand types them, by kind of observation. */
export type Texts = Partial<Record<ObservationKind, string>>;

/** The one who reads at a simulated bench. */
export interface SimulatedHand {
  readonly rules: HouseRules;
  /** What is aimed at: a mass in g, a volume in mL, a temperature in °C, a stated value. */
  readonly aim: number | undefined;
  /** A number between two. */
  readonly between: (low: number, high: number) => number;
  /** What is aimed at, a little more or less from trial to trial. */
  readonly varied: (value: number) => number;
}

/** A reading that was just typed, with those that stand beside it: of the same leg, where a burette was refilled midway. */
export interface Typed {
  readonly kind: ObservationKind;
  readonly value: number;
  readonly text: string;
  /** Decimals that it is written with. */
  readonly decimals: number;
  readonly beside: (
    kind: ObservationKind,
  ) => { readonly value: number; readonly text: string; readonly place?: CurvePlace } | null;
  /** Where it is read, for a point of a titration curve. */
  readonly place?: CurvePlace;
  readonly rules: HouseRules;
  /** Whether a titer of nothing gives a result, as that of a blank. */
  readonly mayBeZero: boolean;
}

/** An input as a row of texts, as the method editor shows it. */
export type Row = Readonly<Record<string, string>>;

/** A column of such a row. */
export interface Column {
  readonly key: string;
  readonly label: Phrase;
  readonly wide?: number;
  /** True for what is typed as a number or a formula. */
  readonly reading?: boolean;
  /** "stages": one of the stages before. */
  readonly choices?: readonly { readonly value: string; readonly label: Phrase }[] | "stages";
}

/** How the method editor shows a kind. */
export interface Editing<I> {
  /** What the kind is called where one is chosen. */
  readonly name: Phrase;
  /** Columns behind those for letter and label. */
  readonly columns: readonly Column[];
  /** Texts of those columns; what there is not stays empty. */
  readonly row: (input: I) => Row;
  /** The input that a row means; numbers that are none become NaN, which the check tells. */
  readonly input: (row: Row) => Omit<I, keyof InputBase>;
}

/** The result of an earlier stage that an input takes over, or the line of one that it is read off. */
export interface TakenOver {
  readonly stage: string;
  /** Symbol of one of its further results; the main one where there is none. */
  readonly result?: string;
  /** Symbol of the absorbance by which it is read off a line. */
  readonly readBy?: string;
}

/** What somebody states, and may take from a bottle on the shelf. */
export interface Stated {
  /** The kind of observation that its value is, and those that say how well it is known. */
  readonly value: ObservationKind;
  readonly spreads: readonly ObservationKind[];
  /** Formula and unit of the bottles that it can be taken from; null where it is only typed. */
  readonly shelf: { readonly formula: string; readonly unit: string } | null;
  /** True for what is counted or chosen: it has no ±. */
  readonly exact: boolean;
}

/** One of the two readings that a difference is made of. */
interface End {
  readonly kind: ObservationKind;
  readonly name: string;
}

/** What is had as the difference of two readings. */
export interface Difference {
  readonly unit: string;
  readonly minuend: End;
  readonly subtrahend: End;
  /** "the two weighings" */
  readonly words: Phrase;
  /** What it comes to while it is read: "Mass"; null where that is not shown. */
  readonly soFar: Phrase | null;
  /** The same once all is read, where that is called otherwise. */
  readonly saved?: Phrase;
}

/** Which way an input would have to be wrong, for a result that cannot be. */
export type Side = "high" | "low" | "either";

/** How an input is looked at where a result cannot be. */
export interface Suspect {
  /** How often it is what is wrong, beside the others. Common practice, no source. */
  readonly often: number;
  /** What would make its value too high, or too low, for the truth. `from` is the title of the stage that it comes from. */
  readonly words: (side: Side, from: Phrase) => Phrase;
}

/** A column of the ledger: a reading, or what the readings come to. */
export interface LedgerColumn {
  readonly head: Phrase;
  /** The reading that stands in it; null for what the readings come to. */
  readonly kind: ObservationKind | null;
}

/** A way to measure an amount at the bench: by a piece of glass, or by a weighing. */
export type Way =
  | "pipette"
  | "graduated pipette"
  | "burette"
  | "cylinder"
  | "flask"
  | "transfer"
  | "addition"
  | "tared"
  | "mass"
  | "drops";

/** What is asked of what something is measured with: the density of what is weighed, the class of a pipette. */
export interface Detail {
  readonly key: string;
  readonly label: Phrase;
  /** As it is now, or as it is proposed. */
  readonly text: string;
  readonly help?: Phrase;
  readonly choices?: readonly { readonly value: string; readonly label: Phrase }[];
  /** True for what is seldom other than the house rules say: it is asked for only where somebody wants to say it. */
  readonly seldom?: true;
}

export interface DetailProblem {
  readonly key: string;
  readonly message: Phrase;
}

/** The part of an amount by which it may be wrong at best, and what that comes from. */
export interface Coarseness {
  readonly part: number;
  readonly because: Phrase;
}

/** What an amount is measured with, where a run chooses that: what is asked of it, and how good it is. */
export interface Measuring<I extends InputBase> {
  readonly details: (input: I) => readonly Detail[];
  /** The input with details as they were typed, by their keys. */
  readonly withDetails: (input: I, texts: Row) => Result<I, DetailProblem>;
  /** How well it is known at best as it is measured; null where nothing is usual. */
  readonly coarseness?: (input: I, rules: HouseRules) => Coarseness | null;
}

/** One term of a quotient in a working. */
export interface QuotientTerm {
  readonly symbol: string;
  /** The kind of observation that it is read as; its text where it is none. */
  readonly kind?: ObservationKind;
  readonly text?: string;
  readonly unit: string;
}

/** All that is particular to one kind of input. */
export interface InputKind<I extends InputBase> {
  /** Unit in which its value is shown, and in which relations are followed in a spreadsheet. */
  readonly unit: (input: I, earlier: EarlierUnits) => string;
  /** Unit in which people type and plan it, with its size in the unit above, where that is another. */
  readonly typedIn?: (input: I) => { readonly unit: string; readonly size: number };
  /** How many decimals it is written with in a working; null where its ± decides. */
  readonly decimals: (input: I, rules: HouseRules) => number | null;
  readonly fields: (input: I, setting: InputSetting, rules: HouseRules) => Field[];
  /** The quantity with its causes; null while something is still to be read, and for what its stage looks after. */
  readonly quantity: (input: I, read: Read, place: MeasuredAt, rules: HouseRules) => Quantity | null;
  /** Significant figures of what was typed, in the unit of the value; `size` is that value. */
  readonly figures?: (input: I, text: ReadText, size: number) => Significant | null;
  /** What its fields will probably be before anything is read, and what is taken where nothing is typed. */
  readonly presumed?: (input: I) => Texts;
  /** What a plan takes, as people type it; null where nothing is usual. */
  readonly usual?: (input: I) => number | null;
  /** How it is measured at the bench; left out for what is stated, counted or computed. */
  readonly measuredBy?: (input: I) => Way;
  /** What turns what a balance shows into the true mass, where the house corrects for the buoyancy of air, with the density in g/mL. */
  readonly buoyancy?: (
    input: I,
    rules: HouseRules,
  ) => { readonly factor: number; readonly density: string } | null;
  /** How its value follows from what is read, where that is a quotient: terms above the bar are subtracted. */
  readonly quotient?: (input: I) => { readonly over: readonly QuotientTerm[]; readonly under: QuotientTerm };
  /** How it counts in a plan: measured out for each flask, and used up. */
  readonly planned?: { readonly measured: boolean; readonly consumed: boolean };
  /** Unit of a titer's amount where titers are taken per it; a plain number where nothing is said. */
  readonly amountUnit?: string;
  /** True where the stage's own engine makes one quantity of many readings, or of a course. */
  readonly photometric?: true;
  readonly takesOver?: (input: I) => TakenOver;
  readonly stated?: (input: I) => Stated;
  /** True where the stage can do without it. */
  readonly optional?: (input: I) => boolean;
  /**
   * What is wrong or unlikely about a reading of it beside the others, first what cannot be: "stop" refuses it. One leg at a time.
   */
  readonly checks?: (input: I, typed: Typed) => Check[];
  /** What should be known of a value before it is used. */
  readonly cautions?: (input: I, q: Quantity, rules: HouseRules) => Check[];
  /** What is wrong with an input whose shape is right, null where nothing is. */
  readonly problem?: (input: I) => Problem | null;
  /** The two readings that it is the difference of; null for one that is read at once. */
  readonly difference?: (input: I) => Difference | null;
  /** How it is looked at where a result cannot be; rarely where nothing is said. */
  readonly suspect?: (input: I) => Suspect;
  /** Its columns in the ledger of a titration; one for each field where nothing is said. */
  readonly ledger?: (input: I) => readonly LedgerColumn[];
  /** What its fields will probably be in the next trial, by those of the trial before. */
  readonly proposed?: (input: I, before: ReadText, rules: HouseRules) => Texts;
  /** How the amounts of a series are typed where it makes one; unit empty for a plain number. */
  readonly series?: (input: I) => { readonly kind: ObservationKind; readonly unit: string };
}

/** The schema of a kind is made when it is asked for: a screen that only computes needs none. */
export type SchemaOf<S extends TSchema> = () => S;
