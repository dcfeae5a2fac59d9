/**
 * Densities of what is weighed, g/mL, for the correction of air buoyancy: handbook values, from memory. A few percent do not
 * matter: at 2 g/mL a tenth more or less changes the correction by three parts in a hundred thousand. Of porous solids that
 * of the solid itself counts, since air fills the pores.
 */
export const densitiesGPerMl: Readonly<Record<string, number>> = {
  KHC8H4O4: 1.64,
  Na2CO3: 2.53,
  NaHCO3: 2.2,
  Na2C2O4: 2.34,
  "H2C2O4·2H2O": 1.65,
  "(NH4)2Fe(SO4)2·6H2O": 1.86,
  KIO3: 3.93,
  K2Cr2O7: 2.68,
  CaCO3: 2.71,
  Zn: 7.13,
  KMnO4: 2.7,
  NaOH: 2.13,
  "Na2S2O3·5H2O": 1.73,
  "Na2H2C10H12N2O8·2H2O": 1.01,
  "Na2C10H14N2O8·2H2O": 1.01,
  I2: 4.93,
  KI: 3.12,
  "CuSO4·5H2O": 2.29,
  "ZnSO4·7H2O": 1.97,
  "FeSO4·7H2O": 1.9,
  NaCl: 2.17,
  AgNO3: 4.35,
  KH2PO4: 2.34,
  NaNO2: 2.17,
  "SnCl2·2H2O": 2.71,
  H2C4H4O6: 1.76,
  charcoal: 2,
  pulp: 1.5,
  "H2O2 solution": 1.01,
  "ethanol, 10 %": 0.98,
  "the copper salt": 2.29,
};

/** What a mass input needs for the correction of air buoyancy; nothing for a sample whose density nobody knows. */
export const densityOf = (of: string): { densityGPerMl?: number } => {
  const densityGPerMl = densitiesGPerMl[of];
  return densityGPerMl === undefined ? {} : { densityGPerMl };
};
