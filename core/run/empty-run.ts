import type { RunRecord } from "./run-record";
import { isPreselected } from "../record";

/** True while nothing was ever read in a run: only then may it be deleted. */
export const isEmptyRun = ({ stages }: Pick<RunRecord, "stages">): boolean =>
  stages.every(
    (s) =>
      s.observations.every(isPreselected) &&
      (s.traces ?? []).length === 0 &&
      s.trials.every((t) => t.observations.length === 0),
  );
