import { byCalibrationLine } from "./by-calibration-line";
import { acidHazard, authority } from "../../parts/safety";
import { about, mL } from "../../parts/reagents";

const exactWait = "the same in each flask";

/** Iron as its orange complex with 1,10-phenanthroline. */
export const ironWithPhenanthroline = byCalibrationLine({
  id: "iron-with-phenanthroline",
  title: "Iron by its color with 1,10-phenanthroline",
  purpose: "The iron in a water or in a dissolved sample, all of it reduced to iron(II).",
  equations: [{ name: "the orange complex forms", equation: "Fe^2+ + 3 C12H8N2 -> Fe(C12H8N2)3^2+" }],
  substances: { "Fe^2+": "iron(II)", C12H8N2: "1,10-phenanthroline" },
  what: "Iron",
  formula: "Fe",
  nm: 510,
  color: "#c9531f",
  strongest: 0.79,
  stockMgPerL: ["20.00", "0.05"],
  flaskMl: "50.00",
  sampleMl: "25.00",
  reagents: [
    about("hydroxylammonium chloride, 10 %", mL("1"), "first: it reduces iron(III)"),
    about("acetate buffer, pH 4.5", mL("5"), exactWait),
    about("1,10-phenanthroline, 0.3 %", mL("5"), exactWait),
  ],
  wait: "Wait 10 min: the orange comes and then stays for hours.",
  minutes: 10,
  cautions: ["Without the reducing agent only part of the iron shows."],
  hazards: [
    "Hydroxylammonium chloride is harmful and suspected of causing cancer: gloves.",
    "1,10-Phenanthroline is poisonous if swallowed and harms water life.",
    authority,
  ],
  waste: ["The flasks hold phenanthroline: collect as aqueous organic waste."],
});

/** Phosphate as molybdenum blue. */
export const phosphateAsMolybdenumBlue = byCalibrationLine({
  id: "phosphate-as-molybdenum-blue",
  title: "Phosphate as molybdenum blue",
  purpose: "The dissolved phosphate of a pond or a tank, as phosphorus and as phosphate.",
  equations: [
    {
      name: "the yellow acid forms; ascorbic acid then turns it blue",
      equation: "H3PO4 + 12 H2MoO4 -> H3PMo12O40 + 12 H2O",
    },
  ],
  substances: { H3PO4: "phosphoric acid", H3PMo12O40: "molybdophosphoric acid" },
  what: "Phosphorus",
  formula: "P",
  nm: 880,
  color: "#24408f",
  strongest: 0.69,
  stockMgPerL: ["5.000", "0.010"],
  flaskMl: "50.00",
  sampleMl: "25.00",
  reagents: [
    about("molybdate in sulfuric acid, with antimony", mL("5"), exactWait),
    about("ascorbic acid, 10 %, fresh", mL("1"), "after the molybdate"),
  ],
  wait: "Wait 10 min, and read within half an hour: the blue grows at first and fades later.",
  minutes: 10,
  cautions: [
    "Rinse all glass with dilute acid, never with a detergent: many hold phosphate.",
    "Not one flask after another but all at one pace: the blue goes on changing.",
  ],
  as: { symbol: "c_P", name: "The same as phosphate", formula: "PO4" },
  hazards: [
    `The molybdate reagent is strongly acid. ${acidHazard}`,
    "Antimony salts are harmful.",
    authority,
  ],
  waste: ["Flasks hold molybdenum and antimony: to the heavy-metal waste."],
});

/** Nitrite as an azo dye. */
export const nitriteAsAzoDye = byCalibrationLine({
  id: "nitrite-as-azo-dye",
  title: "Nitrite as an azo dye",
  purpose: "The nitrite of a tank, as nitrogen and as nitrite: what tells that a filter does not keep up.",
  equations: [
    {
      name: "sulfanilamide is diazotized",
      equation: "C6H8N2O2S + HNO2 + H+ -> C6H6N3O2S+ + 2 H2O",
    },
  ],
  substances: { C6H8N2O2S: "sulfanilamide", HNO2: "nitrous acid" },
  what: "Nitrogen",
  formula: "N",
  nm: 540,
  color: "#c2297a",
  strongest: 0.69,
  stockMgPerL: ["1.000", "0.004"],
  flaskMl: "50.00",
  sampleMl: "25.00",
  reagents: [
    about("sulfanilamide, 1 % in dilute acid", mL("1"), "first; mix, wait 5 min"),
    about("N-(1-naphthyl)ethylenediamine, 0.1 %", mL("1"), "after 5 min"),
  ],
  wait: "Wait 15 min more, and read within two hours.",
  minutes: 15,
  cautions: ["The two reagents one after the other: together at once they give too little color."],
  as: { symbol: "c_N", name: "The same as nitrite", formula: "NO2" },
  hazards: [acidHazard, "The amine stains and irritates: gloves.", authority],
  waste: ["Collect as aqueous organic waste."],
});
