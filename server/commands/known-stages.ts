import { applyChange, type RunChange } from "../../core/change";
import { changeContext } from "../../core/evaluate";
import { type Result, success } from "../../core/result";
import { knownStage, type RunRecord } from "../../core/run";
import type { Phrase } from "../../core/text";
import type { KnownStage } from "../../protocol/requests";
import type { DatabaseConnection } from "../database/types";
import { newId } from "../journal/under-way";
import { bottleTaken } from "../queries/bottle";

/** The changes that make a stage known, one after the other. */
function changesFor(record: RunRecord, known: KnownStage): RunChange[] {
  const { stageKey, assignmentId, from } = known;
  const stage = record.method.stages.find(({ key }) => key === stageKey);
  const knows: RunChange = { intent: "know-stage", stageKey, known: { from } };
  if (!stage) return [knows];
  const { symbol } = knownStage(record.method, stage).result;
  if (assignmentId !== null) return [knows, { intent: "take", stageKey, symbol, assignmentId, reason: null }];
  const stated = (kind: "given" | "given.plus-minus", text: string): RunChange[] =>
    text.trim() === ""
      ? []
      : [
          {
            ...{ intent: "observe", id: newId(), trial: null, supersedes: null, reason: null },
            ...{ stageKey, symbol, kind, text: text.trim() },
          },
        ];
  return [knows, ...stated("given", known.value), ...stated("given.plus-minus", known.plusMinus)];
}

/**
 * The record of a run that begins, with the stages known that are: a bottle of the shelf taken, or what was stated of them. A value
 * may be left out, and stated in the run. Fails, with the stage, where a value or a bottle does not do.
 */
export async function withKnownStages(
  db: DatabaseConnection,
  record: RunRecord,
  known: readonly KnownStage[],
  now: Date,
): Promise<Result<RunRecord, { readonly message: Phrase; readonly stageKey: string }>> {
  let after = record;
  for (const one of known) {
    const bottle = one.assignmentId === null ? null : await bottleTaken(db, one.assignmentId);
    const context = {
      ...changeContext({ now: now.toISOString(), person: record.bench, newId: () => newId() }),
      bottle,
    };
    for (const change of changesFor(record, one)) {
      const applied = applyChange(after, change, context);
      if (!applied.ok)
        return { ok: false, problem: { message: applied.problem.message, stageKey: one.stageKey } };
      after = applied.value?.record ?? after;
    }
  }
  return success(after);
}
