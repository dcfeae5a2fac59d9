import { typedIn, plannedOf, takenOver, usualOf, isOptional } from "../inputs";
import { unitOf } from "../quantity";
import { evaluateNumber, findRoot, solveForTiter } from "../relation";
import { failure, type Result } from "../result";
import {
  type AssayStage,
  type CalibrationStage,
  type CompiledMethod,
  compiledStage,
  type CompiledStage,
  type ComputedStage,
  inputOf,
  perOf,
  type Reagent,
  unitOfInput,
} from "../method";
import type { Input } from "../inputs";

/** What somebody has, or wants, where it is not what the method takes as usual. Numbers in the unit that is shown. */
export interface StageChoices {
  /** Expected result of the stage. */
  readonly result?: number;
  /** By symbol: a mass, a volume, a concentration that is at hand. */
  readonly amounts?: Readonly<Record<string, number>>;
  /** The titer that is wanted, mL. */
  readonly targetMl?: number;
  /** Concentration of the stock that the titrant is diluted from, mol/L. */
  readonly stockMolPerL?: number;
}

export interface PlanChoices {
  readonly buretteMl: number;
  readonly benches: number;
  /** Trials of each bench, the rough one with them. */
  readonly trials: number;
  readonly marginPercent: number;
  readonly stages: Readonly<Record<string, StageChoices>>;
}

export interface PlannedAmount {
  readonly symbol: string;
  readonly label: string;
  readonly unit: string;
  readonly value: number;
  readonly per: "trial" | "run";
  /** For all benches and trials, margin included. */
  readonly total: number;
  /** True for what is used up: a mass or a volume, but not the flask that something is made up in. */
  readonly consumed: boolean;
}

export interface StagePlan {
  readonly key: string;
  readonly title: string;
  readonly kind: ComputedStage["kind"];
  /** Everything that a number can be chosen for, with the number taken now. */
  readonly amounts: readonly PlannedAmount[];
  readonly result: { readonly name: string; readonly unit: string; readonly value: number | null };
  readonly titrant: string | null;
  readonly titerMl: number | null;
  /** Whether the burette holds the expected titer; null where none is expected. */
  readonly suffices: boolean | null;
  /** What the plan comes to, in a sentence. */
  readonly message: string;
  /** What to take so that the wanted titer comes out; null where it cannot be had, or none is wanted. */
  readonly forTarget: { readonly label: string; readonly unit: string; readonly value: number } | null;
  /** Titrant for all, mL, with what rinsing and filling use up. */
  readonly titrantMl: number | null;
  /** Stock to be diluted to so much titrant. */
  readonly stock: { readonly ml: number; readonly toMl: number } | null;
}

/** What two rinses and the filled tip of a burette use up, mL a bench. Common practice, no source. */
export const rinsingMl = 15;

/** A titer below this part of the burette is read poorly. Common practice, no source. */
const poorPart = 0.2;

/** What a flask of a series takes on the average; null for what makes no series. */
function seriesMean(stage: ComputedStage, { symbol }: Input): number | null {
  if (stage.kind !== "calibration" || stage.series.symbol !== symbol) return null;
  return seriesSum(stage) / stage.series.values.length;
}

const seriesSum = ({ series }: CalibrationStage) =>
  series.values.reduce((sum, value) => sum + Number(value), 0);

/** Unit in which a number is chosen for an input. */
const chosenUnit = (input: Input, compiled: CompiledMethod): string =>
  typedIn(input)?.unit ?? unitOfInput(input, compiled.method);

const inBaseUnits = (input: Input, value: number, compiled: CompiledMethod): number =>
  value * (typedIn(input)?.size ?? unitOf(unitOfInput(input, compiled.method)).factor);

/** What varies from flask to flask and decides the titer: what titers are taken per, else the first thing measured out. */
function decidingInput(stage: ComputedStage): Input | null {
  if (stage.kind !== "titration") return null;
  const measured = (i: Input) => plannedOf(i)?.measured === true;
  const per = stage.agree.per === undefined ? undefined : inputOf(stage, stage.agree.per);
  return per ?? stage.inputs.find((i) => perOf(i) === "trial" && measured(i)) ?? null;
}

