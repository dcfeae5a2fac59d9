import { buretteSteps, usualDropsPerMl, usualPhotometer } from "./rules";
import type { HouseRules } from "./schema";
import { type Phrase, msg } from "../text";

/** Rules as a form shows them, by name: what is typed or chosen. */
export type RuleTexts = Readonly<Record<string, string>>;

/** What a number can be; zero or more where nothing else is said. */
export interface RuleBounds {
  readonly most: number;
  readonly least?: number;
  readonly aboveZero?: boolean;
  /** True where it can be left empty. */
  readonly optional?: boolean;
}

export interface RuleDefinition {
  readonly name: string;
  /** Where it stands in the house rules. */
  readonly path: readonly [keyof HouseRules, ...string[]];
  /** A decimal as typed, a number, yes or no, or one of the choices. */
  readonly kind: "decimal" | "count" | "flag" | "choice";
  readonly bounds?: RuleBounds;
  /** What a form shows where the rules do not use it. */
  readonly usual?: string;
  readonly label: Phrase;
  /** What it is for, in a line, with an example. */
  readonly explain: Phrase;
  readonly choices?: readonly (readonly [value: string, label: Phrase])[];
  /** Whether it plays a part, as the form stands. */
  readonly when?: (texts: RuleTexts) => boolean;
}

export interface RuleGroup {
  readonly title: Phrase;
  readonly note: Phrase;
  readonly fields: readonly RuleDefinition[];
}

const yesNo = (yes: Phrase, no: Phrase) =>
  [
    ["no", no],
    ["yes", yes],
  ] as const;

const withinShapes = [
  ["triangular", msg`mostly near the middle`],
  ["rectangular", msg`anywhere within`],
] as const;

