import { type Static, Type } from "@sinclair/typebox";
import type { Input } from "../inputs";
import type { Method, PreparationStage } from "../method";

const Closed = { additionalProperties: false } as const;
const Text = Type.String({ minLength: 1, maxLength: 120 });
const Amount = Type.String({ pattern: "^\\d+(\\.\\d+)?$", maxLength: 40 });

/** What a stock is delivered with. */
export const DeliveringGlassSchema = Type.Union([
  Type.Object({ kind: Type.Literal("burette") }, Closed),
  Type.Object({ kind: Type.Literal("pipette") }, Closed),
  Type.Object(
    {
      kind: Type.Union([Type.Literal("graduated pipette"), Type.Literal("cylinder")]),
      capacityMl: Type.Number({ exclusiveMinimum: 0 }),
    },
    Closed,
  ),
]);
export type DeliveringGlass = Static<typeof DeliveringGlassSchema>;

/** What is weighed, or taken from a stock, for one solution. */
export const MakingSchema = Type.Union([
  Type.Object(
    {
      how: Type.Literal("weighed"),
      /** Formula of the solid as it is weighed, its water with it: Na2S2O3·5H2O. */
      solid: Text,
      solidName: Text,
      weighing: Type.Union([Type.Literal("transfer"), Type.Literal("addition"), Type.Literal("tared")]),
      /** The window, in g, that the mass should fall in. */
      window: Type.Optional(Type.Tuple([Type.Number(), Type.Number()])),
      purity: Type.Object({ percent: Amount, plusMinus: Amount }, Closed),
      flaskMl: Amount,
    },
    Closed,
  ),
  Type.Object({ how: Type.Literal("diluted"), glass: DeliveringGlassSchema, flaskMl: Amount }, Closed),
]);
export type Making = Static<typeof MakingSchema>;

/** Key of the one stage of what a bottle was made by. */
export const makingKey = "make";

const stageOf = (
  title: string,
  parts: Pick<PreparationStage, "inputs" | "relations" | "result">,
): PreparationStage => ({ kind: "preparation", key: makingKey, title, steps: [], cautions: [], ...parts });

function taken(glass: DeliveringGlass): PreparationStage["inputs"][number] {
  const named = { symbol: "V_0", label: "Stock taken", of: "the stock", per: "run" } as const;
  switch (glass.kind) {
    case "burette":
      return { ...named, is: "delivered" };
    case "pipette":
      return { ...named, is: "pipette", presumed: "25.00" };
    default:
      return { ...named, is: "graduated", glass: glass.kind, capacityMl: glass.capacityMl };
  }
}

/**
 * The making of one solution as a method of one stage, so that its concentration, its ±, its cautions and its working come
 * about like those of any run: c = m P / (M V), or c = c_0 V_0 / V.
 */
export function makingMethod(formula: string, name: string, making: Making): Method {
  const flask = {
    symbol: "V",
    is: "flask",
    label: "Made up to",
    of: formula,
    per: "run",
    presumed: making.flaskMl,
  } as const;
  const result = { symbol: "c", name: `Concentration of the ${name}`, unit: "mol/L", assigns: formula };
  const stage: PreparationStage =
    making.how === "weighed"
      ? weighedStage(name, flask, result, making)
      : dilutedStage(name, flask, result, making);
  return {
    id: `making-${making.how}`,
    version: 1,
    family: "solutions",
    title: `${name}, ${making.how === "weighed" ? "weighed" : "diluted"}`,
    purpose: `How this ${name} was made.`,
    equations: [],
    substances: {
      [formula]: name,
      ...(making.how === "weighed" ? { [making.solid]: making.solidName } : {}),
    },
    stages: [stage],
    protection: [],
    hazards: [],
    waste: [],
    glassware: [],
  };
}

function weighedStage(
  name: string,
  flask: Input,
  result: PreparationStage["result"],
  making: Extract<Making, { how: "weighed" }>,
): PreparationStage {
  return stageOf(`Make the ${name}`, {
    inputs: [
      {
        symbol: "m",
        is: "mass",
        label: `Mass of ${making.solidName}`,
        of: making.solid,
        per: "run",
        weighing: making.weighing,
        ...(making.weighing === "addition"
          ? { before: "Vessel empty", after: "Vessel with the solid" }
          : { before: "Boat with solid", after: "Boat after transfer" }),
        ...(making.window ? { expect: making.window } : {}),
      },
      {
        symbol: "P",
        is: "purity",
        label: `Purity of the ${making.solidName}`,
        of: making.solid,
        per: "run",
        presumed: making.purity,
      },
      flask,
    ],
    relations: [
      { relation: `n = m * P / M(${making.solid})`, title: "Amount weighed", unit: "mmol" },
      { relation: "c = n / V", title: "Concentration made", unit: "mol/L" },
    ],
    result,
  });
}

function dilutedStage(
  name: string,
  flask: Input & { of: string },
  result: PreparationStage["result"],
  making: Extract<Making, { how: "diluted" }>,
): PreparationStage {
  return stageOf(`Make the ${name} from stock`, {
    inputs: [
      {
        symbol: "c_0",
        is: "given",
        label: "Concentration of the stock",
        of: flask.of,
        per: "run",
        unit: "mol/L",
      },
      taken(making.glass),
      flask,
    ],
    relations: [
      { relation: "n = c_0 * V_0", title: "Amount taken from the stock", unit: "mmol" },
      { relation: "c = n / V", title: "Concentration made", unit: "mol/L" },
    ],
    result,
  });
}
