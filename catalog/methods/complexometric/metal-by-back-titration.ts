import { defineMethod, type Condition, type Method } from "~/core/method";
import { ammoniaHazard, authority, fillBelowEyes, labelled, noMouth, protection } from "../../parts/safety";
import { binding, edtaSubstances, ligand } from "../../parts/equations";
import { blueToWineRed, yellowToRed } from "../../parts/indicators";
import { knownEdta, pipetted, titer } from "../../parts/inputs";
import { about, exactly, mL } from "../../parts/reagents";
import { atMost, mostMolPerL, notNegative } from "../../parts/plausible";

interface Metal {
  readonly symbol: string;
  readonly ion: string;
  readonly name: string;
  readonly bindingEquation: string;
  readonly medium: string;
  readonly mediumMl: string;
  readonly conditions: Condition[];
  /** What shows the end, and its two colors. */
  readonly shownBy: typeof blueToWineRed | typeof yellowToRed;
  readonly from: string;
  readonly to: string;
  readonly presumed: number;
  readonly heat: string;
}

/**
 * A metal that binds EDTA too slowly, or that no indicator shows: EDTA in known excess, what is left titrated with zinc.
 * A blank of EDTA alone fixes how much zinc the whole excess takes.
 */
function byBackTitration(parts: Pick<Method, "id" | "title" | "variant">, metal: Metal): Method {
  const {
    symbol,
    ion,
    name,
    bindingEquation,
    medium,
    mediumMl,
    conditions,
    presumed,
    heat,
    shownBy,
    from,
    to,
  } = metal;
  const zincTiter = titer("ZnSO4");
  const edtaAdded = pipetted("EDTA", "EDTA added", "25.00", "V_y");
  const cautions = [
    "Goggles and gloves on; the buffer is opened in the hood.",
    "The flask is hot: hold it by the neck with a towel or tongs.",
    fillBelowEyes,
    noMouth,
    labelled,
  ];
  const burette = [
    "Rinse the burette with water, then with the zinc solution. Fill it, clear the tip of bubbles, take the funnel out.",
    "Read at eye level against a white card, the bottom of the meniscus.",
  ];
  return defineMethod({
    version: 5,
    family: "complexometric",
    purpose: `${name}, which binds EDTA too slowly for a direct titration: EDTA in excess, what is left titrated with zinc, against a blank.`,
    equations: [
      { name: `${name.toLowerCase()} binds EDTA`, equation: bindingEquation },
      binding("Zn", "zinc takes what is left"),
    ],
    substances: { [ion]: name.toLowerCase(), ...edtaSubstances, ZnSO4: "zinc sulfate" },
    stages: [
      {
        kind: "titration",
        key: "blank",
        title: "Titrate the blank",
        inputs: [knownEdta, edtaAdded, zincTiter],
        relations: [
          { relation: "n_y = c_y * V_y", title: "EDTA in the blank", unit: "mmol" },
          {
            relation: `c_z = n_y * ratio(Zn^2+, ${ligand}) / V`,
            title: "Concentration of the zinc",
            unit: "mol/L",
          },
        ],
        result: { symbol: "c_z", name: "Concentration of the zinc", unit: "mol/L", assigns: "ZnSO4" },
        // The same bottle serves both stages: what is unsure of it must not be counted twice.
        also: [{ symbol: "c_y", name: "Concentration of the EDTA", unit: "mol/L" }],
        plausible: [atMost("c_z", mostMolPerL.metal)],
        agree: { on: "V / V_y", per: "V_y" },
        presumed: 0.05,
        expectMl: [20, 30],
        ...shownBy,
        reagents: [
          exactly("EDTA", mL("25.00"), "into each flask"),
          about(medium, mL(mediumMl), "before the titration"),
        ],
        conditions,
        steps: [
          "Pipette 25.00 mL of EDTA into a flask, add 50 mL of water and the buffer; treat it as the samples, without sample.",
          ...burette,
          `Titrate with zinc from ${from} to the first ${to} that stays.`,
        ],
        cautions,
      },
      {
        kind: "titration",
        key: "determine",
        title: "Titrate the EDTA that is left",
        inputs: [
          {
            symbol: "c_z",
            is: "result",
            label: "Concentration of the zinc",
            of: "ZnSO4",
            per: "run",
            stage: "blank",
          },
          {
            symbol: "c_y",
            is: "result",
            label: "Concentration of the EDTA",
            of: "EDTA",
            per: "run",
            stage: "blank",
            result: "c_y",
          },
          pipetted("the sample", "Sample taken", "10.00", "V_s"),
          edtaAdded,
          zincTiter,
        ],
        relations: [
          { relation: "n_y = c_y * V_y", title: "EDTA added", unit: "mmol" },
          { relation: `n_z = c_z * V * ratio(${ligand}, Zn^2+)`, title: "EDTA left", unit: "mmol" },
          {
            relation: `n = (n_y - n_z) * ratio(${ion}, ${ligand})`,
            title: `${name} in the flask`,
            unit: "mmol",
          },
          { relation: "c = n / V_s", title: `${name} in the sample`, unit: "mmol/L" },
          { relation: `γ = c * M(${symbol})`, title: "As mass concentration", unit: "mg/L" },
        ],
        result: { symbol: "c", name: `${name} in the sample`, unit: "mmol/L" },
        also: [{ symbol: "γ", name: `${name} in the sample`, unit: "mg/L" }],
        plausible: [notNegative("c", "mmol/L")],
        agree: { on: "c" },
        presumed,
        expectMl: [5, 22],
        ...shownBy,
        reagents: [
          exactly("the sample", mL("10.00"), "into each flask"),
          exactly("EDTA", mL("25.00"), "in excess, to the sample"),
          about(medium, mL(mediumMl), "before heating"),
        ],
        conditions,
        steps: [
          `Pipette the sample and 25.00 mL of EDTA into a flask, add 50 mL of water and the buffer; ${heat}`,
          `Cool; add the indicator: it must be ${from}, else there is too little EDTA: take less sample.`,
          ...burette,
          `Titrate with zinc from ${from} to the first ${to} that stays.`,
        ],
        cautions,
      },
    ],
    protection: [...protection, "Fume hood for the buffer", "Heat-proof glove or tongs"],
    hazards: [ammoniaHazard, `${name} salts are harmful: gloves, and no dust.`, authority],
    waste: ["Flasks hold zinc and the metal titrated: to the heavy-metal waste."],
    glassware: [
      "50 mL burette",
      "10 mL and 25 mL one-mark pipettes and filler",
      "250 mL conical flasks",
      "hot plate",
    ],
    ...parts,
  });
}

