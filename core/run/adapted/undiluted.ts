import { type Input, measuredBy } from "../../inputs";
import type { ComputedStage } from "../../method";
import { msg } from "../../text";
import type { Adaptation } from "./adaptation";

/* A sample that is diluted before aliquots are taken of it can be titrated as it is. */

/** What a stage dilutes: the symbols of what is taken, and of the flask that it is made up in. */
export interface DilutionOfStage {
  readonly taken: Input;
  readonly flask: Input;
}

const isOnceMeasured = (input: Input): boolean =>
  "per" in input && input.per === "run" && measuredBy(input) !== null;

/** How often a symbol stands in relations, as a word by itself. */
const uses = (relations: readonly string[], symbol: string): number =>
  relations
    .join(" ; ")
    .split(/[^\p{L}\p{N}_]+/u)
    .filter((word) => word === symbol).length;

/**
 * The dilution of a stage, where its result follows from it by the factor flask over taken alone; null for one that dilutes nothing, or
 * that dilutes to reach a target.
 */
export function dilutionOf(stage: ComputedStage): DilutionOfStage | null {
  if ("aim" in stage && stage.aim !== undefined) return null;
  const relations = ("relations" in stage ? (stage.relations ?? []) : []).map(({ relation }) =>
    relation.replace(/\s+/g, ""),
  );
  const flasks = stage.inputs.filter((input) => input.is === "flask" && isOnceMeasured(input));
  const others = stage.inputs.filter((input) => input.is !== "flask" && isOnceMeasured(input));
  for (const flask of flasks) {
    for (const taken of others) {
      const factors = [`${flask.symbol}/${taken.symbol}`, `${taken.symbol}/${flask.symbol}`];
      const together = relations.some((relation) => factors.some((factor) => relation.includes(factor)));
      const onlyThere = [flask, taken].every(({ symbol }) => uses(relations, symbol) === 1);
      if (together && onlyThere) return { taken, flask };
    }
  }
  return null;
}

/** A sample that is taken as it is: what is taken and what is made up to are the same, and nothing of them is read. */
export const undiluted: Adaptation = {
  fits: (stage) => dilutionOf(stage) !== null,
  apply(stage) {
    const dilution = dilutionOf(stage);
    if (!dilution) return stage;
    const left = new Set([dilution.taken.symbol, dilution.flask.symbol]);
    const inputs = stage.inputs.map((input): Input => {
      const { symbol, label } = input;
      return left.has(symbol) ? { symbol, label, is: "constant", value: "1", unit: "mL" } : input;
    });
    return { ...stage, inputs };
  },
  words: { on: msg`not diluted`, off: msg`diluted as the method says` },
  refused: msg`Nothing is diluted here that could be left out`,
};