/** Every convention of the house, in groups: where it stands, what it can be, how it is asked, and a line on it with an example. */
export const ruleGroups: readonly RuleGroup[] = [
  {
    title: msg`When trials agree`,
    note: msg`What closes a set. A test for outliers only advises: nothing is left out because of it.`,
    fields: [
      {
        name: "agreement",
        path: ["agreement", "rule"],
        kind: "choice",
        label: msg`Concordance rule`,
        explain: msg`24.35, 24.40 and 24.42 lie within 0.10 of each other; the rough one never counts.`,
        choices: [
          ["n-within", msg`n titers within a window`],
          ["within-of-mean", msg`n titers within ± of their mean`],
          ["identical", msg`n identical readings`],
          ["relative-spread", msg`n results within a relative range`],
          ["two-else-third", msg`two within a window, else a third`],
        ],
      },
      {
        name: "replicates",
        path: ["agreement", "replicates"],
        kind: "count",
        bounds: { least: 1, most: 12 },
        usual: "2",
        label: msg`Trials that must agree`,
        explain: msg`3: a third confirms the first two.`,
        when: ({ agreement }) => agreement !== "two-else-third",
      },
      {
        name: "withinMl",
        path: ["agreement", "withinMl"],
        kind: "decimal",
        bounds: { aboveZero: true, most: 5 },
        usual: "0.10",
        label: msg`Within, mL`,
        explain: msg`0.10 is two drops.`,
        when: ({ agreement }) => agreement !== "identical" && agreement !== "relative-spread",
      },
      {
        name: "partsPerThousand",
        path: ["agreement", "partsPerThousand"],
        kind: "decimal",
        bounds: { aboveZero: true, most: 100 },
        usual: "2",
        label: msg`Range at most, ‰ of the mean`,
        explain: msg`2 ‰ of 25 mL is 0.05 mL.`,
        when: ({ agreement }) => agreement === "relative-spread",
      },
      {
        name: "agreementOf",
        path: ["agreementOf"],
        kind: "choice",
        label: msg`Compare`,
        explain: msg`Flasks of 0.51 and 0.48 g take unlike titers: they are compared per gram, or by their results.`,
        choices: [
          ["titers", msg`titers, per amount if unlike`],
          ["results", msg`results, each flask’s own`],
        ],
      },
      {
        name: "average",
        path: ["average"],
        kind: "choice",
        label: msg`Average`,
        explain: msg`Titers first: the mean of 24.35 and 24.40 is 24.375, from which one result follows.`,
        choices: [
          ["results", msg`results of the trials`],
          ["titers", msg`titers, where flasks are alike`],
        ],
      },
      {
        name: "outliers",
        path: ["outliers"],
        kind: "choice",
        label: msg`Outlier test`,
        explain: msg`Of 24.35, 24.40 and 25.10 it would flag the last; you decide.`,
        choices: [
          ["none", msg`none`],
          ["dixon-90", msg`by Dixon’s Q, 90 %`],
          ["dixon-95", msg`by Dixon’s Q, 95 %`],
          ["dixon-99", msg`by Dixon’s Q, 99 %`],
          ["grubbs", msg`by Grubbs’ test, 5 %`],
        ],
      },
    ],
  },
  {
    title: msg`Burette`,
    note: msg`The one on the bench, and how it is read.`,
    fields: [
      {
        name: "capacityMl",
        path: ["burette", "capacityMl"],
        kind: "count",
        label: msg`Capacity`,
        explain: msg`You are warned before a trial whose end point would lie past the last mark.`,
        choices: [10, 25, 50, 100].map((ml) => [String(ml), msg`${ml} mL`] as const),
      },
      {
        name: "resolutionMl",
        path: ["burette", "resolutionMl"],
        kind: "choice",
        label: msg`Read to`,
        explain: msg`Half a division, 0.05: 24.35 and 24.40 are readings, 24.37 is none.`,
        choices: buretteSteps.map((step) => [
          step,
          {
            "0.001": msg`0.001 mL`,
            "0.01": msg`0.01 mL, estimated`,
            "0.02": msg`0.02 mL`,
            "0.05": msg`0.05 mL, half a division`,
            "0.1": msg`0.1 mL, the mark`,
          }[step],
        ]),
      },
      {
        name: "readingHalfWidthMl",
        path: ["burette", "readingHalfWidthMl"],
        kind: "decimal",
        bounds: { most: 1 },
        label: msg`Reading uncertainty ±, mL`,
        explain: msg`0.02: 24.35 stands for 24.33 to 24.37.`,
      },
      {
        name: "meniscus",
        path: ["burette", "meniscus"],
        kind: "choice",
        label: msg`Meniscus`,
        explain: msg`By color: the bottom of clear liquids, the top of permanganate and iodine.`,
        choices: [
          ["by-color", msg`by the color of the liquid`],
          ["bottom", msg`always at the bottom`],
          ["top", msg`always at the top`],
        ],
      },
      {
        name: "start",
        path: ["burette", "start"],
        kind: "choice",
        label: msg`Each titration starts`,
        explain: msg`At zero: a start at 1.20 is asked about.`,
        choices: [
          ["anywhere", msg`where the meniscus stands`],
          ["zero", msg`at the zero mark`],
        ],
      },
      {
        name: "readTwice",
        path: ["burette", "readTwice"],
        kind: "flag",
        label: msg`Type each reading`,
        explain: msg`Twice: the second without seeing the first, which catches 13.30 written as 13.50.`,
        choices: yesNo(msg`twice, the second time blind`, msg`once`),
      },
      {
        name: "readTwiceWithinMl",
        path: ["burette", "readTwiceWithinMl"],
        kind: "decimal",
        bounds: { aboveZero: true, most: 1 },
        label: msg`The two may differ by at most, mL`,
        explain: msg`0.02: a larger difference is asked about.`,
        when: ({ readTwice }) => readTwice === "yes",
      },
      {
        name: "dropsPerMl",
        path: ["burette", "dropsPerMl"],
        kind: "decimal",
        usual: usualDropsPerMl,
        bounds: { aboveZero: true, most: 200 },
        label: msg`Drops of its tip in 1 mL`,
        explain: msg`Count your own: 63 drops from 0.00 to 3.00 mL are 21. "One drop more" and the steps of a dilution follow.`,
      },
    ],
  },
  {
    title: msg`Results`,
    note: msg`Uncertainty and rounding of results.`,
    fields: [
      {
        name: "plusMinus",
        path: ["plusMinus"],
        kind: "choice",
        label: msg`What follows ±`,
        explain: msg`0.1021 ± 0.0004 with k = 2, ± 0.0002 with u alone.`,
        choices: [
          ["k2", msg`twice u (k = 2)`],
          ["u", msg`u, standard uncertainty`],
          ["i95", "95 % interval"],
        ],
      },
      {
        name: "digits",
        path: ["digits"],
        kind: "choice",
        label: msg`Rounding`,
        explain: msg`To the uncertainty: 0.10214 ± 0.00020. By significant figures: 0.1021, since the titer has four.`,
        choices: [
          ["uncertainty", msg`to the uncertainty`],
          ["significant-figures", msg`by significant figures`],
        ],
      },
      {
        name: "percentError",
        path: ["percentError"],
        kind: "choice",
        label: msg`Percent error`,
        explain: "−1.2 %, or 1.2 %.",
        choices: [
          ["signed", msg`with its sign`],
          ["absolute", msg`without its sign`],
        ],
      },
      {
        name: "priorRepeatabilityPercent",
        path: ["priorRepeatabilityPercent"],
        kind: "decimal",
        bounds: { most: 10, optional: true },
        label: msg`Repeatability known, %`,
        explain: msg`Of one trial, from earlier work: 0.05. Empty where unknown.`,
      },
    ],
  },
  {
    title: msg`Words and units`,
    note: msg`On every screen and in reports. What is typed and stored stays as it is.`,
    fields: [
      {
        name: "titer",
        path: ["words", "titer"],
        kind: "choice",
        label: msg`Spelling`,
        // Both are named as they are, whatever the lab says now.
        explain: "Mean titer and color, or mean titre and colour.",
        choices: [
          ["titer", "American: titer, color"],
          ["titre", "British: titre, colour"],
        ],
      },
      {
        name: "volume",
        path: ["words", "volume"],
        kind: "choice",
        label: msg`Volume unit`,
        explain: "25.00 mL and mol/L, or 25.00 cm³ and mol/dm³.",
        choices: [
          ["mL", "mL"],
          ["cm³", "cm³"],
        ],
      },
      {
        name: "normality",
        path: ["words", "normality"],
        kind: "flag",
        label: msg`Normality of a titrant`,
        explain: msg`0.0200 mol/L of permanganate is 0.100 N, since it takes up five electrons.`,
        choices: yesNo(msg`beside its concentration`, msg`not given`),
      },
    ],
  },
  {
    title: msg`Glassware`,
    note: msg`Tolerances of burettes and pipettes, and how they are taken.`,
    fields: [
      {
        name: "toleranceClass",
        path: ["glassware", "toleranceClass"],
        kind: "choice",
        label: msg`Class`,
        explain: msg`A 25 mL pipette: ± 0.03 mL in class A, twice that in class B.`,
        choices: [
          ["A", msg`class A`],
          ["B", msg`class B, twice that`],
        ],
      },
      {
        name: "toleranceShape",
        path: ["glassware", "toleranceShape"],
        kind: "choice",
        label: msg`Distribution within the tolerance`,
        explain: msg`Near the middle: the makers aim at the mark.`,
        choices: withinShapes,
      },
    ],
  },
  {
    title: msg`Photometer`,
    note: msg`When readings of one flask, and flasks of one sample, agree.`,
    fields: [
      {
        name: "readingsWithin",
        path: ["photometer", "readingsWithin"],
        kind: "decimal",
        bounds: { aboveZero: true, most: 1 },
        usual: usualPhotometer.readingsWithin,
        label: msg`Readings of one flask agree within`,
        explain: msg`0.010: 0.318 and 0.325 agree, 0.318 and 0.418 are asked about.`,
      },
      {
        name: "flasksPercent",
        path: ["photometer", "flasksPercent"],
        kind: "decimal",
        bounds: { aboveZero: true, most: 100 },
        usual: usualPhotometer.flasksPercent,
        label: msg`Flasks agree within, % of their mean`,
        explain: msg`5: flasks of 4.24 and 4.40 mg/L agree. A relative rule for trials holds for them instead.`,
        when: ({ agreement }) => agreement !== "relative-spread",
      },
    ],
  },
  {
    title: msg`Balance and room`,
    note: msg`The balance, and the room: volumes are converted to 20 °C, the reference temperature of glassware.`,
    fields: [
      {
        name: "readabilityG",
        path: ["balance", "readabilityG"],
        kind: "decimal",
        bounds: { aboveZero: true, most: 1 },
        label: msg`Readability, g`,
        explain: "0.0001: 0.5104 g.",
      },
      {
        name: "linearityG",
        path: ["balance", "linearityG"],
        kind: "decimal",
        bounds: { most: 1 },
        label: msg`Linearity ±, g`,
        explain: msg`From its certificate: 0.0002.`,
      },
      {
        name: "correctBuoyancy",
        path: ["balance", "correctBuoyancy"],
        kind: "flag",
        label: msg`Buoyancy of air`,
        explain: msg`It lifts 0.5 g of a salt by about 0.3 mg.`,
        choices: yesNo(msg`corrected, where the density is stated`, msg`left alone`),
      },
      {
        name: "labC",
        path: ["temperature", "labC"],
        kind: "decimal",
        bounds: { most: 45 },
        label: msg`Lab temperature, °C`,
        explain: msg`At 25 °C a volume read as 25.00 mL is taken as 24.97 mL, which it is at 20 °C.`,
      },
      {
        name: "halfRangeC",
        path: ["temperature", "halfRangeC"],
        kind: "decimal",
        bounds: { most: 20 },
        label: msg`Room temperature ±, °C`,
        explain: msg`3: the windows are open.`,
      },
      {
        name: "temperatureShape",
        path: ["temperature", "shape"],
        kind: "choice",
        label: msg`Distribution of the room temperature`,
        explain: msg`In 95 cases of 100: as a weather record states it.`,
        choices: [
          ["rectangular", msg`anywhere within`],
          ["normal95", msg`in 95 cases of 100`],
        ],
      },
    ],
  },
];

/** All of them, one by one. */
export const ruleDefinitions: readonly RuleDefinition[] = ruleGroups.flatMap(({ fields }) => fields);