interface Known {
  readonly numbers: Map<string, number>;
  readonly missing: string[];
}

class Planner {
  private readonly found = new Map<string, ReadonlyMap<string, number>>();

  constructor(
    private readonly compiled: CompiledMethod,
    private readonly choices: PlanChoices,
  ) {}

  private known(stage: ComputedStage, chosen: StageChoices): Known {
    const numbers = new Map<string, number>();
    const missing: string[] = [];
    for (const input of stage.inputs) {
      if (input.is === "titer") continue;
      const taken = takenOver(input);
      if (taken) {
        const before = this.found.get(taken.stage);
        const earlier = this.compiled.method.stages.find((s) => s.key === taken.stage);
        const main = earlier?.result.symbol ?? "";
        const value = before?.get(taken.result ?? main);
        if (value === undefined) missing.push(input.label);
        else numbers.set(input.symbol, value);
        continue;
      }
      const value = chosen.amounts?.[input.symbol] ?? usualOf(input);
      if (value !== null) numbers.set(input.symbol, inBaseUnits(input, value, this.compiled));
      else if (!isOptional(input)) missing.push(input.label);
    }
    return { numbers, missing };
  }

  private evaluate(stage: CompiledStage, numbers: ReadonlyMap<string, number>): Map<string, number> {
    const all = new Map(numbers);
    const scope = { numbers: all, stoichiometry: this.compiled.stoichiometry };
    for (const { symbol, expression } of stage.lines) all.set(symbol, evaluateNumber(expression, scope));
    return all;
  }

  private amounts(stage: ComputedStage, chosen: StageChoices): PlannedAmount[] {
    const { benches, trials, marginPercent } = this.choices;
    return stage.inputs.flatMap((input): PlannedAmount[] => {
      const planned = plannedOf(input);
      if (!planned) return [];
      const value = chosen.amounts?.[input.symbol] ?? seriesMean(stage, input) ?? usualOf(input);
      if (value === null) return [];
      const per = perOf(input);
      const flasks = stage.kind === "calibration" ? stage.series.values.length : trials;
      const uses = benches * (per === "trial" ? flasks : 1) * (1 + marginPercent / 100);
      const { symbol, label } = input;
      const unit = chosenUnit(input, this.compiled);
      const { consumed } = planned;
      return [{ symbol, label, unit, value, per, total: value * uses, consumed }];
    });
  }

  plan(stage: CompiledStage): StagePlan {
    const { definition } = stage;
    const chosen = this.choices.stages[definition.key] ?? {};
    const { name, unit, symbol } = definition.result;
    const base = {
      key: definition.key,
      title: definition.title,
      amounts: this.amounts(definition, chosen),
      forTarget: null,
      titrantMl: null,
      stock: null,
      titerMl: null,
      suffices: null,
    };
    const { numbers, missing } = this.known(definition, chosen);
    if (definition.kind === "preparation") {
      const all = this.evaluate(stage, numbers);
      const value = all.get(symbol) ?? NaN;
      if (Number.isFinite(value)) this.found.set(definition.key, all);
      const shown = Number.isFinite(value) ? value / unitOf(unit).factor : null;
      const message = definition.spectra
        ? `Usually ${definition.spectra.usualNm} nm`
        : shown === null
          ? `Choose ${missing.join(", ").toLowerCase() || "the amounts"} to see what it gives`
          : `${name}: ${shown.toPrecision(4)} ${unit}`;
      return { ...base, kind: "preparation", titrant: null, result: { name, unit, value: shown }, message };
    }
    if (definition.kind !== "titration") {
      const result = { name, unit, value: null };
      return { ...base, kind: definition.kind, titrant: null, result, message: assayPlan(definition) };
    }
    const expected = chosen.result ?? definition.presumed ?? null;
    const titer = definition.inputs.find((i) => i.is === "titer");
    const titrant = titer?.titrant ?? null;
    const result = { name, unit, value: expected };
    const solved: Result<number> =
      expected === null
        ? failure(`Type what ${name.toLowerCase()} you expect`)
        : missing.length > 0
          ? failure(`Still needed: ${missing.join(", ")}`)
          : this.titer(stage, numbers, expected);
    if (!solved.ok) {
      const { message } = solved.problem;
      return { ...base, kind: "titration", titrant, result, message };
    }
    const titerMl = solved.value;
    this.found.set(
      definition.key,
      this.evaluate(stage, new Map(numbers).set(titer?.symbol ?? "", titerMl * unitOf("mL").factor)),
    );
    const { benches, trials, marginPercent, buretteMl } = this.choices;
    const titrantMl = benches * (trials * titerMl * (1 + marginPercent / 100) + rinsingMl);
    return {
      ...base,
      kind: "titration",
      titrant,
      result,
      titerMl,
      suffices: titerMl <= buretteMl,
      message: burettePlan(titerMl, buretteMl),
      forTarget: this.forTarget(stage, numbers, expected ?? NaN, chosen.targetMl),
      titrantMl,
      stock: this.stock(definition, numbers, titrantMl, chosen.stockMolPerL),
    };
  }

