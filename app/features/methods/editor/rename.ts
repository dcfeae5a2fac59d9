import type { MethodDraft, StageDraft } from "./draft-types";
import type { Row } from "./row";

/* One letter for another, wherever it stands in a method. */

/** What is no place for a letter: formulas in M(...), ratio(...) and equivalents(...), and units in brackets. */
const apart = /((?:M|ratio|equivalents)\((?:[^()]|\((?:[^()]|\([^()]*\))*\))*\)|\[[^\]]*\])/u;

/** A relation with one letter for another. */
export function renamedIn(relation: string, before: string, after: string): string {
  const word = new RegExp(`(?<![\\p{L}\\p{N}_])${escaped(before)}(?![\\p{L}\\p{N}_(])`, "gu");
  return relation
    .split(apart)
    .map((part, i) => (i % 2 === 1 ? part : part.replace(word, () => after)))
    .join("");
}
const escaped = (text: string): string => text.replace(/[.*+?^${}()|[\]\\]/g, "\\$&");

/** The letter that a relation computes. */
export const computedBy = (relation: string): string => (relation.split("=")[0] ?? "").trim();

/** What is carried through the editor as it is, with one letter for another in its texts: relations too. */
function renamedDeep<T>(value: T, before: string, after: string): T {
  if (typeof value === "string")
    return (value === before ? after : value.includes("=") ? renamedIn(value, before, after) : value) as T;
  if (Array.isArray(value)) return value.map((one: unknown) => renamedDeep(one, before, after)) as T;
  if (value === null || typeof value !== "object") return value;
  return Object.fromEntries(
    Object.entries(value).map(([key, one]) => [key, renamedDeep(one as unknown, before, after)]),
  ) as T;
}

const swapped = (rows: readonly Row[], keys: readonly string[], before: string, after: string): Row[] =>
  rows.map((row) => ({
    ...row,
    ...Object.fromEntries(keys.filter((key) => row[key] === before).map((key) => [key, after])),
  }));

/** What belongs to a kind alone, without what all stages say and the editor writes by itself. */
function ownParts(carried: StageDraft["carried"], before: string, after: string): StageDraft["carried"] {
  if (carried === null) return null;
  const { axis, line, series, rate, aim, curve, isotherm } = carried as Partial<Record<string, unknown>>;
  const own = Object.entries({ axis, line, series, rate, aim, curve, isotherm }).filter(
    ([, part]) => part !== undefined,
  );
  return {
    ...carried,
    ...Object.fromEntries(own.map(([key, part]) => [key, renamedDeep(part, before, after)])),
  };
}

function inStage(stage: StageDraft, before: string, after: string): StageDraft {
  return {
    ...stage,
    // What is read off a line names the absorbance of its own stage as its result.
    inputs: stage.inputs.flatMap((row) =>
      swapped([row], row.is === "read-off" ? ["symbol", "result"] : ["symbol"], before, after),
    ),
    relations: stage.relations.map((row) => ({
      ...row,
      relation: renamedIn(row.relation ?? "", before, after),
    })),
    results: swapped(stage.results, ["symbol", "whenSymbol"], before, after),
    agree: stage.agree === before ? after : stage.agree,
    plausible: stage.plausible.map((row) => ({
      ...swapped([row], (row.stage ?? "") === "" ? ["symbol", "other"] : ["symbol"], before, after)[0],
      ...(row.all === undefined ? {} : { all: renamedIn(row.all, before, after) }),
    })),
    steps: stage.steps.replaceAll(`[take ${before}]`, () => `[take ${after}]`),
    reagents: swapped(stage.reagents, ["measured"], before, after),
    accept: stage.accept?.symbol === before ? { ...stage.accept, symbol: after } : stage.accept,
    carried: ownParts(stage.carried, before, after),
  };
}

/** Other stages that take a result over by its letter. */
function inOtherStage(stage: StageDraft, key: string, before: string, after: string): StageDraft {
  const { expectedFrom } = stage;
  return {
    ...stage,
    inputs: stage.inputs.map((row) =>
      row.is === "result" && row.stage === key && row.result === before ? { ...row, result: after } : row,
    ),
    plausible: stage.plausible.map((row) =>
      row.stage === key && row.other === before ? { ...row, other: after } : row,
    ),
    expectedFrom:
      expectedFrom?.stage === key && expectedFrom.result === before
        ? { ...expectedFrom, result: after }
        : expectedFrom,
  };
}

/** The letters that a stage reads or computes, one for each place where it does. */
const lettersOf = ({ inputs, relations }: StageDraft): readonly string[] => [
  ...inputs.map(({ symbol }) => (symbol ?? "").trim()),
  ...relations.map(({ relation }) => computedBy(relation ?? "")),
];

/**
 * A method in which a letter was just typed over another one, in one place of a stage, with the new one wherever the old one was meant.
 * Nothing is changed where something else of the stage has either letter: two things would become one.
 */
export function renamed(draft: MethodDraft, index: number, before: string, after: string): MethodDraft {
  const stage = draft.stages[index];
  if (!stage || before === "" || after === "" || before === after) return draft;
  const letters = lettersOf(stage);
  const unique = letters.filter((one) => one === after).length === 1 && !letters.includes(before);
  if (!unique) return draft;
  return {
    ...draft,
    stages: draft.stages.map((one, i) =>
      i === index ? inStage(one, before, after) : inOtherStage(one, stage.key, before, after),
    ),
  };
}
