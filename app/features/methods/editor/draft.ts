import { withPoint } from "~/core/text";
import { rowOfInput, inputOfRow } from "~/core/inputs";
import type {
  Reagent,
  AssayStage,
  ComputedStage,
  Method,
  PreparationStage,
  TitrationStage,
} from "~/core/method";
import { plausibilityOfRow, rowOfPlausibility } from "./plausibility-rows";
import type { Row } from "./row";

/** A stage as it is being written: everything as text. */
export interface StageDraft {
  readonly key: string;
  readonly kind: ComputedStage["kind"];
  readonly title: string;
  readonly inputs: readonly Row[];
  readonly relations: readonly Row[];
  /** The first is the main one. */
  readonly results: readonly Row[];
  readonly assigns: string;
  /** "titers", "results", or the symbol of the amount that titers are taken per. */
  readonly agree: string;
  readonly presumed: string;
  readonly expectLow: string;
  readonly expectHigh: string;
  readonly indicator: string;
  readonly equivalents: string;
  readonly persistSeconds: string;
  readonly persistence: string;
  readonly meniscus: string;
  readonly ribbon: readonly Row[];
  readonly reagents: readonly Row[];
  readonly conditions: readonly Row[];
  readonly steps: string;
  readonly cautions: string;
  /** What the editor does not touch is carried through. */
  readonly accept: TitrationStage["accept"];
  readonly plausible: readonly Row[];
  /** Where it is read on a photometer: what belongs to its line or its course. Spectra of a preparation likewise. */
  readonly carried: AssayStage | PreparationStage | null;
}

export interface MethodDraft {
  readonly id: string;
  readonly title: string;
  readonly purpose: string;
  readonly family: Method["family"];
  readonly variantOf: string;
  readonly differs: string;
  readonly equations: readonly Row[];
  readonly substances: readonly Row[];
  readonly stages: readonly StageDraft[];
  readonly protection: string;
  readonly hazards: string;
  readonly waste: string;
  readonly glassware: string;
}

const linesOf = (text: string): string[] =>
  text
    .split("\n")
    .map((line) => line.trim())
    .filter(Boolean);

const text = (x: string | number | undefined): string => (x === undefined ? "" : String(x));
const given = (x: string | undefined): boolean => (x ?? "").trim() !== "";
const trimmed = (row: Row, key: string): string => (row[key] ?? "").trim();

/** How a time counts, where the row says it. */
const countsOf = ({ counts }: Row): { counts?: "for" | "within" } =>
  counts === "for" || counts === "within" ? { counts } : {};

/** What a condition is of, where the row says it. */
const placeOf = ({ of }: Row): { of?: "flask" | "solid" | "room" } =>
  of === "solid" || of === "room" || of === "flask" ? { of } : {};

/** What only a titration says; empty for another stage. */
const titrationDraft = (titration: TitrationStage | null) => ({
  agree: titration ? agreeWord(titration) : "titers",
  presumed: text(titration?.presumed),
  expectLow: text(titration?.expectMl?.[0]),
  expectHigh: text(titration?.expectMl?.[1]),
  indicator: titration?.indicator ?? "",
  persistSeconds: text(titration?.persistSeconds),
  persistence: titration?.persistence ?? "",
  meniscus: titration?.meniscus ?? ("bottom" as const),
  ribbon: (titration?.ribbon ?? []).map(({ color, looks, do: act, end }) => ({
    ...{ color, looks, do: act },
    end: end ? "yes" : "",
  })),
});

function stageDraft(stage: ComputedStage): StageDraft {
  const titration = stage.kind === "titration" ? stage : null;
  return {
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
    ...titrationDraft(titration),
    reagents: (stage.reagents ?? []).map(({ name, amount, quantity, exact, when, last }) => ({
      name,
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
    accept: titration?.accept,
    plausible: (stage.plausible ?? []).map(rowOfPlausibility),
    carried: stage.kind === "titration" ? null : stage,
  };
}

function agreeWord({ agree, result }: TitrationStage): string {
  if (agree.per !== undefined) return agree.per;
  return agree.on === result.symbol ? "results" : "titers";
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

function stageOf(draft: StageDraft): ComputedStage {
  const inputs = draft.inputs.map(inputOfRow);
  const [main = {}, ...others] = draft.results;
  const also = others.map(resultOfRow);
  const shared = {
    key: draft.key,
    title: draft.title.trim(),
    inputs,
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
    ...(draft.plausible.length > 0 ? { plausible: draft.plausible.map(plausibilityOfRow) } : {}),
    ...(draft.reagents.length > 0
      ? {
          reagents: draft.reagents.map((row) => ({
            name: trimmed(row, "name"),
            amount: trimmed(row, "amount"),
            ...quantityOfRow(row),
            exact: row.exact === "yes",
            when: trimmed(row, "when"),
            ...(row.last === "yes" ? { last: true } : {}),
          })),
        }
      : {}),
    ...(draft.conditions.length > 0
      ? {
          conditions: draft.conditions.map((row) => ({
            what: trimmed(row, "what"),
            ...placeOf(row),
            ...(given(row.from) && given(row.to)
              ? { celsius: [Number(withPoint(row.from)), Number(withPoint(row.to))] as [number, number] }
              : {}),
            ...(given(row.minutes) ? { minutes: Number(withPoint(row.minutes)) } : {}),
            ...countsOf(row),
            ...(row.strict === "yes" ? { strict: true } : {}),
          })),
        }
      : {}),
    steps: linesOf(draft.steps),
    cautions: linesOf(draft.cautions),
  };
  if (draft.carried && draft.carried.kind !== "preparation") return { ...draft.carried, ...shared };
  if (draft.kind === "preparation")
    return {
      kind: "preparation",
      ...(draft.carried?.spectra ? { spectra: draft.carried.spectra } : {}),
      ...shared,
    };
  const titer = inputs.find((input) => input.is === "titer")?.symbol ?? "V";
  return {
    kind: "titration",
    ...shared,
    agree:
      draft.agree === "titers"
        ? { on: titer }
        : draft.agree === "results"
          ? { on: shared.result.symbol }
          : { on: `${titer} / ${draft.agree}`, per: draft.agree },
    ...(draft.accept ? { accept: draft.accept } : {}),
    ...(given(draft.presumed) ? { presumed: Number(withPoint(draft.presumed)) } : {}),
    ...(given(draft.expectLow) && given(draft.expectHigh)
      ? {
          expectMl: [Number(withPoint(draft.expectLow)), Number(withPoint(draft.expectHigh))] as [
            number,
            number,
          ],
        }
      : {}),
    indicator: draft.indicator.trim(),
    persistence: draft.persistence.trim(),
    ...(given(draft.persistSeconds) ? { persistSeconds: Number(withPoint(draft.persistSeconds)) } : {}),
    meniscus: draft.meniscus === "top" ? "top" : "bottom",
    ribbon: draft.ribbon.map((row) => ({
      color: row.color ?? "#eef1ee",
      looks: trimmed(row, "looks"),
      do: trimmed(row, "do"),
      ...(row.end === "yes" ? { end: true } : {}),
    })),
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
    stages: draft.stages.map(stageOf),
    protection: linesOf(draft.protection),
    hazards: linesOf(draft.hazards),
    waste: linesOf(draft.waste),
    glassware: linesOf(draft.glassware),
  };
}
