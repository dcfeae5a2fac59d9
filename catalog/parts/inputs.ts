import type { InputOf, Input } from "~/core/inputs";
import { edta } from "./equations";
import { densityOf } from "../densities";

/* What is read, taken or stated. */

export const titer = (titrant: string): Input => ({
  symbol: "V",
  is: "titer",
  label: "Titer",
  titrant,
  per: "trial",
});

export const pipetted = (of: string, label: string, presumed: string, symbol = "V_a"): Input => ({
  symbol,
  is: "pipette",
  label,
  of,
  per: "trial",
  presumed,
});

export const purityOf = (of: string, label: string, percent: string, plusMinus: string): Input => ({
  symbol: "P",
  is: "purity",
  label,
  of,
  per: "run",
  presumed: { percent, plusMinus },
});

/** A concentration known beforehand: from a label, a certificate, or a run of another day. */
export const knownConcentration = (
  symbol: string,
  label: string,
  of: string,
  value: string,
  plusMinus: string,
): InputOf<"given"> => ({
  symbol,
  is: "given",
  label,
  of,
  per: "run",
  unit: "mol/L",
  presumed: { value, plusMinus },
});

export const fromStage = (symbol: string, label: string, of: string, stage: string): Input => ({
  symbol,
  is: "result",
  label,
  of,
  per: "run",
  stage,
});

/** A base of about 0.1 mol/L from the shelf. */
export const knownBase = knownConcentration("c_b", "Concentration of the base", "NaOH", "0.1000", "0.0002");

export const permanganateTiter = titer("KMnO4");

/** A permanganate of about 0.02 mol/L from the shelf. */
export const knownPermanganate = knownConcentration(
  "c_p",
  "Concentration of the permanganate",
  "KMnO4",
  "0.02000",
  "0.00005",
);

export const knownThiosulfate = knownConcentration(
  "c_t",
  "Concentration of the thiosulfate",
  "Na2S2O3",
  "0.1000",
  "0.0003",
);

export const knownIodine = knownConcentration(
  "c_i",
  "Concentration of the iodine",
  "I2",
  "0.0100",
  "0.00005",
);

/** A solid weighed into each flask by difference. */
export const weighedSolid = (of: string, label: string, expect: [number, number]): InputOf<"mass"> => ({
  symbol: "m",
  is: "mass",
  label,
  of,
  per: "trial",
  before: "Boat with solid",
  after: "Boat after transfer",
  expect,
  ...densityOf(of),
});

/** A solid weighed once, for a standard solution. */
export const weighedOnce = (of: string, label: string, expect: [number, number]): Input => ({
  ...weighedSolid(of, label, expect),
  per: "run",
});

export const flaskOnce = (of: string, presumed = "250.0", symbol = "V_f", label = "Flask"): Input => ({
  symbol,
  is: "flask",
  label,
  of,
  per: "run",
  presumed,
});

export const knownEdta = knownConcentration("c_y", "Concentration of the EDTA", edta, "0.0500", "0.0001");

export const edtaTiter = titer("EDTA");
