/** A substance that stands on the shelf of a titration bench. Hazards and keeping: common practice, no source. */
export interface Substance {
  readonly formula: string;
  readonly name: string;
  readonly form: "solid" | "solution";
  /** For a solution: what it is usually made from, as weighed. */
  readonly madeFrom?: string;
  readonly hazards: string;
  /** How the solid is made ready for weighing. */
  readonly drying?: string;
  /** True where acid goes into water, never water into acid. */
  readonly acid?: boolean;
  /** Purity that is usual, percent and ±. */
  readonly purity?: readonly [percent: string, plusMinus: string];
  /** Days after which a solution of it is standardized again. */
  readonly restandardizeDays?: number;
}

export const substances: readonly Substance[] = [
  {
    formula: "KHC8H4O4",
    name: "potassium hydrogen phthalate",
    form: "solid",
    hazards: "none known beyond the usual care",
    drying: "dry for 2 h at 110 to 120 °C, cool in a desiccator",
    purity: ["100.00", "0.05"],
  },
  {
    formula: "Na2CO3",
    name: "sodium carbonate",
    form: "solid",
    hazards: "irritates the eyes",
    drying: "dry for 2 h at 250 to 270 °C, cool in a desiccator",
    purity: ["99.95", "0.05"],
  },
  {
    formula: "Na2C2O4",
    name: "sodium oxalate",
    form: "solid",
    hazards: "harmful if swallowed or on the skin",
    drying: "dry for 1 h at 105 °C, cool in a desiccator",
    purity: ["99.95", "0.05"],
  },
  {
    formula: "(NH4)2Fe(SO4)2·6H2O",
    name: "ammonium iron(II) sulfate hexahydrate",
    form: "solid",
    hazards: "irritates skin and eyes",
    drying: "do not dry: it loses its water; keep it shut",
    purity: ["99.5", "0.3"],
  },
  {
    formula: "KIO3",
    name: "potassium iodate",
    form: "solid",
    hazards: "oxidizing; keep from anything that burns",
    drying: "dry for 1 h at 120 °C",
    purity: ["99.95", "0.05"],
  },
  {
    formula: "K2Cr2O7",
    name: "potassium dichromate",
    form: "solid",
    hazards: "toxic, causes cancer, oxidizing; no dust",
    drying: "dry for 2 h at 140 °C",
    purity: ["99.95", "0.05"],
  },
  {
    formula: "CaCO3",
    name: "calcium carbonate",
    form: "solid",
    hazards: "none known beyond the usual care",
    drying: "dry for 2 h at 110 °C",
    purity: ["99.95", "0.05"],
  },
  {
    formula: "Zn",
    name: "zinc",
    form: "solid",
    hazards: "gives hydrogen with acid",
    purity: ["99.99", "0.01"],
  },
  {
    formula: "NaOH",
    name: "sodium hydroxide",
    form: "solution",
    madeFrom: "NaOH",
    hazards: "corrosive",
    drying: "do not dry: it takes up water and carbon dioxide, so that its concentration is only nominal",
    restandardizeDays: 7,
  },
  {
    formula: "HCl",
    name: "hydrochloric acid",
    form: "solution",
    hazards: "corrosive",
    acid: true,
    restandardizeDays: 90,
  },
  {
    formula: "H2SO4",
    name: "sulfuric acid",
    form: "solution",
    hazards: "corrosive",
    acid: true,
    restandardizeDays: 90,
  },
  {
    formula: "CH3COOH",
    name: "acetic acid",
    form: "solution",
    hazards: "irritates, flammable when strong",
    acid: true,
    restandardizeDays: 30,
  },
  {
    formula: "KMnO4",
    name: "potassium permanganate",
    form: "solution",
    madeFrom: "KMnO4",
    hazards: "oxidizing, stains",
    restandardizeDays: 7,
  },
  {
    formula: "Na2S2O3",
    name: "sodium thiosulfate",
    form: "solution",
    madeFrom: "Na2S2O3·5H2O",
    hazards: "none known beyond the usual care",
    restandardizeDays: 14,
  },
  {
    formula: "I2",
    name: "iodine",
    form: "solution",
    hazards: "stains; vapor irritates",
    restandardizeDays: 7,
  },
  {
    formula: "Na2C10H14N2O8",
    name: "EDTA",
    form: "solution",
    madeFrom: "Na2C10H14N2O8·2H2O",
    hazards: "irritates the eyes",
    restandardizeDays: 90,
  },
  {
    formula: "ZnSO4",
    name: "zinc sulfate",
    form: "solution",
    madeFrom: "ZnSO4·7H2O",
    hazards: "harms the eyes and water life",
    restandardizeDays: 90,
  },
  {
    formula: "FeSO4",
    name: "iron(II) sulfate",
    form: "solution",
    madeFrom: "FeSO4·7H2O",
    hazards: "harmful if swallowed",
    restandardizeDays: 1,
  },
];

export const substanceOf = (formula: string): Substance | undefined =>
  substances.find((s) => s.formula === formula.trim()) ??
  substances.find((s) => s.madeFrom === formula.trim());
