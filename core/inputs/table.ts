import type { Check, MeasuredAt } from "../measure";
import type { Quantity, Significant } from "../quantity";
import type { Problem } from "../result";
import type { HouseRules } from "../rules";
import { absorbance } from "./absorbance";
import { blank } from "./blank";
import { byMass } from "./by-mass";
import { constant } from "./constant";
import { count } from "./count";
import { curve } from "./curve";
import { delivered } from "./delivered";
import { drops } from "./drops";
import type { EarlierUnits, Field, InputSetting } from "./field";
import { flask } from "./flask";
import { fromStage } from "./from-stage";
import { given } from "./given";
import { graduated } from "./graduated";
import type {
  InputKind,
  Read,
  ReadText,
  Stated,
  TakenOver,
  Texts,
  Typed,
  Difference,
  Suspect,
  LedgerColumn,
  Way,
} from "./kind";
import { mass } from "./mass";
import { meter } from "./meter";
import { ph } from "./ph";
import { pipette } from "./pipette";
import { purity } from "./purity";
import { readOff } from "./read-off";
import type { Input, InputOf } from "./schema";
import { statedSuspect } from "./suspect";
import { temperature } from "./temperature";
import { titer } from "./titer";
import { trace } from "./trace";
import { msg, unitText } from "../text";

/** All kinds of input. */
const kinds: { readonly [K in Input["is"]]: InputKind<InputOf<K>> } = {
  mass,
  purity,
  titer,
  pipette,
  graduated,
  flask,
  delivered,
  "by-mass": byMass,
  drops,
  count,
  temperature,
  pH: ph,
  absorbance,
  blank,
  "read-off": readOff,
  trace,
  curve,
  meter,
  given,
  result: fromStage,
  constant,
};

/** The kind of an input; the union of inputs is matched with the table of kinds here, and nowhere else. */
const kindOf = (input: Pick<Input, "is">) => kinds[input.is] as unknown as InputKind<Input>;

/** Unit in which an input's value is shown, and in which relations are followed in a spreadsheet. */
export const unitAmong = (input: Input, earlier: EarlierUnits): string => kindOf(input).unit(input, earlier);

/** Unit in which people type it, and one of it in base units; null where that is the unit of its value. */
export const typedIn = (input: Input) => kindOf(input).typedIn?.(input) ?? null;

export const fieldsOfInput = (input: Input, setting: InputSetting, rules: HouseRules): Field[] =>
  kindOf(input).fields(input, setting, rules);

export const quantityOfInput = (
  input: Input,
  read: Read,
  place: MeasuredAt,
  rules: HouseRules,
): Quantity | null => kindOf(input).quantity(input, read, place, rules);

/** Significant figures of what was typed, in the unit of the value; none count where that tells nothing. */
export const figuresOfInput = (input: Input, text: ReadText, size: number): Significant =>
  kindOf(input).figures?.(input, text, size) ?? { value: size, place: -Infinity };

export const presumedOf = (input: Input): Texts => kindOf(input).presumed?.(input) ?? {};

/** What a plan takes of it, as people type it. */
export const usualOf = (input: Input): number | null => kindOf(input).usual?.(input) ?? null;

/** How it is measured at the bench; null for what is stated, counted or computed. */
export const measuredBy = (input: Input): Way | null => kindOf(input).measuredBy?.(input) ?? null;

/** How the buoyancy of air is corrected in it; null where it is not. */
export const buoyancyOf = (input: Input, rules: HouseRules) => kindOf(input).buoyancy?.(input, rules) ?? null;

/** How its value follows from what is read, where that is a quotient. */
export const quotientOf = (input: Input) => kindOf(input).quotient?.(input) ?? null;

/** How it counts in a plan; null where nothing is taken for it. */
export const plannedOf = (input: Input) => kindOf(input).planned ?? null;

/** How many decimals an input is written with in a working; null where its ± decides. */
export const decimalsOfInput = (input: Input, rules: HouseRules): number | null =>
  kindOf(input).decimals(input, rules);

/** Unit of the amount where titers are taken per it. */
export const amountUnitOf = (input: Input): string => kindOf(input).amountUnit ?? "1";

/** True for what a photometer's stage looks after itself: many readings, or a course, lead to one quantity. */
export const isPhotometric = (input: Input): boolean => kindOf(input).photometric === true;

/** What it takes over from an earlier stage; null for what is read, stated or brought by the method. */
export const takenOver = (input: Input): TakenOver | null => kindOf(input).takesOver?.(input) ?? null;

/** How it is stated, where somebody states it; null for what is read. */
export const statedOf = (input: Input): Stated | null => kindOf(input).stated?.(input) ?? null;

/** True where its stage can do without it. */
export const isOptional = (input: Input): boolean => kindOf(input).optional?.(input) ?? false;

/** What should be known of its value. */
export const cautionsOfInput = (input: Input, q: Quantity, rules: HouseRules): Check[] =>
  kindOf(input).cautions?.(input, q, rules) ?? [];

/** What is wrong or unlikely about a reading that was just typed, beside the others of its leg. */
export const checksOfInput = (input: Input, typed: Typed): Check[] =>
  kindOf(input).checks?.(input, typed) ?? [];

/** What is wrong with an input of the right shape, in words. */
export const problemOfInput = (input: Input): Problem | null => kindOf(input).problem?.(input) ?? null;

/** The two readings that it is the difference of; null for one that is read at once. */
export const differenceOf = (input: Input): Difference | null => kindOf(input).difference?.(input) ?? null;

/** How it is looked at where a result cannot be. */
export const suspectOf = (input: Input): Suspect =>
  kindOf(input).suspect?.(input) ?? statedSuspect(input, 0.4);

/** Its columns in the ledger of a titration. */
export const ledgerOf = (input: Input, setting: InputSetting, rules: HouseRules): readonly LedgerColumn[] =>
  kindOf(input).ledger?.(input) ??
  fieldsOfInput(input, setting, rules)
    .filter(({ outOfTurn, hidden }) => !outOfTurn && !hidden)
    .map(({ label, unit, kind }) => ({ head: unit === "" ? label : msg`${label}, ${unitText(unit)}`, kind }));

/** What its fields will probably be in the next trial, by those of the trial before. */
export const proposedTexts = (input: Input, before: ReadText, rules: HouseRules): Texts =>
  kindOf(input).proposed?.(input, before, rules) ?? {};

/** How the amounts of a series are typed where it makes one. */
export const seriesOf = (input: Input) =>
  kindOf(input).series?.(input) ?? ({ kind: "volume.taken", unit: "mL" } as const);
