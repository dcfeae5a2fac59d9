import { Type } from "@sinclair/typebox";
import { success } from "../result";
import type { RunStatus } from "../run";
import { type ChangeKind, refused } from "./change";
import { Closed } from "./parts";
import { msg } from "../text";

export const finishSchema = () => Type.Object({ intent: Type.Literal("finish") }, Closed);
export const reopenSchema = () => Type.Object({ intent: Type.Literal("reopen") }, Closed);
export const archiveSchema = () => Type.Object({ intent: Type.Literal("archive") }, Closed);

/** Sets the status of a run; `word` is what the trail calls it. */
const statusChange = (status: RunStatus, word: string): ChangeKind<unknown> => ({
  whenClosed: true,
  timers: true,
  apply(record, _request, context) {
    if (status === "finished" && !context.hasResult(record))
      return refused(msg`There is no result yet to finish the run with`);
    if (record.status === status) return refused(msg`The run is already ${status}`);
    const finishedAt = status === "open" ? null : (record.finishedAt ?? context.now);
    return success({
      record: { ...record, status, finishedAt },
      inverse: { do: "status", status: record.status, finishedAt: record.finishedAt },
      entry: { description: msg`${word} of the run` },
    });
  },
});

export const finish = statusChange("finished", "finishing");
export const reopen = statusChange("open", "reopening");
export const archive = statusChange("archived", "archiving");
