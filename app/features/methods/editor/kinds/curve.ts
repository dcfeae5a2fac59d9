import type { CurveStage } from "~/core/method";
import { msg } from "~/core/text";
import type { MethodDraft, StageDraft } from "../draft-types";
import type { EditedKind } from "./kind";

/** What belongs to the kind alone, where a stage is begun in the editor: a weak acid by a base. */
const begun: Pick<CurveStage, "kind" | "presumed" | "curve"> = {
  kind: "curve",
  presumed: 0.1,
  curve: {
    titrant: { symbol: "c_b", usual: 0.1 },
    flaskMl: 100,
    ends: [{ symbol: "V", name: "Equivalence point", at: "last", part: 1 }],
    until: 11,
    largestMl: 2,
    theory: { is: "acid", pKas: [4.76] },
  },
};

function phCurve(draft: MethodDraft, fresh: StageDraft): MethodDraft {
  const stage: StageDraft = {
    ...{ ...fresh, title: "Take the curve", carried: null },
    steps:
      "Calibrate the meter with fresh buffers.\nAdd titrant as advised, wait until the reading is steady, write the pair.",
    inputs: [
      {
        ...{ is: "given", symbol: "c_b", label: "Concentration of the base", of: "NaOH", unit: "mol/L" },
        ...{ value: "0.1000", plusMinus: "0.0002", per: "run" },
      },
      { is: "pipette", symbol: "V_a", label: "Sample taken", of: "sample", value: "25.00", per: "trial" },
      {
        is: "curve",
        symbol: "E",
        label: "pH",
        titrant: "NaOH",
        reads: "pH",
        plusMinus: "0.03",
        per: "trial",
      },
    ],
    relations: [{ relation: "c_a = c_b * V / V_a", title: "Concentration of the acid", unit: "mol/L" }],
    results: [{ symbol: "c_a", name: "Concentration of the acid", unit: "mol/L" }],
  };
  return { ...draft, stages: [...draft.stages, stage] };
}

/** A whole titration curve: what belongs to its ends is carried through, and its texts are written here. */
export const curve: EditedKind<CurveStage> = {
  words: msg`a titration curve, point by point`,
  starters: [{ button: msg`Add a titration curve`, begin: phCurve }],
  switchable: false,
  draft: (stage) => ({ carried: stage }),
  stage: ({ carried, kind }, shared) => {
    const { accept: _, ...own } = (carried?.kind === kind ? carried : begun) as CurveStage;
    return { ...own, ...shared };
  },
  gaps: () => [],
  presumed: ({ presumed }) => presumed,
};
