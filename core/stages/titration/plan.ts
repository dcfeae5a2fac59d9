import {
  inBaseUnits,
  chosenUnit,
  type PlannedByKind,
  followed,
  type StagePlanning,
  type Planning,
  type StagePlan,
} from "../shared/planning";
import { failure, type Result } from "../../result";
import { unitOf } from "../../quantity";
import { solveForTiter, findRoot } from "../../relation";
import { inputOf, perOf, type TitrationStage } from "../../method";
import { plannedOf, type Input } from "../../inputs";
import { startsRough } from "./trial";
import { type CompiledTitration } from "./compile";
import { msg, type Phrase } from "../../text";

/** What two rinses and the filled tip of a burette use up, mL a bench. Common practice, no source. */
export const rinsingMl = 15;

/** A titer below this part of the burette is read poorly. Common practice, no source. */
const poorPart = 0.2;

/** What varies from flask to flask and decides the titer: what titers are taken per, else the first thing measured out. */
function decidingInput(stage: TitrationStage): Input | null {
  const measured = (i: Input) => plannedOf(i)?.measured === true;
  const per = stage.agree.per === undefined ? undefined : inputOf(stage, stage.agree.per);
  return per ?? stage.inputs.find((i) => perOf(i) === "trial" && measured(i)) ?? null;
}

function burettePlan(titerMl: number, buretteMl: number): Phrase {
  const about = msg`About ${titerMl.toFixed(1)} mL a flask`;
  if (titerMl > buretteMl)
    return msg`${about}: more than the ${buretteMl} mL burette holds. Take less, or a larger burette.`;
  if (titerMl > 0.95 * buretteMl)
    return msg`${about}: just within the ${buretteMl} mL burette. Start at zero, or take less.`;
  if (titerMl < poorPart * buretteMl) {
    return msg`${about}: little for a ${buretteMl} mL burette, so the reading uncertainty matters. Take more, or a smaller burette.`;
  }
  return msg`${about}: within the ${buretteMl} mL burette.`;
}

/** The titer that gives what is expected, mL; or why there is none. */
function titerOf(
  { definition, lines, titer }: CompiledTitration,
  known: ReadonlyMap<string, number>,
  expected: number,
  { compiled }: Planning,
): Result<number> {
  const { symbol, unit } = definition.result;
  return solveForTiter({
    relations: lines,
    stoichiometry: compiled.stoichiometry,
    known,
    titer,
    target: symbol,
    value: expected * unitOf(unit).factor,
  });
}

/** What to take so that the wanted titer comes out; null where it cannot be had, or none is wanted. */
function forTarget(stage: CompiledTitration, expected: number, planning: Planning): StagePlan["forTarget"] {
  const { numbers: known, chosen, compiled } = planning;
  const { targetMl } = chosen;
  const input = decidingInput(stage.definition);
  const now = input ? known.get(input.symbol) : undefined;
  if (targetMl === undefined || !input || now === undefined) return null;
  const numbers = new Map(known);
  const difference = (amount: number): number => {
    numbers.set(input.symbol, amount);
    const titer = titerOf(stage, numbers, expected, planning);
    return titer.ok ? titer.value - targetMl : NaN;
  };
  // A back-titration has no end point with too much sample: look as far up as there is one.
  const reached = [now * 50, now * 10, now * 3, now * 1.5, now].find((a) => Number.isFinite(difference(a)));
  const root = reached === undefined ? failure("none") : findRoot(difference, now / 50, reached, 1e-9);
  if (!root.ok) return null;
  const value = root.value / inBaseUnits(input, 1, compiled);
  return { label: input.label, unit: chosenUnit(input, compiled), value };
}

/** Stock to be diluted to the titrant that is needed. */
function stockFor(
  { definition }: CompiledTitration,
  titrantMl: number,
  { numbers, chosen: { result: expected, stockMolPerL } }: Planning,
): StagePlan["stock"] {
  const { inputs, result, presumed } = definition;
  const titrant = inputs.find((i) => i.is === "titer")?.titrant;
  const given = inputs.find((i) => i.is === "given" && i.of === titrant && i.unit === "mol/L");
  const symbol = (given ?? inputs.find((i) => i.is === "result" && i.of === titrant))?.symbol;
  const assigned = result.assigns === titrant ? (expected ?? presumed) : undefined;
  const working = symbol === undefined ? assigned : numbers.get(symbol);
  if (stockMolPerL === undefined || working === undefined || !(stockMolPerL >= working)) return null;
  return { ml: (working * titrantMl) / stockMolPerL, toMl: titrantMl };
}

function plan(stage: CompiledTitration, planning: Planning): PlannedByKind {
  const { definition, titer } = stage;
  const { chosen, choices, numbers, missing } = planning;
  const expected = chosen.result ?? definition.presumed ?? null;
  const titrant = definition.inputs.find((i) => i.is === "titer")?.titrant ?? null;
  const solved: Result<number> =
    expected === null
      ? failure(msg`Type what ${definition.result.name.toLowerCase()} you expect`)
      : missing.length > 0
        ? failure(msg`Still needed: ${missing.join(", ")}`)
        : titerOf(stage, numbers, expected, planning);
  if (!solved.ok) return { value: expected, titrant, message: solved.problem.message };
  const titerMl = solved.value;
  planning.keep(followed(stage, new Map(numbers).set(titer, titerMl * unitOf("mL").factor), planning));
  const { benches, trials, marginPercent, buretteMl } = choices;
  const titrantMl = benches * (trials * titerMl * (1 + marginPercent / 100) + rinsingMl);
  return {
    value: expected,
    titrant,
    titerMl,
    suffices: titerMl <= buretteMl,
    message: burettePlan(titerMl, buretteMl),
    forTarget: forTarget(stage, expected ?? NaN, planning),
    titrantMl,
    stock: stockFor(stage, titrantMl, planning),
  };
}

export const titrationPlanning: StagePlanning<CompiledTitration> = {
  plan,
  flasks: (_stage, trials) => trials,
  reagentFlasks: (_stage, trials) => trials,
  startsRough,
};
