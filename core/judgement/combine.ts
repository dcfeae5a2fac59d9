import { Bug } from "../result";
import {
  effectiveDegreesOfFreedom,
  leaf,
  type Leaf,
  type Quantity,
  type Sensitivity,
  standardUncertainty,
  studentT,
} from "../quantity";
import { mean, standardDeviation } from "../statistics";
import { msg, type Phrase, inEnglish } from "../text";

export interface CombinedResult {
  /** Mean of the replicates; its sensitivities carry the agreement of the trials as one leaf. */
  readonly quantity: Quantity;
  readonly count: number;
  readonly standardDeviation: number;
  /** s divided by the mean. */
  readonly relativeStandardDeviation: number;
  /** Standard uncertainty of the mean from what scatters between trials. */
  readonly repeatability: number;
  /** Where that figure comes from: the scatter seen, what reading and weighing alone would make, or earlier work. */
  readonly repeatabilityFrom: "scatter" | "reading" | "earlier work";
  /** Standard uncertainty of the mean from what all trials share. */
  readonly systematic: number;
}

/**
 * The result of replicate trials: their mean, with one leaf for repeatability and the shared causes kept as they are.
 *
 * Repeatability is the largest of three figures: s/√n of the results (GUM 4.2.3); what the readings alone would make,
 * so that trials that agree by luck are not taken for exact; and, where the house knows it, a relative repeatability
 * from earlier work over √n. The causes that scatter are then counted once, in that leaf. `replicates` may not be empty. `symbol` names the
 * result, where a stage has several.
 */
export function combineReplicates(
  replicates: readonly Quantity[],
  stage: string,
  priorRelativeRepeatability: number,
  symbol = "",
): CombinedResult {
  const count = replicates.length;
  const [first] = replicates;
  if (!first) throw new Bug("No replicates to combine");
  const values = replicates.map((q) => q.value);
  const average = mean(values);
  const s = standardDeviation(values);

  const means = new Map<string, Sensitivity>();
  for (const { sensitivities } of replicates) {
    for (const { leaf, by } of sensitivities.values()) {
      means.set(leaf.id, { leaf, by: (means.get(leaf.id)?.by ?? 0) + by / count });
    }
  }
  const averaged: Quantity = { value: average, dimension: first.dimension, sensitivities: means };
  const fromReading = standardUncertainty(averaged, (l) => l.random);
  const fromScatter = s / Math.sqrt(count);
  const fromPrior = (priorRelativeRepeatability * Math.abs(average)) / Math.sqrt(count);
  const repeatability = Math.max(fromScatter, fromReading, fromPrior);
  const repeatabilityFrom =
    repeatability === fromScatter && fromScatter > 0
      ? "scatter"
      : repeatability === fromReading
        ? "reading"
        : "earlier work";

  const sensitivities = new Map([...means].filter(([, { leaf }]) => !leaf.random));
  if (repeatability > 0) {
    // What readings alone would make may itself be known from a scatter only, as that about a calibration line.
    const agreement = agreementLeaf({
      means,
      repeatabilityFrom,
      count,
      averaged,
      stage,
      symbol,
      repeatability,
    });
    sensitivities.set(agreement.id, { leaf: agreement, by: 1 });
  }
  const quantity: Quantity = { value: average, dimension: first.dimension, sensitivities };
  return {
    quantity,
    count,
    standardDeviation: s,
    relativeStandardDeviation: s / Math.abs(average),
    repeatability,
    repeatabilityFrom,
    systematic: standardUncertainty(averaged, (l) => !l.random),
  };
}

