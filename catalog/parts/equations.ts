/* Reactions and relations that several methods rest on. */

export const permanganateIron = {
  name: "permanganate and iron(II)",
  equation: "MnO4- + 5 Fe^2+ + 8 H+ -> Mn^2+ + 5 Fe^3+ + 4 H2O",
};

export const permanganateOxalate = {
  name: "permanganate and oxalate",
  equation: "2 MnO4- + 5 C2O4^2- + 16 H+ -> 2 Mn^2+ + 10 CO2 + 8 H2O",
};

export const iodineThiosulfate = {
  name: "iodine and thiosulfate",
  equation: "I2 + 2 S2O3^2- -> 2 I- + S4O6^2-",
};

export const iodateReleases = {
  name: "iodate sets iodine free",
  equation: "KIO3 + 5 I- + 6 H+ -> 3 I2 + 3 H2O + K+",
};

export const iron = "(NH4)2Fe(SO4)2·6H2O";

/** A standard made of a weighed solid in a flask: c = m · P / M / V. */
export const weighedStandard = (formula: string, symbol: string, name: string) => ({
  relations: [
    {
      relation: `${symbol} = m * P / M(${formula}) / V_f`,
      title: `Concentration of the ${name}`,
      unit: "mol/L",
    },
  ],
  result: { symbol, name: `Concentration of the ${name}`, unit: "mol/L", assigns: formula },
});

/* What complexometric methods share. Common practice, no source. */

/** EDTA as it stands in solution, with two hydrogens left, and its complex with a metal of charge two. */
export const ligand = "C10H14N2O8^2-";

export const complexOf = (metal: string) => `${metal}C10H12N2O8^2-`;

export const binding = (metal: string, name: string) => ({
  name,
  equation: `${metal}^2+ + ${ligand} -> ${complexOf(metal)} + 2 H+`,
});

/** The salt that EDTA solutions are made of, without its water: the name under which they stand on the shelf. */
export const edta = "Na2C10H14N2O8";

export const edtaSubstances = { [edta]: "disodium EDTA" };
