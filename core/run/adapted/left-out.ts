import { msg } from "../../text";
import { canLeaveOut } from "../left-out";
import type { Adaptation } from "./adaptation";

/** A stage that is not done in a run, and nothing that rests on it: see `withoutStages`. */
export const leftOut = {
  fits: (stage, method) => canLeaveOut(method, stage),
  apply: (stage) => stage,
  words: { on: msg`left out of this run`, off: msg`done in this run` },
  refused: msg`Without this stage nothing would be left to do`,
} satisfies Adaptation;
