import type { ComputedStage } from "../../method";
import { msg } from "../../text";
import type { Adaptation } from "./adaptation";

/* The content of a sample that was weighed moist, as if it had been dry. */

/** By this symbol the moisture of the sample is stated. */
export const moistureSymbol = "w_H2O";

/** Units of a content by mass. */
const byMass = /^(% w\/w|(g|mg|µg|mol|mmol|µmol)\/k?g)$/;

const dryOf = ({ result }: ComputedStage): string => `${result.symbol}_dry`;

const hasDryBasis = ({ result, inputs }: ComputedStage): boolean =>
  byMass.test(result.unit) && inputs.every(({ symbol }) => symbol !== moistureSymbol);

/** The result on dry basis: w / (1 - w(H2O)). That of the sample as it was weighed stands beside it. */
export const dry = {
  fits: hasDryBasis,
  apply: (stage: ComputedStage): ComputedStage => {
    if (!hasDryBasis(stage)) return stage;
    const { result, also = [], relations, inputs } = stage;
    // What an earlier stage found is expected of the sample as it was weighed.
    const { expectedFrom: _, ...others } = { expectedFrom: undefined, ...stage };
    const { symbol, name, unit } = result;
    return {
      ...others,
      inputs: [
        ...inputs,
        { symbol: moistureSymbol, is: "given", label: "Moisture of the sample", per: "run", unit: "%" },
      ],
      relations: [
        ...relations,
        { relation: `${dryOf(stage)} = ${symbol} / (1 - ${moistureSymbol})`, title: "On dry basis", unit },
      ],
      result: { ...result, symbol: dryOf(stage), name: `${name}, dry basis` },
      also: [{ symbol, name: `${name}, as weighed`, unit }, ...also],
    };
  },
  words: { on: msg`on dry basis`, off: msg`as weighed` },
  refused: msg`This result is not a content by mass: it has no dry basis`,
} satisfies Adaptation;
