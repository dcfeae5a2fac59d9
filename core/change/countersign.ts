import { Type } from "@sinclair/typebox";
import { success } from "../result";
import { readersOf } from "../run";
import { msg } from "../text";
import { type ChangeKind, refused } from "./change";
import { Closed, type Made, Reason } from "./parts";

const Person = Type.String({ minLength: 1, maxLength: 120, pattern: "\\S" });

export const countersignSchema = () =>
  Type.Object(
    {
      intent: Type.Literal("countersign"),
      person: Person,
      /** What was looked at, or what should be known of it; may be empty. */
      note: Type.String({ maxLength: 500 }),
    },
    Closed,
  );

export const unlockSchema = () =>
  Type.Object({ intent: Type.Literal("unlock"), person: Person, reason: Reason }, Closed);

/** A second person confirms a finished run, which locks it. */
export const countersign: ChangeKind<Made<typeof countersignSchema>> = {
  whenClosed: true,
  apply(record, { person, note }, { now }) {
    if (record.status !== "finished")
      return refused(msg`Only a finished run is countersigned: finish it first`);
    const own = readersOf(record).find((reader) => reader.toLowerCase() === person.trim().toLowerCase());
    if (own !== undefined)
      return refused(msg`${own} took readings in this run: a second person countersigns it`);
    const by = { at: now, person: person.trim(), note: note.trim() };
    return success({
      record: { ...record, countersigned: by },
      inverse: { do: "countersign" },
      entry: {
        description: msg`run countersigned by ${by.person}`,
        detail: by.note === "" ? {} : { why: by.note },
      },
    });
  },
};

/** Reopens a countersigned run: the countersignature is removed, with the name and the reason in the trail. */
export const unlock: ChangeKind<Made<typeof unlockSchema>> = {
  whenClosed: true,
  whenCountersigned: true,
  timers: true,
  apply({ countersigned, ...record }, { person, reason }) {
    if (!countersigned) return refused(msg`This run is not countersigned`);
    return success({
      record: { ...record, status: "open", finishedAt: null },
      inverse: { do: "countersign" },
      entry: {
        description: msg`countersigned run reopened by ${person.trim()}`,
        detail: { from: msg`countersigned by ${countersigned.person}`, why: reason.trim() },
      },
    });
  },
};

/** Why a change of a countersigned run is refused. */
export const countersignedWords = (person: string) =>
  msg`This run is locked: ${person} countersigned it. Reopen it, with a reason, to change it`;
