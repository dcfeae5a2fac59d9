import type { KnownMetal } from "~/core/plan";

/* Metals that EDTA binds, with what else binds them. */

interface MetalOfTable extends KnownMetal {
  /** What brings one of it into the solution. */
  readonly formulas: readonly string[];
  readonly source: string;
}

const checked = "CHECKS.md (handbook, from memory); ammonia and hydroxide from memory";
const remembered = "from memory";

/** Constants at 20 to 25 °C and an ionic strength of 0.1 mol/L, used as they stand. */
export const metals: readonly MetalOfTable[] = [
  { symbol: "Ca", formulas: ["Ca^2+", "CaCO3"], logK: 10.65, hydroxide: [1.3], source: checked },
  { symbol: "Mg", formulas: ["Mg^2+"], logK: 8.79, hydroxide: [2.6], source: checked },
  {
    symbol: "Zn",
    formulas: ["Zn^2+", "Zn", "ZnSO4"],
    logK: 16.5,
    ammonia: [2.21, 4.4, 6.76, 8.79],
    hydroxide: [4.4, 10.1, 14.2, 15.5],
    source: checked,
  },
  {
    symbol: "Cu",
    formulas: ["Cu^2+", "CuSO4"],
    logK: 18.78,
    ammonia: [4.04, 7.47, 10.27, 11.75],
    source: checked,
  },
  {
    symbol: "Ni",
    formulas: ["Ni^2+", "NiSO4"],
    logK: 18.4,
    ammonia: [2.72, 4.89, 6.55, 7.67, 8.34, 8.31],
    source: checked,
  },
  { symbol: "Pb", formulas: ["Pb^2+"], logK: 18, hydroxide: [6.3, 10.9, 13.9], source: remembered },
  { symbol: "Mn", formulas: ["Mn^2+"], logK: 13.9, hydroxide: [3.4], source: remembered },
];
