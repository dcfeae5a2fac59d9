import { checkField, fieldKey, trialFields } from "../method";
import { nextTrialNumber, type Observation, presentObservation, type TrialRecord } from "../record";
import type { RunRecord } from "../run";

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
export function withDraft(record: RunRecord, draft: TrialDraft): RunRecord {
  const definition = record.method.stages.find((s) => s.key === draft.stageKey);
  if (definition?.kind !== "titration") return record;
  return {
    ...record,
    stages: record.stages.map((stage) => {
      if (stage.key !== draft.stageKey) return stage;
      const existing = stage.trials.find((t) => t.id === draft.trialId);
      const trial: TrialRecord = existing ?? {
        id: draft.trialId,
        number: draft.kind === "fine" ? nextTrialNumber(stage.trials) : null,
        label: null,
        kind: draft.kind,
        struck: null,
        observations: [],
      };
      const observations: Observation[] = [...trial.observations];
      for (const field of trialFields(definition, record.houseRules)) {
        const text = draft.texts[fieldKey(field)];
        if (text === undefined || presentObservation(observations, field.symbol, field.kind)) continue;
        const context = { stage: definition, houseRules: record.houseRules, holder: { observations } };
        const checked = checkField(field, text, context);
        if (!checked.ok) continue;
        observations.push({
          id: `${draftMark}${fieldKey(field)}`,
          symbol: field.symbol,
          kind: field.kind,
          text,
          value: checked.text,
          unit: field.unit,
          source: "typed",
          person: "",
          at: record.startedAt,
          supersedes: null,
          reason: null,
        });
      }
      const drafted = { ...trial, observations };
      const trials = existing
        ? stage.trials.map((t) => (t === existing ? drafted : t))
        : [...stage.trials, drafted];
      return { ...stage, trials };
    }),
  };
}
