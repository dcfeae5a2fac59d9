import { type Static, type TSchema, Type } from "@sinclair/typebox";
import { Closed, Decimal, Name, Per, Text } from "./parts";

const input = <K extends string, T extends Record<string, TSchema>>(is: K, parts: T) =>
  Type.Object({ is: Type.Literal(is), symbol: Name, label: Text, ...parts }, Closed);

const Mass = input("mass", {
  /** Formula, or name, of what is weighed. */
  of: Text,
  per: Per,
  /**
   * "transfer": the boat before and after the solid is tipped out; "addition": the vessel empty, then with the sample;
   * "tared": the balance was set to zero on the empty vessel. Transfer where nothing is said.
   */
  weighing: Type.Optional(
    Type.Union([Type.Literal("transfer"), Type.Literal("addition"), Type.Literal("tared")]),
  ),
  /** Names of the two weighings of a mass by difference, in the order in which they are made. */
  before: Type.Optional(Text),
  after: Type.Optional(Text),
  /** The window, in g, that the mass should fall in; outside it is a caution. */
  expect: Type.Optional(Type.Tuple([Type.Number(), Type.Number()])),
  /** Density in g/mL, for the correction of air buoyancy where the house makes it. */
  densityGPerMl: Type.Optional(Type.Number({ exclusiveMinimum: 0 })),
});

const Purity = input("purity", {
  of: Text,
  per: Type.Literal("run"),
  /** Taken until something else is typed: percent and its ±. */
  presumed: Type.Object({ percent: Text, plusMinus: Text }, Closed),
});

const Titer = input("titer", {
  titrant: Text,
  per: Type.Literal("trial"),
  /**
   * How far behind the equivalence point the color turns, mL, and its ±; negative where it turns before. It is taken off each
   * titer. Nothing where it is not known, or made good by a blank.
   */
  bias: Type.Optional(Type.Object({ ml: Decimal, plusMinus: Decimal }, Closed)),
});

/** A one-mark pipette. */
const Pipette = input("pipette", {
  of: Text,
  per: Per,
  /** The usual volume in mL, as it would be typed. */
  presumed: Text,
});

/** A pipette with a scale, or a measuring cylinder: any volume up to its capacity. */
const Graduated = input("graduated", {
  of: Text,
  per: Per,
  glass: Type.Union([Type.Literal("graduated pipette"), Type.Literal("cylinder")]),
  capacityMl: Type.Number({ exclusiveMinimum: 0 }),
  presumed: Type.Optional(Text),
});

/** A volumetric flask made up to its mark. */
const Flask = input("flask", { of: Text, per: Per, presumed: Text });

/** A volume counted in drops. */
const Drops = input("drops", {
  of: Text,
  per: Per,
  /** Drops in one mL, and its ±. */
  perMl: Type.Object({ value: Decimal, plusMinus: Decimal }, Closed),
});

/** A volume delivered from a burette of its own, as a sample by burette difference. */
const Delivered = input("delivered", { of: Text, per: Per });

/** A reading of a pH meter. */
const Acidity = input("pH", {
  per: Per,
  /** ± of the meter, pH. */
  plusMinus: Decimal,
});

const Temperature = input("temperature", {
  per: Per,
  /** ± of the thermometer, °C. */
  plusMinus: Decimal,
});

/** A number that the method itself brings, exact or with a ±. */
const Constant = input("constant", { value: Decimal, unit: Text, plusMinus: Type.Optional(Decimal) });

/** What a photometer shows of a cuvette: as many readings as people take, in absorbance or in percent transmittance. */
const Absorbance = input("absorbance", { per: Type.Literal("trial") });

/** The same of the blank, read for the whole stage: before, and again at the end. */
const Blank = input("blank", {
  per: Type.Literal("run"),
  /**
   * How the cuvettes are read: "zeroed" on the blank, which then reads nothing; or against something else, so that its
   * reading is "deducted" from all others. Zeroed where nothing is said.
   */
  readings: Type.Optional(Type.Union([Type.Literal("zeroed"), Type.Literal("deducted")])),
});

/** An amount read off the line of an earlier stage by this stage's absorbance. */
const ReadOff = input("read-off", {
  of: Text,
  per: Type.Literal("trial"),
  /** Key of the calibration stage. */
  stage: Text,
  /** Symbol of the absorbance. */
  reading: Text,
});

/** A course of absorbance against time. */
const Trace = input("trace", { per: Type.Literal("trial") });

/** A number that someone states: a certificate's concentration, a density, a target, a limit, a count of drops. */
const Given = input("given", {
  per: Per,
  unit: Text,
  /** Formula of the solution whose concentration it is: it can be taken from a bottle on the shelf. */
  of: Type.Optional(Text),
  /** Taken until something else is typed. */
  presumed: Type.Optional(Type.Object({ value: Decimal, plusMinus: Decimal }, Closed)),
  /** True where the stage can do without it, as without a target. */
  optional: Type.Optional(Type.Boolean()),
  /** True for what is counted or chosen, as drops or a wavelength: it has no ±. */
  exact: Type.Optional(Type.Boolean()),
});

const FromStage = input("result", {
  of: Text,
  per: Type.Literal("run"),
  /** Key of the earlier stage whose result this is. */
  stage: Text,
  /** Symbol of one of its further results, where it is not the main one. */
  result: Type.Optional(Text),
});

export const InputSchema = Type.Union([
  Mass,
  Purity,
  Titer,
  Pipette,
  Graduated,
  Flask,
  Drops,
  Delivered,
  Temperature,
  Acidity,
  Absorbance,
  Blank,
  ReadOff,
  Trace,
  Constant,
  Given,
  FromStage,
]);
export type Input = Static<typeof InputSchema>;
export type InputOf<K extends Input["is"]> = Extract<Input, { is: K }>;