export const nickelByBackTitration = byBackTitration(
  { id: "nickel-by-back-titration", title: "Nickel by back-titration with zinc" },
  {
    symbol: "Ni",
    ion: "Ni^2+",
    name: "Nickel",
    bindingEquation: binding("Ni", "").equation,
    medium: "ammonia buffer, pH 10",
    mediumMl: "10",
    conditions: [{ what: "warm it so that the nickel is bound", celsius: [50, 60], minutes: 3 }],
    ...{ shownBy: blueToWineRed, from: "blue", to: "red" },
    presumed: 60,
    heat: "warm to 50 to 60 °C for 3 min.",
  },
);

export const aluminumByBackTitration = byBackTitration(
  {
    id: "aluminum-by-back-titration",
    title: "Aluminum by back-titration with zinc",
    variant: {
      of: "nickel-by-back-titration",
      differs: "aluminum must be boiled with the EDTA, at pH 5 to 6",
    },
  },
  {
    symbol: "Al",
    ion: "Al^3+",
    name: "Aluminum",
    bindingEquation: "Al^3+ + C10H14N2O8^2- -> AlC10H12N2O8- + 2 H+",
    medium: "acetate buffer, pH 5.5",
    mediumMl: "15",
    conditions: [
      { what: "boil so that the aluminum is bound", celsius: [95, 100], minutes: 5, strict: true },
    ],
    // Eriochrome black T is red by itself at this pH.
    ...{ shownBy: yellowToRed, from: "yellow", to: "red-violet" },
    presumed: 60,
    heat: "boil for 5 min.",
  },
);
