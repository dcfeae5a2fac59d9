import { defineMethod, type Method, type PreparationStage, type TitrationStage } from "~/core/method";

/*
 * One small method for each shape of titration that the core must compute from data alone. They serve tests, examples and
 * the coverage figures; the library's procedures, with their hazards and steps in full, stand in catalog/methods.
 */

type Parts = Pick<Method, "id" | "family" | "title" | "purpose" | "equations" | "stages"> &
  Partial<Pick<Method, "substances">>;

export const shape = (parts: Parts): Method =>
  defineMethod({
    version: 1,
    substances: {},
    protection: ["Goggles", "Closed shoes and long trousers", "Gloves as the lab's rule says"],
    hazards: [
      "Read the safety data sheet of each reagent; your institution's rules and local waste law come before this text.",
    ],
    waste: ["As the safety data sheets and local law say."],
    glassware: ["50 mL burette"],
    ...parts,
  });

type TitrationParts = Omit<
  TitrationStage,
  "kind" | "indicator" | "persistence" | "meniscus" | "ribbon" | "steps" | "cautions" | "agree"
> &
  Partial<TitrationStage>;

export const titration = (parts: TitrationParts): TitrationStage => ({
  kind: "titration",
  agree: { on: "V" },
  indicator: "as the method says",
  persistence: "The end must persist for 30 s.",
  meniscus: "bottom",
  ribbon: [],
  steps: [],
  cautions: ["Goggles on; fill the burette below eye level."],
  ...parts,
});

export const preparation = (
  parts: Omit<PreparationStage, "kind" | "steps" | "cautions">,
): PreparationStage => ({ kind: "preparation", steps: [], cautions: ["Goggles on."], ...parts });

export const titer = (titrant: string) =>
  ({ symbol: "V", is: "titer", label: "Titer", titrant, per: "trial" }) as const;

export const aliquot = (of: string, presumed = "25.00", symbol = "V_a") =>
  ({ symbol, is: "pipette", label: `Aliquot of ${of}`, of, per: "trial", presumed }) as const;

/** A concentration that a certificate or an earlier run states, in mol/L. */
export const stated = (symbol: string, label: string, value: string, plusMinus: string) =>
  ({ symbol, is: "given", label, per: "run", unit: "mol/L", presumed: { value, plusMinus } }) as const;
