import { type Field, presumedOf } from "~/core/inputs";
import { fieldKey, inputOf, type Method, stageFields, trialFields } from "~/core/method";
import type { CalibrationStage, ComputedStage } from "~/core/method";
import type { HouseRules } from "~/core/rules";
import { isKnowable, knownStage } from "~/core/run";
import { inEnglish, msg, type Phrase } from "~/core/text";

/* What the columns of a table can stand for, and which they probably do. */

/** What a row is: where results are read off a line, the rows of its standards and blanks stand among those of the samples. */
export type RowKind = "sample" | "standard" | "blank";

/** A field of a stage. */
export interface Place {
  readonly stageKey: string;
  readonly field: Field;
}

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
  /** The field that it fills for a run, or in the row of a sample; null where it fills none. */
  readonly fills: Place | null;
  /** The same in the row of a standard, and of a blank. */
  readonly standard: Place | null;
  readonly blank: Place | null;
  /** The volume that the method presumes, which nobody relies on before it is confirmed; empty where there is none. */
  readonly usual: string;
  /** What the method takes where nothing is stated; empty where that is nothing. */
  readonly byMethod: string;
  /** True where several columns can hold it: each cell is one more reading. */
  readonly many: boolean;
}

/** The field that a target fills in a row of some kind. */
export const placeOf = (target: Target, kind: RowKind): Place | null =>
  kind === "sample" ? target.fills : target[kind];

/** True where a target is a reading, of whatever. */
export const isReading = ({ fills, standard, blank }: Target): boolean =>
  (fills ?? standard ?? blank) !== null;

const nowhere = { fills: null, standard: null, blank: null, usual: "", byMethod: "", many: false } as const;

const plain = (key: string, label: Phrase, per: Target["per"]): Target => ({
  ...{ ...nowhere, key, label, per, unit: "", needed: false },
});

/** What is known of a run beside its readings. */
const general: readonly Target[] = [
  plain("sample", msg`Sample`, "run"),
  plain("date", msg`Date`, "run"),
  plain("person", msg`Carried out by`, "run"),
  plain("trial", msg`Name of the trial`, "row"),
];

function reading(stage: ComputedStage, field: Field, label: Phrase, per: Target["per"]): Target {
  const input = inputOf(stage, field.symbol);
  const presumed = (input && presumedOf(input)[field.kind]) ?? "";
  const [usual, byMethod] = field.kind === "volume.taken" ? [presumed, ""] : ["", presumed];
  return {
    ...{ ...nowhere, key: `${stage.key}/${fieldKey(field)}`, label, per, unit: field.unit, usual, byMethod },
    needed: field.optional !== true || usual !== "",
    fills: { stageKey: stage.key, field },
  };
}

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

/** The stage whose line the results of a stage are read off; null where there is none. */
export function lineBefore({ stages }: Method, stageKey: string): CalibrationStage | null {
  const stage = stages.find(({ key }) => key === stageKey);
  const off = stage?.inputs.find((input) => input.is === "read-off");
  const line = stages.find(({ key }) => key === off?.stage);
  return line?.kind === "calibration" ? line : null;
}

/** The stages that a table can hold the trials of: titrations, and flasks that are read off a line. */
export const tableStages = (method: Method): readonly ComputedStage[] =>
  method.stages.filter(({ kind, key }) => kind === "titration" || lineBefore(method, key) !== null);

/** The stages before one whose results it needs: their results are stated, and nothing is done in them. */
export const stagesBefore = (method: Method, stageKey: string): readonly ComputedStage[] => {
  const at = method.stages.findIndex(({ key }) => key === stageKey);
  return method.stages.slice(0, at).filter((stage) => isKnowable(method, stage));
};

/** Stages before one in which something is stated that no result rests on: a wavelength that was chosen. */
const statedBefore = (method: Method, stageKey: string, rules: HouseRules): readonly ComputedStage[] => {
  const known = stagesBefore(method, stageKey);
  const at = method.stages.findIndex(({ key }) => key === stageKey);
  return method.stages
    .slice(0, at)
    .filter((one) => trialFields(one, rules).length === 0 && !known.includes(one));
};

