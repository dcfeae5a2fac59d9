import { useCallback, useMemo, useRef } from "react";
import { asksBack } from "~/core/measure";
import { checkField, fieldKey, persistenceOf, secondReadingChecks, trialFields } from "~/core/method";
import { evaluateRun, rememberedStages, withDraft } from "~/core/evaluate";
import {
  expectedReading,
  type Guidance,
  type RunEvaluation,
  startsRough,
  type TitrationEvaluation,
} from "~/core/stages";
import type { Field } from "~/core/inputs";
import { isDraft } from "~/core/change";
import { type ObservationKind, presentObservation } from "~/core/record";
import type { RunRecord } from "~/core/run";
import { readDraft, useStoredDraft, writeDraft } from "../shared/draft-store";
import { endWatch } from "./end-watch";
import { useHand } from "./use-hand";
import { type FieldNote, useSaving } from "./use-saving";
import type { Send } from "../shared/use-run";

export interface TrialEntry {
  /** The run as it would be if what is being typed were saved. */
  readonly evaluation: RunEvaluation;
  readonly stage: TitrationEvaluation;
  /** Flasks that are begun by what is saved. */
  readonly begun: TitrationEvaluation["begun"];
  /** What is asked for in turn. */
  readonly fields: readonly Field[];
  /** What may be written beside that, by kind. */
  readonly aside: (kind: ObservationKind) => Field | undefined;
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
  /** True where this field is being typed for the second time, without sight of the first. */
  readonly isSecond: (field: Field) => boolean;
  readonly type: (field: Field, text: string) => void;
  /** Checks and saves a field, and those before it that were left as offered. True when nothing stands in the way. */
  readonly commit: (field: Field) => boolean;
  /** Writes a reading that is there already: a steady value from an instrument, or a mark that was chosen for the end. */
  readonly take: (field: Field, text: string, source?: "typed" | "instrument") => void;
  /** Of two readings that differ, the one that stands. */
  readonly settle: (field: Field, text: string) => void;
  /** Marks what is typed as a place where the end may be, and goes on. */
  readonly markMaybe: (field: Field) => void;
  readonly setKind: (kind: "rough" | "fine") => void;
  /** The flask that was taken in hand by a press; null where it is simply the one whose turn it is. */
  readonly chosen: string | null;
  /** Takes another flask in hand: a begun or planned one by its id, or the next one. */
  readonly takeInHand: (trialId: string) => void;
  /** The id of the trial in hand, made now where it has none. */
  readonly idInHand: () => string;
}

/** What the first of two readings is kept under while the second is typed. */
const firstKey = (field: Field) => `${fieldKey(field)}#first`;

const secondKind: Partial<Record<ObservationKind, ObservationKind>> = {
  "burette.initial": "burette.initial.again",
  "burette.final": "burette.final.again",
};

/** What is typed changes one stage: the others are not evaluated again at each key. */
const remembered = rememberedStages();

