import { Type } from "@sinclair/typebox";
import { success } from "../result";
import { type ChangeKind, refused } from "./change";
import { takeBack } from "./take-back";
import { Closed, Id, type Made } from "./parts";
import { msg } from "../text";

export const undoSchema = () => Type.Object({ intent: Type.Literal("undo"), eventId: Id }, Closed);

/** Takes the last change back. It cannot be taken back itself: the inverse that it returns is that of the change it undid. */
export const undo: ChangeKind<Made<typeof undoSchema>> = {
  whenClosed: true,
  timers: true,
  apply(record, { eventId }, context) {
    const { last } = context;
    if (last?.id !== eventId || !last)
      return refused(msg`Something else has been changed since: look again before you undo`);
    const taken = takeBack(record, last.inverse, context);
    if (!taken.ok) return taken;
    return success({ record: taken.value, inverse: last.inverse, entry: { description: "undo" } });
  },
};
