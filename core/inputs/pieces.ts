import { glasswareTolerance, sizesMl } from "../measure";
import { type Result, success } from "../result";
import type { HouseRules } from "../rules";
import { msg, type Phrase } from "../text";
import { massOf, byMass, type ByMassInput } from "./by-mass";
import { decimal, isDecimal, text } from "./edit";
import { classOf, type OfPiece, type Piece } from "./glass";
import { usualGraduatedMl } from "./graduated";
import type { Coarseness, Detail, DetailProblem, Measuring, Row } from "./kind";
import { balanceOf, type MassInput, middle } from "./mass";
import type { Input, InputOf } from "./schema";

/* What amounts are measured with, where a run chooses that: which piece of glass, which balance, which density. */

const wrong = (key: string, message: Phrase): { readonly ok: false; readonly problem: DetailProblem } => ({
  ok: false,
  problem: { key, message },
});

/** What is asked of a one-mark piece of glass that is chosen for a run. */
const pieceDetails = ({ piece }: OfPiece): Detail[] => [
  classDetail(piece),
  {
    key: "calibrated",
    seldom: true,
    label: msg`Calibrated, mL`,
    text: piece?.calibrated?.volumeMl ?? "",
    help: msg`its own volume, where it was found`,
  },
  {
    key: "calibratedWithin",
    seldom: true,
    label: msg`±, mL`,
    text: piece?.calibrated?.plusMinusMl ?? "",
  },
];

/** Which class a piece of glass is of. */
const classDetail = (piece: Piece | undefined): Detail => ({
  key: "class",
  seldom: true,
  label: msg`Class`,
  text: piece?.toleranceClass ?? "",
  choices: [
    { value: "", label: msg`house rules` },
    { value: "A", label: msg`class A` },
    { value: "B", label: msg`class B` },
  ],
});

/** The part of a volume by which a calibration may differ from what is written on the glass. Common practice, no source. */
const mostOff = 0.02;

/** An input with the piece of glass that was described; what is wrong is told with its key. */
function withPiece<I extends { readonly piece?: Piece; readonly presumed?: string }>(
  { piece: _, ...input }: I,
  texts: Row,
): Result<I, DetailProblem> {
  const own = decimal(texts.calibrated).trim();
  const within = decimal(texts.calibratedWithin).trim();
  if (own !== "") {
    const nominal = Number(input.presumed);
    if (!isDecimal(own)) return wrong("calibrated", msg`Type a volume in mL`);
    if (Math.abs(Number(own) / nominal - 1) > mostOff)
      return wrong(
        "calibrated",
        msg`No glass for ${input.presumed ?? ""} mL is so far off: is it another one?`,
      );
    if (!isDecimal(within)) return wrong("calibratedWithin", msg`How well is it known? Type its ±`);
  }
  const chosen: Piece = {
    ...(texts.class === "A" || texts.class === "B" ? { toleranceClass: texts.class } : {}),
    ...(own === "" ? {} : { calibrated: { volumeMl: own, plusMinusMl: within } }),
  };
  return success((Object.keys(chosen).length === 0 ? input : { ...input, piece: chosen }) as I);
}

/** Decimals of balances that masses are weighed on, the coarsest first. */
const balanceDecimals = [1, 2, 3, 4, 5] as const;

/** The balance that is used. */
const balanceDetail = (decimals: number | undefined): Detail => ({
  key: "decimals",
  label: msg`Balance`,
  text: text(decimals),
  choices: [
    { value: "", label: msg`house rules` },
    ...balanceDecimals.map((count) => ({
      value: String(count),
      label: count === 1 ? msg`1 decimal` : msg`${count} decimals`,
    })),
  ],
});

/** How well a balance weighs a mass at best: its last digits and its linearity, at each of two weighings. */
function balanceCoarseness(
  { weighing, decimals }: Pick<MassInput, "weighing" | "decimals">,
  massG: number,
  rules: HouseRules,
): Coarseness {
  const { readabilityG, linearityG } = balanceOf(decimals === undefined ? {} : { decimals }, rules);
  const once = Math.hypot(readabilityG / 2, linearityG) * (weighing === "tared" ? 1 : Math.SQRT2);
  return { part: once / massG, because: msg`the balance would rule the result` };
}

/** A mass weighed on a balance of so many decimals; empty for that of the house rules. */
function onBalance<I extends { readonly decimals?: number }>({ decimals: _, ...rest }: I, text = ""): I {
  return (text === "" ? rest : { ...rest, decimals: Number(text) }) as I;
}

/** Densities of solutions that are titrated. Common practice, no source. */
const densities = { least: 0.5, most: 2.5 };

