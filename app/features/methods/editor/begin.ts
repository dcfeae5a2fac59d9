import { equationsOf, reactingOf } from "~/core/method";
import type { MethodDraft, StageDraft } from "./draft-types";
import type { Row } from "./row";

/* How a new stage begins: from the reaction and the titrant that the method has already. */

/** Species that stand in many reactions and are nobody's sample. */
const commonplace = new Set(["H2O", "H+", "H3O+", "OH-", "e-"]);

/** What a substance is called in a method; its formula where it has no name. */
export const nameOf = ({ substances }: MethodDraft, formula: string): string =>
  substances.find((row) => (row.formula ?? "").trim() === formula)?.name?.trim() || formula;

/** The titer of a stage; undefined where nothing is titrated in it. */
export const titerRow = ({ inputs }: StageDraft): Row | undefined => inputs.find(({ is }) => is === "titer");

/** What reacts of a substance by the equations of a method, as relations name it; itself where they do not hold it. */
export const speciesOf = ({ equations }: MethodDraft, of: string): string =>
  reactingOf(equationsOf(equations.map((row) => ({ equation: row.equation ?? "" }))), of)?.species.source ??
  of;

/** Species that react with one in an equation of the method, those last that a stage titrates already. */
function partnersOf(draft: MethodDraft, species: string): readonly string[] {
  const equations = equationsOf(draft.equations.map((row) => ({ equation: row.equation ?? "" })));
  const taken = new Set(
    draft.stages.flatMap(({ inputs }) =>
      inputs.filter(({ is }) => is !== "titer").map(({ of }) => speciesOf(draft, of ?? "")),
    ),
  );
  const found = equations
    .filter(({ left }) => left.some(({ formula }) => formula.source === species))
    .flatMap(({ left }) => left.map(({ formula }) => formula.source))
    .filter((source) => source !== species && !commonplace.has(source));
  return [...found.filter((one) => !taken.has(one)), ...found.filter((one) => taken.has(one))];
}

/** Titrations of a method, the last first. */
const titrationsOf = ({ stages }: MethodDraft): readonly StageDraft[] => stages.filter(titerRow).toReversed();

export interface Begun {
  /** Formula of what is titrated with, and its species in the equations. */
  readonly titrant: string;
  readonly titrantSpecies: string;
  /** What is titrated. */
  readonly sample: string;
  /** The titration before it, whose indicator and burette are taken over. */
  readonly like: StageDraft | undefined;
  /** How the concentration of the titrant is had: from the stage that finds it, or stated. */
  readonly known: Row;
}

/** What a further titration of a method is about: the titrant that is found or known already, and what it reacts with. */
export function nextTitration(draft: MethodDraft): Begun {
  const [like] = titrationsOf(draft);
  const finder = draft.stages.findLast(({ assigns }) => assigns !== "");
  const titrant = finder?.assigns || (like && titerRow(like)?.of) || "NaOH";
  const titrantSpecies = speciesOf(draft, titrant);
  const sample = partnersOf(draft, titrantSpecies)[0] ?? "HCl";
  const label = `Concentration of the ${nameOf(draft, titrant)}`;
  const stated = draft.stages
    .flatMap(({ inputs }) => inputs)
    .find(({ is, of }) => is === "given" && of === titrant);
  const known: Row =
    finder?.assigns === titrant
      ? { is: "result", symbol: "c_t", label, of: titrant, per: "run", stage: finder.key, result: "" }
      : {
          ...(stated ?? { value: "0.1000", plusMinus: "0.0002", unit: "mol/L" }),
          is: "given",
          symbol: "c_t",
          label,
          of: titrant,
          per: "run",
        };
  return { titrant, titrantSpecies, sample, like, known };
}

/** A primary standard, and what it is weighed for. Common practice, no source. */
interface Standard {
  readonly titrant: string;
  readonly solid: string;
  readonly name: string;
  readonly equations: readonly Row[];
  /** What is weighed into each flask, g; for 250 mL of a solution of it, g. */
  readonly flask: readonly [string, string];
  readonly solution: readonly [string, string];
}

export const standards: readonly Standard[] = [
  {
    titrant: "NaOH",
    solid: "KHC8H4O4",
    name: "potassium hydrogen phthalate",
    equations: [{ name: "the standard", equation: "KHC8H4O4 + NaOH -> KNaC8H4O4 + H2O" }],
    flask: ["0.4", "0.6"],
    solution: ["4.8", "5.4"],
  },
  {
    titrant: "HCl",
    solid: "Na2CO3",
    name: "sodium carbonate",
    equations: [{ name: "the standard", equation: "Na2CO3 + 2 HCl -> 2 NaCl + H2O + CO2" }],
    flask: ["0.10", "0.16"],
    solution: ["1.25", "1.40"],
  },
  {
    titrant: "KMnO4",
    solid: "Na2C2O4",
    name: "sodium oxalate",
    equations: [
      { name: "the standard", equation: "2 MnO4- + 5 C2O4^2- + 16 H+ -> 2 Mn^2+ + 10 CO2 + 8 H2O" },
    ],
    flask: ["0.15", "0.30"],
    solution: ["1.6", "1.8"],
  },
  {
    titrant: "Na2S2O3",
    solid: "KIO3",
    name: "potassium iodate",
    equations: [
      { name: "iodine set free", equation: "IO3- + 5 I- + 6 H+ -> 3 I2 + 3 H2O" },
      { name: "iodine titrated", equation: "I2 + 2 S2O3^2- -> 2 I- + S4O6^2-" },
    ],
    flask: ["0.07", "0.12"],
    solution: ["0.85", "0.95"],
  },
];

/** The standard for the titrant of a method's first titration; the first one of the table where none is known for it. */
export function standardFor(draft: MethodDraft): Standard & { readonly titrantOf: string } {
  const first = draft.stages.find(titerRow);
  const titrantOf = (first && titerRow(first)?.of) || "NaOH";
  const known = standards.find(({ titrant }) => titrant === titrantOf);
  const [phthalate] = standards;
  return { ...(known ?? { ...phthalate!, equations: [] }), titrantOf };
}

/** A method with the equations and names of a standard, those that it does not have yet. */
export function withStandard(draft: MethodDraft, { equations, solid, name }: Standard): MethodDraft {
  const has = new Set(draft.equations.map((row) => (row.equation ?? "").replace(/\s+/g, "")));
  const named = draft.substances.some((row) => row.formula === solid);
  return {
    ...draft,
    equations: [
      ...equations.filter((row) => !has.has((row.equation ?? "").replace(/\s+/g, ""))),
      ...draft.equations,
    ],
    substances: named ? draft.substances : [...draft.substances, { formula: solid, name }],
  };
}

/** A method in whose titrations the titrant's concentration comes from a stage instead of being stated. */
export const foundBy = (draft: MethodDraft, key: string, titrant: string): MethodDraft => ({
  ...draft,
  stages: draft.stages.map((stage) => ({
    ...stage,
    inputs: stage.inputs.map((row) =>
      row.is === "given" && row.of === titrant
        ? {
            is: "result",
            symbol: row.symbol ?? "c_t",
            label: row.label ?? "",
            of: titrant,
            per: "run",
            stage: key,
            result: "",
          }
        : row,
    ),
  })),
});
