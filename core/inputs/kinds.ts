import {
  buoyancyFactor,
  buretteVolume,
  dropsVolume,
  flaskVolume,
  graduatedVolume,
  massByDifference,
  massTared,
  pipetteVolume,
  type Place,
  purity,
  type ReadingRules,
  statedQuantity,
  type VolumeConditions,
  volumeFactor,
} from "../measure";
import { exact, leaf, measured, type Quantity, subtract, unitOf } from "../quantity";
import type { EarlierUnits, Field, InputSetting } from "./field";
import type { Input, InputOf } from "./schema";
import type { ObservationKind } from "../record";
import { type HouseRules, buretteDecimals, massDecimals } from "../rules";

export function volumeConditions({ glassware, temperature }: HouseRules): VolumeConditions {
  return {
    toleranceClass: glassware.toleranceClass,
    toleranceShape: glassware.toleranceShape,
    roomC: Number(temperature.labC),
    temperatureHalfRangeC: Number(temperature.halfRangeC),
    temperatureShape: temperature.shape,
  };
}

/** What has been read of an input, by kind of observation; null where nothing has. */
export type Read = (kind: ObservationKind) => number | null;

/** All that is particular to one kind of input: what is typed for it, and the quantity with its causes that follows. */
interface InputKind<I extends Input> {
  /** Unit in which its value is shown, and in which relations are followed in a spreadsheet. */
  readonly unit: (input: I, earlier: EarlierUnits) => string;
  readonly fields: (input: I, setting: InputSetting, rules: HouseRules) => Field[];
  /** Null while something is still to be read. */
  readonly quantity: (input: I, read: Read, place: Place, rules: HouseRules) => Quantity | null;
  /** What each of its fields will probably be before anything is read. */
  readonly presumed?: (input: I) => Partial<Record<ObservationKind, string>>;
}

const balanceOf = ({ balance }: HouseRules) => ({
  readabilityG: Number(balance.readabilityG),
  linearityG: Number(balance.linearityG),
});

function buretteFields(
  { symbol }: Input,
  rules: HouseRules,
  meniscus: "bottom" | "top",
  labels: readonly [string, string],
): Field[] {
  const { capacityMl, resolutionMl } = rules.burette;
  const decimals = buretteDecimals(rules);
  const words = {
    "0.001": "three decimals",
    "0.01": "two decimals",
    "0.02": "to 0.02",
    "0.05": "to 0.05",
    "0.1": "one decimal",
  }[resolutionMl];
  const reading: ReadingRules = {
    instrument: "The burette",
    unit: "mL",
    decimals,
    step: Number(resolutionMl),
    least: 0,
    most: capacityMl,
  };
  const place = rules.burette.meniscus === "by-color" ? meniscus : rules.burette.meniscus;
  const hint = `${words}, ${place} of the meniscus`;
  return [
    { symbol, kind: "burette.initial", label: labels[0], unit: "mL", hint, rules: reading },
    { symbol, kind: "burette.final", label: labels[1], unit: "mL", hint, rules: reading },
  ];
}

/** What may be read of a titration beside its two readings. */
function asideFields({ symbol }: Input, { warm }: InputSetting, rules: HouseRules): Field[] {
  const [initial, final] = buretteFields({ symbol } as Input, rules, "bottom", ["", ""]);
  if (!initial || !final) return [];
  const aside = { symbol, optional: true, aside: true } as const;
  const again = { ...aside, unit: "mL", hint: "without looking at the first" };
  return [
    {
      ...aside,
      kind: "burette.maybe",
      label: "Maybe the end",
      unit: "mL",
      hint: "a mark on the way",
      rules: final.rules,
      many: true,
    },
    { ...again, kind: "burette.initial.again", label: "Initial reading, once more", rules: initial.rules },
    { ...again, kind: "burette.final.again", label: "Final reading, once more", rules: final.rules },
    {
      ...aside,
      kind: "back.volume",
      label: "Added back",
      unit: "mL",
      hint: "of the solution that takes the overshoot back",
      rules: { instrument: "What is added back", unit: "mL", decimals: null, aboveZero: true, most: 25 },
    },
    {
      ...aside,
      kind: "back.worth",
      label: "Titrant that one mL of it takes",
      unit: "mL",
      hint: "known, as from their two concentrations",
      rules: { instrument: "It", unit: "mL", decimals: null, aboveZero: true, most: 100 },
    },
    {
      ...aside,
      kind: "end.overshot",
      label: "End overshot",
      unit: "",
      hint: "1 where it was",
      rules: { instrument: "It", unit: "", decimals: 0, least: 1, most: 1 },
    },
    ...(warm !== null
      ? [
          {
            ...aside,
            kind: "temperature.flask" as const,
            label: "Temperature of the flask",
            unit: "°C",
            hint: warm,
            rules: { instrument: "The thermometer", unit: "°C", decimals: null, least: -5, most: 150 },
          },
        ]
      : []),
  ];
}

