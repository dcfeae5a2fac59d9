import { useCallback, useMemo, useRef, useState } from "react";
import { v7 as newId } from "uuid";
import {
  checkField,
  evaluateRun,
  expectedReading,
  type Field,
  fieldKey,
  type Guidance,
  type RunEvaluation,
  type RunRecord,
  type TitrationEvaluation,
  trialFields,
  withDraft,
} from "~/core/run";
import { readDraft, type StoredDraft, useStoredDraft } from "./draft-store";
import type { Send } from "./use-run";

/** How a field stands while it is not saved: on its way, or with a message beside it; a caution lets it be saved. */
export interface FieldNote {
  readonly state: "saving" | "refused" | "unreachable" | "caution";
  readonly message: string;
  readonly proposal?: string;
}

export interface TrialEntry {
  /** The run as it would be if what is being typed were saved. */
  readonly evaluation: RunEvaluation;
  readonly stage: TitrationEvaluation;
  readonly fields: readonly Field[];
  readonly kind: "rough" | "fine";
  /** The trial's id once there is one, else "next". */
  readonly trialId: string;
  /** True once the set is closed by what is saved, whatever is being typed. */
  readonly closed: boolean;
  /** Where the end of the trial in hand should come: it stays while the final reading is being typed. */
  readonly guidance: Guidance | null;
  /** How many trials of the stage are saved whole: it grows when the next trial's turn comes. */
  readonly completed: number;
  readonly textOf: (field: Field) => string;
  readonly noteOf: (field: Field) => FieldNote | null;
  readonly type: (field: Field, text: string) => void;
  /** Checks and saves a field, and those before it that were left as offered. True when nothing stands in the way. */
  readonly commit: (field: Field) => boolean;
  readonly setKind: (kind: "rough" | "fine") => void;
}

const next = "next";