  private titer(stage: CompiledStage, known: ReadonlyMap<string, number>, expected: number): Result<number> {
    const { result, inputs } = stage.definition;
    const titer = inputs.find((i) => i.is === "titer")?.symbol ?? "";
    const value = expected * unitOf(result.unit).factor;
    return solveForTiter({
      relations: stage.lines,
      stoichiometry: this.compiled.stoichiometry,
      known,
      titer,
      target: result.symbol,
      value,
    });
  }

  private forTarget(
    stage: CompiledStage,
    known: ReadonlyMap<string, number>,
    expected: number,
    targetMl: number | undefined,
  ): StagePlan["forTarget"] {
    const input = decidingInput(stage.definition);
    const now = input ? known.get(input.symbol) : undefined;
    if (targetMl === undefined || !input || now === undefined) return null;
    const numbers = new Map(known);
    const difference = (amount: number): number => {
      numbers.set(input.symbol, amount);
      const titer = this.titer(stage, numbers, expected);
      return titer.ok ? titer.value - targetMl : NaN;
    };
    const low = now / 50;
    const high = now * 50;
    // A back-titration has no end point with too much sample: look as far up as there is one.
    const reached = [high, now * 10, now * 3, now * 1.5, now].find((a) => Number.isFinite(difference(a)));
    const root = reached === undefined ? failure("none") : findRoot(difference, low, reached, 1e-9);
    if (!root.ok) return null;
    const unit = chosenUnit(input, this.compiled);
    return { label: input.label, unit, value: (root.value / now) * this.shownNumber(input, now) };
  }

  private shownNumber(input: Input, baseUnits: number): number {
    return baseUnits / inBaseUnits(input, 1, this.compiled);
  }

  private stock(
    stage: ComputedStage,
    numbers: ReadonlyMap<string, number>,
    titrantMl: number,
    stockMolPerL: number | undefined,
  ): StagePlan["stock"] {
    const titer = stage.inputs.find((i) => i.is === "titer")?.titrant;
    const presumed = stage.kind === "titration" ? stage.presumed : undefined;
    const given = stage.inputs.find((i) => i.is === "given" && i.of === titer && i.unit === "mol/L");
    const found = stage.inputs.find((i) => i.is === "result" && i.of === titer);
    const symbol = (given ?? found)?.symbol;
    const working =
      symbol === undefined
        ? stage.result.assigns === titer
          ? (this.choices.stages[stage.key]?.result ?? presumed)
          : undefined
        : numbers.get(symbol);
    if (stockMolPerL === undefined || working === undefined || !(stockMolPerL >= working)) return null;
    return { ml: (working * titrantMl) / stockMolPerL, toMl: titrantMl };
  }
}