/** What is typed for the trial in hand of one stage: kept in the browser, recomputed at each key, saved field by field. */
export function useTrialEntry(record: RunRecord, saved: TitrationEvaluation, send: Send): TrialEntry {
  const { key: stageKey, definition } = saved;
  const base = `steady-bead.draft.${record.id}.${stageKey}`;
  const hand = useHand(base, saved);
  const { trialId } = hand;
  const [stored] = useStoredDraft(`${base}.${trialId}`);
  const asked = useRef(new Map<string, string>());

  const stageOf = useCallback(
    (of: RunRecord) => {
      const found = evaluateRun(of, { stageKey, trialId }, remembered).stages.find((s) => s.key === stageKey);
      return found?.kind === "titration" ? found : null;
    },
    [stageKey, trialId],
  );
  const here = useMemo(() => stageOf(record) ?? saved, [stageOf, record, saved]);
  const { current, proposals } = here;
  const usualKind =
    saved.trials.length === 0 && startsRough(definition, record.houseRules) ? "rough" : "fine";
  const kind =
    current?.record.kind ??
    stored?.kind ??
    (hand.pointer?.trialId === trialId ? hand.pointer.kind : usualKind);

  const { noteKey, notes, setNote, write, save, isOnTheWay } = useSaving({
    base,
    stageKey,
    trialId,
    kind,
    send,
  });
  const texts = useMemo(() => ({ ...Object.fromEntries(proposals), ...stored?.texts }), [proposals, stored]);
  const open = record.status === "open";
  const evaluation = useMemo(
    // A finished run has no trial in hand.
    () =>
      evaluateRun(
        open ? withDraft(record, { stageKey, trialId, kind, texts }) : record,
        { stageKey, trialId },
        remembered,
      ),
    [record, open, stageKey, trialId, kind, texts],
  );
  // Where the end should come does not depend on the end that is being typed: it is not worked out anew for it.
  const beforeEnd = JSON.stringify(
    Object.entries(texts).filter(([key]) => key !== `${saved.titer}:burette.final`),
  );
  const guidance = useMemo(() => {
    const known = Object.fromEntries(JSON.parse(beforeEnd) as [string, string][]);
    return stageOf(withDraft(record, { stageKey, trialId, kind, texts: known }))?.guidance ?? null;
  }, [record, stageKey, trialId, kind, beforeEnd, stageOf]);
  const stage = evaluation.stages.find(
    (s): s is TitrationEvaluation => s.key === stageKey && s.kind === "titration",
  );
  const [fields, asides] = useMemo(() => {
    const all = trialFields(definition, record.houseRules);
    return [all.filter((f) => !f.aside), all.filter((f) => f.aside)];
  }, [definition, record.houseRules]);

  const isSaved = (field: Field) =>
    current?.fields.some((f) => fieldKey(f.field) === fieldKey(field) && f.present !== null) ?? false;

  /** Readings of the trial in hand that stand, with what is typed and not saved left out of the account. */
  const holder = () => {
    const trial = stage?.trials.find((t) => t.id === trialId);
    return { observations: trial?.record.observations ?? [] };
  };

  const type = (field: Field, text: string) => {
    const id = hand.idInHand(kind);
    // What is on its way stays as it was sent: another text would be taken for saved with it. It can be corrected then.
    if (isOnTheWay(field, id)) return;
    write(id, { [fieldKey(field)]: text });
    setNote(noteKey(field, id), null);
  };

  /** An end that was written starts the stopwatch; a flask that is begun ends those of the flasks before it. */
  const watchEnds = ({ kind: written, symbol }: Field, id: string) => {
    const timers = record.stages.find((s) => s.key === stageKey)?.timers ?? [];
    for (const { id: timerId, counts, endedAt, trialId: of } of timers) {
      if (counts === "persist" && endedAt === null && of !== id) {
        void send({ intent: "end-timer", timerId, outcome: "done" });
      }
    }
    const seconds = persistenceOf(definition, kind);
    if (written !== "burette.final" || symbol !== saved.titer || seconds === null) return;
    const flask = stage?.trials.find((t) => t.id === id)?.words ?? "";
    void send(endWatch(stageKey, id, flask, seconds));
  };

  /** Writes a reading, and what goes with it: once, however often it is confirmed while it is on its way. */
  const put = (field: Field, text: string, id: string, source: "typed" | "instrument" = "typed") => {
    if (save(field, text, id, field, source)) watchEnds(field, id);
  };

  /** Where a house types twice: the first reading is put away, the second is held against it. True when both are settled. */
  const readTwice = (field: Field, text: string, id: string): boolean => {
    const again = secondKind[field.kind];
    if (!record.houseRules.burette.readTwice || !again || text === proposals.get(fieldKey(field))) {
      put(field, text, id);
      return true;
    }
    const first = readDraft(`${base}.${id}`)?.texts[firstKey(field)];
    if (first === undefined) {
      write(id, { [firstKey(field)]: text, [fieldKey(field)]: "" });
      return false;
    }
    const [differs] = secondReadingChecks(record.houseRules, first, text);
    if (differs) {
      const choices = [...new Set([first, text])];
      setNote(noteKey(field, id), { state: "ask", message: differs.message, choices });
      return false;
    }
    bothSaved(field, first, text, id);
    return true;
  };

  const bothSaved = (field: Field, stands: string, other: string, id: string) => {
    const again = secondKind[field.kind];
    write(id, { [firstKey(field)]: null, [fieldKey(field)]: stands });
    put(field, stands, id);
    if (again) save({ symbol: field.symbol, kind: again }, other, id, field);
  };

  const check = (field: Field, text: string) =>
    checkField(field, text, {
      stage: definition,
      houseRules: record.houseRules,
      holder: holder(),
      // A rough trial is made to find the end: nothing about it surprises.
      expected: kind === "rough" || field.symbol !== saved.titer ? null : expectedReading(field, guidance),
      others: saved.trials.filter((t) => t.id !== trialId && !t.record.struck).map((t) => t.record),
    });

  const commit = (field: Field): boolean => {
    const upTo = fields.findIndex((f) => fieldKey(f) === fieldKey(field));
    const id = hand.idInHand(kind);
    for (const f of field.aside ? [field] : fields.slice(0, upTo + 1)) {
      const text = texts[fieldKey(f)] ?? "";
      const last = fieldKey(f) === fieldKey(field);
      if (isSaved(f) || (text === "" && !last)) continue;
      const checked = check(f, text);
      const key = noteKey(f, id);
      if (!checked.ok) {
        setNote(key, { ...checked.problem, state: "refused" });
        if (last) return false;
        continue;
      }
      const slip = text === proposals.get(fieldKey(f)) ? undefined : checked.value.cautions.find(asksBack);
      if (slip && last && asked.current.get(key) !== text) {
        asked.current.set(key, text);
        setNote(key, { ...slip, state: "ask", message: `${slip.message} Enter again keeps ${text}.` });
        return false;
      }
      if (!readTwice(f, text, id)) return false;
    }
    return true;
  };

  const take = (field: Field, shown: string, source: "typed" | "instrument" = "instrument") => {
    const id = hand.idInHand(kind);
    if (isOnTheWay(field, id)) return;
    write(id, { [fieldKey(field)]: shown });
    const checked = check(field, shown);
    if (!checked.ok) return setNote(noteKey(field, id), { ...checked.problem, state: "refused" });
    // A start that was left as offered belongs to it as well.
    const upTo = fields.findIndex((f) => fieldKey(f) === fieldKey(field));
    for (const f of field.aside ? [] : fields.slice(0, upTo)) {
      const text = texts[fieldKey(f)] ?? "";
      if (text !== "" && !isSaved(f) && check(f, text).ok) put(f, text, id);
    }
    put(field, shown, id, source);
  };

  const settle = (field: Field, text: string) => {
    const id = hand.idInHand(kind);
    const draft = readDraft(`${base}.${id}`)?.texts ?? {};
    const [first, second] = [draft[firstKey(field)] ?? text, draft[fieldKey(field)] ?? text];
    bothSaved(field, text, text === first ? second : first, id);
  };

  const markMaybe = (field: Field) => {
    const id = hand.idInHand(kind);
    const mark = asides.find((f) => f.kind === "burette.maybe" && f.symbol === field.symbol);
    const text = texts[fieldKey(field)] ?? "";
    if (!mark) return;
    const checked = checkField(mark, text, {
      stage: definition,
      houseRules: record.houseRules,
      holder: holder(),
    });
    if (!checked.ok) return setNote(noteKey(field, id), { ...checked.problem, state: "refused" });
    const upTo = fields.findIndex((f) => fieldKey(f) === fieldKey(field));
    // A start that was left as offered belongs to the mark as well.
    const start = fields.slice(0, upTo).findLast((f) => f.symbol === field.symbol);
    if (start && !isSaved(start) && !commit(start)) return;
    save(mark, text, id, field);
    write(id, { [fieldKey(field)]: null });
  };

  /** What should be known of a reading that could be saved: a likely slip, with what was probably meant. */
  const cautionOf = (field: Field): FieldNote | null => {
    const text = texts[fieldKey(field)] ?? "";
    if (text === "" || text === proposals.get(fieldKey(field))) return null;
    const checked = check(field, text);
    const caution = checked.ok ? checked.value.cautions[0] : undefined;
    return caution ? { ...caution, state: "caution" } : null;
  };

  return {
    evaluation,
    stage: stage ?? saved,
    begun: here.begun,
    fields,
    aside: (of) => asides.find((f) => f.kind === of),
    kind,
    trialId,
    closed: saved.done,
    guidance,
    completed: saved.trials.filter((t) => !t.missing).length,
    textOf: (field) => texts[fieldKey(field)] ?? "",
    noteOf: (field) => notes[noteKey(field)] ?? cautionOf(field),
    isSecond: (field) => texts[firstKey(field)] !== undefined,
    type,
    commit,
    take,
    settle,
    markMaybe,
    setKind: (chosen) => {
      if (current) void send({ intent: "mark", trialId: current.id, kind: chosen });
      else {
        const id = hand.idInHand(chosen);
        if (readDraft(base)?.trialId === id) writeDraft(base, { trialId: id, kind: chosen, texts: {} });
        const draft = readDraft(`${base}.${id}`);
        if (draft) writeDraft(`${base}.${id}`, { ...draft, kind: chosen });
      }
    },
    chosen: hand.chosen,
    takeInHand: hand.choose,
    idInHand: () => hand.idInHand(kind),
  };
}

/** The saved reading of a field of the trial in hand; what is only being typed is none. */
export function savedReading(entry: TrialEntry, field: Field) {
  const trial = entry.stage.trials.find((t) => t.id === entry.trialId);
  const found = trial && presentObservation(trial.record.observations, field.symbol, field.kind);
  return found && !isDraft(found) ? found : null;
}