const kinds: { readonly [K in Input["is"]]?: Measuring<InputOf<K>> } = {
  mass: {
    details: ({ decimals }) => [balanceDetail(decimals)],
    withDetails: (input, texts) => success(onBalance(input, texts.decimals)),
    coarseness: (input, rules) => {
      const usualG = middle(input);
      return usualG === null ? null : balanceCoarseness(input, usualG, rules);
    },
  },
  pipette: { details: pieceDetails, withDetails: withPiece },
  graduated: {
    details: (input) => [
      {
        key: "capacity",
        label: msg`Size`,
        text: String(input.capacityMl),
        choices: [...new Set([...sizesMl(input.glass), input.capacityMl])]
          .filter((size) => size >= Number(input.presumed ?? 0) - 1e-9)
          .sort((a, b) => a - b)
          .map((size) => ({ value: String(size), label: `${size} mL` })),
      },
      classDetail(input.piece),
    ],
    withDetails: (input, texts) => withPiece({ ...input, capacityMl: Number(texts.capacity) }, texts),
    coarseness: (input, rules) => ({
      part:
        glasswareTolerance(input.glass, input.capacityMl, classOf(input, rules)).toleranceMl /
        usualGraduatedMl(input),
      because: msg`its tolerance would rule the result`,
    }),
  },
  flask: { details: pieceDetails, withDetails: withPiece },
  "by-mass": {
    details: ({ density, weighing, decimals }) => [
      {
        key: "density",
        label: msg`Density, g/mL`,
        text: Number(density.value) > 0 ? density.value : "",
        help: msg`at 20 °C`,
      },
      {
        key: "plusMinus",
        label: msg`±, g/mL`,
        text: Number(density.value) > 0 ? density.plusMinus : "",
      },
      {
        key: "weighing",
        label: msg`Weighed`,
        text: weighing ?? "tared",
        choices: [
          { value: "tared", label: msg`tared balance` },
          { value: "addition", label: msg`vessel empty, then with it` },
          { value: "transfer", label: msg`bottle before and after` },
        ],
      },
      balanceDetail(decimals),
    ],
    withDetails: (input, texts) => {
      const [value, plusMinus] = [texts.density, texts.plusMinus].map((t) => decimal(t).trim());
      const { least, most } = densities;
      if (!isDecimal(value ?? "") || Number(value) < least || Number(value) > most)
        return wrong("density", msg`Type the density in g/mL: between ${least} and ${most}`);
      if (!isDecimal(plusMinus ?? "")) return wrong("plusMinus", msg`How well is it known? Type its ±`);
      const weighing = texts.weighing as ByMassInput["weighing"];
      const known = { value: value ?? "", plusMinus: plusMinus ?? "" };
      return success(onBalance({ ...input, density: known, weighing: weighing ?? "tared" }, texts.decimals));
    },
    coarseness: (input, rules) => {
      const massG = byMass.usual?.(input) ?? null;
      const { value, plusMinus } = input.density;
      const density = {
        part: Number(plusMinus) / Number(value),
        because: msg`its density would rule the result`,
      };
      const weighed = massG === null ? null : balanceCoarseness(massOf(input), massG, rules);
      return weighed && weighed.part > density.part ? weighed : density;
    },
  },
  drops: {
    details: ({ perMl, counted }) => [
      {
        key: "drops",
        label: msg`Drops counted`,
        text: counted?.drops ?? perMl.value,
        help: msg`of the tip that is used`,
      },
      { key: "inMl", label: msg`in so many mL`, text: counted?.inMl ?? "1.00" },
      { key: "plusMinus", label: msg`±, drops`, text: counted?.plusMinus ?? perMl.plusMinus },
    ],
    withDetails: (input, texts) => {
      const [count, inMl, plusMinus] = [texts.drops, texts.inMl, texts.plusMinus].map((t) =>
        decimal(t).trim(),
      );
      if (!isDecimal(count ?? "") || !(Number(count) > 0))
        return wrong("drops", msg`How many drops were counted?`);
      if (!isDecimal(inMl ?? "") || !(Number(inMl) > 0))
        return wrong("inMl", msg`How many milliliters did they come to?`);
      if (!isDecimal(plusMinus ?? "")) return wrong("plusMinus", msg`How well was it counted? Type its ±`);
      const perMl = (drops: string | undefined) =>
        Number((Number(drops) / Number(inMl)).toPrecision(6)).toString();
      return success({
        ...input,
        perMl: { value: perMl(count), plusMinus: perMl(plusMinus) },
        counted: { drops: count ?? "", inMl: inMl ?? "", plusMinus: plusMinus ?? "" },
      });
    },
    coarseness: ({ perMl }) => ({
      part: Number(perMl.plusMinus) / Number(perMl.value),
      because: msg`the drops would rule the result`,
    }),
  },
};

const measuringOf = (input: Input) => kinds[input.is] as unknown as Measuring<Input> | undefined;

/** What is asked of what an amount is measured with; nothing for what has no such choice. */
export const detailsOf = (input: Input): readonly Detail[] => measuringOf(input)?.details(input) ?? [];

/** An input measured with what was described; what is wrong is told with the key of its detail. */
export const withDetails = (input: Input, texts: Row): Result<Input, DetailProblem> =>
  measuringOf(input)?.withDetails(input, texts) ?? success(input);

/** How well an amount is known at best; null where nothing speaks of that. */
export const coarsenessOf = (input: Input, rules: HouseRules): Coarseness | null =>
  measuringOf(input)?.coarseness?.(input, rules) ?? null;
