import { mean } from "../../statistics";
import type { Share } from "../../judgement";
import { type Leaf, type Quantity, toDecimals, toSignificant, inUnit, type CauseKind } from "../../quantity";
import { type Method, inputOf } from "../../method";
import { type CompiledTitration } from "./compile";
import type { Improvement, TrialEvaluation } from "../shared/evaluation";
import type { HouseRules } from "../../rules";
import { uncapitalized, msg, type Phrase, inEnglish } from "../../text";

interface Bench {
  readonly method: Method;
  readonly stage: CompiledTitration;
  readonly rules: HouseRules;
  /** The trials that make the result. */
  readonly members: readonly TrialEvaluation[];
}

function meanOf({ members }: Bench, symbol: string, unit: string): number | null {
  const values = members.flatMap(({ symbols }) => {
    const q = symbols.get(symbol);
    return q ? [inUnit(q, unit)] : [];
  });
  return values.length > 0 ? mean(values) : null;
}

/** d ln R / d ln V: 1 or -1 where the result goes with the titer alone, another number where a difference is taken. */
function elasticity({ stage, members }: Bench): number {
  const [first] = members;
  const titer = first?.symbols.get(stage.titer);
  // The titer's own burette: one that delivers a sample has a symbol.
  const perUnit = [...(first?.result?.sensitivities.values() ?? [])].find(
    ({ leaf }) => leaf.kind === "burette" && leaf.stage === stage.definition.key && leaf.symbol === undefined,
  )?.by;
  if (!first?.result || !titer || perUnit === undefined) return NaN;
  // The leaf counts milliliters, the titer is in liters.
  return (perUnit * titer.value * 1000) / first.result.value;
}

/**
 * How to get a titer of twice the volume: that halves what the burette brings, since its ± stays as it is. Where a
 * difference of volumes is taken, more sample does not do it; a weaker titrant always does.
 */
function largerTiter(bench: Bench): Phrase {
  const { stage, rules } = bench;
  const titer = meanOf(bench, stage.titer, "mL") ?? 0;
  const { capacityMl } = rules.burette;
  const twice = toDecimals(2 * titer, 0);
  if (2 * titer > capacityMl) {
    return msg`a titer of ${twice} mL would not fit the ${capacityMl} mL burette, so calibrate it, or weigh the titrant`;
  }
  const inProportion = Math.abs(Math.abs(elasticity(bench)) - 1) < 0.02 && stage.definition.inputs.length > 1;
  const how = inProportion
    ? msg`twice the sample or a titrant half as strong`
    : msg`a titrant half as strong`;
  return msg`a titer near ${twice} mL instead of ${toDecimals(titer, 0)} mL, by ${how}`;
}

const repeats = (n: number) => msg`${4 * n} trials instead of ${n}`;

/** To weigh twice as much, with what that asks for where each flask is weighed. */
function largerMass({ symbol = "" }: Leaf, bench: Bench): Phrase {
  const { stage, rules } = bench;
  const mass = meanOf(bench, symbol, "g");
  if (mass === null) return msg`twice the mass`;
  const titer = meanOf(bench, stage.titer, "mL") ?? 0;
  const more = msg`weighing ${toSignificant(2 * mass, 2)} g instead of ${toSignificant(mass, 2)} g`;
  const perTrial = inputOf(stage.definition, symbol)?.is === "mass";
  return perTrial && 2 * titer > rules.burette.capacityMl
    ? msg`${more}, with a titrant twice as strong, since ${toDecimals(2 * titer, 0)} mL would not fit the burette`
    : more;
}

/** Glass of the better class first, where the house has the other. */
const withClassA = ({ rules }: Bench, words: Phrase) =>
  rules.glassware.toleranceClass === "B" ? msg`glass of class A, or ${words}` : words;

const betterFlask = (_: Leaf, bench: Bench) =>
  withClassA(bench, msg`a larger flask with more in it, or weighing it full`);

/** What halves the part of a cause, by its kind. Common practice, no source. */
const remedies: { readonly [K in CauseKind]?: (leaf: Leaf, bench: Bench) => Phrase } = {
  burette: (_, bench) => withClassA(bench, largerTiter(bench)),
  "burette-reading": (_, bench) => msg`${repeats(bench.members.length)}, or ${largerTiter(bench)}`,
  repeatability: (_, { members }) => repeats(members.length),
  linearity: largerMass,
  weighing: largerMass,
  pipette: (_, bench) => withClassA(bench, msg`an aliquot of twice the volume, or a calibrated pipette`),
  flask: betterFlask,
  filling: betterFlask,
  cylinder: () => msg`a pipette instead of the cylinder: it does far better than half`,
  "graduated pipette": () => msg`a one-mark pipette`,
  temperature: () => msg`keeping solutions and glassware within half that temperature range`,
  "pH-meter": () => msg`a meter calibrated on both sides of the reading just before`,
  purity: ({ label }) => msg`a certificate that gives ${uncapitalized(label)} to half that ±`,
  "atomic-weight": () => msg`nothing at the bench: atomic weights are not known better`,
  drops: () => msg`a pipette, or counting more drops into a measured volume`,
};

/** What halves the part of one cause, in words; by what the leaf is, not by the method. */
const remedy = (leaf: Leaf, bench: Bench): Phrase =>
  remedies[leaf.kind]?.(leaf, bench) ?? msg`knowing ${uncapitalized(leaf.label)} with half that ±`;

/**
 * The largest contribution to a result's variance and what halves it. Where it comes from an earlier stage, that
 * stage is named, and its own largest cause.
 */
export function improvementOf(result: Quantity, shares: readonly Share[], bench: Bench): Improvement | null {
  const [largest] = shares;
  if (!largest) return null;
  const percent = `${toDecimals(100 * largest.part, 0)} %`;
  const { from } = largest;
  if (from && from.handedOn !== null) {
    const known = uncapitalized(largest.label);
    return {
      share: largest.id,
      part: largest.part,
      remedy: msg`determine ${known} better: standardize it`,
      text: msg`${percent} of the ± comes from ${known}: standardize it to reduce that.`,
    };
  }
  if (from) {
    const title = bench.method.stages.find(({ key }) => key === from.stage)?.title ?? largest.label;
    const cause = largest.leaves[0] && uncapitalized(largest.leaves[0].label);
    return {
      share: largest.id,
      part: largest.part,
      remedy: msg`improve ${uncapitalized(title)} first`,
      text: msg`${percent} of the ± comes from an earlier stage, ${uncapitalized(title)}${cause ? msg`, there mostly from ${cause}` : ""}: improve that first.`,
    };
  }
  const weight = ({ leaf, by }: { leaf: Leaf; by: number }) => (by * leaf.u) ** 2;
  const leaf = [...result.sensitivities.values()]
    .filter((s) => inEnglish(s.leaf.group) === largest.id)
    .sort((a, b) => weight(b) - weight(a))[0]?.leaf;
  if (!leaf) return null;
  const halving = remedy(leaf, bench);
  return {
    share: largest.id,
    part: largest.part,
    remedy: msg`to halve it: ${halving}`,
    text: msg`${percent} of the ± comes from ${uncapitalized(largest.label)}. To halve it: ${halving}.`,
  };
}
