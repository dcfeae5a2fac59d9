import type { PreparationStage } from "~/core/method";
import { nameOf, standardFor, withStandard } from "../begin";
import type { MethodDraft, StageDraft } from "../draft-types";
import type { EditedKind } from "./kind";
import { msg } from "~/core/text";

/** A solution of a weighed solid, made up to the mark. */
export function weighedSolution(
  of: string,
  name: string,
  [low, high]: readonly [string, string],
): Partial<StageDraft> {
  return {
    title: `Make the ${name} solution`,
    inputs: [
      { is: "mass", symbol: "m", label: `Mass of the ${name}`, of, per: "run", low, high },
      { is: "flask", symbol: "V_f", label: "Flask", of, value: "250.0", per: "run" },
    ],
    relations: [{ relation: `c_s = m / M(${of}) / V_f`, title: "Concentration made", unit: "mol/L" }],
    results: [{ symbol: "c_s", name: `Concentration of the ${name}`, unit: "mol/L" }],
    steps:
      "Weigh the solid by difference into a beaker, dissolve it, rinse it into the flask.\nMake up to the mark and mix.",
  };
}

/** Before all others: a solution of the standard for what the method titrates with. */
function begin(draft: MethodDraft, fresh: StageDraft): MethodDraft {
  const standard = standardFor(draft);
  const named = withStandard(draft, { ...standard, equations: [] });
  const made = weighedSolution(standard.solid, nameOf(named, standard.solid), standard.solution);
  return { ...named, stages: [{ ...fresh, ...made }, ...draft.stages] };
}

export const preparation: EditedKind<PreparationStage> = {
  words: msg`preparation`,
  starters: [{ button: msg`Add a preparation before`, begin }],
  switchable: true,
  draft: (stage) => ({ carried: stage }),
  stage: ({ carried }, shared) => ({
    kind: "preparation",
    ...(carried?.kind === "preparation" && carried.spectra ? { spectra: carried.spectra } : {}),
    ...(carried?.kind === "preparation" && carried.aim ? { aim: carried.aim } : {}),
    ...shared,
  }),
  gaps: () => [],
  presumed: () => null,
};
