import { takenOver } from "../../inputs";
import type { ComputedStage, TitrationStage } from "../../method";
import type { CompiledMethod, StagePlan } from "../../stages";
import type { Known } from "./known";

/** A titration as it is planned: what every theory of it begins with. */
export interface PlannedTitration {
  readonly stage: TitrationStage;
  readonly titrant: string;
  /** All that the titrant goes by. */
  readonly names: readonly string[];
  /** Of the titrant, mol/L. */
  readonly molPerL: number;
  /** What is titrated. */
  readonly analyte: string;
  /** Of what is titrated, at the start, mol/L. */
  readonly flaskMolPerL: number;
  readonly flaskMl: number;
  readonly equivalenceMl: number;
}

/** How much is in a flask where the method does not say, mL. Common practice, no source. */
const usualFlaskMl = 50;

/** What a stage compares with its titrant: in ratio(HCl, NaOH), the other of the two. */
function reactsWith({ relations }: ComputedStage, names: readonly string[]): string | null {
  const pairs = relations.flatMap(({ relation }) =>
    [...relation.matchAll(/ratio\(([^,()]*),\s*([^,()]*)\)/g)].map(([, a = "", b = ""]) => [
      a.trim(),
      b.trim(),
    ]),
  );
  const pair = pairs.find((one) => one.some((formula) => names.includes(formula)));
  return pair?.find((formula) => !names.includes(formula)) ?? null;
}

/** Concentration of the titrant, mol/L: typed or usual, found in an earlier stage, or what the stage itself is to find. */
function titrantMolPerL(
  { inputs, result }: TitrationStage,
  names: readonly string[],
  plan: StagePlan,
  plans: readonly StagePlan[],
): number | null {
  if (result.assigns !== undefined && names.includes(result.assigns) && result.unit === "mol/L")
    return plan.result.value;
  for (const input of inputs) {
    if (!("of" in input) || input.of === undefined || !names.includes(input.of)) continue;
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

/** A stage's titration as it is planned; null where the plan does not tell it. */
export function plannedTitration(
  { method, stoichiometry }: CompiledMethod,
  plan: StagePlan,
  plans: readonly StagePlan[],
  known: Pick<Known, "namesOf">,
): PlannedTitration | null {
  const stage = method.stages.find(({ key }) => key === plan.key);
  if (stage?.kind !== "titration") return null;
  const titrant = stage.inputs.find((input) => input.is === "titer")?.titrant ?? null;
  if (titrant === null) return null;
  const names = known.namesOf(titrant);
  const analyte = reactsWith(stage, names);
  const [low, high] = stage.expectMl ?? [];
  const equivalenceMl = plan.titerMl ?? (low !== undefined && high !== undefined ? (low + high) / 2 : null);
  const molPerL = titrantMolPerL(stage, names, plan, plans);
  if (analyte === null || equivalenceMl === null || molPerL === null) return null;
  const volume = flaskMl(stage);
  const inEquations = names.find((name) =>
    stage.relations.some(({ relation }) => relation.includes(`${name})`) || relation.includes(`(${name},`)),
  );
  const [of, per] = stoichiometry.ratio(analyte, inEquations ?? titrant);
  const flaskMolPerL = (molPerL * equivalenceMl * of) / per / volume;
  return { stage, titrant, names, molPerL, analyte, flaskMolPerL, flaskMl: volume, equivalenceMl };
}
