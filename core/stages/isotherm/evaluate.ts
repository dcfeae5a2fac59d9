import {
  betterLaw,
  type Bottle,
  farOff,
  fitIsotherm,
  type FittedParameter,
  type IsothermFit,
  isotherms,
  leastProbability,
  type Law,
  uptakeAt,
} from "../../adsorption";
import { sharesOfVariance } from "../../judgement";
import type { Check } from "../../measure";
import type { IsothermStage } from "../../method";
import { inUnit, leaf, type Leaf, measured, type Quantity, toSignificant, unitOf } from "../../quantity";
import type { StageRecord } from "../../record";
import { evaluateRelations, leavesOf } from "../../relation";
import { listed, msg, type Phrase } from "../../text";
import type { CompiledLine, CompiledStage } from "../compiled";
import { judgeOnce } from "../shared/accept";
import { type BottleView, type IsothermEvaluation, unjudged } from "../shared/evaluation";
import { showQuantity } from "../shared/show";
import { furtherResults, shareGroups, type StageContext } from "../shared/stage";
import { stageFieldStates, stageInputs } from "../shared/trial";
import { lawWords } from "./laws";

type Stage = CompiledStage<IsothermStage>;

const laws: readonly Law[] = ["freundlich", "langmuir"];

/** Those of some relations of which everything is known: one bottle may be done while another is not. */
function computable(lines: readonly CompiledLine[], known: ReadonlyMap<string, Quantity>): CompiledLine[] {
  const there = new Set(known.keys());
  return lines.filter(({ symbol, expression }) => {
    const whole = leavesOf(expression).every((l) => l.type !== "symbol" || there.has(l.name));
    if (whole) there.add(symbol);
    return whole;
  });
}

/** A bottle with how each cause moves both of its numbers, by one standard deviation of it. */
function bottleOf(c: Quantity, q: Quantity): Bottle {
  const [molPerL, perGram] = [unitOf("mol/L").factor, unitOf("mmol/g").factor];
  const ids = new Set([...c.sensitivities.keys(), ...q.sensitivities.keys()]);
  const moved = (of: Quantity, id: string, unit: number) => {
    const one = of.sensitivities.get(id);
    return one ? (one.by * one.leaf.u) / unit : 0;
  };
  return {
    concentration: inUnit(c, "mol/L"),
    uptake: inUnit(q, "mmol/g"),
    causes: new Map(
      [...ids].map((id) => [id, { concentration: moved(c, id, molPerL), uptake: moved(q, id, perGram) }]),
    ),
  };
}

function viewsOf(
  { definition }: Stage,
  known: ReadonlyMap<string, Quantity>,
  { rules }: StageContext,
): BottleView[] {
  return definition.isotherm.bottles.flatMap(({ name, concentration, uptake }): BottleView[] => {
    const [c, q] = [known.get(concentration), known.get(uptake)];
    if (!c || !q) return [];
    const bottle = bottleOf(c, q);
    const show = (quantity: Quantity, unit: string) => showQuantity(quantity, { unit }, rules);
    return [
      {
        name,
        bottle,
        shown: {
          concentration: show(c, "mol/L"),
          uptake: show(q, "mmol/g"),
        },
        leftOut:
          bottle.uptake > 0
            ? bottle.concentration > 0
              ? null
              : msg`no acid is left in it: nothing can be drawn at zero`
            : msg`more acid came out than went in: a wrong titer, or acid that was not that of the start`,
      },
    ];
  });
}

/** A parameter as a quantity: with the causes of the bottles, and their scatter where it is more than those explain. */
function quantityOf(
  { value, causes, u }: FittedParameter,
  unit: string,
  leaves: ReadonlyMap<string, Leaf>,
  fit: IsothermFit,
  stageKey: string,
): Quantity {
  const sensitivities = [...causes].flatMap(([id, moved]) => {
    const cause = leaves.get(id);
    return cause && cause.u > 0 ? [{ leaf: cause, by: moved / cause.u }] : [];
  });
  const excess = fit.probability < leastProbability ? fit.chiSquare / fit.degreesOfFreedom - 1 : 0;
  const scatter = leaf({
    id: `isotherm:${stageKey}:${fit.law}:${unit}`,
    kind: "isotherm",
    label: msg`Scatter of the bottles about the isotherm`,
    group: msg`Scatter about the isotherm`,
    u: u * Math.sqrt(Math.max(0, excess)),
    degreesOfFreedom: Math.max(1, fit.degreesOfFreedom),
    stage: stageKey,
  });
  return measured(value, unit, [...sensitivities, { leaf: scatter, by: 1 }]);
}

