import { withUnit } from "../quantity";
import { mean } from "../statistics";
import { perOf, type Reagent, type ComputedStage } from "../method";
import {
  inBaseUnits,
  type PlanChoices,
  type PlannedAmount,
  planningOf,
  chosenUnit,
  type StagePlan,
  type CompiledMethod,
  type StageChoices,
  type Planning,
} from "../stages";
import { takenOver, usualOf, isOptional, plannedOf } from "../inputs";
import { type Phrase } from "../text";

/** What is known of a stage's inputs by what is chosen or usual, or by the plan of an earlier stage. */
function knownNumbers(
  compiled: CompiledMethod,
  stage: ComputedStage,
  { amounts }: StageChoices,
  found: ReadonlyMap<string, ReadonlyMap<string, number>>,
): Pick<Planning, "numbers" | "missing"> {
  const numbers = new Map<string, number>();
  const missing: string[] = [];
  for (const input of stage.inputs) {
    if (input.is === "titer" || input.is === "curve") continue;
    const taken = takenOver(input);
    if (taken) {
      const earlier = compiled.method.stages.find((s) => s.key === taken.stage);
      const value = found.get(taken.stage)?.get(taken.result ?? earlier?.result.symbol ?? "");
      if (value === undefined) missing.push(input.label);
      else numbers.set(input.symbol, value);
      continue;
    }
    const value = amounts?.[input.symbol] ?? usualOf(input);
    if (value !== null) numbers.set(input.symbol, inBaseUnits(input, value, compiled));
    else if (!isOptional(input)) missing.push(input.label);
  }
  return { numbers, missing };
}

/** Everything of a stage that a number can be chosen for, for all benches and trials. */
function plannedAmounts(
  compiled: CompiledMethod,
  stage: ComputedStage,
  { benches, trials, marginPercent }: PlanChoices,
  chosen: StageChoices,
): PlannedAmount[] {
  const { flasks, series } = planningOf(stage);
  const taken = series?.(stage);
  return stage.inputs.flatMap((input): PlannedAmount[] => {
    const planned = plannedOf(input);
    if (!planned) return [];
    const { symbol, label } = input;
    const inSeries = taken?.symbol === symbol ? mean(taken.texts.map(Number)) : null;
    const value = chosen.amounts?.[symbol] ?? inSeries ?? usualOf(input);
    if (value === null) return [];
    const per = perOf(input);
    const uses = benches * (per === "trial" ? flasks(stage, trials) : 1) * (1 + marginPercent / 100);
    const unit = chosenUnit(input, compiled);
    return [{ symbol, label, unit, value, per, total: value * uses, consumed: planned.consumed }];
  });
}

/** A plan for each stage, in the order of the work. */
export function planMethod(compiled: CompiledMethod, choices: PlanChoices): StagePlan[] {
  const found = new Map<string, ReadonlyMap<string, number>>();
  return [...compiled.stages.values()].map((stage) => {
    const { definition } = stage;
    const { key, title, kind, result } = definition;
    const chosen = choices.stages[key] ?? {};
    const known = knownNumbers(compiled, definition, chosen, found);
    const keep = (all: ReadonlyMap<string, number>) => void found.set(key, all);
    const { value, ...planned } = planningOf(definition).plan(stage, {
      compiled,
      choices,
      chosen,
      ...known,
      keep,
    });
    return {
      key,
      title,
      kind,
      amounts: plannedAmounts(compiled, definition, choices, chosen),
      result: { name: result.name, unit: result.unit, value },
      titrant: null,
      titerMl: null,
      suffices: null,
      forTarget: null,
      titrantMl: null,
      stock: null,
      ...planned,
    };
  });
}

export interface ShoppingLine {
  readonly name: string;
  readonly each: string;
  /** True where that is for all flasks of a bench together. */
  readonly once: boolean;
  /** For all, margin included; null where the amount is no number, or one in two units. */
  readonly total: Phrase | null;
}

/** Whether a reagent is measured once for all flasks, as a sample that is diluted. */
function isOnce({ measured }: Reagent, { inputs }: ComputedStage): boolean {
  const input = inputs.find(({ symbol }) => symbol === measured);
  return input !== undefined && perOf(input) === "run";
}

/** How much of a reagent a stage takes at one bench; null where that is no number. */
function takenOf(reagent: Reagent, stage: ComputedStage, trials: number) {
  const { quantity } = reagent;
  if (!quantity) return null;
  if (isOnce(reagent, stage)) return { amount: quantity.most, unit: quantity.unit };
  const { reagentFlasks, series } = planningOf(stage);
  const { most, unit, of } = quantity;
  const together =
    of === "series" ? series?.(stage).texts.reduce((sum, each) => sum + Number(each), 0) : undefined;
  return { amount: together ?? most * reagentFlasks(stage, trials), unit };
}

/** What is needed of each reagent by all benches. The same reagent in two stages is added up. */
export function shoppingList(
  stages: readonly ComputedStage[],
  { benches, trials, marginPercent }: Pick<PlanChoices, "benches" | "trials" | "marginPercent">,
): ShoppingLine[] {
  const all = stages.flatMap((stage) => (stage.reagents ?? []).map((reagent) => ({ reagent, stage })));
  const names = [...new Set(all.map(({ reagent }) => reagent.name))];
  return names.map((name) => {
    const own = all.filter(({ reagent }) => reagent.name === name);
    const each = [...new Set(own.map(({ reagent }) => reagent.amount))].join(", ");
    const once = own.every(({ reagent, stage }) => isOnce(reagent, stage));
    const taken = own.map(({ reagent, stage }) => takenOf(reagent, stage, trials));
    const unit = taken[0]?.unit;
    if (unit === undefined || taken.some((t) => t?.unit !== unit)) return { name, each, once, total: null };
    const amount = taken.reduce((sum, t) => sum + (t?.amount ?? 0), 0);
    return {
      name,
      each,
      once,
      total: withUnit(roundUp(amount * benches * (1 + marginPercent / 100), unit), unit),
    };
  });
}

/** Two figures, upward: nobody is short for it. Drops are whole. */
function roundUp(x: number, unit: string): string {
  if (!(x > 0)) return "0";
  const step = 10 ** (Math.floor(Math.log10(x)) - 1);
  const rounded = Number((Math.ceil(x / step - 1e-9) * step).toPrecision(6));
  return String(unit === "drops" ? Math.ceil(rounded) : rounded);
}
