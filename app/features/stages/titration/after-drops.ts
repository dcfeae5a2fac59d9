import { withPoint } from "~/core/text";
import { buretteAfterDrops, type HouseRules } from "~/core/rules";
import type { Field } from "~/core/inputs";
import type { TrialEntry } from "./use-trial-entry";

/** The final reading so many drops further than what is typed, or than the start of the trial where nothing is. */
export function afterDrops(entry: TrialEntry, field: Field, drops: number, rules: HouseRules): string {
  const of = (kind: Field["kind"]) => entry.fields.find((f) => f.symbol === field.symbol && f.kind === kind);
  const initial = of("burette.after-refill") ?? of("burette.initial");
  const start = initial ? entry.stateOf(initial).text : "0";
  const from = Number(withPoint(entry.stateOf(field).text || start));
  return buretteAfterDrops(Number.isFinite(from) ? from : 0, drops, rules);
}