/** How closely a small volume is added back, mL: that of a 1 mL pipette's scale. Common practice, no source. */
const addedBackHalfWidthMl = 0.01;

/**
 * A titer whose end was overshot and brought back by a known amount: V = (final - initial) - B·w, where B is what was added
 * back and w what one mL of it takes of the titrant. How closely w is known is its last digit.
 */
function withoutAddedBack(
  volume: Quantity,
  read: Read,
  { stage, trial }: Place,
  factor: number,
): Quantity | null {
  const [addedMl, worth] = [read("back.volume"), read("back.worth")];
  if (addedMl === null || worth === null) return volume;
  const shared = { group: "Added back", shape: "rectangular", stage } as const;
  const added = leaf({
    ...shared,
    id: `back-volume:${trial}`,
    label: "Volume added back",
    u: addedBackHalfWidthMl / Math.sqrt(3),
    random: true,
  });
  const known = leaf({
    ...shared,
    id: `back-worth:${stage}`,
    label: "What one mL added back takes",
    u: (0.005 * worth) / Math.sqrt(3),
  });
  const netMl = volume.value / mlFactor - addedMl * worth * factor;
  if (netMl < 0) return null;
  const rest = [...volume.sensitivities.values()].map(({ leaf, by }) => ({ leaf, by: by / mlFactor }));
  return measured(netMl, "mL", [
    ...rest,
    { leaf: added, by: -worth * factor },
    { leaf: known, by: -addedMl * factor },
  ]);
}

function buretteQuantity(read: Read, place: Place, rules: HouseRules, symbol?: string): Quantity | null {
  const [initialMl, finalMl] = [read("burette.initial"), read("burette.final")];
  // A blank may use nothing at all: its two readings are the same.
  if (initialMl === null || finalMl === null || finalMl < initialMl) return null;
  const { capacityMl, readingHalfWidthMl } = rules.burette;
  return buretteVolume(
    {
      ...place,
      initialMl,
      finalMl,
      capacityMl,
      readingHalfWidthMl: Number(readingHalfWidthMl),
      ...(symbol === undefined ? {} : { symbol }),
    },
    volumeConditions(rules),
  );
}

const mlFactor = unitOf("mL").factor;

/**
 * A titer without the bias of its indicator: V = V_end - V_bias, where the color turns V_bias after the equivalence point (before
 * it, where that is negative). One cause for all trials of the stage (rectangular).
 */
function withoutBias(
  volume: Quantity,
  { ml, plusMinus }: NonNullable<InputOf<"titer">["bias"]>,
  { stage }: Place,
  rules: HouseRules,
): Quantity {
  const cause = leaf({
    id: `indicator-bias:${stage}`,
    label: "Bias of the indicator",
    group: "Bias of the indicator",
    shape: "rectangular",
    u: Number(plusMinus) / Math.sqrt(3),
    stage,
  });
  const factor = volumeFactor(volumeConditions(rules));
  return subtract(volume, measured(Number(ml) * factor, "mL", [{ leaf: cause, by: factor }]));
}
const nothingTaken = exact(0, "mL");

type Volume = InputOf<"pipette" | "flask" | "graduated">;

/** What was taken; for what is taken once, the method's volume until something else is typed. */
function volumeTaken({ presumed }: Volume, read: Read, { once }: Place): number | null {
  return read("volume.taken") ?? (once && presumed !== undefined ? Number(presumed) : null);
}

function volumeField(
  { symbol, label, per, presumed }: Volume,
  { series }: InputSetting,
  instrument: string,
  hint: string,
  most: number,
): Field {
  // A flask of a calibration may hold none of the stock: the zero standard.
  const least = series && per === "trial" ? { least: 0 } : { aboveZero: true };
  return {
    ...(per === "run" && presumed !== undefined ? { optional: true } : {}),
    symbol,
    kind: "volume.taken",
    label,
    unit: "mL",
    hint,
    rules: { instrument, unit: "mL", decimals: null, ...least, most },
  };
}

