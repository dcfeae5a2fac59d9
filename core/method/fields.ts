import { type Field, fieldsOfInput } from "../inputs";
import type { ComputedStage } from "./schema";
import { perOf, settingOf } from "./method";
import type { HouseRules } from "../rules";

export const fieldKey = ({ symbol, kind }: Pick<Field, "symbol" | "kind">) => `${symbol}:${kind}`;

const known = new WeakMap<ComputedStage, WeakMap<HouseRules, Record<"trial" | "run", readonly Field[]>>>();

/** The fields of a stage under house rules; both are data that never change, so they are worked out once. */
function fieldsOf(stage: ComputedStage, rules: HouseRules): Record<"trial" | "run", readonly Field[]> {
  const byRules = known.get(stage) ?? new WeakMap<HouseRules, Record<"trial" | "run", readonly Field[]>>();
  known.set(stage, byRules);
  const there = byRules.get(rules);
  if (there) return there;
  const read = (per: "trial" | "run") =>
    stage.inputs
      .filter((input) => perOf(input) === per)
      .flatMap((input) => fieldsOfInput(input, settingOf(stage), rules));
  const found = { trial: read("trial"), run: read("run") };
  byRules.set(rules, found);
  return found;
}

/** What is read in each trial of a stage, in the order of the work: weigh or take, then titrate. */
export const trialFields = (stage: ComputedStage, rules: HouseRules): Field[] => [
  ...fieldsOf(stage, rules).trial,
];

/** What is read once for a stage. */
export const stageFields = (stage: ComputedStage, rules: HouseRules): Field[] => [
  ...fieldsOf(stage, rules).run,
];