/** What a photometer's stage asks for, in a sentence. */
function assayPlan(stage: AssayStage): string {
  if (stage.kind === "rate") return "One cuvette a course, read each second";
  if (stage.kind === "unknown") return "One flask each trial, treated as the standards are";
  return `${stage.series.values.length} standards from one stock: ${stage.series.values.join(", ")}`;
}

function burettePlan(titerMl: number, buretteMl: number): string {
  const about = `About ${titerMl.toFixed(1)} mL a flask`;
  if (titerMl > buretteMl)
    return `${about}: more than the ${buretteMl} mL burette holds. Take less, or a larger burette.`;
  if (titerMl > 0.95 * buretteMl)
    return `${about}: the ${buretteMl} mL burette just holds it. Start at zero, or take less.`;
  if (titerMl < poorPart * buretteMl) {
    return `${about}: little for a ${buretteMl} mL burette, so its reading weighs heavily. Take more, or a smaller burette.`;
  }
  return `${about}: the ${buretteMl} mL burette suffices.`;
}

/** A plan for each stage that reads or titrates something, in the order of the work. */
export function planMethod(compiled: CompiledMethod, choices: PlanChoices): StagePlan[] {
  const planner = new Planner(compiled, choices);
  return compiled.method.stages.flatMap((stage) => {
    const there = compiledStage(compiled, stage.key);
    return there ? [planner.plan(there)] : [];
  });
}

export interface ShoppingLine {
  readonly name: string;
  readonly each: string;
  /** For all, margin included; null where the amount is no number. */
  readonly total: string | null;
}

/** "2 to 3 drops" is up to 3 drops; "about 50 mL" is 50 mL. */
const amountIn = (text: string) => /([\d.]+)(?:\s+to\s+([\d.]+))?\s*(mL|g|mg|L|drops?)\b/.exec(text);

/** What is needed of each reagent by all benches, from the words of the method. The same reagent in two stages is added up. */
export function shoppingList(
  stages: readonly ComputedStage[],
  { benches, trials, marginPercent }: Pick<PlanChoices, "benches" | "trials" | "marginPercent">,
): ShoppingLine[] {
  const lines = new Map<string, { each: string[]; total: number; unit: string } | null>();
  const each = new Map<string, string[]>();
  const add = ({ name, amount, exact }: Reagent, stage: ComputedStage) => {
    each.set(name, [...(each.get(name) ?? []), amount]);
    const found = amountIn(amount);
    // What is exact and yet a range is what the series is made of: all of its flasks together, once.
    const series = stage.kind === "calibration" && exact && /\bto\b/.test(amount) ? seriesSum(stage) : null;
    const uses = benches * (series === null ? flasksOf(stage, trials) : 1) * (1 + marginPercent / 100);
    const number = series ?? Number(found?.[2] ?? found?.[1]);
    const unit = found?.[3] ?? "";
    const there = lines.get(name);
    if (!found || there === null || (there && there.unit !== unit)) lines.set(name, null);
    else lines.set(name, { each: [], total: (there?.total ?? 0) + number * uses, unit });
  };
  for (const stage of stages) {
    for (const reagent of stage.reagents ?? []) add(reagent, stage);
  }
  return [...lines].map(([name, line]) => ({
    name,
    each: [...new Set(each.get(name))].join(", "),
    total: line && `${roundUp(line.total)} ${line.unit}`,
  }));
}

/** Flasks that a stage's reagents go into at one bench: a series has its blank too. */
function flasksOf(stage: ComputedStage, trials: number): number {
  if (stage.kind === "preparation") return 1;
  return stage.kind === "calibration" ? stage.series.values.length + 1 : trials;
}

/** Two figures, upward: nobody is short for it. */
function roundUp(x: number): string {
  if (!(x > 0)) return "0";
  const step = 10 ** (Math.floor(Math.log10(x)) - 1);
  return String(Number((Math.ceil(x / step - 1e-9) * step).toPrecision(6)));
}
