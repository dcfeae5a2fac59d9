import { shape, stated, titer, titration } from "./shape";

/** The ligand as it stands in solution: EDTA that has kept two hydrogens, and its complexes with a metal of charge two. */
const ligand = "C10H14N2O8^2-";
const complexOf = (metal: string) => `${metal}C10H12N2O8^2-`;

/** Back-titration: EDTA in known excess, what is left titrated with zinc. */
export const backTitration = shape({
  id: "shape-back-titration",
  family: "complexometric",
  title: "Nickel by back-titration with zinc",
  purpose: "A metal that binds EDTA too slowly to be titrated with it.",
  equations: [
    { name: "binding", equation: `Ni^2+ + ${ligand} -> ${complexOf("Ni")} + 2 H+` },
    { name: "back", equation: `Zn^2+ + ${ligand} -> ${complexOf("Zn")} + 2 H+` },
  ],
  stages: [
    titration({
      key: "determine",
      title: "Titrate the EDTA that is left",
      inputs: [
        stated("c_y", "Concentration of the EDTA", "0.0500", "0.0001"),
        stated("c_z", "Concentration of the zinc", "0.0500", "0.0001"),
        {
          symbol: "m",
          is: "mass",
          label: "Mass of the sample",
          of: "sample",
          per: "trial",
          expect: [0.2, 0.3],
        },
        { symbol: "V_y", is: "pipette", label: "EDTA added", of: "EDTA", per: "trial", presumed: "25.00" },
        titer("ZnSO4"),
      ],
      relations: [
        { relation: "n_y = c_y * V_y", title: "EDTA added", unit: "mmol" },
        { relation: `n_z = c_z * V * ratio(${ligand}, Zn^2+)`, title: "EDTA left", unit: "mmol" },
        { relation: `n = (n_y - n_z) * ratio(Ni^2+, ${ligand})`, title: "Nickel", unit: "mmol" },
        { relation: "w = n * M(Ni) / m", title: "Nickel in the sample", unit: "% w/w" },
        { relation: "b = n * M(Ni) / m", title: "Nickel in the sample", unit: "mg/kg" },
      ],
      result: { symbol: "w", name: "Nickel in the sample", unit: "% w/w" },
      also: [{ symbol: "b", name: "Nickel in the sample", unit: "mg/kg" }],
      agree: { on: "w" },
      presumed: 15,
    }),
  ],
});

/** Replacement: calcium sets magnesium free from its complex, and that is titrated; the sample by burette difference. */
export const hardnessByReplacement = shape({
  id: "shape-replacement",
  family: "complexometric",
  title: "Calcium by replacement, sample by burette difference",
  purpose: "Hardness in all its units.",
  equations: [
    { name: "replacement", equation: `Ca^2+ + ${complexOf("Mg")} -> ${complexOf("Ca")} + Mg^2+` },
    { name: "titration", equation: `Mg^2+ + ${ligand} -> ${complexOf("Mg")} + 2 H+` },
  ],
  stages: [
    titration({
      key: "determine",
      title: "Titrate the magnesium set free",
      inputs: [
        stated("c_y", "Concentration of the EDTA", "0.0100", "0.00003"),
        { symbol: "V_s", is: "delivered", label: "Sample", of: "sample", per: "trial" },
        titer("EDTA"),
      ],
      relations: [
        { relation: `n = c_y * V * ratio(Ca^2+, ${ligand})`, title: "Calcium in the flask", unit: "mmol" },
        { relation: "c = n / V_s", title: "Calcium in the water", unit: "mmol/L" },
        { relation: "γ = c * M(Ca)", title: "As calcium", unit: "mg/L" },
        { relation: "γ_c = c * M(CaCO3)", title: "As calcium carbonate", unit: "mg/L" },
        { relation: "h = c", title: "As degrees of hardness", unit: "°dH" },
        { relation: "N = 2 * c", title: "As equivalents", unit: "meq/L" },
      ],
      result: { symbol: "c", name: "Calcium in the water", unit: "mmol/L" },
      also: [
        { symbol: "γ", name: "Calcium", unit: "mg/L" },
        { symbol: "γ_c", name: "Hardness as calcium carbonate", unit: "mg/L" },
        { symbol: "h", name: "Hardness", unit: "°dH" },
        { symbol: "N", name: "Hardness", unit: "meq/L" },
      ],
      agree: { on: "V / V_s", per: "V_s" },
      presumed: 5,
    }),
  ],
});

/** A sample by graduated pipette or cylinder, for whoever has no other: its tolerance rules the ±. */
export const byCylinder = shape({
  id: "shape-cylinder",
  family: "complexometric",
  title: "Hardness with the sample by cylinder",
  purpose: "What a cylinder does to the ±.",
  equations: [{ name: "titration", equation: `Ca^2+ + ${ligand} -> ${complexOf("Ca")} + 2 H+` }],
  stages: [
    titration({
      key: "determine",
      title: "Titrate the water",
      inputs: [
        stated("c_y", "Concentration of the EDTA", "0.0100", "0.00003"),
        {
          symbol: "V_s",
          is: "graduated",
          glass: "cylinder",
          label: "Sample",
          of: "sample",
          per: "trial",
          capacityMl: 100,
          presumed: "50.0",
        },
        titer("EDTA"),
      ],
      relations: [
        {
          relation: `c = c_y * V * ratio(Ca^2+, ${ligand}) / V_s`,
          title: "Calcium in the water",
          unit: "mmol/L",
        },
      ],
      result: { symbol: "c", name: "Calcium in the water", unit: "mmol/L" },
      agree: { on: "V / V_s", per: "V_s" },
      presumed: 4,
    }),
  ],
});
