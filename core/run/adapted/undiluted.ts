import { type Input, measuredBy, takenIn } from "../../inputs";
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

/** Whether a symbol stands in a relation, as a word by itself. */
const names = (relation: string, symbol: string): boolean =>
  relation.split(/[^\p{L}\p{N}_]+/u).includes(symbol);

const escaped = (symbol: string): string => symbol.replace(/[^\p{L}\p{N}_]/gu, "\\$&");

/** A relation without the factor flask over taken, or the other way round; as it is where it has none. */
function withoutFactor(relation: string, { taken, flask }: DilutionOfStage): string {
  const [t, f] = [escaped(taken.symbol), escaped(flask.symbol)];
  const factor = `\\s*\\*\\s*(?:${f}\\s*/\\s*${t}|${t}\\s*/\\s*${f})(?![\\p{L}\\p{N}_])`;
  return relation.replace(new RegExp(factor, "gu"), "");
}

/**
 * The dilution of a stage, where its result follows from it by that factor alone; null for one that dilutes nothing, or
 * that dilutes to reach a target.
 */
export function dilutionOf(stage: ComputedStage): DilutionOfStage | null {
  if ("aim" in stage && stage.aim !== undefined) return null;
  const once = stage.inputs.filter(isOnceMeasured);
  for (const flask of once.filter(({ is }) => is === "flask")) {
    for (const taken of once.filter(({ is }) => is !== "flask")) {
      const left = stage.relations.map(({ relation }) => withoutFactor(relation, { taken, flask }));
      const byFactor = stage.relations.some(({ relation }, i) => relation !== left[i]);
      if (byFactor && !left.some((one) => names(one, flask.symbol) || names(one, taken.symbol)))
        return { taken, flask };
    }
  }
  return null;
}

/** A sample that is taken as it is: nothing of a dilution is read, computed or told. */
export const undiluted = {
  fits: (stage) => dilutionOf(stage) !== null,
  apply(stage) {
    const dilution = dilutionOf(stage);
    if (!dilution) return stage;
    const left = new Set([dilution.taken.symbol, dilution.flask.symbol]);
    // The aliquots are of the sample itself then.
    const sample = stage.reagents?.find(({ measured }) => measured === dilution.taken.symbol)?.name;
    const reagents = stage.reagents?.flatMap((reagent) => {
      if (left.has(reagent.measured ?? "")) return [];
      return reagent.measured === undefined || sample === undefined ? reagent : { ...reagent, name: sample };
    });
    return {
      ...stage,
      inputs: stage.inputs.filter(({ symbol }) => !left.has(symbol)),
      relations: stage.relations.map((line) => ({
        ...line,
        relation: withoutFactor(line.relation, dilution),
      })),
      steps: stage.steps.filter((step) => !left.has(takenIn(step) ?? "")),
      ...(reagents && { reagents }),
    };
  },
  words: { on: msg`not diluted`, off: msg`diluted as the method says` },
  refused: msg`Nothing is diluted here that could be left out`,
} satisfies Adaptation;
