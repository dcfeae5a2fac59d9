import { defineMethod } from "~/core/method";
import {
  absorbance,
  blank,
  chooseWavelength,
  colorimetricGlassware,
  cuvetteSteps,
  driftStep,
  limit,
  standardFlask,
  stock,
  stockTaken,
  straight,
} from "../../parts/photometer";
import { ironWithPhenanthroline } from "./colored-complexes";
import { about, exactly, mL, series } from "../../parts/reagents";
import { notNegative } from "../../parts/plausible";

/** Standards made in the sample itself: what else is in it acts on all flasks alike. */
export const ironByStandardAddition = defineMethod({
  id: "iron-by-standard-addition",
  version: 5,
  family: "colorimetric",
  title: "Iron by standard addition",
  purpose: "The iron in a sample whose other contents would bend a line made in pure water.",
  variant: {
    of: "iron-with-phenanthroline",
    differs:
      "The same volume of sample is in every flask and more and more stock is added: the line is read off at its axis.",
  },
  equations: ironWithPhenanthroline.equations,
  substances: ironWithPhenanthroline.substances,
  stages: [
    chooseWavelength(510, "a flask of the middle"),
    {
      kind: "calibration",
      key: "additions",
      title: "Read the additions",
      inputs: [
        stock("Iron in the stock", "mg/L", "20.00", "0.05"),
        standardFlask("50.00"),
        {
          symbol: "V_u",
          is: "pipette",
          label: "Sample in each flask",
          of: "sample",
          per: "run",
          presumed: "20.00",
        },
        limit("mg/L"),
        blank,
        stockTaken(10),
        absorbance,
      ],
      axis: {
        symbol: "c",
        name: "Iron added to the flask",
        unit: "mg/L",
        relations: [{ relation: "c = c_0 * V_s / V_f", title: "Iron added to a flask", unit: "mg/L" }],
      },
      line: { ...straight, cut: "c_x" },
      series: { symbol: "V_s", values: ["0.00", "2.00", "4.00", "6.00", "8.00"] },
      strongest: 0.95,
      color: "#c9531f",
      relations: [{ relation: "c_u = c_x * V_f / V_u", title: "Iron in the sample", unit: "mg/L" }],
      result: { symbol: "c_u", name: "Iron in the sample", unit: "mg/L" },
      accept: { against: "limit", symbol: "c_lim", bound: "at most" },
      plausible: [notNegative("c_u", "mg/L")],
      also: [{ symbol: "c_x", name: "Iron of the sample in each flask", unit: "mg/L" }],
      reagents: [
        exactly("the sample", mL("20"), "the same in every flask"),
        exactly("iron stock, 20 mg/L", series(mL("0", "8")), "one volume for each flask"),
        about("hydroxylammonium chloride, 10 %", mL("1"), "first"),
        about("acetate buffer, pH 4.5", mL("5"), "the same in each flask"),
        about("1,10-phenanthroline, 0.3 %", mL("5"), "the same in each flask"),
      ],
      conditions: [{ what: "Let the color come", minutes: 10 }],
      steps: [
        "Pipette 20 mL of the sample into each of five 50 mL flasks; add 0, 2, 4, 6 and 8 mL of the stock.",
        "Add the reagents in their order, make up to the mark, invert, label; wait 10 min.",
        ...cuvetteSteps,
        driftStep,
      ],
      cautions: [
        "The blank must be truly nothing: what it lacks is found as iron. Additions should about double and treble what is there.",
      ],
    },
  ],
  protection: ironWithPhenanthroline.protection,
  hazards: ironWithPhenanthroline.hazards,
  waste: ironWithPhenanthroline.waste,
  glassware: colorimetricGlassware,
});
