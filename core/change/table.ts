import type { RunRecord } from "../run";
import { type Applied, type ChangeContext, type ChangeKind, refused } from "./change";
import { adapt } from "./adapt";
import { choose } from "./choose";
import { chooseInput } from "./choose-input";
import { countersign, countersignedWords, unlock } from "./countersign";
import { enter } from "./enter";
import { expectResult } from "./expect";
import { colorFaded } from "./faded";
import { holdAgainst } from "./hold-against";
import { knowStage } from "./know-stage";
import { makeAgain } from "./make-again";
import { observe } from "./observe";
import { redo } from "./redo";
import { rename } from "./rename";
import { rules } from "./rules";
import type { RunChange } from "./schema";
import { archive, finish, reopen } from "./status";
import { restoreReading, strikeReading } from "./strike-reading";
import { take } from "./take";
import { beginTimer, endTimer, startTimer } from "./timer";
import { addTrace, bringBack, putAway } from "./trace";
import { label, mark, restore, strike } from "./trial";
import { undo } from "./undo";
import { msg } from "../text";

type Intent = RunChange["intent"];

/** All kinds of change, by what they are sent as. */
const kinds: { readonly [I in Intent]: ChangeKind<Extract<RunChange, { intent: I }>> } = {
  observe,
  enter,
  trace: addTrace,
  "start-timer": startTimer,
  "begin-timer": beginTimer,
  "end-timer": endTimer,
  faded: colorFaded,
  rules,
  "put-away": putAway,
  "bring-back": bringBack,
  "strike-reading": strikeReading,
  "restore-reading": restoreReading,
  choose,
  "choose-input": chooseInput,
  "know-stage": knowStage,
  adapt,
  "make-again": makeAgain,
  expect: expectResult,
  "hold-against": holdAgainst,
  strike,
  restore,
  mark,
  label,
  rename,
  take,
  finish,
  reopen,
  archive,
  countersign,
  unlock,
  undo,
  redo,
};

/** The kind of a change; the union of changes is matched with the table of kinds here, and nowhere else. */
const kindOf = (change: RunChange) => kinds[change.intent] as ChangeKind<RunChange>;

export const isRunChange = (request: { readonly intent: string }): request is RunChange =>
  Object.hasOwn(kinds, request.intent);

/** What a change makes of a record, or why it is not made. Pure: browser and server apply the same. */
export function applyChange(record: RunRecord, change: RunChange, context: ChangeContext): Applied {
  const kind = kindOf(change);
  if (record.countersigned && !kind.whenCountersigned)
    return refused(countersignedWords(record.countersigned.person));
  if (record.status !== "open" && !kind.whenClosed)
    return refused(msg`This run is finished: reopen it to change it`);
  return kind.apply(record, change, context);
}

/** The record after changes, one after the other; those that cannot be made are left out. */
export const afterChanges = (
  record: RunRecord,
  changes: readonly RunChange[],
  context: (change: RunChange, i: number) => ChangeContext,
): RunRecord =>
  changes.reduce((now, change, i) => {
    const applied = applyChange(now, change, context(change, i));
    return applied.ok && applied.value ? applied.value.record : now;
  }, record);

/** Changes that can wait until the server is reached: each carries an id, so that it is made once. */
export const canWait = (change: RunChange): boolean => kindOf(change).waits === true;

/** Whether a change can alter the timers that all screens show. */
export const changesTimers = (change: RunChange): boolean => kindOf(change).timers === true;

/** True where a change makes no sense without an earlier one: a reading of the same trial, the end of the same timer. */
export const dependsOn = (later: RunChange, earlier: RunChange): boolean => {
  const namesOf = (change: RunChange) => kindOf(change).names?.(change) ?? [];
  const named = new Set(namesOf(earlier));
  return namesOf(later).some((id) => named.has(id));
};
