import { mean } from "../../statistics";
import { trialWords, type ReadingView } from "../../record";
import {
  bestConcordantSet,
  noOutlierTest,
  outlierAdvice,
  type OutlierTest,
  type Replicate,
} from "../../judgement";
import type { Check } from "../../measure";
import { inUnit, standardUncertainty, toDecimals, toSignificant, unitOf, withUnit } from "../../quantity";
import type { FlaskAgreement, SampleEvaluation, TrialEvaluation } from "../shared/evaluation";
import type { ComputedStage } from "../../method";
import { type HouseRules, photometerRules } from "../../rules";
import { capitalized, listed, msg, type Phrase } from "../../text";

/** Two results by one hand differ by more than 2.8 times their repeatability in one case of twenty (ISO 5725-6, 4.1; from memory). */
const repeatabilityLimit = 2.8;

/** How far results of flasks may lie apart, as a part of their mean: by the house's relative rule, or its rule for flasks. */
function partAllowed(rules: HouseRules): number {
  return rules.agreement.rule === "relative-spread"
    ? Number(rules.agreement.partsPerThousand) / 1000
    : Number(photometerRules(rules).flasksPercent) / 100;
}

function adviceOf(
  replicates: readonly Replicate[],
  test: OutlierTest,
  names: ReadonlyMap<string, Phrase>,
): Phrase {
  const none = noOutlierTest(replicates.length, test);
  if (none) return msg` ${none}.`;
  const advice = outlierAdvice(replicates, test);
  if (!advice?.exceeds) return "";
  const [statistic, critical] = [toDecimals(advice.statistic, 3), toDecimals(advice.critical, 3)];
  return msg` ${advice.test} flags ${names.get(advice.suspect) ?? ""} as an outlier (${statistic}, critical value ${critical}); it counts until someone strikes it out.`;
}

/**
 * Whether the flasks of an unknown agree: the range of their results is at most the house's part of their mean, or no more
 * than readings that scatter as these do leave between two flasks. While no two agree, none makes the result.
 */
export function judgeFlasks(
  trials: readonly TrialEvaluation[],
  { result }: Pick<ComputedStage, "result">,
  rules: HouseRules,
): FlaskAgreement {
  const counted = trials.flatMap((t) => (t.eligible && t.result ? [{ ...t, q: t.result }] : []));
  const replicates = counted.map(({ id, q }) => ({ id, value: inUnit(q, result.unit) }));
  const { factor } = unitOf(result.unit);
  const part = partAllowed(rules);
  const center = Math.abs(mean(replicates.map(({ value }) => value)));
  const scatter = mean(counted.map(({ q }) => standardUncertainty(q, (leaf) => leaf.random) / factor));
  const width = Math.max(part * center, repeatabilityLimit * scatter);
  const set = bestConcordantSet(replicates, { rule: "range", width });
  if (!set) return { state: "none", members: [], text: "" };
  const names = new Map(counted.map(({ id, record }) => [id, trialWords(record, "flask")] as const));
  const named = (ids: readonly string[]) =>
    listed(counted.flatMap(({ id, name }) => (ids.includes(id) ? [name] : [])));
  const values = replicates.map(({ value }) => value);
  const range = Math.max(...values) - Math.min(...values);
  const figures = (x: number) => withUnit(toSignificant(x, 3), result.unit);
  const allowed =
    width > part * center
      ? msg`${figures(width)}, the difference that scatter alone explains between two flasks`
      : msg`the ${toDecimals(100 * part, 1)} % of their mean that the house rules allow`;
  const advice = adviceOf(replicates, rules.outliers, names);
  if (replicates.length === 1) return { state: "one", members: set.members, text: "" };
  if (set.members.length === 1 || set.rivals.length > 0) {
    const far = msg`${figures(range)} apart (${toDecimals((100 * range) / center, 1)} %), more than ${allowed}`;
    return {
      state: set.members.length === 1 ? "apart" : "rivals",
      members: [],
      text: msg`Flasks ${named(replicates.map(({ id }) => id))} disagree: ${listed(values.map((v) => toSignificant(v, 3)))} are ${far}.${advice}`,
    };
  }
  const left = replicates.filter(({ id }) => !set.members.includes(id)).map(({ id }) => id);
  const outside =
    left.length > 0
      ? left.length === 1
        ? msg` ${capitalized(names.get(left[0] ?? "") ?? "")} lies outside.`
        : msg` Flasks ${named(left)} lie outside.`
      : "";
  return {
    state: "set",
    members: set.members,
    text: msg`Flasks ${named(set.members)} agree: ${figures(set.high - set.low)} apart, within ${allowed}.${outside}${advice}`,
  };
}

/** Readings of one flask that lie further apart than the house allows, or whose scatter is not that about the line. */
export function readingsChecks(
  flask: Phrase,
  readings: readonly ReadingView[],
  off: SampleEvaluation["off"],
  rules: HouseRules,
): Check[] {
  const counting = readings.filter((r) => !r.struck);
  const values = counting.map((r) => r.absorbance);
  if (values.length < 2) return [];
  const allowed = Number(photometerRules(rules).readingsWithin);
  const range = Math.max(...values) - Math.min(...values);
  const checks: Check[] = [];
  const advice = adviceOf(
    counting.map(({ id, absorbance }) => ({ id, value: absorbance })),
    rules.outliers,
    new Map(counting.map(({ id, text }) => [id, msg`the reading ${text}`])),
  );
  if (range > allowed + 1e-9) {
    checks.push({
      severity: "caution",
      kind: "repeat",
      message: msg`The readings of ${flask} are ${range.toFixed(3)} apart, more than the ${photometerRules(rules).readingsWithin} that the house rules allow: read it again, or strike out the wrong one.${advice}`,
    });
  }
  const within = off?.within;
  if (within && !within.pooled) {
    const p =
      within.probability < 0.001 ? msg`less than 0.1 %` : `${toSignificant(100 * within.probability, 2)} %`;
    const beside =
      within.lineSd > 0
        ? msg`, those about the line by ${toSignificant(within.lineSd, 2)} (F = ${toSignificant(within.f, 3)}, by chance in ${p} of cases)`
        : "";
    checks.push({
      severity: "caution",
      kind: "repeat",
      message: msg`The readings of ${flask} scatter by ${toSignificant(within.sd, 2)}${beside}: their own scatter is counted.`,
    });
  }
  return checks;
}
