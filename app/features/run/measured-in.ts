import { type Input, measuredBy } from "~/core/inputs";
import { knownOf, type RunRecord } from "~/core/run";

/** What a stage reads by its method; nothing where it is known. */
export const inputsOf = (record: RunRecord, stageKey: string): readonly Input[] =>
  knownOf(record, stageKey) ? [] : (record.method.stages.find(({ key }) => key === stageKey)?.inputs ?? []);

/** Whether a stage measures anything at the bench. */
export const measures = (record: RunRecord, stageKey: string): boolean =>
  inputsOf(record, stageKey).some((input) => measuredBy(input) !== null);
