import type { Method } from "~/core/method";
import { aliased, type MethodAlias } from "~/core/run";
import { calciumEquations } from "./complexometric/edta-by-metal";
import { ammoniaHazard, authority } from "../parts/safety";
import { edtaGlassware, permanganateGlassware } from "../parts/glassware";
import { edtaSubstances } from "../parts/equations";

/*
 * Names for what differs from a method of the library by choices of a run alone: other glass, nothing diluted, one of its stages. A run
 * that is begun under one of them is a run of the method, in which the choices can be taken back.
 */
export const aliases: readonly MethodAlias[] = [
  {
    id: "acid-by-cylinder",
    of: "acid-by-base",
    title: "First titration: an acid measured out by cylinder",
    purpose:
      "Find the concentration of a strong acid in a first lesson, with a cylinder in place of a pipette.",
    differs: "the acid is measured out by cylinder, which rules the ±",
    choices: [
      {
        stageKey: "determine",
        input: {
          symbol: "V_a",
          is: "graduated",
          glass: "cylinder",
          label: "Acid by cylinder",
          of: "HCl",
          per: "trial",
          capacityMl: 25,
          presumed: "20.0",
        },
      },
    ],
    instead: { glassware: ["50 mL burette", "25 mL measuring cylinder", "250 mL conical flasks"] },
  },
  {
    id: "weak-acid-in-drops",
    of: "weak-acid-in-food",
    title: "Acetic acid in a pickling liquor, counted in drops",
    purpose: "Find how strong a vinegar or pickling liquor is from a stated number of drops.",
    differs: "a few drops are counted into each flask; nothing is diluted",
    choices: [
      { stageKey: "determine", adapted: "undiluted" },
      {
        stageKey: "determine",
        input: {
          symbol: "V_a",
          is: "drops",
          label: "Drops of the liquor",
          of: "the liquor",
          per: "trial",
          perMl: { value: "20", plusMinus: "1" },
          presumedMl: "2.50",
        },
      },
    ],
    instead: {
      glassware: ["50 mL burette", "dropper", "10 mL measuring cylinder", "250 mL conical flasks"],
    },
  },
  {
    id: "permanganate-by-iron",
    of: "iron-in-solution",
    title: "Permanganate by iron(II), weighed into each flask",
    purpose: "Fix the concentration of a permanganate solution against a weighed iron(II) salt.",
    differs: "only the permanganate is standardized",
    apart: true,
    choices: [{ stageKey: "determine", adapted: "left-out" }],
    instead: { glassware: [...permanganateGlassware, "weighing boats", "balance reading to 0.1 mg"] },
  },
  {
    id: "edta-by-calcium-carbonate",
    of: "water-hardness",
    title: "EDTA by calcium carbonate",
    purpose: "Fix the concentration of an EDTA solution against weighed calcium carbonate.",
    differs: "only the EDTA is standardized",
    apart: true,
    choices: [{ stageKey: "total", adapted: "left-out" }],
    instead: {
      equations: calciumEquations,
      substances: { CaCO3: "calcium carbonate", ...edtaSubstances },
      hazards: [
        ammoniaHazard,
        "Hydrochloric acid is corrosive: acid into water, never water into acid.",
        authority,
      ],
      glassware: edtaGlassware,
    },
  },
];

const byId = new Map(aliases.map((alias) => [alias.id, alias]));

/** The alias of this id; null for a method and for what nobody knows. */
export const aliasOf = (id: string): MethodAlias | null => byId.get(id) ?? null;

/** The methods of a library with those that have an alias beside them, as they are then. */
export const withAliases = (methods: readonly Method[]): readonly Method[] => [
  ...methods.filter(({ id }) => !byId.has(id)),
  ...aliases.flatMap((alias) => {
    const method = methods.find(({ id }) => id === alias.of);
    return method ? [aliased(alias, method)] : [];
  }),
];
