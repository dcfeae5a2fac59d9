import { evaluateRun } from "./evaluate";
import type { RunEvaluation } from "../stages";
import type { RunRecord } from "../run";
import type { HouseRules } from "../rules";
import { msg, type Phrase, joined, inEnglish } from "../text";

/** One thing that other house rules would change in a run, as it is shown now and as it would be. */
export interface RulesEffect {
  /** The stage that it is of. */
  readonly stage: string;
  readonly what: Phrase;
  readonly from: Phrase;
  readonly to: Phrase;
}

/** What a run shows that rests on house rules, by stage and by what it is. */
function statements(evaluation: RunEvaluation): Map<string, { stage: string; what: Phrase; text: Phrase }> {
  const found = new Map<string, { stage: string; what: Phrase; text: Phrase }>();
  for (const stage of evaluation.stages) {
    const { title, result } = stage.definition;
    const put = (what: Phrase, text: Phrase) =>
      found.set(`${stage.key} ${inEnglish(what)}`, { stage: title, what, text: text });
    put(result.name, stage.shown?.text ?? msg`no result yet`);
    for (const { definition, shown } of stage.also) put(definition.name, shown.text);
    if (stage.kind !== "titration") continue;
    const names = stage.trials.filter((t) => stage.agreement.members.includes(t.id)).map((t) => t.name);
    put(msg`Verdict`, stage.verdict.reason);
    put(msg`Next`, stage.verdict.next);
    put(msg`Trials in the set`, names.length === 0 ? msg`none` : joined(names, ", "));
    if (stage.acceptance) put(msg`Compared with the target`, stage.acceptance.text);
    for (const trial of stage.trials) {
      const cautions = joined(
        trial.cautions.map((c) => c.message),
        "; ",
      );
      put(msg`Remarks on ${trial.name}`, trial.cautions.length === 0 ? msg`none` : cautions);
    }
  }
  return found;
}

/** What a run would show differently under other house rules; empty where nothing would change. */
export function effectsOfRules(record: RunRecord, rules: HouseRules): RulesEffect[] {
  const before = statements(evaluateRun(record));
  const after = statements(evaluateRun({ ...record, houseRules: rules }));
  return [...new Set([...before.keys(), ...after.keys()])].flatMap((key) => {
    const [was, is] = [before.get(key), after.get(key)];
    const about = is ?? was;
    if (!about || (was && is && inEnglish(was.text) === inEnglish(is.text))) return [];
    return [{ stage: about.stage, what: about.what, from: was?.text ?? "–", to: is?.text ?? "–" }];
  });
}