/** What is typed for the trial in hand of one stage: kept in the browser, recomputed at each key, saved field by field. */
export function useTrialEntry(record: RunRecord, saved: TitrationEvaluation, send: Send): TrialEntry {
  const { key: stageKey, definition, current } = saved;
  const storeKey = `steady-bead.draft.${record.id}.${stageKey}`;
  const [stored, store] = useStoredDraft(storeKey);
  const [notes, setNotes] = useState<Readonly<Record<string, FieldNote>>>({});
  const onTheWay = useRef(new Set<string>());
  const attempts = useRef(new Map<string, { text: string; id: string }>());

  const fits =
    stored && (current ? stored.trialId === current.id : !saved.trials.some((t) => t.id === stored.trialId));
  const theoryKnown = definition.presumed !== undefined;
  const usualKind = current?.record.kind ?? (saved.trials.length === 0 && !theoryKnown ? "rough" : "fine");
  const draft: StoredDraft = useMemo(
    () => (fits ? stored : { trialId: current?.id ?? next, kind: usualKind, texts: {} }),
    [fits, stored, current, usualKind],
  );
  const kind = current?.record.kind ?? draft.kind;

  const texts = useMemo(
    () => ({ ...Object.fromEntries(saved.proposals), ...draft.texts }),
    [saved.proposals, draft.texts],
  );
  const evaluation = useMemo(
    () =>
      // A finished run has no trial in hand.
      evaluateRun(
        record.status === "open"
          ? withDraft(record, { stageKey, trialId: draft.trialId, kind, texts })
          : record,
      ),
    [record, stageKey, draft.trialId, kind, texts],
  );
  const guidance = useMemo(() => {
    const withoutFinal = Object.fromEntries(
      Object.entries(texts).filter(([key]) => !key.endsWith(":burette.final")),
    );
    const draftRecord = withDraft(record, { stageKey, trialId: draft.trialId, kind, texts: withoutFinal });
    const pending = evaluateRun(draftRecord).stages.find((s) => s.key === stageKey);
    return pending?.kind === "titration" ? pending.guidance : null;
  }, [record, stageKey, draft.trialId, kind, texts]);
  const stage = evaluation.stages.find(
    (s): s is TitrationEvaluation => s.key === stageKey && s.kind === "titration",
  );
  const fields = useMemo(() => trialFields(definition, record.houseRules), [definition, record.houseRules]);

  const noteKey = useCallback((field: Field) => `${draft.trialId}/${fieldKey(field)}`, [draft.trialId]);
  const setNote = (key: string, note: FieldNote | null) =>
    setNotes((all) => {
      const rest = Object.fromEntries(Object.entries(all).filter(([k]) => k !== key));
      return note ? { ...rest, [key]: note } : rest;
    });

  const isSaved = (field: Field) =>
    current?.fields.some((f) => fieldKey(f.field) === fieldKey(field) && f.present !== null) ?? false;

  const type = (field: Field, text: string) => {
    const trialId = draft.trialId === next ? newTrialId() : draft.trialId;
    store({ trialId, kind, texts: { ...draft.texts, [fieldKey(field)]: text } });
    setNote(`${trialId}/${fieldKey(field)}`, null);
  };

  /** What is saved is no draft any more: taken back later, it must not come up again by itself. */
  const forget = (field: Field, text: string) => {
    const now = readDraft(storeKey);
    if (now?.texts[fieldKey(field)] !== text) return;
    const others = Object.entries(now.texts).filter(([key]) => key !== fieldKey(field));
    store({ ...now, texts: Object.fromEntries(others) });
  };

  const save = (field: Field, text: string, trialId: string) => {
    const key = `${trialId}/${fieldKey(field)}`;
    if (onTheWay.current.has(key)) return;
    onTheWay.current.add(key);
    setNote(key, { state: "saving", message: "saving" });
    // The same reading sent again keeps its id, so that it is written once even if an answer was lost.
    const before = attempts.current.get(key);
    const id = before?.text === text ? before.id : newId();
    attempts.current.set(key, { text, id });
    void send({
      intent: "observe",
      id,
      stageKey,
      trial: { id: trialId, kind },
      symbol: field.symbol,
      kind: field.kind,
      text,
      supersedes: null,
      reason: null,
    }).then((answer) => {
      onTheWay.current.delete(key);
      if (answer.status === "done") {
        attempts.current.delete(key);
        forget(field, text);
        return setNote(key, null);
      }
      const state = answer.status === "unreachable" ? "unreachable" : "refused";
      setNote(key, { ...answer, state });
    });
  };

  // Leaving a field right after Enter comes here twice before anything is rendered anew: one trial, one id.
  const newTrialId = () => {
    const begun = readDraft(storeKey)?.trialId ?? next;
    return begun === next || saved.trials.some((t) => t.id === begun) ? newId() : begun;
  };

  const commit = (field: Field): boolean => {
    const upTo = fields.findIndex((f) => fieldKey(f) === fieldKey(field));
    const trialId = draft.trialId === next ? newTrialId() : draft.trialId;
    const trial = stage?.trials.find((t) => t.id === draft.trialId);
    const holder = { observations: trial?.record.observations ?? [] };
    if (draft.trialId === next && readDraft(storeKey)?.trialId !== trialId)
      store({ trialId, kind, texts: draft.texts });
    for (const f of fields.slice(0, upTo + 1)) {
      const text = texts[fieldKey(f)] ?? "";
      const last = fieldKey(f) === fieldKey(field);
      if (isSaved(f) || (text === "" && !last)) continue;
      const checked = checkField(f, text, { stage: definition, houseRules: record.houseRules, holder });
      if (!checked.ok) {
        setNote(`${trialId}/${fieldKey(f)}`, { ...checked.check, state: "refused" });
        if (last) return false;
        continue;
      }
      save(f, text, trialId);
    }
    return true;
  };

  /** What should be known of a reading that could be saved: a likely slip, with what was probably meant. */
  const cautionOf = (field: Field): FieldNote | null => {
    const text = texts[fieldKey(field)] ?? "";
    if (text === "" || text === saved.proposals.get(fieldKey(field))) return null;
    const trial = stage?.trials.find((t) => t.id === draft.trialId);
    const checked = checkField(field, text, {
      stage: definition,
      houseRules: record.houseRules,
      holder: { observations: trial?.record.observations ?? [] },
      // A rough trial is made to find the end: nothing about it surprises.
      expected: kind === "rough" ? null : expectedReading(field, guidance),
      others: saved.trials.filter((t) => t.id !== draft.trialId && !t.record.struck).map((t) => t.record),
    });
    const caution = checked.ok ? checked.cautions[0] : undefined;
    return caution ? { ...caution, state: "caution" } : null;
  };

  return {
    evaluation,
    stage: stage ?? saved,
    fields,
    kind,
    trialId: draft.trialId,
    closed: saved.verdict.state === "agreed",
    guidance,
    completed: saved.trials.filter((t) => !t.missing).length,
    textOf: (field) => texts[fieldKey(field)] ?? "",
    noteOf: (field) => notes[noteKey(field)] ?? cautionOf(field),
    type,
    commit,
    setKind: (chosen) => {
      if (current) void send({ intent: "mark", trialId: current.id, kind: chosen });
      else store({ ...draft, trialId: draft.trialId === next ? newTrialId() : draft.trialId, kind: chosen });
    },
  };
}
