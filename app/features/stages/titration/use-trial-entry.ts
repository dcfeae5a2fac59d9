import { useMemo } from "react";
import { checkField, fieldKey, secondReadingChecks, trialFields } from "~/core/method";
import { evaluateRun, rememberedStages, withDraft } from "~/core/evaluate";
import {
  type ComputedEvaluation,
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
import { readDrafts, useDrafts, writeDrafts } from "../../../entry/drafts";
import { cautionIn, dropIn, type Entry, settleIn, standing, stateIn, typeIn } from "../../../entry/entry";
import { type FieldState, isTouched, type Note } from "../../../entry/field";
import { type RunInHand, useRunInHand } from "../../../entry/run-context";
import { type Acting, commit, markPossibleEnd, saveEntered, secondKind, take } from "./trial-actions";
import { useHand } from "./use-hand";

export interface TrialEntry {
  /** The run as it would be if what is being typed were saved. */
  readonly evaluation: RunEvaluation;
  readonly stage: TitrationEvaluation;
  /** Flasks that are begun by what is saved. */
  readonly begun: TitrationEvaluation["begun"];
  /** What is asked for in turn; with the two readings of a refill, once one is begun. */
  readonly fields: readonly Field[];
  /** Whether the burette may be refilled midway now, is being refilled, or was; null where that is not to be asked. */
  readonly refill: "possible" | "begun" | "read" | null;
  /** Begins a refill midway, or takes one back of which nothing is read. */
  readonly setRefill: (begun: boolean) => void;
  /** What may be written beside that, by kind. */
  readonly outOfTurn: (kind: ObservationKind) => Field | undefined;
  readonly kind: "rough" | "fine";
  /** The trial's id once there is one, else "next". */
  readonly trialId: string;
  /** True once the set is closed by what is saved, whatever is being typed. */
  readonly closed: boolean;
  /** Expected end point of the trial in hand: it stays while the final reading is being typed. */
  readonly guidance: Guidance | null;
  /** How many trials of the stage are saved whole: it grows when the next trial's turn comes. */
  readonly completed: number;
  readonly stateOf: (field: Field) => FieldState;
  readonly cautionOf: (field: Field) => Note | null;
  readonly type: (field: Field, text: string) => void;
  /** Checks and saves a field, and those before it that were left as offered. True when nothing stands in the way. */
  readonly commit: (field: Field) => boolean;
  /** Saves what was typed in a field that the cursor leaves. */
  readonly leave: (field: Field) => void;
  /** Writes a reading that is there already: a steady value from an instrument, or a mark that was chosen for the end. */
  readonly take: (field: Field, text: string, source?: "typed" | "instrument") => void;
  /** Of two readings that differ, the one that stands. */
  readonly settle: (field: Field, text: string) => void;
  /** Lets go of what was typed when another device had saved its reading. */
  readonly drop: (field: Field) => void;
  /** Marks what is typed as a place where the end may be, and goes on. */
  readonly markPossibleEnd: (field: Field) => void;
  readonly setKind: (kind: "rough" | "fine") => void;
  /** The flask that was taken in hand by a press; null where it is simply the one whose turn it is. */
  readonly chosen: string | null;
  /** Takes another flask in hand: a begun or planned one by its id, or the next one. */
  readonly takeInHand: (trialId: string) => void;
  /** The id of the trial in hand, made now where it has none. */
  readonly idInHand: () => string;
}

/** What is typed changes one stage: the others are not evaluated again at each key. */
const remembered = rememberedStages();

/** The stage as it is with a trial in hand. */
function stageWith(record: RunRecord, stageKey: string, trialId: string): TitrationEvaluation | null {
  const { stages } = evaluateRun(record, { stageKey, trialId }, remembered);
  const found = stages.find((s) => s.key === stageKey);
  return found?.kind === "titration" ? found : null;
}

/** What is typed for the trial in hand, by field; where nothing is, what is offered. */
function useTexts(place: string, offered: ReadonlyMap<string, string>) {
  const drafts = useDrafts(place);
  const texts = useMemo(
    () => ({
      ...Object.fromEntries(offered),
      ...Object.fromEntries(Object.entries(drafts?.fields ?? {}).map(([key, { text }]) => [key, text])),
    }),
    [offered, drafts],
  );
  return { drafts, texts };
}

/** Expected end point of the trial in hand, from all that is typed except the final reading. */
function useGuidance(
  record: RunRecord,
  hand: { stageKey: string; trialId: string; kind: "rough" | "fine" },
  texts: Readonly<Record<string, string>>,
  titer: string,
): Guidance | null {
  const { stageKey, trialId, kind } = hand;
  const beforeEnd = JSON.stringify(Object.entries(texts).filter(([key]) => key !== `${titer}:burette.final`));
  return useMemo(() => {
    const known = Object.fromEntries(JSON.parse(beforeEnd) as [string, string][]);
    const drafted = withDraft(record, { stageKey, trialId, kind, texts: known });
    return stageWith(drafted, stageKey, trialId)?.guidance ?? null;
  }, [record, stageKey, trialId, kind, beforeEnd]);
}

/** The trial in hand of a stage, as it would be if what is typed were saved. */
function useTrialInHand(saved: TitrationEvaluation) {
  const { record, rules, locked } = useRunInHand();
  const { key: stageKey, definition } = saved;
  const base = `steady-bead.draft.${record.id}.${stageKey}`;
  const timers = record.stages.find((s) => s.key === stageKey)?.timers ?? [];
  const hand = useHand(base, saved, timers);
  const { trialId } = hand;
  const here = useMemo(
    () => stageWith(record, stageKey, trialId) ?? saved,
    [record, stageKey, trialId, saved],
  );
  const { drafts, texts } = useTexts(`${base}.${trialId}`, here.proposals);
  const usualKind = saved.trials.length === 0 && startsRough(definition, rules) ? "rough" : "fine";
  const pointed = hand.pointer?.trialId === trialId ? hand.pointer.kind : usualKind;
  const kind = here.current?.record.kind ?? drafts?.kind ?? pointed;
  const evaluation = useMemo(
    // A finished run has no trial in hand.
    () =>
      evaluateRun(
        locked ? record : withDraft(record, { stageKey, trialId, kind, texts }),
        { stageKey, trialId },
        remembered,
      ),
    [record, locked, stageKey, trialId, kind, texts],
  );
  const guidance = useGuidance(record, { stageKey, trialId, kind }, texts, saved.titer);
  const isThis = (s: ComputedEvaluation): s is TitrationEvaluation =>
    s.key === stageKey && s.kind === "titration";
  const stage = evaluation.stages.find(isThis) ?? saved;
  return { base, timers, hand, trialId, here, kind, evaluation, guidance, stage, drafts };
}

/** With what the fields of one trial of the stage are entered. */
function entryOf(
  id: string,
  { record, rules, waiting }: RunInHand,
  saved: TitrationEvaluation,
  { base, kind, here, stage, trialId, guidance }: ReturnType<typeof useTrialInHand>,
): Entry {
  return {
    place: { key: `${base}.${id}`, trialId: id, kind },
    facts: (field) => ({
      offered: here.proposals.get(fieldKey(field)) ?? null,
      stands: standing(presentIn(record, saved.key, id, field), waiting),
    }),
    check: (field, text) =>
      checkField(field, text, {
        stage: saved.definition,
        method: record.method,
        houseRules: rules,
        // Readings that stand, and those being typed that could be saved.
        holder: { observations: stage.trials.find((t) => t.id === trialId)?.record.observations ?? [] },
        // A rough trial is made to find the end: nothing about it surprises.
        expected: kind === "rough" || field.symbol !== saved.titer ? null : expectedReading(field, guidance),
        others: saved.trials.filter((t) => t.id !== trialId && !t.record.struck).map((t) => t.record),
      }),
    compare: (field) =>
      rules.burette.readTwice && secondKind[field.kind]
        ? (first, second) => secondReadingChecks(rules, first, second)[0]?.message ?? null
        : undefined,
    asks: true,
  };
}

/** What is typed for the trial in hand of one stage: kept in the browser, recomputed at each key, saved field by field. */
export function useTrialEntry(saved: TitrationEvaluation): TrialEntry {
  const run = useRunInHand();
  const inHand = useTrialInHand(saved);
  const { base, timers, hand, trialId, here, kind, evaluation, guidance, stage } = inHand;
  const [row, outOfTurn] = useMemo(() => {
    const all = trialFields(saved.definition, run.rules);
    return [all.filter((f) => !f.outOfTurn), all.filter((f) => f.outOfTurn)];
  }, [saved.definition, run.rules]);
  const entry = entryOf(trialId, run, saved, inHand);
  const { refill, fields, refillFields } = withRefill(row, outOfTurn, entry, saved.titer);
  const acting: Acting = {
    ...{ send: run.send, stage, stageKey: saved.key, kind, timers, fields, outOfTurn },
    entryOf: (id) => entryOf(id, run, saved, inHand),
    idInHand: () => hand.idInHand(kind),
  };
  const begunEntry = () => acting.entryOf(acting.idInHand());
  return {
    ...{ evaluation, stage, fields, kind, trialId, guidance, refill },
    setRefill: (begun) => {
      for (const field of refillFields) {
        if (begun) typeIn(begunEntry(), field, stateIn(entry, field).text);
        else dropIn(entry, field);
      }
    },
    begun: here.begun,
    outOfTurn: (of) => outOfTurn.find((f) => f.kind === of),
    closed: saved.done,
    completed: saved.trials.filter((t) => !t.missing).length,
    stateOf: (field) => stateIn(entry, field),
    cautionOf: (field) => cautionIn(entry, field),
    type: (field, text) => typeIn(begunEntry(), field, text),
    commit: (field) => commit(acting, field),
    leave: (field) => {
      if (isTouched(stateIn(entry, field))) commit(acting, field);
    },
    take: (field, text, source = "instrument") => take(acting, field, text, source),
    settle: (field, text) => {
      const of = begunEntry();
      saveEntered(acting, of, settleIn(of, field, text));
    },
    drop: (field) => dropIn(entry, field),
    markPossibleEnd: (field) => markPossibleEnd(acting, field),
    setKind: (chosen) => {
      if (here.current) return void run.send({ intent: "mark", trialId: here.current.id, kind: chosen });
      const id = hand.idInHand(chosen);
      if (readDrafts(base)?.trialId === id) writeDrafts(base, { trialId: id, kind: chosen, fields: {} });
      const typed = readDrafts(`${base}.${id}`);
      if (typed) writeDrafts(`${base}.${id}`, { ...typed, kind: chosen });
    },
    chosen: hand.chosen,
    takeInHand: hand.choose,
    idInHand: acting.idInHand,
  };
}

/** The readings in turn, with those of a refill before the end where one is begun. */
function withRefill(row: readonly Field[], outOfTurn: readonly Field[], entry: Entry, titer: string) {
  const refillFields = outOfTurn.filter(
    ({ kind, symbol }) =>
      symbol === titer && (kind === "burette.before-refill" || kind === "burette.after-refill"),
  );
  const drafts = readDrafts(entry.place.key)?.fields ?? {};
  const isRead = (field: Field) => entry.facts(field).stands !== null;
  const begun = refillFields.some((field) => isRead(field) || fieldKey(field) in drafts);
  const find = (kind: ObservationKind) => row.find((f) => f.symbol === titer && f.kind === kind);
  const [initial, final] = [find("burette.initial"), find("burette.final")];
  if (!initial || !final) return { refill: null, fields: row, refillFields };
  if (!begun) return { refill: isRead(initial) ? ("possible" as const) : null, fields: row, refillFields };
  const fields = row.flatMap((field) => (field === final ? [...refillFields, final] : [field]));
  return { refill: refillFields.some(isRead) ? ("read" as const) : ("begun" as const), fields, refillFields };
}

/** The reading that stands in a field of a trial, on the server or waiting here. */
function presentIn({ stages }: RunRecord, stageKey: string, trialId: string, { symbol, kind, many }: Field) {
  const trial = stages.find((s) => s.key === stageKey)?.trials.find((t) => t.id === trialId);
  return trial && !many ? presentObservation(trial.observations, symbol, kind) : null;
}

/** The saved reading of a field of the trial in hand; what is only being typed is none. */
export function savedReading(entry: Pick<TrialEntry, "stage" | "trialId">, field: Field) {
  const trial = entry.stage.trials.find((t) => t.id === entry.trialId);
  const found = trial && presentObservation(trial.record.observations, field.symbol, field.kind);
  return found && !isDraft(found) ? found : null;
}
