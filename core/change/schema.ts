import { type Static, Type } from "@sinclair/typebox";
import { adaptSchema } from "./adapt";
import { chooseSchema } from "./choose";
import { chooseInputSchema } from "./choose-input";
import { countersignSchema, unlockSchema } from "./countersign";
import { enterSchema } from "./enter";
import { expectSchema } from "./expect";
import { fadedSchema } from "./faded";
import { holdAgainstSchema } from "./hold-against";
import { knowStageSchema } from "./know-stage";
import { makeAgainSchema } from "./make-again";
import { observeSchema } from "./observe";
import { redoSchema } from "./redo";
import { renameSchema } from "./rename";
import { rulesSchema } from "./rules";
import { archiveSchema, finishSchema, reopenSchema } from "./status";
import { restoreReadingSchema, strikeReadingSchema } from "./strike-reading";
import { takeSchema } from "./take";
import { beginTimerSchema, endTimerSchema, startTimerSchema } from "./timer";
import { addTraceSchema, bringBackSchema, putAwaySchema } from "./trace";
import { labelSchema, markSchema, restoreSchema, strikeSchema } from "./trial";
import { undoSchema } from "./undo";

/** All changes of a run, as they are sent. */
export const RunChangeSchema = Type.Union([
  observeSchema(),
  enterSchema(),
  addTraceSchema(),
  startTimerSchema(),
  beginTimerSchema(),
  endTimerSchema(),
  fadedSchema(),
  rulesSchema(),
  putAwaySchema(),
  bringBackSchema(),
  strikeReadingSchema(),
  restoreReadingSchema(),
  chooseSchema(),
  chooseInputSchema(),
  knowStageSchema(),
  adaptSchema(),
  makeAgainSchema(),
  expectSchema(),
  holdAgainstSchema(),
  strikeSchema(),
  restoreSchema(),
  markSchema(),
  labelSchema(),
  renameSchema(),
  takeSchema(),
  finishSchema(),
  reopenSchema(),
  archiveSchema(),
  countersignSchema(),
  unlockSchema(),
  undoSchema(),
  redoSchema(),
]);
export type RunChange = Static<typeof RunChangeSchema>;
