import type { Field } from "~/core/inputs";
import { fieldKey, type Method, stageFields, trialFields } from "~/core/method";
import type { ComputedStage } from "~/core/method";
import type { HouseRules } from "~/core/rules";
import { isKnowable, knownStage } from "~/core/run";
import { inEnglish, msg, type Phrase } from "~/core/text";

/* What the columns of a table can stand for, and which they probably do. */

/** What a column, or a value that is the same for all rows, stands for. */
export interface Target {
  /** In mappings; those of readings say the stage, the input and the kind. */
  readonly key: string;
  readonly label: Phrase;
  /** Of the readings, as the method takes them; empty where it is no quantity. */
  readonly unit: string;
  /** Once for a run, or for each row. */
  readonly per: "run" | "row";
  /** True where no result can follow without it. */
  readonly needed: boolean;
  /** The field that it fills, and in which stage; null where it is no reading. */
  readonly fills: { readonly stageKey: string; readonly field: Field } | null;
}

const plain = (key: string, label: Phrase, per: Target["per"]): Target => ({
  ...{ key, label, per, unit: "", needed: false, fills: null },
});

/** What is known of a run beside its readings. */
const general: readonly Target[] = [
  plain("sample", msg`Sample`, "run"),
  plain("date", msg`Date`, "run"),
  plain("person", msg`Carried out by`, "run"),
  plain("trial", msg`Name of the trial`, "row"),
];

const reading = (stageKey: string, field: Field, label: Phrase, per: Target["per"]): Target => ({
  key: `${stageKey}/${fieldKey(field)}`,
  ...{ label, per, unit: field.unit, needed: field.optional !== true, fills: { stageKey, field } },
});

const isTyped = ({ hidden, otherWay, outOfTurn, kind }: Field): boolean =>
  !hidden && !otherWay && !outOfTurn && kind !== "point";

/** The fields of a table, each under a name that says what it belongs to. */
function named(fields: readonly Field[]): readonly (readonly [field: Field, label: Phrase])[] {
  return fields.filter(isTyped).map((field) => {
    const main = fields.find(({ symbol, kind }) => symbol === field.symbol && kind === "given");
    return [
      field,
      main && field.kind === "given.plus-minus" ? msg`± of ${main.label}` : field.label,
    ] as const;
  });
}

/** The stages that a table can hold the trials of. */
export const tableStages = ({ stages }: Method): readonly ComputedStage[] =>
  stages.filter(({ kind }) => kind === "titration");

/** The stages before one whose results it needs: their results are stated, and nothing is done in them. */
export const stagesBefore = (method: Method, stageKey: string): readonly ComputedStage[] => {
  const at = method.stages.findIndex(({ key }) => key === stageKey);
  return method.stages.slice(0, at).filter((stage) => isKnowable(method, stage));
};

/** All that a table of one stage's trials can hold, in the order of the work. */
export function targetsOf(method: Method, stageKey: string, rules: HouseRules): readonly Target[] {
  const stage = method.stages.find(({ key }) => key === stageKey);
  if (!stage) return general;
  const before = stagesBefore(method, stageKey).flatMap((earlier) =>
    named(stageFields(knownStage(method, earlier), rules)).map(([field, label]) =>
      reading(earlier.key, field, label, "run"),
    ),
  );
  const of = (fields: readonly Field[], per: Target["per"]) =>
    named(fields).map(([field, label]) => reading(stageKey, field, label, per));
  return [
    ...general,
    ...before,
    ...of(stageFields(stage, rules), "run"),
    ...of(trialFields(stage, rules), "row"),
  ];
}

/** Words that tables are headed with, beside the labels of the fields. From memory. */
const known: Readonly<Record<string, RegExp>> = {
  sample: /^(sample|unknown|code|lot)\b/i,
  date: /^(date|day|when)\b/i,
  person: /^(carried out by|analyst|student|name|bench|by|who)\b/i,
  trial: /^(trial|run|replicate|no\.?|#|flask)\b/i,
};
const knownKinds: Readonly<Record<string, RegExp>> = {
  "burette.initial": /\b(initial|start)/i,
  "burette.final": /\b(final|end)/i,
  "mass.before": /\b(before|gross)/i,
  "mass.after": /\b(after|empty)/i,
};

const bare = (text: string) =>
  text
    .toLowerCase()
    .replace(/[([].*?[)\]]/g, " ")
    .replace(/,.*$/, "")
    .replace(/[^\p{L}\p{N}]+/gu, " ")
    .trim();

/** Whether a heading names what a target stands for: by its label first, then by words that are used for it. */
function names(heading: string, { key, label, fills }: Target, how: "label" | "words"): boolean {
  if (heading.trim() === "") return false;
  if (how === "label") return bare(heading) === bare(inEnglish(label));
  return (fills ? knownKinds[fills.field.kind] : known[key])?.test(heading) === true;
}

/** What each column probably stands for, by its heading; null where that is not known. Nothing is taken twice. */
export function guessed(headings: readonly string[], targets: readonly Target[]): (string | null)[] {
  const found: (string | null)[] = headings.map(() => null);
  const taken = new Set<string>();
  for (const how of ["label", "words"] as const)
    headings.forEach((heading, i) => {
      if (found[i] !== null) return;
      const target = targets.find((one) => !taken.has(one.key) && names(heading, one, how));
      if (!target) return;
      found[i] = target.key;
      taken.add(target.key);
    });
  return found;
}

/** The unit that stands in a heading: behind a comma, or in brackets; empty where none does. */
export const unitIn = (heading: string): string =>
  /[([]\s*([^)\]\s]+)\s*[)\]]\s*$|,\s*(\S+)\s*$/.exec(heading)?.slice(1).find(Boolean) ?? "";
