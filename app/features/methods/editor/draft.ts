import { withPoint } from "~/core/text";
import { rowOfInput, inputOfRow } from "~/core/inputs";
import type { ComputedStage, Condition, Method, Reagent } from "~/core/method";
import { plausibilityOfRow, rowOfPlausibility } from "./plausibility-rows";
import { given, text, trimmed } from "./draft-text";
import type { MethodDraft, SharedParts, StageDraft } from "./draft-types";
import { editedKind } from "./kinds/table";
import type { Row } from "./row";
import { blankStage } from "./starters";

const linesOf = (text: string): string[] =>
  text
    .split("\n")
    .map((line) => line.trim())
    .filter(Boolean);

/** How a time counts, where the row says it. */
const countsOf = ({ counts }: Row): { counts?: "for" | "within" } =>
  counts === "for" || counts === "within" ? { counts } : {};

/** What a condition is of, where the row says it. */
const placeOf = ({ of }: Row): { of?: "flask" | "solid" | "room" } =>
  of === "solid" || of === "room" || of === "flask" ? { of } : {};

function stageDraft(stage: ComputedStage): StageDraft {
  return {
    ...blankStage,
    key: stage.key,
    kind: stage.kind,
    title: stage.title,
    inputs: stage.inputs.map(rowOfInput),
    relations: stage.relations.map((line) => ({ ...line })),
    results: [stage.result, ...(stage.also ?? [])].map(({ symbol, name, unit, nearestWhole, when }) => ({
      symbol,
      name,
      unit,
      whole: nearestWhole ? "yes" : "",
      whenSymbol: text(when?.symbol),
      whenIs: text(when?.is),
      otherwise: text(when?.otherwise),
    })),
    assigns: stage.result.assigns ?? "",
    equivalents: text(stage.result.equivalents),
    reagents: (stage.reagents ?? []).map(({ name, measured, amount, quantity, exact, when, last }) => ({
      name,
      measured: measured ?? "",
      amount,
      most: text(quantity?.most),
      unit: quantity?.unit ?? "",
      of: quantity?.of ?? "",
      exact: exact ? "yes" : "",
      when,
      last: last ? "yes" : "",
    })),
    conditions: (stage.conditions ?? []).map(({ what, of, celsius, minutes, strict, counts }) => ({
      what,
      of: of ?? "",
      from: text(celsius?.[0]),
      to: text(celsius?.[1]),
      minutes: text(minutes),
      counts: counts ?? "",
      strict: strict ? "yes" : "",
    })),
    steps: stage.steps.join("\n"),
    cautions: stage.cautions.join("\n"),
    accept: stage.accept,
    plausible: (stage.plausible ?? []).map(rowOfPlausibility),
    ...editedKind(stage).draft(stage),
  };
}

export function draftOf(method: Method): MethodDraft {
  const { id, title, purpose, family, variant, equations, substances } = method;
  return {
    id,
    title,
    purpose,
    family,
    variantOf: variant?.of ?? "",
    differs: variant?.differs ?? "",
    equations: equations.map((e) => ({ ...e })),
    substances: Object.entries(substances).map(([formula, name]) => ({ formula, name })),
    stages: method.stages.map(stageDraft),
    protection: method.protection.join("\n"),
    hazards: method.hazards.join("\n"),
    waste: method.waste.join("\n"),
    glassware: method.glassware.join("\n"),
  };
}

const resultOfRow = (row: Row) => ({
  symbol: trimmed(row, "symbol"),
  name: trimmed(row, "name"),
  unit: trimmed(row, "unit"),
  ...(row.whole === "yes" ? { nearestWhole: true } : {}),
  ...(given(row.whenSymbol)
    ? {
        when: {
          symbol: trimmed(row, "whenSymbol"),
          is: Number(withPoint(row.whenIs)),
          otherwise: trimmed(row, "otherwise"),
        },
      }
    : {}),
});

const reagentOfRow = (row: Row): Reagent => ({
  name: trimmed(row, "name"),
  ...(given(row.measured) ? { measured: trimmed(row, "measured") } : {}),
  amount: trimmed(row, "amount"),
  ...quantityOfRow(row),
  exact: row.exact === "yes",
  when: trimmed(row, "when"),
  ...(row.last === "yes" ? { last: true } : {}),
});

const conditionOfRow = (row: Row): Condition => ({
  what: trimmed(row, "what"),
  ...placeOf(row),
  ...(given(row.from) && given(row.to)
    ? { celsius: [Number(withPoint(row.from)), Number(withPoint(row.to))] as [number, number] }
    : {}),
  ...(given(row.minutes) ? { minutes: Number(withPoint(row.minutes)) } : {}),
  ...countsOf(row),
  ...(row.strict === "yes" ? { strict: true } : {}),
});

/** What all kinds of stages say alike. */
function sharedParts(draft: StageDraft): SharedParts {
  const [main = {}, ...others] = draft.results;
  const also = others.map(resultOfRow);
  return {
    key: draft.key,
    title: draft.title.trim(),
    inputs: draft.inputs.map(inputOfRow),
    relations: draft.relations.map((row) => ({
      relation: trimmed(row, "relation"),
      title: trimmed(row, "title"),
      unit: trimmed(row, "unit"),
    })),
    result: {
      ...resultOfRow(main),
      ...(given(draft.assigns) ? { assigns: draft.assigns.trim() } : {}),
      ...(given(draft.equivalents) ? { equivalents: Number(draft.equivalents) } : {}),
    },
    ...(also.length > 0 ? { also } : {}),
    ...(draft.accept ? { accept: draft.accept } : {}),
    ...(draft.plausible.length > 0 ? { plausible: draft.plausible.map(plausibilityOfRow) } : {}),
    ...(draft.reagents.length > 0 ? { reagents: draft.reagents.map(reagentOfRow) } : {}),
    ...(draft.conditions.length > 0 ? { conditions: draft.conditions.map(conditionOfRow) } : {}),
    steps: linesOf(draft.steps),
    cautions: linesOf(draft.cautions),
  };
}

type Quantity = NonNullable<Reagent["quantity"]>;

/** How much of a reagent. A number without its unit, or a unit without a number, is kept, so that the check tells it. */
const quantityOfRow = ({ most, unit, of }: Row): Pick<Reagent, "quantity"> =>
  given(most) || given(unit)
    ? {
        quantity: {
          most: given(most) ? Number(withPoint(most)) : NaN,
          unit: (unit ?? "") as Quantity["unit"],
          ...(of === "series" ? { of } : {}),
        },
      }
    : {};

/** The method that a draft means; version 1, the server gives it its next one. */
export function methodOf(draft: MethodDraft): Method {
  return {
    id: draft.id,
    version: 1,
    family: draft.family,
    title: draft.title.trim(),
    purpose: draft.purpose.trim(),
    ...(given(draft.variantOf) ? { variant: { of: draft.variantOf, differs: draft.differs.trim() } } : {}),
    equations: draft.equations.map((row) => ({
      name: trimmed(row, "name"),
      equation: trimmed(row, "equation"),
    })),
    substances: Object.fromEntries(
      draft.substances.map((row) => [trimmed(row, "formula"), trimmed(row, "name")]),
    ),
    stages: draft.stages.map((stage) => editedKind(stage).stage(stage, sharedParts(stage))),
    protection: linesOf(draft.protection),
    hazards: linesOf(draft.hazards),
    waste: linesOf(draft.waste),
    glassware: linesOf(draft.glassware),
  };
}