/** Names of the two weighings of a mass by difference, in the order in which they are made. */
export function weighingNames({ weighing, before, after }: InputOf<"mass">): readonly [string, string] {
  return weighing === "addition"
    ? [before ?? "Vessel empty", after ?? "Vessel with the sample"]
    : [before ?? "Before the transfer", after ?? "After the transfer"];
}

/** ± of what is stated once, typed or brought by a bottle. */
const statedSpread = (symbol: string, unit: string): Field[] => {
  const field = {
    symbol,
    unit,
    rules: { instrument: "It", unit, decimals: null, least: 0 },
    optional: true,
  };
  return [
    { ...field, kind: "given.plus-minus", label: "give or take", hint: "half the width" },
    {
      ...field,
      kind: "given.standard-uncertainty",
      label: "standard uncertainty",
      hint: "from the shelf",
      hidden: true,
    },
  ];
};

/** Fields of a cuvette on a photometer; "again" is the one reading of a standard at the end. */
function photometerFields({ symbol, label }: Input, again: boolean): Field[] {
  const rules: ReadingRules = {
    instrument: "The photometer",
    unit: "",
    decimals: null,
    least: -0.5,
    most: 4,
  };
  const field = { symbol, unit: "", rules, optional: true };
  return [
    { ...field, kind: "absorbance", label, hint: "when it stands still", many: true },
    {
      ...field,
      kind: "transmittance",
      label: `${label}, as transmittance`,
      unit: "%",
      hint: "turned into absorbance",
      rules: { ...rules, unit: "%", least: 0, aboveZero: true, most: 300 },
      many: true,
    },
    ...(again
      ? [
          {
            ...field,
            kind: "absorbance.again" as const,
            label: "Once more at the end",
            hint: "shows drift",
            many: true,
          },
        ]
      : []),
  ];
}

