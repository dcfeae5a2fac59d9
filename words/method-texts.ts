import type { ComputedStage, Method } from "~/core/method";
import type { Localize } from "./localizer";

/*
 * The texts of the methods that ship with the product. They stand in the catalogs by themselves, as the sentences of the program do;
 * a person's own methods stay as they were typed.
 */

/** A method with each text that people read as `say` puts it. Formulas, symbols, relations and units are left alone. */
export function withTexts(method: Method, say: (text: string) => string): Method {
  const all = (texts: readonly string[]) => texts.map(say);
  return {
    ...method,
    title: say(method.title),
    purpose: say(method.purpose),
    ...(method.variant && { variant: { ...method.variant, differs: say(method.variant.differs) } }),
    equations: method.equations.map((e) => ({ ...e, name: say(e.name) })),
    substances: Object.fromEntries(
      Object.entries(method.substances).map(([formula, name]) => [formula, say(name)]),
    ),
    stages: method.stages.map((stage) => stageWithTexts(stage, say)),
    protection: all(method.protection),
    hazards: all(method.hazards),
    waste: all(method.waste),
    glassware: all(method.glassware),
  };
}

function stageWithTexts<S extends ComputedStage>(stage: S, say: (text: string) => string): S {
  const titled = <T extends { readonly title: string }>(line: T): T => ({ ...line, title: say(line.title) });
  const result = <T extends S["result"] | NonNullable<S["also"]>[number]>(r: T): T => ({
    ...r,
    name: say(r.name),
    ...(r.when && { when: { ...r.when, otherwise: say(r.when.otherwise) } }),
  });
  return {
    ...stage,
    title: say(stage.title),
    inputs: stage.inputs.map((input) => ({
      ...input,
      label: say(input.label),
      ...("before" in input && input.before !== undefined && { before: say(input.before) }),
      ...("after" in input && input.after !== undefined && { after: say(input.after) }),
    })),
    relations: stage.relations.map(titled),
    result: result(stage.result),
    ...(stage.also && { also: stage.also.map(result) }),
    ...(stage.plausible && {
      plausible: stage.plausible.map((rule) =>
        rule.rule === "at most all" && rule.of !== undefined ? { ...rule, of: say(rule.of) } : rule,
      ),
    }),
    ...(stage.reagents && {
      reagents: stage.reagents.map((r) => ({
        ...r,
        name: say(r.name),
        amount: say(r.amount),
        when: say(r.when),
      })),
    }),
    ...(stage.conditions && { conditions: stage.conditions.map((c) => ({ ...c, what: say(c.what) })) }),
    steps: stage.steps.map(say),
    cautions: stage.cautions.map(say),
    ...("indicator" in stage && {
      indicator: say(stage.indicator),
      persistence: say(stage.persistence),
      ribbon: stage.ribbon.map((step) => ({ ...step, looks: say(step.looks), do: say(step.do) })),
    }),
    ...("axis" in stage && {
      axis: { ...stage.axis, name: say(stage.axis.name), relations: stage.axis.relations.map(titled) },
    }),
  };
}

/** All texts of a method that people read. */
export function textsOf(method: Method): string[] {
  const texts: string[] = [];
  withTexts(method, (text) => {
    texts.push(text);
    return text;
  });
  return texts;
}

/** A method that ships with the product, in the words of a lab. */
export const methodInWords = (method: Method, say: Localize): Method =>
  withTexts(method, (text) => say({ message: text }));