/** What a row of flasks holds: what was read of all of them in one column, whichever they are. */
function flaskRows(line: CalibrationStage, stage: ComputedStage, rules: HouseRules): readonly Target[] {
  const placesOf = ({ key }: ComputedStage, fields: readonly Field[]) =>
    named(fields)
      // A drift is found by who reads again, not from a table.
      .filter(([field]) => field.kind !== "absorbance.again")
      .map(([field, label]) => ({ label, place: { stageKey: key, field } }));
  const blanks = placesOf(line, stageFields(line, rules)).filter(({ place }) => place.field.many);
  const standards = placesOf(line, trialFields(line, rules));
  const samples = placesOf(stage, trialFields(stage, rules));
  const shared = samples.map(({ label, place }): Target => {
    const like = (places: typeof standards) =>
      (place.field.many && places.find((one) => one.place.field.kind === place.field.kind)?.place) || null;
    const { many = false } = place.field;
    const target = reading(stage, place.field, label, "row");
    return { ...target, needed: target.needed || many, standard: like(standards), blank: like(blanks), many };
  });
  const taken = shared.flatMap(({ standard }) => (standard ? [standard.field] : []));
  const own = standards
    .filter(({ place }) => !taken.includes(place.field))
    .map(({ label, place }) => ({
      ...reading(line, place.field, msg`${label} (standards)`, "row"),
      ...{ fills: null, standard: place },
    }));
  return [plain("what", msg`Blank, standard or sample`, "row"), ...own, ...shared];
}

/** Targets whose labels are unlike: a label that several have says what it belongs to. */
function unlike(method: Method, targets: readonly Target[]): readonly Target[] {
  const labels = targets.map(({ label }) => inEnglish(label));
  return targets.map((target, i) => {
    const { stageKey } = target.fills ?? {};
    const title = method.stages.find(({ key }) => key === stageKey)?.title;
    const isAlone = labels.filter((label) => label === labels[i]).length === 1;
    return isAlone || title === undefined ? target : { ...target, label: msg`${target.label} (${title})` };
  });
}

/** All that a table of one stage's trials can hold, in the order of the work. */
export function targetsOf(method: Method, stageKey: string, rules: HouseRules): readonly Target[] {
  const stage = method.stages.find(({ key }) => key === stageKey);
  if (!stage) return general;
  const line = lineBefore(method, stageKey);
  const of = (one: ComputedStage, fields: readonly Field[], per: Target["per"]) =>
    named(fields).map(([field, label]) => reading(one, field, label, per));
  const ofRun = (one: ComputedStage) => of(one, stageFields(one, rules), "run");
  const before = stagesBefore(method, stageKey).map((earlier) => knownStage(method, earlier));
  const beside = statedBefore(method, stageKey, rules)
    .flatMap(ofRun)
    .map((target) => ({ ...target, needed: false }));
  const rows = line
    ? flaskRows(line, stage, rules)
    : [
        ...(stage.kind === "titration" ? [plain("rough", msg`Rough or fine`, "row")] : []),
        ...of(stage, trialFields(stage, rules), "row"),
      ];
  return unlike(method, [
    ...general,
    ...before.flatMap(ofRun),
    ...beside,
    ...[...(line ? [line] : []), stage].flatMap(ofRun),
    ...rows,
  ]);
}

/** Words that tables are headed with, beside the labels of the fields. From memory. */
const known: Readonly<Record<string, RegExp>> = {
  sample: /^(sample|unknown|code|lot)\b/i,
  date: /^(date|day|when)\b/i,
  person: /^(carried out by|analyst|student|name|bench|by|who)\b/i,
  trial: /^(trial|run|replicate|no\.?|#|flask)\b/i,
  what: /^(what|type|kind|role)\b/i,
  rough: /^rough\b/i,
};
const knownKinds: Readonly<Record<string, RegExp>> = {
  "burette.initial": /\b(initial|start)/i,
  "burette.final": /\b(final|end)/i,
  "mass.before": /\b(before|gross)/i,
  "mass.after": /\b(after|empty)/i,
  absorbance: /^(abs\w*|extinction|a)[ _]?\d*$/i,
};

const bare = (text: string) =>
  text
    .toLowerCase()
    .replace(/[([].*?[)\]]/g, " ")
    .replace(/,.*$/, "")
    .replace(/[^\p{L}\p{N}]+/gu, " ")
    .trim();

/** Whether a heading names what a target stands for: by its label first, then by words that are used for it. */
function names(heading: string, { key, label, per, fills }: Target, how: "label" | "words"): boolean {
  if (heading.trim() === "") return false;
  if (how === "label") return bare(heading) === bare(inEnglish(label));
  return fills
    ? per === "row" && knownKinds[fills.field.kind]?.test(bare(heading)) === true
    : known[key]?.test(heading) === true;
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
      if (!target.many) taken.add(target.key);
    });
  return found;
}

/** The unit that stands in a heading: behind a comma, or in brackets; empty where none does. */
export const unitIn = (heading: string): string =>
  /[([]\s*([^)\]\s]+)\s*[)\]]\s*$|,\s*(\S+)\s*$/.exec(heading)?.slice(1).find(Boolean) ?? "";
