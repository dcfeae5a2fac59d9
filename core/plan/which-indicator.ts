import {
  type IndicatorError,
  indicatorError,
  type Mixture,
  type PHRange,
  room,
  type Setting,
  solvePH,
  poured,
  type Titrated,
  titrationCurve,
} from "../equilibria";
import { takenOver } from "../inputs";
import type { ComputedStage, TitrationStage } from "../method";
import type { CompiledMethod, StagePlan } from "../stages";

/* Which indicator shows the end of a planned titration of acids and bases: by the curve that the constants give. */

/** A titration by theory. */
export interface PlannedCurve {
  readonly titrated: Titrated;
  readonly titrant: string;
  /** What is titrated. */
  readonly analyte: string;
  readonly equivalenceMl: number;
  /** pH at the equivalence point. */
  readonly pH: number;
  readonly setting: Setting;
  /** How far it is drawn, mL. */
  readonly endMl: number;
}

/** A substance in solution, mol/L; null where its constants are not known. */
type Dissolved = (formula: string, concentration: number) => Mixture | null;

/** How much is in a flask where the method does not say, mL. Common practice, no source. */
const usualFlaskMl = 50;

/** Formulas that a stage compares with its titrant: ratio(HCl, NaOH). */
function reactsWith({ relations }: ComputedStage, titrant: string): string | null {
  const pairs = relations.flatMap(({ relation }) =>
    [...relation.matchAll(/ratio\(([^,()]*),\s*([^,()]*)\)/g)].map(([, a = "", b = ""]) => [
      a.trim(),
      b.trim(),
    ]),
  );
  const pair = pairs.find((one) => one.includes(titrant));
  return pair?.find((formula) => formula !== titrant) ?? null;
}

/** Concentration of the titrant, mol/L: typed or usual, found in an earlier stage, or what the stage itself is to find. */
function titrantMolPerL(
  { inputs, result }: TitrationStage,
  titrant: string,
  plan: StagePlan,
  plans: readonly StagePlan[],
): number | null {
  if (result.assigns === titrant && result.unit === "mol/L") return plan.result.value;
  for (const input of inputs) {
    if (!("of" in input) || input.of !== titrant) continue;
    const earlier = takenOver(input)?.stage;
    if (earlier !== undefined) return plans.find(({ key }) => key === earlier)?.result.value ?? null;
    const amount = plan.amounts.find(({ symbol }) => symbol === input.symbol);
    if (amount?.unit === "mol/L") return amount.value;
  }
  return null;
}

/** What stands in the flask as it is titrated, mL: all that is measured or poured into each. */
function flaskMl({ reagents = [] }: TitrationStage): number {
  const sum = reagents.reduce(
    (all, { quantity }) => (quantity?.unit === "mL" && quantity.of === undefined ? all + quantity.most : all),
    0,
  );
  return sum > 0 ? sum : usualFlaskMl;
}

/** The titration of a stage by theory, as it is planned; null where the plan or the constants do not tell it. */
export function plannedCurve(
  { method, stoichiometry }: CompiledMethod,
  plan: StagePlan,
  plans: readonly StagePlan[],
  dissolved: Dissolved,
): PlannedCurve | null {
  const stage = method.stages.find(({ key }) => key === plan.key);
  if (stage?.kind !== "titration") return null;
  const titer = stage.inputs.find((input) => input.is === "titer");
  const titrant = titer?.titrant ?? null;
  const analyte = titrant === null ? null : reactsWith(stage, titrant);
  const [low, high] = stage.expectMl ?? [];
  const equivalenceMl = plan.titerMl ?? (low !== undefined && high !== undefined ? (low + high) / 2 : null);
  if (titrant === null || analyte === null || equivalenceMl === null) return null;
  const molPerL = titrantMolPerL(stage, titrant, plan, plans);
  if (molPerL === null) return null;
  const volume = flaskMl(stage);
  const [of, per] = stoichiometry.ratio(analyte, titrant);
  const flaskMolPerL = (molPerL * equivalenceMl * of) / per / volume;
  const [flask, added] = [dissolved(analyte, flaskMolPerL), dissolved(titrant, molPerL)];
  if (!flask || !added) return null;
  const titrated = { flask, flaskMl: volume, titrant: added };
  const { pH } = solvePH(poured(flask, volume, added, equivalenceMl), room);
  return { titrated, titrant, analyte, equivalenceMl, pH, setting: room, endMl: 1.5 * equivalenceMl };
}

/** Points of a curve, closer where it is steep: volume in mL and pH. */
export function curvePoints({
  titrated,
  equivalenceMl,
  setting,
  endMl,
}: PlannedCurve): (readonly [ml: number, pH: number])[] {
  const even = Array.from({ length: 161 }, (_, i) => (endMl * i) / 160);
  // About the end in steps that halve.
  const near = Array.from({ length: 14 }, (_, i) => equivalenceMl / 2 ** (i + 3)).flatMap((off) => [
    equivalenceMl - off,
    equivalenceMl + off,
  ]);
  const volumes = [...even, equivalenceMl, ...near].toSorted((a, b) => a - b);
  const solved = titrationCurve(titrated, volumes, setting);
  return volumes.map((ml, i) => [ml, solved[i]!.pH] as const);
}

/** An indicator, and how far from the equivalence point it changes. */
export interface RatedIndicator<I> extends IndicatorError {
  readonly indicator: I;
  /** True where the middle of its change lies within a drop of the equivalence point, or within 0.2 % of the titer. */
  readonly suits: boolean;
}

/** A titer is no better than this part of itself anyway. Common practice, no source. */
const closeEnough = 0.002;

/** Indicators with their errors, best first. `dropMl` is a drop of the burette. */
export const ratedIndicators = <I extends PHRange>(
  { titrated, equivalenceMl, setting }: PlannedCurve,
  indicators: readonly I[],
  dropMl: number,
): RatedIndicator<I>[] =>
  indicators
    .map((indicator) => {
      const error = indicatorError(titrated, equivalenceMl, indicator, setting);
      const suits = Math.abs(error.errorMl) <= Math.max(dropMl, closeEnough * equivalenceMl);
      return { indicator, ...error, suits };
    })
    .toSorted((a, b) => Math.abs(a.errorMl) - Math.abs(b.errorMl));