/** How well the trials agree, as a cause of its own. */
function agreementLeaf({
  means,
  repeatabilityFrom,
  count,
  averaged,
  stage,
  symbol,
  repeatability,
}: {
  readonly means: Map<string, Sensitivity>;
  readonly repeatabilityFrom: "reading" | "scatter" | "earlier work";
  readonly count: number;
  readonly averaged: Quantity;
  readonly stage: string;
  readonly symbol: string;
  readonly repeatability: number;
}) {
  const estimates = new Set(
    [...means.values()].flatMap(({ leaf }) => (leaf.random && leaf.estimate ? [leaf.estimate] : [])),
  );
  const [estimate] = repeatabilityFrom === "reading" && estimates.size === 1 ? estimates : [];
  const degreesOfFreedom = {
    scatter: count - 1,
    reading: effectiveDegreesOfFreedom(averaged, (l) => l.random),
    "earlier work": Infinity,
  }[repeatabilityFrom];
  return leaf({
    id: `repeatability:${stage}${symbol === "" ? "" : `:${symbol}`}`,
    kind: "repeatability",
    label: msg`Agreement of the trials`,
    group: msg`Agreement of the trials`,
    shape: repeatabilityFrom === "scatter" ? "t" : "normal",
    u: repeatability,
    degreesOfFreedom,
    ...(estimate === undefined ? {} : { estimate }),
    stage,
  });
}

export type PlusMinusStyle = "k2" | "u" | "i95";

/** What follows the ± sign, by the house's style: 2 u, u, or the 95 % interval with these degrees of freedom. */
export function plusMinusOf(u: number, degreesOfFreedom: number, style: PlusMinusStyle): number {
  switch (style) {
    case "u":
      return u;
    case "k2":
      return 2 * u;
    case "i95":
      return studentT(0.95, Math.max(1, degreesOfFreedom)) * u;
  }
}

/** The same of a quantity, with its effective degrees of freedom. */
export const plusMinus = (q: Quantity, style: PlusMinusStyle): number =>
  plusMinusOf(standardUncertainty(q), style === "i95" ? effectiveDegreesOfFreedom(q) : Infinity, style);

export interface Share {
  /** What its causes have in common, as a key. */
  readonly id: string;
  /** The earlier stage that brings it, and the symbol of what that only handed on; null for a cause of the stage itself. */
  readonly from: { readonly stage: string; readonly handedOn: string | null } | null;
  readonly label: Phrase;
  /** Part of the variance, 0 to 1. */
  readonly part: number;
  readonly leaves: readonly { readonly label: Phrase; readonly part: number }[];
}

/** Causes of the stage itself, under the heading that they share. */
export const ownGroup = ({ group }: Leaf): Pick<Share, "id" | "label" | "from"> => ({
  id: inEnglish(group),
  label: group,
  from: null,
});

/**
 * The shares of the causes in the variance of a quantity, largest first. `groupOf` says under which heading a leaf
 * is shown, so that an earlier stage's causes can stand together as that stage's result.
 */
export function sharesOfVariance(
  q: Quantity,
  groupOf: (leaf: Leaf) => Pick<Share, "id" | "label" | "from"> = ownGroup,
): Share[] {
  const total = standardUncertainty(q) ** 2;
  if (total === 0) return [];
  const groups = new Map<
    string,
    { of: Pick<Share, "label" | "from">; part: number; leaves: Map<string, { label: Phrase; part: number }> }
  >();
  for (const { leaf, by } of q.sensitivities.values()) {
    const { id, ...of } = groupOf(leaf);
    const part = (by * leaf.u) ** 2 / total;
    const group = groups.get(id) ?? {
      of,
      part: 0,
      leaves: new Map<string, { label: Phrase; part: number }>(),
    };
    group.part += part;
    const heading = inEnglish(leaf.group);
    const before = group.leaves.get(heading)?.part ?? 0;
    group.leaves.set(heading, { label: leaf.group, part: before + part });
    groups.set(id, group);
  }
  return [...groups]
    .map(([id, { of, part, leaves }]) => ({
      id,
      ...of,
      part,
      leaves: [...leaves.values()].sort((a, b) => b.part - a.part),
    }))
    .sort((a, b) => b.part - a.part);
}
