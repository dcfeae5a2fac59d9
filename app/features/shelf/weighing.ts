import type { SolutionView } from "~/protocol/shelf";
import { substanceOf, substances } from "~/catalog/substances";
import { type HouseRules, massDecimals } from "~/core/rules";
import { withPoint, msg } from "~/core/text";
import { parseFormula, prettyFormula } from "~/core/chemistry";
import { type Making, massForSolution } from "~/core/prepare";
import { daysFrom, evaluateMaking } from "./parts";
import { numberIn } from "../../ui/number-in";

export const weighings = [
  { value: "transfer", label: msg`by difference: boat with solid, boat after transfer` },
  { value: "addition", label: msg`by difference: vessel empty, vessel with the solid` },
  { value: "tared", label: msg`tared: the mass as shown` },
] as const;

export type Weighing = (typeof weighings)[number]["value"];

export const freshWeighing = {
  substance: "KHC8H4O4",
  solid: "KHC8H4O4",
  name: "potassium hydrogen phthalate, 0.1 mol/L",
  target: "0.1",
  volume: "250",
  purity: "100.00",
  purityPlusMinus: "0.05",
  weighing: "transfer",
  fromId: "",
  person: "",
  amount: "250",
  restandardizeBy: "",
  hazards: "",
  note: "",
};

type FormChanges = Readonly<Record<string, string>>;

/** What a form takes over with a substance that is chosen, or typed as a formula. */
export function changesBySubstance(chosen: string, target: string, today: string): FormChanges {
  const substance = substances.find((s) => s.formula === chosen || s.name === chosen);
  const next = substance?.formula ?? chosen;
  return {
    substance: next,
    solid: substance?.madeFrom ?? next,
    ...(substance
      ? {
          name: `${substance.name}, ${target} mol/L`,
          purity: substance.purity?.[0] ?? "100",
          purityPlusMinus: substance.purity?.[1] ?? "0.5",
          hazards: substance.hazards.startsWith("none") ? "" : substance.hazards,
          restandardizeBy: daysFrom(today, substance.restandardizeDays),
        }
      : {}),
    fromId: "",
  };
}

/** What a form takes over with the jar that is weighed from; with none, its purity is typed. */
export function changesByJar(jar: SolutionView | undefined, formula: string, target: string): FormChanges {
  if (!jar?.current) return { fromId: jar?.id ?? "" };
  const fits = substanceOf(formula)?.madeFrom === jar.formula || formula === jar.formula;
  return {
    fromId: jar.id,
    solid: jar.formula,
    purity: jar.current.value,
    purityPlusMinus: jar.current.plusMinus,
    ...(fits ? {} : { substance: jar.formula, name: `${jar.name}, ${target} mol/L` }),
  };
}

/** What the form means: the making, the plan for it, and what the readings typed so far come to. */
export function weighingOf(values: Readonly<Record<string, string>>, rules: HouseRules) {
  const [formula, solid] = [(values.substance ?? "").trim(), (values.solid ?? "").trim()];
  const plan = massForSolution({
    formula: solid,
    molPerL: numberIn(values.target) ?? 0,
    volumeMl: numberIn(values.volume) ?? 0,
    purityPercent: numberIn(values.purity) ?? 0,
  });
  const decimals = massDecimals(rules);
  const weighing = (values.weighing ?? "transfer") as Weighing;
  const making: Making = {
    how: "weighed",
    solid,
    solidName: substanceOf(solid)?.name ?? prettyOr(solid),
    weighing,
    ...(plan.ok ? { window: rounded(plan.value.window) } : {}),
    purity: { percent: plain(values.purity, "100"), plusMinus: plain(values.purityPlusMinus, "0") },
    flaskMl: plain(values.volume, "0"),
  };
  const name = (values.name ?? "").trim() || "solution";
  const keys = weighing === "tared" ? ["m:mass.tared"] : ["m:mass.before", "m:mass.after"];
  const typed = Object.fromEntries([...keys, "V:volume.taken"].map((key) => [key, values[key] ?? ""]));
  const evaluated = evaluateMaking(formula, name, making, typed, rules);
  return { formula, making, typed, solid, keys, weighing, evaluated, decimals, plan };
}

const prettyOr = (formula: string) => (parseFormula(formula).ok ? prettyFormula(formula) : formula);

const rounded = ([low, high]: readonly [number, number]): [number, number] => [
  Number(low.toPrecision(3)),
  Number(high.toPrecision(3)),
];

const plain = (text: string | undefined, otherwise: string): string =>
  numberIn(text) === null ? otherwise : withPoint(text).replace(/^\./, "0.");
