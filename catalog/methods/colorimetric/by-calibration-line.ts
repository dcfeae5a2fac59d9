import { defineMethod, type Method, type Reagent } from "~/core/method";
import {
  absorbance,
  blank,
  chooseWavelength,
  colorimetricGlassware,
  colorSteps,
  limit,
  madeUp,
  path,
  readOff,
  sampleTaken,
  standardFlask,
  stock,
  stockTaken,
  straight,
} from "../../parts/photometer";
import { protection } from "../../parts/safety";
import { exactly, mL, series } from "../../parts/reagents";
import { notNegative } from "../../parts/plausible";

interface ByLine {
  readonly id: string;
  readonly title: string;
  readonly purpose: string;
  readonly equations: Method["equations"];
  readonly substances: Method["substances"];
  /** What is found, as in "Iron", and the formula that its molar mass is of. */
  readonly what: string;
  readonly formula: string;
  readonly nm: number;
  readonly color: string;
  /** About what the strongest standard reads. */
  readonly strongest: number;
  /** Concentration of the stock in mg/L, and its ±. */
  readonly stockMgPerL: readonly [value: string, plusMinus: string];
  readonly flaskMl: string;
  readonly sampleMl: string;
  readonly reagents: readonly Reagent[];
  readonly wait: string;
  readonly minutes: number;
  readonly cautions: readonly string[];
  /** The same result as another substance. */
  readonly as?: { readonly symbol: string; readonly name: string; readonly formula: string };
  readonly hazards: readonly string[];
  readonly waste: readonly string[];
}

/** Standards made up from one stock with the reagents in each, a line against concentration, an unknown treated alike. */
export function byCalibrationLine(m: ByLine): Method {
  const lower = m.what.toLowerCase();
  const reagents = [...m.reagents];
  return defineMethod({
    id: m.id,
    version: 4,
    family: "colorimetric",
    title: m.title,
    purpose: m.purpose,
    equations: m.equations,
    substances: m.substances,
    stages: [
      chooseWavelength(m.nm, "a standard of the middle"),
      {
        kind: "calibration",
        key: "standards",
        title: "Read the standards",
        inputs: [
          stock(`${m.what} in the stock`, "mg/L", ...m.stockMgPerL),
          standardFlask(m.flaskMl),
          path,
          blank,
          stockTaken(10),
          absorbance,
        ],
        axis: madeUp(`${m.what} in the flask`, "mg/L"),
        line: straight,
        series: { symbol: "V_s", values: ["0.00", "2.00", "4.00", "6.00", "8.00", "10.00"] },
        strongest: m.strongest,
        color: m.color,
        relations: [
          { relation: `ε = b * M(${m.formula}) / l`, title: "Molar absorptivity", unit: "L/(mol·cm)" },
        ],
        result: { symbol: "ε", name: "Molar absorptivity", unit: "L/(mol·cm)" },
        plausible: [notNegative("ε", "L/(mol·cm)")],
        reagents: [
          exactly(
            `${lower} stock, ${m.stockMgPerL[0]} mg/L`,
            series(mL("10"), "up to 10 mL"),
            "one volume for each flask",
          ),
          ...reagents,
        ],
        conditions: [{ what: "Let the color come", minutes: m.minutes }],
        steps: colorSteps(reagents.map(({ name }) => name).join(", then "), m.wait),
        cautions: [...m.cautions],
      },
      {
        kind: "unknown",
        key: "unknown",
        title: "Read the unknown",
        inputs: [
          limit("mg/L"),
          standardFlask(m.flaskMl),
          sampleTaken(m.sampleMl),
          absorbance,
          readOff("c_x", `${m.what} in the flask`, m.formula),
        ],
        relations: [
          { relation: "c_u = c_x * V_f / V_u", title: `${m.what} in the sample`, unit: "mg/L" },
          ...(m.as
            ? [
                {
                  relation: `${m.as.symbol} = c_u * M(${m.as.formula}) / M(${m.formula})`,
                  title: m.as.name,
                  unit: "mg/L",
                },
              ]
            : []),
          { relation: `n_u = c_u / M(${m.formula})`, title: "The same as an amount", unit: "µmol/L" },
        ],
        result: { symbol: "c_u", name: `${m.what} in the sample`, unit: "mg/L" },
        also: [
          ...(m.as ? [{ symbol: m.as.symbol, name: m.as.name, unit: "mg/L" }] : []),
          { symbol: "n_u", name: "The same as an amount", unit: "µmol/L" },
        ],
        plausible: [notNegative("c_u", "mg/L")],
        accept: { against: "limit", symbol: "c_lim", bound: "at most" },
        reagents: [
          exactly("the sample", mL(m.sampleMl), "into a flask like those of the standards"),
          ...reagents,
        ],
        conditions: [{ what: "Let the color come, as long as that of the standards", minutes: m.minutes }],
        steps: [
          "Treat the unknown as the standards: the same flask, the same reagents in the same order, the same wait.",
          "Rinse the cuvette with it, fill, wipe, read. Make a second flask from the sample: it shows how well the whole procedure repeats.",
        ],
        cautions: [
          "Where it reads above the strongest standard, take less of the sample: do not dilute the colored flask.",
        ],
      },
    ],
    protection,
    hazards: [...m.hazards],
    waste: [...m.waste],
    glassware: colorimetricGlassware,
  });
}
