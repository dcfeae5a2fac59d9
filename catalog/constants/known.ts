import type { Known, KnownCouple } from "~/core/plan";
import { acidOf } from "./acids";
import { couples } from "./couples";
import { acidIndicators, metalIndicators, redoxIndicators } from "./indicators";
import { metals } from "./metals";
import { dissolved } from "./solutes";

const edta = "C10H14N2O8^2-";

/** What reacts of what is in the bottle, and what the bottle is filled with, where methods name that. */
const otherNames: Readonly<Record<string, readonly string[]>> = {
  KMnO4: ["MnO4-"],
  Na2S2O3: ["S2O3^2-"],
  EDTA: [edta, "Na2C10H14N2O8"],
  ZnSO4: ["Zn^2+"],
};

function coupleOf(formula: string): KnownCouple | null {
  for (const { oxidized = {}, reducedForm = {}, beside = 0, usualPH = 0, ...couple } of couples) {
    for (const [put, forms] of [
      ["oxidized", oxidized],
      ["reduced", reducedForm],
    ] as const) {
      const units = Object.hasOwn(forms, formula) ? forms[formula] : undefined;
      if (units === undefined) continue;
      // Two of thiosulfate make one of its couple.
      const moles = put === "oxidized" ? units : units / couple.reduced;
      return { ...couple, put, moles, beside, usualPH };
    }
  }
  return null;
}

/** The tables, as the theory of end points asks for them. */
export const known: Known = {
  dissolved,
  metal: (formula) => metals.find(({ formulas }) => formulas.includes(formula)) ?? null,
  ligand: (formula) => (formula === edta ? acidOf("edta") : null),
  couple: coupleOf,
  namesOf: (titrant) => [titrant, ...(Object.hasOwn(otherNames, titrant) ? otherNames[titrant]! : [])],
  setFreeFor: (titrant) => (titrant === "Na2S2O3" ? "I2" : null),
  indicators: { acid: acidIndicators, metal: metalIndicators, redox: redoxIndicators },
};
