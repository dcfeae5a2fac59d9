import { defineMethod } from "~/core/method";
import { indicatorReagent } from "./parts";
import { atMost, mostMolPerL } from "./plausible";
import { densityOf } from "../densities";

const phenolphthaleinRibbon = [
  { color: "#eef1ee", looks: "colorless", do: "keep going" },
  { color: "#fbe4ee", looks: "pink that fades", do: "one drop at a time" },
  { color: "#f2aac9", looks: "faintest pink, 30 s", do: "stop, read", end: true },
  { color: "#b52c6c", looks: "strong pink", do: "overshot" },
];

const persistence =
  "The faintest pink must stay for 30 s. Later it fades as carbon dioxide dissolves: that is no fault.";

const burette = [
  "Rinse the burette with water, then with the base. Fill it, clear the tip of bubbles, take the funnel out.",
  "Read at eye level against a white card, the bottom of the meniscus.",
];

/** Base standardized against weighed potassium hydrogen phthalate; the base then finds an unknown monoprotic acid. */
export const baseByPhthalateThenAcid = defineMethod({
  id: "base-by-phthalate-then-acid",
  version: 4,
  family: "acid-base",
  title: "Base by potassium hydrogen phthalate, then an acid by the base",
  purpose:
    "Fix the concentration of a sodium hydroxide solution against a weighed primary standard, then find that of an acid with it.",
  equations: [
    { name: "standardization", equation: "KHC8H4O4 + NaOH -> KNaC8H4O4 + H2O" },
    { name: "determination", equation: "HCl + NaOH -> NaCl + H2O" },
  ],
  substances: {
    KHC8H4O4: "potassium hydrogen phthalate",
    NaOH: "sodium hydroxide",
    HCl: "hydrochloric acid",
  },
  stages: [
    {
      kind: "titration",
      key: "standardize",
      title: "Standardize the base",
      inputs: [
        {
          symbol: "m",
          is: "mass",
          label: "Mass of phthalate",
          of: "KHC8H4O4",
          per: "trial",
          before: "Boat with solid",
          after: "Boat after transfer",
          expect: [0.4, 0.8],
          ...densityOf("KHC8H4O4"),
        },
        {
          symbol: "P",
          is: "purity",
          label: "Purity of the phthalate",
          of: "KHC8H4O4",
          per: "run",
          presumed: { percent: "100.00", plusMinus: "0.05" },
        },
        { symbol: "V", is: "titer", label: "Titer", titrant: "NaOH", per: "trial" },
      ],
      relations: [
        { relation: "n_s = m * P / M(KHC8H4O4)", title: "Amount of phthalate in the flask", unit: "mmol" },
        { relation: "n_b = n_s * ratio(NaOH, KHC8H4O4)", title: "Amount of base it takes", unit: "mmol" },
        { relation: "c_b = n_b / V", title: "Concentration of the base", unit: "mol/L" },
      ],
      result: {
        symbol: "c_b",
        name: "Concentration of the base",
        unit: "mol/L",
        assigns: "NaOH",
        equivalents: 1,
      },
      plausible: [atMost("c_b", mostMolPerL.NaOH)],
      agree: { on: "V / m", per: "m" },
      presumed: 0.1,
      indicator: "phenolphthalein, 2 to 3 drops",
      persistence,
      meniscus: "bottom",
      ribbon: phenolphthaleinRibbon,
      expectMl: [19, 40],
      reagents: [
        {
          name: "potassium hydrogen phthalate, dried at 110 to 120 °C",
          amount: "0.4 to 0.8 g",
          exact: true,
          when: "weighed into each flask",
        },
        { name: "boiled-out water", amount: "50 mL", exact: false, when: "to dissolve it" },
        indicatorReagent,
      ],
      conditions: [
        { what: "dry the phthalate beforehand for an hour or two", of: "solid", celsius: [110, 120] },
      ],
      steps: [
        "Weigh 0.4 to 0.8 g of the dried solid by difference into a flask.",
        "Dissolve it in about 50 mL of boiled-out water; add 2 to 3 drops of phenolphthalein.",
        ...burette,
      ],
      cautions: [
        "Goggles on: sodium hydroxide harms the eyes.",
        "Fill the burette below eye level, with the tap shut and a waste beaker under it.",
      ],
    },
    {
      kind: "titration",
      key: "determine",
      title: "Titrate the acid",
      inputs: [
        {
          symbol: "c_b",
          is: "result",
          label: "Concentration of the base",
          of: "NaOH",
          per: "run",
          stage: "standardize",
        },
        {
          symbol: "V_a",
          is: "pipette",
          label: "Aliquot of acid",
          of: "HCl",
          per: "trial",
          presumed: "25.00",
        },
        { symbol: "V", is: "titer", label: "Titer", titrant: "NaOH", per: "trial" },
      ],
      relations: [
        { relation: "n_b = c_b * V", title: "Amount of base used", unit: "mmol" },
        { relation: "n_a = n_b * ratio(HCl, NaOH)", title: "Amount of acid in the aliquot", unit: "mmol" },
        { relation: "c_a = n_a / V_a", title: "Concentration of the acid", unit: "mol/L" },
      ],
      result: { symbol: "c_a", name: "Concentration of the acid", unit: "mol/L" },
      plausible: [atMost("c_a", mostMolPerL.HCl)],
      agree: { on: "V / V_a", per: "V_a" },
      indicator: "phenolphthalein, 2 to 3 drops",
      persistence,
      meniscus: "bottom",
      ribbon: phenolphthaleinRibbon,
      expectMl: [15, 30],
      reagents: [
        { name: "the acid", amount: "25.00 mL", exact: true, when: "into each flask" },
        indicatorReagent,
      ],
      steps: [
        "Pipette 25.00 mL of the acid into a flask; rinse the walls down with water.",
        "Add 2 to 3 drops of phenolphthalein.",
        ...burette,
      ],
      cautions: [
        "Goggles on: acid and base both harm the eyes.",
        "Use a pipette filler; never pipette by mouth.",
      ],
    },
  ],
  protection: [
    "Goggles",
    "Closed shoes and long trousers",
    "Hair tied back",
    "Gloves as the lab's rule says",
  ],
  hazards: [
    "Sodium hydroxide solution is corrosive: rinse skin or eyes at once with much water.",
    "Hydrochloric acid irritates; if it must be diluted, acid into water, never water into acid.",
    "Phenolphthalein solution holds alcohol: keep it from flames.",
    "Follow the safety data sheets, your institution's rules and local waste law, which come before this text.",
  ],
  waste: ["Titrated flasks are neutral: to the drain with much water, where local rules allow it."],
  glassware: [
    "50 mL burette",
    "25 mL one-mark pipette and filler",
    "250 mL conical flasks",
    "weighing boats",
    "balance reading to 0.1 mg",
  ],
});