const kinds: { readonly [K in Input["is"]]: InputKind<InputOf<K>> } = {
  mass: {
    unit: () => "g",
    fields: (input, _setting, rules) => {
      const decimals = massDecimals(rules);
      const reading: ReadingRules = { instrument: "The balance", unit: "g", decimals, least: 0 };
      const field = { symbol: input.symbol, unit: "g", hint: `${decimals} decimals`, rules: reading };
      if (input.weighing === "tared") {
        return [{ ...field, kind: "mass.tared", label: input.label, rules: { ...reading, aboveZero: true } }];
      }
      const [before, after] = weighingNames(input);
      return [
        { ...field, kind: "mass.before", label: before },
        { ...field, kind: "mass.after", label: after },
      ];
    },
    quantity: ({ symbol, weighing, densityGPerMl }, read, place, rules) => {
      const balance = balanceOf(rules);
      const factor =
        rules.balance.correctBuoyancy && densityGPerMl !== undefined ? buoyancyFactor(densityGPerMl) : 1;
      if (weighing === "tared") {
        const shown = read("mass.tared");
        return shown === null || shown <= 0 ? null : massTared(shown, place, balance, symbol, factor);
      }
      const [before, after] = [read("mass.before"), read("mass.after")];
      if (before === null || after === null) return null;
      const [larger, smaller] = weighing === "addition" ? [after, before] : [before, after];
      if (smaller >= larger) return null;
      const words = weighing === "addition" ? (["with the sample", "empty"] as const) : undefined;
      return massByDifference(larger, smaller, place, balance, symbol, words, factor);
    },
  },
  purity: {
    unit: () => "1",
    fields: ({ symbol, label }) => [
      {
        symbol,
        kind: "purity",
        label,
        unit: "%",
        hint: "from the label of the bottle",
        // Certificates state assays a little above 100 %.
        rules: { instrument: "The label", unit: "%", decimals: null, aboveZero: true, most: 100.1 },
        optional: true,
      },
      {
        symbol,
        kind: "purity.plus-minus",
        label: "give or take",
        unit: "%",
        hint: "half the width",
        rules: { instrument: "The label", unit: "%", decimals: null, least: 0, most: 10 },
        optional: true,
      },
    ],
    quantity: ({ presumed, of }, read, { stage }) => {
      const percent = read("purity") ?? Number(presumed.percent);
      // The presumed ± belongs to the presumed value: one that was typed brings its own, or none.
      const halfWidth =
        read("purity.plus-minus") ?? (read("purity") === null ? Number(presumed.plusMinus) : 0);
      return purity(percent / 100, halfWidth / 100, of, stage);
    },
  },
  titer: {
    unit: () => "mL",
    fields: (input, setting, rules) => [
      ...buretteFields(input, rules, setting.meniscus, ["Initial reading", "Final reading"]),
      ...asideFields(input, setting, rules),
    ],
    quantity: ({ bias }, read, place, rules) => {
      const volume = buretteQuantity(read, place, rules);
      const net = volume && withoutAddedBack(volume, read, place, volumeFactor(volumeConditions(rules)));
      return net && bias ? withoutBias(net, bias, place, rules) : net;
    },
  },
  delivered: {
    unit: () => "mL",
    fields: (input, _setting, rules) =>
      buretteFields(input, rules, "bottom", [
        `${input.label}: initial reading`,
        `${input.label}: final reading`,
      ]),
    quantity: ({ symbol }, read, place, rules) => buretteQuantity(read, place, rules, symbol),
  },
  pipette: {
    unit: () => "mL",
    fields: (input, setting, rules) => [
      volumeField(input, setting, "The pipette", `class ${rules.glassware.toleranceClass} pipette`, 100),
      {
        symbol: input.symbol,
        kind: "glass.piece",
        label: `${input.label}: pipette no.`,
        unit: "",
        hint: "2 for a second one of the same size",
        rules: { instrument: "It", unit: "", decimals: 0, least: 1, most: 99 },
        optional: true,
        aside: true,
      },
    ],
    quantity: (input, read, place, rules) => {
      const volumeMl = volumeTaken(input, read, place);
      if (volumeMl === 0) return nothingTaken;
      return volumeMl === null
        ? null
        : pipetteVolume(volumeMl, place, volumeConditions(rules), input.symbol, read("glass.piece"));
    },
    presumed: ({ presumed }) => ({ "volume.taken": presumed }),
  },
  graduated: {
    unit: () => "mL",
    fields: (input, setting) => [
      volumeField(
        input,
        setting,
        `The ${input.glass}`,
        `${input.capacityMl} mL ${input.glass}`,
        input.capacityMl,
      ),
    ],
    quantity: (input, read, place, rules) => {
      const { symbol, glass, capacityMl } = input;
      const volumeMl = volumeTaken(input, read, place);
      if (volumeMl === null) return null;
      if (volumeMl === 0) return nothingTaken;
      return graduatedVolume(volumeMl, place, volumeConditions(rules), { kind: glass, capacityMl }, symbol);
    },
    presumed: ({ presumed }) => (presumed === undefined ? {} : { "volume.taken": presumed }),
  },
  flask: {
    unit: () => "mL",
    fields: (input, setting, rules) => [
      volumeField(
        input,
        setting,
        "The flask",
        `class ${rules.glassware.toleranceClass} volumetric flask`,
        5000,
      ),
    ],
    quantity: (input, read, place, rules) => {
      const volumeMl = volumeTaken(input, read, place);
      return volumeMl === null ? null : flaskVolume(volumeMl, place, volumeConditions(rules), input.symbol);
    },
    presumed: ({ presumed }) => ({ "volume.taken": presumed }),
  },
  drops: {
    unit: () => "mL",
    fields: ({ symbol, label, perMl }) => [
      {
        symbol,
        kind: "drops",
        label,
        unit: "drops",
        hint: `${perMl.value} drops to the mL`,
        rules: { instrument: "A count", unit: "drops", decimals: 0, aboveZero: true, most: 1000 },
      },
    ],
    quantity: ({ of, perMl }, read, place) => {
      const drops = read("drops");
      if (drops === null) return null;
      const factor = { value: Number(perMl.value), plusMinus: Number(perMl.plusMinus) };
      return dropsVolume(drops, factor, place, of);
    },
  },
  temperature: {
    unit: () => "°C",
    fields: ({ symbol, label }) => [
      {
        symbol,
        kind: "temperature",
        label,
        unit: "°C",
        hint: "in the flask",
        rules: { instrument: "The thermometer", unit: "°C", decimals: null, least: -20, most: 150 },
      },
    ],
    quantity: ({ symbol, plusMinus }, read, place) => {
      const value = read("temperature");
      if (value === null) return null;
      const cause = {
        id: `thermometer:${place.stage}:${symbol}`,
        label: "Thermometer",
        group: "Thermometer",
      };
      return statedQuantity(value, "°C", Number(plusMinus), cause, place);
    },
  },
  pH: {
    unit: () => "1",
    fields: ({ symbol, label }) => [
      {
        symbol,
        kind: "pH",
        label,
        unit: "",
        hint: "when it has stopped drifting",
        rules: { instrument: "The pH meter", unit: "", decimals: null, least: -1, most: 15 },
      },
    ],
    quantity: ({ symbol, plusMinus }, read, place) => {
      const value = read("pH");
      if (value === null) return null;
      const cause = { id: `pH-meter:${place.stage}:${symbol}`, label: "pH meter", group: "pH meter" };
      return statedQuantity(value, "1", Number(plusMinus), cause, place);
    },
  },
  absorbance: {
    unit: () => "1",
    fields: (input, setting) => photometerFields(input, setting.series),
    quantity: () => null,
  },
  blank: {
    unit: () => "1",
    fields: (input) => photometerFields(input, false),
    quantity: () => null,
  },
  "read-off": {
    unit: ({ stage }, earlier) => earlier.ofAxis(stage),
    fields: () => [],
    quantity: () => null,
  },
  trace: {
    unit: () => "1",
    fields: ({ symbol }) =>
      (["window.from", "window.to"] as const).map((kind) => ({
        symbol,
        kind,
        label: kind === "window.from" ? "Window from" : "Window to",
        unit: "s",
        hint: "part of the course that is used",
        rules: { instrument: "The window", unit: "s", decimals: null, least: 0, most: 1e6 },
        optional: true,
      })),
    quantity: () => null,
  },
  constant: {
    unit: ({ unit }) => unit,
    fields: () => [],
    quantity: ({ symbol, label, value, unit, plusMinus }, _read, place) => {
      const cause = { id: `constant:${symbol}:${value}`, label, group: label };
      return statedQuantity(Number(value), unit, Number(plusMinus ?? 0), cause, place);
    },
  },
  given: {
    unit: ({ unit }) => unit,
    fields: ({ symbol, label, unit, presumed, optional, per, exact: counted }) => {
      const can = optional || (presumed && per === "run") ? { optional: true } : {};
      const least = per === "trial" ? { least: 0 } : { aboveZero: true };
      const shown = unit === "1" ? "" : unit;
      return [
        {
          symbol,
          kind: "given",
          label,
          unit: shown,
          hint: optional ? "where there is one" : "as stated",
          rules: { instrument: "It", unit: shown, decimals: null, ...least },
          ...can,
        },
        // What is counted or chosen has no ±; a bottle's belongs to what is stated once.
        ...(counted ? [] : statedSpread(symbol, shown).filter(({ hidden }) => per === "run" || !hidden)),
      ];
    },
    quantity: ({ symbol, label, unit, presumed, per }, read, place) => {
      // What is stated for each flask is typed for each; only what is stated once can be presumed.
      const usual = presumed && per === "run" ? Number(presumed.value) : null;
      const value = read("given") ?? usual;
      if (value === null) return null;
      // The presumed ± belongs to the presumed value: one that was typed brings its own.
      const half =
        read("given.plus-minus") ?? (read("given") === null ? Number(presumed?.plusMinus ?? 0) : 0);
      const whose = per === "trial" ? `:${place.trial}` : "";
      const cause = { id: `given:${place.stage}:${symbol}${whose}`, label, group: label };
      const u = read("given.standard-uncertainty");
      if (u !== null)
        return measured(value, unit, [{ leaf: leaf({ ...cause, u, stage: place.stage }), by: 1 }]);
      return statedQuantity(value, unit, half, cause, place);
    },
  },
  result: {
    unit: ({ stage, result }, earlier) => earlier.ofResult(stage, result),
    fields: () => [],
    quantity: () => null,
  },
};

