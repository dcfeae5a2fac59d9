import type { Field } from "~/core/inputs";
import { fieldKey, persistenceOf } from "~/core/method";
import type { ObservationKind, TimerRecord } from "~/core/record";
import type { TitrationEvaluation } from "~/core/stages";
import { happen, readDrafts } from "../../../entry/drafts";
import { answerIn, confirmIn, dropIn, type Entered, type Entry, stateIn } from "../../../entry/entry";
import { isOpen } from "../../../entry/field";
import type { Send } from "../../../entry/use-run";
import { isTaken, type ChangeOutcome } from "../../../live/post";
import { endWatch } from "./end-watch";
import { type Phrase, inEnglish } from "~/core/text";

type Source = "typed" | "instrument";

/** What is done with the fields of the trial in hand is done with these. */
export interface Acting {
  readonly send: Send;
  /** The stage as it would be if what is typed were saved. */
  readonly stage: TitrationEvaluation;
  readonly stageKey: string;
  readonly kind: "rough" | "fine";
  readonly timers: readonly TimerRecord[];
  readonly fields: readonly Field[];
  readonly outOfTurn: readonly Field[];
  readonly entryOf: (trialId: string) => Entry;
  readonly idInHand: () => string;
}

/** What the second of two readings is kept as. */
export const secondKind: Partial<Record<ObservationKind, ObservationKind>> = {
  "burette.initial": "burette.initial.again",
  "burette.final": "burette.final.again",
};

/** Sends readings of a trial one by one; how they stand is told beside their field. */
async function save(
  { send, stageKey }: Acting,
  { place }: Pick<Entry, "place">,
  entered: readonly Entered[],
  source: Source = "typed",
): Promise<ChangeOutcome | undefined> {
  const answers = await Promise.all(
    entered.map(({ id, field, text, again }) =>
      send({
        ...{ intent: "observe", id, stageKey, trial: { id: place.trialId, kind: place.kind } },
        ...{ symbol: field.symbol, kind: again ? (secondKind[field.kind] ?? field.kind) : field.kind, text },
        ...{ supersedes: null, reason: null, source },
      }),
    ),
  );
  const outcome = answers.find((answer) => !isTaken(answer)) ?? answers[0];
  if (outcome) answerIn({ place }, entered, outcome);
  return outcome;
}

/**
 * A flask that is titrated stands no more, and what goes on after an end ends the stopwatch of the flask before; the end of a trial
 * that counts starts its own.
 */
function watchEnds({ send, stage, stageKey, kind, timers }: Acting, field: Field, trialId: string): void {
  const isEnd = field.kind === "burette.final" && field.symbol === stage.titer;
  for (const { id: timerId, counts, endedAt, startedAt, trialId: of } of timers) {
    const over = counts === "persist" ? of !== trialId : isEnd && of === trialId;
    if (endedAt === null && over)
      void send({ intent: "end-timer", timerId, outcome: startedAt === null ? "dropped" : "done" });
  }
  const seconds = persistenceOf(stage.definition, kind);
  if (!isEnd || seconds === null) return;
  const flask = stage.trials.find((t) => t.id === trialId)?.words ?? "";
  void send(endWatch(stageKey, trialId, inEnglish(flask), seconds));
}

/** Saves what was confirmed of a field, and what goes with it. */
export function saveEntered(acting: Acting, of: Entry, entered: readonly Entered[], source?: Source): void {
  const [first] = entered;
  if (!first) return;
  void save(acting, of, entered, source).then((outcome) => {
    // A reading that is refused ends no timer: time cannot be taken back.
    if (outcome && isTaken(outcome)) watchEnds(acting, first.field, of.place.trialId);
  });
}

/** Fields of the row up to this one; one that stands beside the row is alone. */
const upTo = ({ fields }: Acting, field: Field): readonly Field[] =>
  field.outOfTurn ? [field] : fields.slice(0, 1 + fields.findIndex((f) => fieldKey(f) === fieldKey(field)));

/** Checks and saves a field, and those before it that were left as offered. True when nothing stands in the way. */
export function commit(acting: Acting, field: Field): boolean {
  const of = acting.entryOf(acting.idInHand());
  for (const f of upTo(acting, field)) {
    const last = fieldKey(f) === fieldKey(field);
    if (!last && stateIn(of, f).text === "") continue;
    const entered = confirmIn({ ...of, asks: last }, f);
    if (entered !== "held") saveEntered(acting, of, entered);
    // A reading before it that is wrong says so, and holds up nothing.
    else if (last || stateIn(of, f).is !== "refused") return false;
  }
  return true;
}

/** Writes a reading that is there already: a steady value from an instrument, or a mark that was chosen for the end. */
export function take(acting: Acting, field: Field, shown: string, source: Source): void {
  const of = acting.entryOf(acting.idInHand());
  const entered = confirmIn(of, field, shown);
  if (entered === "held") return;
  // A start that was left as offered belongs to it as well.
  const { place, facts, check } = of;
  for (const f of upTo(acting, field).slice(0, -1)) {
    const { text } = stateIn(of, f);
    if (text === "" || !check(f, text).ok) continue;
    const before = confirmIn({ place, facts, check }, f);
    if (before !== "held") saveEntered(acting, of, before);
  }
  saveEntered(acting, of, entered, source);
}

/** Marks what is typed as a place where the end may be; the field is empty again for the end. */
export function markPossibleEnd(acting: Acting, field: Field): void {
  const of = acting.entryOf(acting.idInHand());
  const mark = acting.outOfTurn.find((f) => f.kind === "burette.maybe" && f.symbol === field.symbol);
  const { text } = stateIn(of, field);
  if (!mark) return;
  const refuse = (message: Phrase) => {
    const problem = { severity: "stop", message } as const;
    happen(of.place, fieldKey(field), { ...{ on: "confirm", text, problem, ask: null }, newId: () => "" });
  };
  const checked = of.check(mark, text);
  if (!checked.ok) return refuse(checked.problem.message);
  // A start that was left as offered belongs to the mark as well.
  const start = upTo(acting, field)
    .slice(0, -1)
    .findLast((f) => f.symbol === field.symbol);
  if (start && isOpen(stateIn(of, start)) && !commit(acting, start)) return;
  dropIn(of, field);
  const { place, facts, check } = of;
  const marks = confirmIn({ place, facts, check }, mark, text);
  if (marks === "held") return;
  void save(acting, of, marks).then((outcome) => {
    if (!outcome || isTaken(outcome)) return;
    dropIn(of, mark);
    if (!readDrafts(place.key)?.fields[fieldKey(field)]) refuse(outcome.message);
  });
}
