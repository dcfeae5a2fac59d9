import { fieldKey, trialFields } from "../method";
import { type Observation, presentObservation } from "../record";
import type { RunRecord } from "../run";
import type { ChangeContext } from "./change";
import type { RunChange } from "./schema";
import { findTrial, openStage } from "./place";
import { afterChanges } from "./table";

/** What has been typed for one trial and is not saved yet, by field key. */
export interface TrialDraft {
  readonly stageKey: string;
  readonly trialId: string;
  readonly kind: "rough" | "fine";
  readonly texts: Readonly<Record<string, string>>;
}

const draftMark = "draft:";

/** True for a reading that is being typed and is not saved. */
export const isDraft = ({ id }: Pick<Observation, "id">): boolean => id.startsWith(draftMark);

/**
 * The record as it would be if what is being typed were saved: each text that passes its check becomes an observation.
 * Texts that do not pass, and fields that already hold a reading, are left out. The record itself is not touched.
 */
export function drafted(record: RunRecord, draft: TrialDraft, context: ChangeContext): RunRecord {
  const { stageKey, trialId, kind, texts } = draft;
  const opened = openStage(record, stageKey);
  if (!opened.ok || !context.allows(opened.value.definition).trials) return record;
  const there = findTrial(record, trialId)?.trial.observations ?? [];
  const changes = trialFields(opened.value.definition, record.houseRules).flatMap((field): RunChange[] => {
    const key = fieldKey(field);
    const text = texts[key];
    const isRead = !field.many && presentObservation(there, field.symbol, field.kind) !== null;
    if (text === undefined || isRead) return [];
    return [
      {
        intent: "observe",
        id: `${draftMark}${key}`,
        stageKey,
        trial: { id: trialId, kind },
        ...{ symbol: field.symbol, kind: field.kind, text },
        supersedes: null,
        reason: null,
      },
    ];
  });
  return afterChanges({ ...record, status: "open" }, changes, () => context);
}
