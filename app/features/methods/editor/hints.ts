import { takenOver } from "~/core/inputs";
import { pipettedBy, sizesMl } from "~/core/measure";
import type { ComputedStage, Method } from "~/core/method";
import { listed, msg, type Phrase, withPoint } from "~/core/text";
import type { StageDraft } from "./draft-types";
import { computedBy } from "./rename";
import type { Row } from "./row";

/* What is told of a method as it is written, beside what keeps it from holding together. */

const wordsOf = (relation: string): readonly string[] => relation.split(/[^\p{L}\p{N}_]+/u);

/** All letters that a stage uses: in what it computes, judges and asks for. */
function usedIn(stage: ComputedStage): ReadonlySet<string> {
  const used = new Set(
    stage.relations.flatMap(({ relation }) => wordsOf(relation.split("=").slice(1).join("="))),
  );
  const add = (...letters: readonly (string | undefined)[]) => {
    for (const letter of letters) if (letter !== undefined) used.add(letter);
  };
  for (const { symbol, when } of [stage.result, ...(stage.also ?? [])]) add(symbol, when?.symbol);
  for (const rule of stage.plausible ?? []) {
    add(rule.symbol);
    if ("other" in rule && rule.stage === undefined) add(rule.other);
    if (rule.rule === "at most all" && rule.all !== undefined) add(...wordsOf(rule.all));
  }
  if ("agree" in stage) add(...wordsOf(stage.agree.on));
  add(stage.accept?.symbol);
  if ("aim" in stage && stage.aim) add(stage.aim.at, stage.aim.by, stage.aim.within);
  if ("axis" in stage)
    add(stage.series.symbol, stage.axis.symbol, ...stage.axis.relations.flatMap((r) => wordsOf(r.relation)));
  if ("isotherm" in stage)
    add(stage.isotherm.at, ...stage.isotherm.bottles.flatMap((b) => [b.concentration, b.uptake]));
  if ("curve" in stage) add(stage.curve.titrant.symbol);
  if ("rate" in stage) add(stage.rate.excess, stage.rate.absorptivity, stage.rate.path);
  for (const input of stage.inputs) add(takenOver(input)?.readBy);
  return used;
}

/** Kinds that a stage needs whether or not a relation names them. */
const neededAnyway: ReadonlySet<string> = new Set([
  "titer",
  "absorbance",
  "blank",
  "trace",
  "curve",
  "meter",
  "temperature",
  "pH",
]);

/** What is read and never used, a sentence for each stage. */
export const unusedIn = ({ stages }: Method): readonly Phrase[] =>
  stages.flatMap((stage) => {
    const used = usedIn(stage);
    const left = stage.inputs.filter(
      ({ is, symbol }) => symbol !== "" && !neededAnyway.has(is) && !used.has(symbol),
    );
    return left.length === 0
      ? []
      : [msg`${stage.title}: read and never used: ${listed(left.map(({ symbol }) => symbol))}`];
  });

/** A result that nothing gives, with the letters that there are. */
export function resultProblem({ inputs, relations }: StageDraft, { symbol = "" }: Row): Phrase | null {
  const letters = [
    ...relations.map(({ relation }) => computedBy(relation ?? "")),
    ...inputs.map((row) => (row.symbol ?? "").trim()),
  ].filter((letter) => letter !== "");
  const own = symbol.trim();
  if (own === "") return msg`Give the letter of what is asked for: one of ${listed([...new Set(letters)])}`;
  return letters.includes(own)
    ? null
    : msg`Nothing here gives ${own}: add a relation for it, or take one of ${listed([...new Set(letters)])}`;
}

const isNumber = (text: string | undefined): boolean => Number(withPoint((text ?? "").trim() || "NaN")) > 0;

/** One-mark glass of a volume: what is wrong with it, and what would do. */
function oneMarkProblem(is: "pipette" | "flask", value: string): Phrase | null {
  if (!isNumber(value))
    return is === "flask"
      ? msg`Say how much it holds, in mL, as 250.0`
      : msg`Say how much it delivers, in mL, as 25.00`;
  const ml = Number(withPoint(value));
  const sizes = sizesMl(is);
  const there = sizes.some((size) => Math.abs(size - ml) < 1e-9);
  if (there || (is === "pipette" && "pipettes" in pipettedBy(ml))) return null;
  const nearest = sizes.reduce((best, size) => (Math.abs(size - ml) < Math.abs(best - ml) ? size : best));
  return is === "flask"
    ? msg`No volumetric flask holds ${value} mL; ${nearest} mL is nearest`
    : msg`No one-mark pipette delivers ${value} mL; ${nearest} mL is nearest, or take graduated glass`;
}

/** Graduated glass without a size, or too small for what is usual. */
function graduatedProblem(capacity: string, value: string): Phrase | null {
  if (!isNumber(capacity)) return msg`Say how much it holds, in mL, as 25`;
  return isNumber(value) && Number(withPoint(value)) > Number(withPoint(capacity))
    ? msg`It holds ${capacity} mL: ${value} mL do not fit in it`
    : null;
}

/** What is wrong with what something is read with, and what would do; null where nothing is. */
export function glassProblem({ is, value = "", capacity = "", density = "" }: Row): Phrase | null {
  switch (is) {
    case "pipette":
    case "flask":
      return oneMarkProblem(is, value);
    case "graduated":
      return graduatedProblem(capacity, value);
    case "by-mass":
      return isNumber(density) ? null : msg`Give the density of what is weighed, in g/mL`;
    case "constant":
      return Number.isNaN(Number(withPoint(value.trim() || "NaN")))
        ? msg`Give its value, and its unit beside it`
        : null;
    default:
      return null;
  }
}
