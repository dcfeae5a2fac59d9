import type { PreparationStage } from "~/core/method";
import type { EditedKind } from "./kind";
import { msg } from "~/core/text";

export const preparation: EditedKind<PreparationStage> = {
  words: msg`preparation`,
  starter: {
    button: msg`Add a preparation before`,
    first: true,
    values: {
      title: "Make the solution",
      inputs: [
        {
          is: "mass",
          symbol: "m",
          label: "Mass of the solid",
          of: "KHC8H4O4",
          per: "run",
          low: "4.8",
          high: "5.4",
        },
        { is: "flask", symbol: "V_f", label: "Flask", of: "KHC8H4O4", value: "250.0", per: "run" },
      ],
      relations: [{ relation: "c = m / M(KHC8H4O4) / V_f", title: "Concentration made", unit: "mol/L" }],
      results: [{ symbol: "c", name: "Concentration made", unit: "mol/L" }],
    },
  },
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
