import { plusMinus } from "~/core/judgement";
import { inUnit, type Leaf, type Quantity, standardUncertainty, unitOf } from "~/core/quantity";
import type { TrialEvaluation } from "~/core/stages";
import { inEnglish, type Phrase } from "~/core/text";
import { absolute, named, onceLine, placedKey, type StageSheet } from "./stage-sheet";

/** A result with what its formula is made of. */
export interface SheetResult {
  readonly symbol: string;
  readonly name: Phrase;
  readonly unit: string;
  readonly quantity: Quantity;
  /** The formula of its value. */
  readonly formula: string;
  /** Where it is a mean: the trials that it is of, and the ranges of their results and of what is included. */
  readonly mean?: {
    readonly members: readonly TrialEvaluation[];
    readonly values: string;
    readonly include: string;
  };
}

/** What the readings of the members alone would make of their mean, relative to it. */
function fromReading(members: readonly TrialEvaluation[], symbol: string, value: number): number {
  const by = new Map<string, number>();
  for (const trial of members)
    for (const { leaf, by: sensitivity } of trial.symbols.get(symbol)?.sensitivities.values() ?? [])
      if (leaf.random) by.set(leaf.id, (by.get(leaf.id) ?? 0) + (sensitivity * leaf.u) / members.length);
  return Math.sqrt([...by.values()].reduce((sum, one) => sum + one ** 2, 0)) / Math.abs(value);
}

/** The repeatability of this stage. That of an earlier stage is a cause like any other. */
const isAgreement = ({ kind, stage }: Leaf, of: string) => kind === "repeatability" && stage === of;

/** The lines of a result's ± that tell how far the trials scatter; the address of what counts of it. */
function scatter(into: StageSheet, result: SheetResult, value: string): string | null {
  const { quantity, unit, mean, symbol } = result;
  const agreement = [...quantity.sensitivities.values()].find(({ leaf }) =>
    isAgreement(leaf, into.stage.key),
  );
  if (!mean || !agreement) return null;
  const { members, values, include } = mean;
  const { factor } = unitOf(unit);
  const prior = Number(into.record.houseRules.priorRepeatabilityPercent || 0) / 100;
  const n = members.length;
  const each = members.map((t) => inUnit(t.symbols.get(symbol) ?? quantity, unit));
  const average = each.reduce((sum, x) => sum + x, 0) / n;
  const s = n > 1 ? Math.sqrt(each.reduce((sum, x) => sum + (x - average) ** 2, 0) / (n - 1)) : 0;
  const line = (letter: string, label: string, number: number, formula: string | null, of = unit) =>
    absolute(
      onceLine(
        into,
        { symbol: letter, label },
        {
          ...{ readings: [], value: number, unit: of },
          formula: formula === null ? null : () => formula,
        },
      ),
    );
  const count = line("n", "Trials in the mean", n, `SUM(${include})`, "1");
  const own = `SUMPRODUCT(${include},${values})/${count}`;
  const sd = `IF(${count}>1,SQRT(SUMPRODUCT(${include},(${values}-${own})^2)/(${count}-1)),0)`;
  const spread = line("s", "Standard deviation of the trials", s, sd);
  const reading = line(
    "u_r",
    "Reading and weighing alone, part of the result",
    fromReading(members, symbol, quantity.value),
    null,
    "1",
  );
  const earlier = line("u_p", "Repeatability known from earlier work, part of the result", prior, null, "1");
  const formula = `MAX(${spread}/SQRT(${count}),${reading}*ABS(${value}),${earlier}*ABS(${value})/SQRT(${count}))`;
  return line("u_rep", "From what scatters", (agreement.leaf.u * Math.abs(agreement.by)) / factor, formula);
}

/** What shares a group of causes has in the ±, as parts of the result, without those that are counted elsewhere. */
function causesOf(
  quantity: Quantity,
  counted: (leaf: Leaf) => boolean,
): readonly (readonly [label: string, part: number])[] {
  const groups = new Map<string, number>();
  for (const { leaf, by } of quantity.sensitivities.values()) {
    if (counted(leaf)) continue;
    const label = inEnglish(leaf.label);
    groups.set(label, (groups.get(label) ?? 0) + (by * leaf.u) ** 2);
  }
  return [...groups].map(
    ([label, variance]) => [label, Math.sqrt(variance) / Math.abs(quantity.value)] as const,
  );
}

/**
 * A result and its ±, both as formulas. The ± comes from the causes, each as the part of the result that it makes uncertain (sensitivity
 * times standard uncertainty over the result), and from the scatter of the trials that are included.
 */
export function writeResult(into: StageSheet, result: SheetResult): string {
  const { sheet, record, placed, stage } = into;
  const { symbol, name, unit, quantity, formula } = result;
  const { factor } = unitOf(unit);
  const own = (label: Phrase, letter: string, value: number, text: string) =>
    absolute(onceLine(into, { symbol: letter, label }, { readings: [], formula: () => text, value, unit }));
  sheet.line("head", ["Letter", "Result", "Value", "Unit"]);
  const value = own(name, symbol, inUnit(quantity, unit), formula);
  const address = value.replaceAll("$", "");
  named(into, symbol, address);
  placed.set(placedKey(stage.key, symbol), { reference: sheet.reference(value), unit });
  const u = standardUncertainty(quantity);
  if (u === 0 || quantity.value === 0) {
    sheet.row++;
    return value;
  }
  const rep = scatter(into, result, value);
  const causes = causesOf(quantity, (leaf) => rep !== null && isAgreement(leaf, stage.key));
  const firstCause = sheet.row;
  for (const [label, part] of causes)
    onceLine(
      into,
      { symbol: "", label: `${label}, part of the result` },
      { readings: [], formula: null, value: part, unit: "1" },
    );
  const parts = causes.length === 0 ? "0" : `SUMSQ($C$${firstCause}:$C$${sheet.row - 1})`;
  const whole = `SQRT(${rep ? `${rep}^2+` : ""}${parts}*${value}^2)`;
  const standard = own("Standard uncertainty", "u", u / factor, whole);
  const half = plusMinus(quantity, record.houseRules.plusMinus);
  const coverage = onceLine(
    into,
    { symbol: "k", label: "Coverage factor" },
    { readings: [], formula: null, value: half / u, unit: "1" },
  );
  const shown = own("±, as this lab states it", "±", half / factor, `${absolute(coverage)}*${standard}`);
  named(into, `${symbol}_plus_minus`, shown.replaceAll("$", ""));
  placed.set(placedKey(stage.key, `± ${symbol}`), { reference: sheet.reference(shown), unit });
  sheet.row++;
  return value;
}
