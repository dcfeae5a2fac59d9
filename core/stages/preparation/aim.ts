import { type Delivering, deliveryStepMl, sizesMl } from "../../measure";
import { inputOf } from "../../method";
import { percentError } from "../../judgement";
import { inUnit, type Quantity, toDecimals, toSignificant, unitOf, withUnit } from "../../quantity";
import { presentObservation, type StageRecord } from "../../record";
import { evaluateNumber, solveForTiter } from "../../relation";
import { buretteText, dropsPerMl, type HouseRules } from "../../rules";
import { msg, type Phrase, uncapitalized } from "../../text";
import type { Input } from "../../inputs";
import type { PreparationStage } from "../../method";
import type { CompiledMethod, CompiledStage } from "../compiled";
import type { AimView } from "../shared/evaluation";

/** The glass that an input is delivered by; null for what no glass delivers. */
function glassOf(input: Input): Delivering | null {
  if (input.is === "delivered") return { kind: "burette" };
  if (input.is === "pipette") return { kind: "pipette" };
  return input.is === "graduated" ? { kind: input.glass, capacityMl: input.capacityMl } : null;
}

/** A volume as its glass can deliver it, mL: by its divisions, or the nearest one-mark pipette. */
function deliverable(exactMl: number, glass: Delivering, rules: HouseRules): number {
  const step = deliveryStepMl(glass, {
    capacityMl: rules.burette.capacityMl,
    resolutionMl: rules.burette.resolutionMl,
    dropMl: 1 / Number(dropsPerMl(rules)),
  });
  if (step !== null) return Number((Math.round(exactMl / step) * step).toFixed(6));
  const apart = (sizeMl: number) => Math.abs(sizeMl - exactMl);
  return sizesMl("pipette").reduce((best, sizeMl) => (apart(sizeMl) < apart(best) ? sizeMl : best));
}

/** The error against a target, as the house writes it: "7.0 % below". */
function offBy(found: number, target: number, rules: HouseRules): Phrase {
  const error = percentError(found, target);
  const size = toDecimals(Math.abs(error), 1);
  if (Number(size) === 0) return msg`on the target`;
  if (rules.percentError === "absolute") return msg`${size} % off the target`;
  return error < 0 ? msg`${size} % below the target` : msg`${size} % above the target`;
}

/** A target, what is taken to meet it, and what that makes; null where something else is still to be read. */
function aiming(
  { definition, lines }: CompiledStage<PreparationStage>,
  known: ReadonlyMap<string, Quantity>,
  { stoichiometry }: CompiledMethod,
  rules: HouseRules,
) {
  const { aim } = definition;
  const target = aim && known.get(aim.at);
  const by = aim && inputOf(definition, aim.by);
  const glass = by ? glassOf(by) : null;
  if (!aim || !target || !by || !glass) return null;
  const numbers = new Map([...known].map(([symbol, q]) => [symbol, q.value] as const));
  const solved = solveForTiter({
    ...{ relations: lines, stoichiometry, known: numbers },
    ...{ titer: aim.by, target: aim.symbol, value: target.value },
  });
  if (!solved.ok) return null;
  const makes = (ml: number): number => {
    numbers.set(aim.by, ml * unitOf("mL").factor);
    for (const { symbol, expression } of lines)
      numbers.set(symbol, evaluateNumber(expression, { numbers, stoichiometry }));
    return numbers.get(aim.symbol) ?? NaN;
  };
  const exactMl = solved.value;
  const within = aim.within === undefined ? undefined : known.get(aim.within);
  return {
    ...{ glass, makes, exactMl, target: target.value, what: uncapitalized(by.label) },
    plannedMl: deliverable(exactMl, glass, rules),
    withinMl: within ? inUnit(within, "mL") : Infinity,
    decimals: glass.kind === "burette" || glass.kind === "pipette" ? 2 : 1,
  };
}
type Aiming = NonNullable<ReturnType<typeof aiming>>;

/** Why a target cannot be met as things stand; null where it can. `startMl` is where a burette was read before. */
function whyNot(
  { exactMl, plannedMl, withinMl, what, decimals }: Aiming,
  startMl: number | null,
  { burette: { capacityMl } }: HouseRules,
): Phrase | null {
  if (exactMl > withinMl + 1e-9)
    return msg`${what}: ${toSignificant(exactMl, 3)} mL do not fit into ${toSignificant(withinMl, 3)} mL. The stock is weaker than the target: take a stronger one`;
  if (plannedMl <= 0)
    return msg`${what}: ${toSignificant(exactMl, 2)} mL is less than this glass can measure. Make it in two steps, or more of it`;
  if (startMl !== null && startMl + plannedMl > capacityMl + 1e-9)
    return msg`${what}: ${toDecimals(plannedMl, decimals)} mL from ${toDecimals(startMl, 2)} would end past the last mark at ${capacityMl}. Refill the burette first`;
  return null;
}

/** What was made of what was taken, beside what was planned. */
function madeWords(
  { makes, plannedMl, target, decimals }: Aiming,
  takenMl: number,
  unit: string,
  rules: HouseRules,
): Phrase {
  const made = makes(takenMl);
  const more = takenMl - plannedMl;
  const amount = toDecimals(Math.abs(more), decimals);
  const beside =
    Math.abs(more) < 1e-6
      ? ""
      : more > 0
        ? msg` ${amount} mL more than planned.`
        : msg` ${amount} mL less than planned.`;
  return msg`That makes ${concentration(made, unit)}, ${offBy(made, target, rules)}.${beside}`;
}

const concentration = (value: number, unit: string): Phrase =>
  withUnit(toSignificant(value / unitOf(unit).factor, 4), unit);

/**
 * What to take so that something made comes to its target (c_1 V_1 = c_2 V_2 and the like, by the stage's own relations), rounded to
 * what the glass delivers, with where to stop a burette; once it is taken, what that makes. Null where the stage has no target, or
 * something else is still to be read.
 */
export function aimOf(
  stage: CompiledStage<PreparationStage>,
  record: StageRecord,
  known: ReadonlyMap<string, Quantity>,
  method: CompiledMethod,
  rules: HouseRules,
): AimView | null {
  const aimed = aiming(stage, known, method, rules);
  const { aim, result } = stage.definition;
  if (!aim || !aimed) return null;
  const taken = known.get(aim.by);
  if (taken) return { state: "made", text: madeWords(aimed, inUnit(taken, "mL"), result.unit, rules) };
  const { glass, plannedMl, makes, target, what, decimals } = aimed;
  const isBurette = glass.kind === "burette";
  const start = isBurette ? presentObservation(record.observations, aim.by, "burette.initial") : null;
  const startMl = start ? Number(start.value) : null;
  const problem = whyNot(aimed, startMl, rules);
  if (problem !== null) return { state: "problem", text: problem };
  const amount = toDecimals(plannedMl, decimals);
  const where =
    start && startMl !== null
      ? msg`: from ${start.text}, stop at ${buretteText(startMl + plannedMl, rules)}`
      : isBurette
        ? msg`: stop at the start reading and ${amount}`
        : "";
  const made = makes(plannedMl);
  return {
    state: "take",
    text: msg`Take ${amount} mL, ${what}${where}. It makes ${concentration(made, result.unit)}, ${offBy(made, target, rules)}.`,
  };
}