/** The kind's functions; the union of inputs is matched with the table of kinds here, and nowhere else. */
const kindOf = <I extends Input>(input: I) => kinds[input.is] as unknown as InputKind<I>;

export const unitAmong = (input: Input, earlier: EarlierUnits): string => kindOf(input).unit(input, earlier);

export const fieldsOfInput = (input: Input, setting: InputSetting, rules: HouseRules): Field[] =>
  kindOf(input).fields(input, setting, rules);

export const quantityOfInput = (input: Input, read: Read, place: Place, rules: HouseRules): Quantity | null =>
  kindOf(input).quantity(input, read, place, rules);

export const presumedOf = (input: Input): Partial<Record<ObservationKind, string>> =>
  kindOf(input).presumed?.(input) ?? {};

/** How many decimals an input is written with in a working; null where its ± decides. */
export function decimalsOfInput(input: Input, rules: HouseRules): number | null {
  switch (input.is) {
    case "mass":
      return massDecimals(rules);
    case "titer":
    case "delivered":
      return buretteDecimals(rules);
    case "pipette":
    case "graduated":
    case "drops":
      return 2;
    case "flask":
      return 1;
    case "temperature":
      return 1;
    case "pH":
      return 2;
    case "absorbance":
      return 3;
    default:
      return null;
  }
}