/** What the fits give to the relations and results: both pairs of parameters, and the uptake that the better law predicts. */
function foundOf(
  { definition: { isotherm, key } }: Stage,
  known: ReadonlyMap<string, Quantity>,
  fits: readonly IsothermFit[],
  better: IsothermFit | null,
): Map<string, Quantity> {
  const leaves = new Map(
    isotherm.bottles
      .flatMap(({ concentration, uptake }) => [known.get(concentration), known.get(uptake)])
      .flatMap((q) => (q ? [...q.sensitivities].map(([id, one]) => [id, one.leaf] as const) : [])),
  );
  const found = new Map<string, Quantity>();
  for (const fit of fits) {
    const units = { freundlich: ["mmol/g", "1"], langmuir: ["mmol/g", "L/mol"] }[fit.law];
    fit.parameters.forEach((parameter, j) => {
      const symbol = isotherm[fit.law][j as 0 | 1];
      found.set(symbol, quantityOf(parameter, units[j] ?? "1", leaves, fit, key));
    });
  }
  const at = known.get(isotherm.at);
  if (better && at)
    found.set(
      isotherm.predicted,
      quantityOf(uptakeAt(better, inUnit(at, "mol/L")), "mmol/g", leaves, better, key),
    );
  return found;
}

/** How well each law describes the titers, and which is taken. */
function findingOf(fits: readonly IsothermFit[], better: IsothermFit | null): Phrase {
  if (fits.length === 0) return "";
  const each = listed(
    fits.map(({ law, chiSquare }) => msg`${lawWords[law]} χ² ${toSignificant(chiSquare, 2)}`),
  );
  const df = fits[0]?.degreesOfFreedom ?? 0;
  if (df === 0) return msg`Three bottles lie on any law with two parameters: ${each} says nothing`;
  return better
    ? msg`${lawWords[better.law]} describes the titers better: ${each}, with ${df} degrees of freedom`
    : msg`Neither law describes the titers within their ±: ${each}, with ${df} degrees of freedom; by chance in less than 5 % of cases`;
}

/** What a bottle that lies off suggests. */
function offChecks(views: readonly BottleView[], fit: IsothermFit | null): Check[] {
  if (!fit) return [];
  const used = views.filter(({ leftOut }) => leftOut === null);
  return fit.standardized.flatMap((z, i): Check[] => {
    const name = used[i]?.name;
    if (name === undefined || Math.abs(z) < farOff) return [];
    const times = toSignificant(Math.abs(z), 2);
    return [
      {
        severity: "caution",
        message:
          z < 0
            ? msg`${name} took up less than the others suggest, by ${times} times its ±: shaken too little, charcoal through the filter, or a titer read too high`
            : msg`${name} took up more than the others suggest, by ${times} times its ±: the first drops of the filtrate not thrown away, or too little acid measured in`,
      },
    ];
  });
}

/** Both laws through all bottles that are known, side by side, and which describes what was titrated. */
export function evaluateIsotherm(
  stage: Stage,
  record: StageRecord,
  context: StageContext,
): IsothermEvaluation {
  const { method, rules, earlier } = context;
  const { definition, lines } = stage;
  const { quantities } = stageInputs(stage, record, earlier, { ...context, method: method.method });
  const idle = context.suspended !== undefined;
  const first = idle
    ? new Map<string, Quantity>()
    : evaluateRelations(computable(lines, quantities), quantities, method.stoichiometry);
  const views = viewsOf(stage, first, context);
  const used = views.flatMap(({ bottle, leftOut }) => (leftOut === null ? [bottle] : []));
  const fits = laws.flatMap((law) => fitIsotherm(used, law) ?? []);
  const better = betterLaw(fits);
  const all = new Map([...first, ...foundOf(stage, first, fits, better)]);
  const symbols = idle ? all : evaluateRelations(computable(lines, all), all, method.stoichiometry);
  const quantity = symbols.get(definition.result.symbol) ?? null;
  const [shortest] = fits.toSorted((a, b) => a.chiSquare - b.chiSquare);
  const left = views.flatMap(({ name, leftOut }): Check[] =>
    leftOut === null ? [] : [{ severity: "caution", message: msg`${name} is left out: ${leftOut}` }],
  );
  const finding = findingOf(fits, better);
  const whole = views.length === definition.isotherm.bottles.length;
  return {
    kind: "isotherm",
    ...unjudged,
    acceptance: judgeOnce(definition, quantity, symbols, rules),
    key: definition.key,
    definition,
    // One that neither law describes is at its end too: that is what was found.
    done: whole && fits.length > 0,
    stageFields: stageFieldStates(definition, record, rules),
    ...{ missing: null, symbols, significance: new Map(), quantity, finding },
    ...{ bottles: views, fits, better: better?.law ?? null },
    lines: {
      freundlich: used.length > 1 ? isotherms.freundlich.line(used) : null,
      langmuir: used.length > 1 ? isotherms.langmuir.line(used) : null,
    },
    shown: quantity ? showQuantity(quantity, definition.result, rules) : null,
    also: furtherResults(
      definition.also,
      (symbol) => {
        const q = symbols.get(symbol);
        return q ? [q, undefined] : null;
      },
      rules,
    ),
    shares: quantity ? sharesOfVariance(quantity, shareGroups(method.method, stage, earlier)) : [],
    problem:
      whole && fits.length === 0
        ? msg`The bottles determine no isotherm: three at least, with acid left and acid taken up`
        : null,
    cautions: [...left, ...offChecks(views, shortest ?? null)],
    next: whole
      ? finding
      : msg`${views.length} of ${definition.isotherm.bottles.length} bottles are titrated: go on with the next`,
  };
}
